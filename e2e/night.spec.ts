import { expect, test } from "./fresh.ts";

test("the night: what goes first, an hour looked at, the heat failing where it is dragged, a winter's night", async ({ page }) => {
  await page.goto("/rigs/sparrow/night");
  const told = page.locator("[data-verdict]").first();
  await expect(told).toContainText("Ice breaks something");
  await expect(told).toContainText("shower hot, shower hatch, about 23:45");
  const ladder = page.getByLabel("What freezes when");
  await expect(ladder.getByRole("heading", { name: /shower hatch/ })).toBeVisible();
  await expect(page.getByRole("heading", { name: "At 06:00 next day" })).toBeVisible();
  await page.getByRole("slider", { name: "Hour", exact: true }).press("ArrowLeft");
  await expect(page.getByRole("heading", { name: "At 05:00 next day" })).toBeVisible();

  // Heated it stands; once the heat fails it does not, and the hour of that is dragged.
  await page.getByRole("radio", { name: "Full" }).click();
  await page.getByRole("switch", { name: "Heat", exact: true }).click();
  await page.getByRole("switch", { name: "Heat fails" }).click();
  const fails = page.getByRole("slider", { name: "The heat fails" });
  await expect(fails).toHaveAttribute("aria-valuetext", "02:00 next day");
  await fails.press("ArrowLeft");
  await expect(fails).toHaveAttribute("aria-valuetext", "01:45 next day");
  const box = await fails.locator("rect").boundingBox();
  if (!box) throw new Error("no handle");
  await page.mouse.move(box.x + box.width / 2, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 120, box.y + 60, { steps: 5 });
  await page.mouse.up();
  await expect(fails).not.toHaveAttribute("aria-valuetext", "01:45 next day");

  await page.getByRole("radio", { name: "A winter's night" }).click();
  await page.getByLabel("Place, invented").selectOption("osmerPlain");
  await expect(page.locator("[data-hours]")).toBeVisible();
  await expect(page.getByLabel("What the night is made of")).toContainText("14 Jan");
  await expect(page.getByLabel("Which guess matters")).toContainText(/Measure .* first|Nothing freezes/);
  await expect(page.getByLabel("How cold, and for how long")).toContainText(/stands|breaks|Nothing/);
  await expect(page.getByLabel("The winter", { exact: true })).toContainText(/In \d of 5 winters/);

  // The bench says which night it is about, and can make it a steady one again.
  await page.getByRole("link", { name: "Bench" }).click();
  const strip = page.getByRole("region", { name: "The night" });
  await expect(strip).toContainText("Osmer Plain, 14 Jan");
  await expect(strip).toContainText("fails");
  await expect(strip.getByRole("slider", { name: "Outdoor temperature" })).toHaveCount(0);
  await strip.getByRole("button", { name: "Make it steady" }).click();
  await expect(strip.getByRole("slider", { name: "Outdoor temperature" })).toBeVisible();
});

test("weather of one's own: a table is read, and a broken one is told by line and column", async ({ page }) => {
  await page.goto("/rigs/sparrow/night");
  await page.getByRole("radio", { name: "A file" }).click();
  const file = page.locator("input[type=file]");
  await file.setInputFiles({ name: "bad.csv", mimeType: "text/csv", buffer: Buffer.from("temperature,wind\n-3,2\n-4,much\n") });
  await expect(page.getByRole("alert")).toContainText("line 3, column 2: “much” is no number");
  const rows = Array.from({ length: 48 }, (_, h) => `${-2 - (h % 24) / 4},${h % 5},0.5`).join("\n");
  await file.setInputFiles({ name: "good.csv", mimeType: "text/csv", buffer: Buffer.from(`temperature,wind,cloud\n${rows}\n`) });
  await expect(page.getByLabel("What the night is made of")).toContainText("48 hours");
  await expect(page.getByLabel("What the night is made of")).toContainText("day 1, hour 12: its coldest");
});
