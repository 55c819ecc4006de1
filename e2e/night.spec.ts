import { expect, saved, test } from "./fresh.ts";

test("the night: what goes first, an hour looked at, the heat failing where it is dragged, a winter's night", async ({ page }) => {
  await page.goto("/rigs/sparrow/night");
  const told = page.locator("[data-outlook]");
  await expect(told).toContainText("Freeze damage");
  await expect(told).toContainText("shower hot, shower hatch breaks about 00:00 next day");
  const ladder = page.getByLabel("What freezes when");
  await expect(ladder.getByRole("heading", { name: /shower hatch/ })).toBeVisible();
  await expect(page.getByRole("heading", { name: "06:00 next day" })).toBeVisible();
  await page.getByRole("slider", { name: "Hour", exact: true }).press("ArrowLeft");
  await expect(page.getByRole("heading", { name: "05:00 next day" })).toBeVisible();
  // Played, the night runs on to its end.
  await page.getByRole("button", { name: "Play the night" }).click();
  await expect(page.getByRole("heading", { name: "10:00 next day" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Play the night" })).toBeVisible();
  for (let n = 0; n < 5; n++) await page.getByRole("slider", { name: "Hour", exact: true }).press("ArrowLeft");

  // Heated it stands; once the heat fails it does not, and the hour of that is dragged.
  await page.getByRole("radio", { name: "Full" }).click();
  await page.getByRole("switch", { name: "Heat", exact: true }).click();
  const course = page.getByRole("region", { name: "Events" });
  await course.getByLabel("No events").selectOption("heatFails");
  const fails = course.getByRole("slider", { name: "heat fails, from" });
  await expect(fails).toHaveAttribute("aria-valuetext", "02:00 next day");
  await fails.press("ArrowLeft");
  await expect(fails).toHaveAttribute("aria-valuetext", "01:45 next day");
  // The answer goes with it: the sooner the heat fails, the less the heater has given; and as before where it fails as before.
  const given = page.getByRole("region", { name: "Cold and heat, until morning" }).getByRole("img", { name: /^living space: [\d, ]+ Wh$/ });
  const sum = async () => ((await given.getAttribute("aria-label")) ?? "").match(/\d+/g)?.reduce((all, wh) => all + Number(wh), 0) ?? 0;
  await expect(page.locator("[data-answers]")).toHaveAttribute("data-answers", "current");
  await expect.poll(sum).toBeGreaterThan(0);
  const before = await sum();
  const box = await fails.boundingBox();
  if (!box) throw new Error("no handle");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 120, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(fails).not.toHaveAttribute("aria-valuetext", "01:45 next day");
  await expect.poll(sum).toBeLessThan(before);
  await page.keyboard.press("Control+z");
  await expect(fails).toHaveAttribute("aria-valuetext", "01:45 next day");
  await expect.poll(sum).toBe(before);

  await page.getByRole("radio", { name: "A winter's night" }).click();
  await page.getByLabel("Place, invented").selectOption("osmerPlain");
  await expect(page.locator("[data-hours]")).toBeVisible();
  await expect(page.getByLabel("Night", { exact: true })).toContainText("14 Jan");
  await page.getByRole("tab", { name: "Confidence" }).click();
  await expect(page.getByLabel("Biggest uncertainties")).toContainText(/Measure .* first|Nothing freezes/);
  await page.getByRole("tab", { name: "Winter" }).click();
  await expect(page.getByLabel("Cold limit")).toContainText(/safe|breaks|Nothing/);
  await expect(page.locator("[data-brief]")).toContainText(
    "The brief asks for 4.3 d without heat at −9.0 °C, drained: shower hot, shower hatch breaks after 1.9 h",
  );
  await expect(page.getByRole("region", { name: "Winter", exact: true })).toContainText(/In \d of 5 winters/);

  // How long and how far it lies below zero, outdoors and around each part, and what heaters give.
  await page.getByRole("tab", { name: "Tonight" }).click();
  const sums = page.getByRole("region", { name: "Cold and heat, until morning" });
  await expect(sums.getByRole("row", { name: /^outdoors/ })).toContainText("°C");
  await expect(sums.getByRole("img", { name: /^living space: [\d, ]+ Wh$/ })).toBeVisible();
  await sums.getByRole("radio", { name: "Parts" }).click();
  await expect(sums.getByRole("row", { name: /grey dump valve/ })).toBeVisible();

  // A hundred winters are drawn in lots, and stopped at those that there are.
  await page.getByRole("tab", { name: "Winter" }).click();
  const winter = page.getByRole("region", { name: "Winter", exact: true });
  await winter.getByRole("button", { name: "Calculate 100 winters" }).click();
  await expect(winter.getByRole("progressbar", { name: "Winters" })).toBeVisible();
  await winter.getByRole("button", { name: /^Stop at/ }).click();
  await expect(winter).toContainText(/In \d+ of (5|10|25|50) winters/);
  await expect(winter.getByRole("button", { name: "Calculate 100 winters" })).toBeEnabled();

  // The bench says which night it is about, and can make it a steady one again.
  await page.getByRole("link", { name: "Bench" }).click();
  const strip = page.getByRole("region", { name: "Night" });
  await expect(strip).toContainText("Osmer Plain, 14 Jan");
  await expect(strip).toContainText("heat fails");
  await expect(strip.getByRole("slider", { name: "Outdoor temperature" })).toHaveCount(0);
  await strip.getByRole("button", { name: "Use a steady night" }).click();
  await expect(strip.getByRole("slider", { name: "Outdoor temperature" })).toBeVisible();

  // All views are coloured as they are at the hour that was looked at there, at another one, and in the morning again.
  await page.getByRole("radio", { name: "Cold" }).click();
  const hour = page.getByRole("slider", { name: "Hour", exact: true });
  await expect(hour).toHaveAttribute("aria-valuetext", "05:00 next day");
  const garage = page.getByText(/^garage −?\d/).first();
  const then = await garage.textContent();
  await hour.press("Home");
  await expect(hour).toHaveAttribute("aria-valuetext", /^\d\d:00$/);
  await expect(garage).not.toHaveText(then ?? "");
  await page.getByRole("button", { name: "Back to the morning" }).click();
  await expect(hour).toHaveAttribute("aria-valuetext", "morning");
});

test("weather of one's own: a table is read, and a broken one is told by line and column", async ({ page }) => {
  await page.goto("/rigs/sparrow/night");
  await page.getByRole("radio", { name: "A file" }).click();
  const file = page.getByLabel("Weather file");
  await file.setInputFiles({ name: "bad.csv", mimeType: "text/csv", buffer: Buffer.from("temperature,wind\n-3,2\n-4,much\n") });
  await expect(page.getByRole("alert")).toContainText("line 3, column 2: “much” is no number");
  const rows = Array.from({ length: 48 }, (_, h) => `${-2 - (h % 24) / 4},${h % 5},0.5`).join("\n");
  await file.setInputFiles({ name: "good.csv", mimeType: "text/csv", buffer: Buffer.from(`temperature,wind,cloud\n${rows}\n`) });
  await expect(page.getByLabel("Night", { exact: true })).toContainText("48 hours");
  await expect(page.getByLabel("Night", { exact: true })).toContainText("day 1, hour 12: its coldest");
});

test("a plan is kept with the rig, taken up again, and laid over another", async ({ page }) => {
  await page.goto("/rigs/lantern/night");
  const course = page.getByRole("region", { name: "Events" });
  const plans = page.getByRole("region", { name: "Plans" });
  await plans.getByRole("button", { name: "Compare with…" }).click();
  await expect(plans).toContainText("Nothing freezes at another time");
  await course.getByLabel("No events").selectOption("away");
  await course.getByLabel("Thermostat, if any").fill("2");
  await course.getByLabel("Thermostat, if any").press("Enter");
  await expect(course.getByLabel("Thermostat, if any")).toHaveValue(/°C/);
  await course.getByLabel("Add").selectOption("open");
  await course.getByLabel("Area").fill("1");
  await course.getByLabel("Area").press("Enter");
  await expect(course.getByLabel("Area")).toHaveValue(/m²/);
  // Held by warm lines nothing freezes: the heat fails too.
  await course.getByLabel("Add").selectOption("heatFails");
  await expect(page.locator("[data-under]").first()).toBeAttached();
  await expect(page.getByRole("table").filter({ hasText: "before" })).toContainText("no ice");
  // What happens has made it a plan of the rig; it gets a name.
  await plans.getByLabel("Its name").fill("Window left open");
  await plans.getByLabel("Its name").press("Enter");
  await expect(plans.getByRole("option", { name: "Window left open" })).toBeAttached();
  await saved(page);
  // An event is undone like any other change.
  await course.getByRole("button", { name: "everybody away" }).click();
  await course.getByRole("button", { name: "Delete event" }).click();
  await expect(course.locator("[data-event]")).toHaveCount(2);
  await page.keyboard.press("Control+z");
  await expect(course.locator("[data-event]")).toHaveCount(3);
  // How it is left is changed beside the plan, and taken up again with it.
  await page.getByRole("switch", { name: "Heat", exact: true }).click();
  await expect(plans.getByRole("button", { name: "Update “Window left open”" })).toBeVisible();
  await plans.getByLabel("Saved with the rig").selectOption({ label: "None" });
  await expect(course.locator("[data-event]")).toHaveCount(0);
  await plans.getByLabel("Saved with the rig").selectOption({ label: "Window left open" });
  await expect(course.locator("[data-event]")).toHaveCount(3);
  await expect(plans.getByRole("button", { name: /^Update/ })).toHaveCount(0);
  await plans.getByRole("button", { name: "Delete “Window left open”" }).click();
  await saved(page);
  await expect(plans.getByRole("option", { name: "Window left open" })).toHaveCount(0);
  await plans.getByLabel("Saved with the rig").selectOption({ label: "Heat fails at two" });
  await expect(page.locator("[data-doubt]")).toContainText("after the heat stops");
});

test("thermometers set the rooms: read, fitted, taken over, and taken back", async ({ page }) => {
  await page.goto("/rigs/sparrow/night");
  await page.getByRole("tab", { name: "Confidence" }).click();
  const panel = page.getByRole("region", { name: "Calibration" });
  const box = panel.getByLabel(/Readings, a line each/);
  await box.fill("hour,outdoors,living space\n0,-5,warm");
  await panel.getByRole("button", { name: "Fit rooms" }).click();
  await expect(panel.getByRole("alert")).toContainText("line 2: add at least 12 readings");
  const rows = Array.from({ length: 49 }, (_, i) => {
    const h = i / 4;
    return `${h},-6,${(-6 + 24 * Math.exp(-h / 3)).toFixed(2)},${(-6 + 14 * Math.exp(-h / 2.2)).toFixed(2)}`;
  });
  await box.fill(`hour,outdoors,living space,garage\n${rows.join("\n")}`);
  await panel.getByRole("button", { name: "Fit rooms" }).click();
  const living = panel.getByRole("row", { name: /living space, to outdoors/ });
  await expect(living).toHaveAttribute("data-determined", "true");
  await expect(panel).toContainText("No heater of known watts ran");
  await panel.getByRole("button", { name: "Use these values" }).click();
  await saved(page);
  await expect(page.getByText("Rests on a measurement of garage, living space.")).toBeVisible();
  await panel.getByRole("button", { name: "Use typed values" }).click();
  await saved(page);
  await expect(page.getByText("Rests on a measurement of")).toHaveCount(0);
});

test("insulation that pays is done, and a tank is set in another place", async ({ page }) => {
  await page.goto("/rigs/sparrow/night");
  await page.getByRole("tab", { name: "Improve" }).click();
  const pays = page.getByRole("region", { name: "Insulation" });
  await expect(pays.getByRole("region", { name: "The best in order" })).toContainText("shower hatch, hatch door: 20 mm of insulation more");
  const first = pays.locator("[data-option]").first();
  await expect(first).toContainText("00:00 next day → 01:45 next day");
  await pays.getByRole("radio", { name: "per mm" }).click();
  await expect(pays.getByRole("columnheader", { name: "per mm" })).toBeVisible();
  // By one's own prices, typed there: a board by the square metre.
  await expect(pays.getByRole("radio", { name: "per money" })).toHaveCount(0);
  await pays.getByRole("button", { name: "Your prices" }).click();
  const price = page.getByRole("textbox", { name: "XPS board, a square metre, 20 mm thick" });
  await price.fill("12.5");
  await price.press("Enter");
  await expect(page.getByRole("button", { name: "No price for XPS board, a square metre, 20 mm thick" })).toBeVisible();
  await page.getByRole("button", { name: "Done" }).click();
  await pays.getByRole("radio", { name: "per money" }).click();
  await expect(pays.getByRole("columnheader", { name: "per money" })).toBeVisible();
  await pays.getByRole("radio", { name: "Hours" }).click();
  // What is looked at is dashed in the drawing beside it.
  const ghost = page.getByRole("region", { name: "Rig at this hour" }).locator("[data-fix-ghost] rect");
  await expect(ghost).toHaveCount(0);
  await first.hover();
  await expect(ghost).toHaveCount(1);
  await expect(ghost.first()).toBeInViewport();
  await first.getByRole("button", { name: /^Apply: shower hatch/ }).click();
  await saved(page);
  await expect(page.locator("[data-outlook]")).toContainText("about 01:45 next day");

  const places = page.getByRole("region", { name: "Tank places" });
  await expect(places.getByRole("columnheader", { name: /boxed in under the floor/ })).toBeVisible();
  await expect(places.getByRole("row", { name: /Takes room inside/ })).toContainText("none");
  await places.getByRole("button", { name: "Move it boxed in under the floor" }).click();
  await saved(page);
  await expect(places.getByRole("columnheader", { name: /tank box/ })).toContainText("where it is");
});

test.describe("by touch", () => {
  test.use({ hasTouch: true, viewport: { width: 1024, height: 768 } });

  test("what is tried is looked at from one tap to the next", async ({ page }) => {
    await page.goto("/rigs/sparrow/night");
    await page.getByRole("tab", { name: "Improve" }).tap();
    const [first, second] = [page.locator("[data-option]").first(), page.locator("[data-option]").nth(1)];
    const ghost = page.getByRole("region", { name: "Rig at this hour" }).locator("[data-fix-ghost] > *");
    await first.getByRole("cell").first().tap();
    await expect(ghost.first()).toBeInViewport();
    await second.getByRole("cell").first().tap();
    await second.getByRole("cell").first().tap();
    await expect(ghost).toHaveCount(0);
    await page.getByRole("columnheader", { name: /boxed in under the floor/ }).tap();
    await expect(ghost).not.toHaveCount(0);
    // Held upright there is no room beside it: it lies over the foot of the screen.
    await page.setViewportSize({ width: 768, height: 1024 });
    await first.getByRole("cell").first().tap();
    await expect(ghost.first()).toBeInViewport();
    await first.getByRole("button", { name: /^Apply/ }).tap();
    await saved(page);
    await expect(page.locator("[data-outlook]")).toContainText("about 01:45 next day");
  });
});
