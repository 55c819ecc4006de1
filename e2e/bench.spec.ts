import { AxeBuilder } from "@axe-core/playwright";
import { expect, type Page, saved, summary, test } from "./fresh.ts";

const kitchen = '[data-point="kitchen-cold:2"]';
const height = (page: Page) => page.locator(kitchen).getAttribute("aria-valuetext");

async function open(page: Page) {
  await page.goto("/");
  await page.getByRole("link", { name: /Sparrow/ }).click();
  await expect(summary(page)).toContainText("129 mL in 2 pools");
}

test("a height is dragged until a pool vanishes, undone, redone, and found again as it was left", async ({ page }) => {
  await open(page);
  const point = await page.locator(kitchen).boundingBox();
  if (!point) throw new Error("the low bend is not in the strip");
  const [x, y] = [point.x + point.width / 2, point.y + point.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let up = 0; up <= 70; up += 5) await page.mouse.move(x, y - up);
  await expect(summary(page)).toContainText("36 mL in 1 pool,");
  await expect(page.locator("[data-save]")).toHaveAttribute("data-save", "saved");
  await page.mouse.up();
  await saved(page);
  const left = await height(page);

  await page.keyboard.press("Control+z");
  await expect(summary(page)).toContainText("129 mL in 2 pools");
  expect(await height(page)).toBe("210 mm");
  await page.keyboard.press("Control+Shift+z");
  await expect(summary(page)).toContainText("36 mL in 1 pool,");
  await page.keyboard.press("Control+z");
  await expect(summary(page)).toContainText("129 mL in 2 pools");
  await page.keyboard.press("Control+Shift+z");
  await saved(page);

  await page.reload();
  await expect(summary(page)).toContainText("36 mL in 1 pool,");
  await page.getByRole("combobox", { name: "Run" }).click();
  await page.getByRole("option", { name: "kitchen cold" }).click();
  expect(await height(page)).toBe(left);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(summary(page)).toContainText("129 mL in 2 pools");
});

test("keys alone: choose a run, nudge a bend, type a height in inches, be told what is wrong with one", async ({ page }) => {
  await open(page);
  await page.getByRole("combobox", { name: "Run" }).focus();
  for (const [key, name] of [
    ["ArrowDown", "heater outlet"],
    ["ArrowUp", "kitchen cold"],
  ] as const) {
    await page.keyboard.press("Enter");
    await expect(page.locator("[role=option]:focus")).toHaveCount(1);
    await page.keyboard.press(key);
    await expect(page.locator("[role=option]:focus")).toContainText(name);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("combobox", { name: "Run" })).toHaveText(name);
  }
  await page.locator(kitchen).focus();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Shift+ArrowUp");
  await expect(page.locator(kitchen)).toHaveAttribute("aria-valuetext", "216 mm");
  const field = page.getByRole("textbox", { name: "Bend 2" });
  await field.fill("8 1/2 in");
  await field.press("Enter");
  await expect(field).toHaveValue("216 mm");
  await field.fill("8 cubits");
  await field.press("Enter");
  await expect(page.getByRole("alert")).toContainText("no unit of length");
  await field.fill("210");
  await field.press("Enter");
  await expect(page.locator(kitchen)).toHaveAttribute("aria-valuetext", "210 mm");
  await saved(page);
});

test("the night answers: heat keeps the kitchen, full lines freeze in the hatch, a slope holds the tank back", async ({ page }) => {
  await open(page);
  await page.getByRole("radio", { name: "Cold" }).click();
  await page.getByRole("radio", { name: "Full" }).click();
  const ladder = page.getByRole("region", { name: "Freeze ladder" });
  await expect(ladder.getByRole("button", { name: /^kitchen cold, kitchen cupboard/ })).not.toContainText("not tonight");
  await page.getByRole("switch", { name: "Heat" }).click();
  await expect(ladder.getByRole("button", { name: /^kitchen cold, kitchen cupboard/ })).toContainText("not tonight");
  await expect(ladder.getByRole("button", { name: /^outdoor shower/ })).toContainText("22:");
  await page.getByRole("slider", { name: "Parking pitch and roll" }).focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowRight");
  await expect(
    page
      .getByRole("region", { name: "Findings" })
      .getByRole("button", { name: /fresh tank/ })
      .first(),
  ).toBeVisible();
  await page.keyboard.press("Home");
});

test("a finding leads to its place, and its number can be asked why", async ({ page }) => {
  await open(page);
  const findings = page.getByRole("region", { name: "Findings" });
  await findings.getByRole("button", { name: /shower hot/ }).click();
  await expect(page.getByRole("combobox", { name: "Run" })).toHaveText("shower hot");
  await expect(findings).toContainText("Ice here breaks: outdoor shower");
  await findings.getByRole("button", { name: /^Why/ }).click();
  await expect(page.getByRole("dialog")).toContainText("lowest crest");
});

test("two windows on one rig: the later save is refused, kept, and can go on", async ({ page, context }) => {
  await open(page);
  const other = await context.newPage();
  await open(other);
  await page.locator(kitchen).press("ArrowUp");
  await saved(page);
  await other.locator(kitchen).press("PageUp");
  await expect(other.getByRole("dialog")).toContainText("saved elsewhere");
  await other.getByRole("button", { name: "Go on with this one" }).click();
  await saved(other);
  await page.reload();
  await expect(page.locator(kitchen)).toHaveAttribute("aria-valuetext", "235 mm");
  await page.locator(kitchen).press("PageDown");
  await saved(page);
});

test("a rig file is saved, opened again, and refused with field and reason when it is wrong", async ({ page }) => {
  await open(page);
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Save to file" }).click()]);
  const rig = await (await fetch(new URL("/api/rigs/sparrow/file", page.url()))).text();
  expect(download.suggestedFilename()).toBe("sparrow.rig.json");
  await page.getByRole("link", { name: "Rigs" }).click();
  const input = page.getByLabel("Rig file");
  await input.setInputFiles({
    name: "bad.json",
    mimeType: "application/json",
    buffer: Buffer.from(rig.replace('"pex-1/2"', '"bamboo"')),
  });
  await expect(page.getByRole("dialog")).toContainText("runs[0].pipe there is no pipe 'bamboo'");
  await page.getByRole("button", { name: "Close" }).click();
  await input.setInputFiles({ name: "good.json", mimeType: "application/json", buffer: Buffer.from(rig) });
  await expect(page).toHaveURL(/\/rigs\/sparrow-2$/);
  await page.goto("/");
  await page.getByRole("button", { name: "Take Sparrow off the shelf" }).last().click();
  await page.getByRole("button", { name: "Take it off" }).click();
  await expect(page.getByRole("link", { name: /Sparrow/ })).toHaveCount(1);
});

for (const theme of ["light", "dark"] as const) {
  test(`no serious fault of access on either place, ${theme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: theme });
    for (const place of ["/", "/rigs/sparrow"]) {
      await page.goto(place);
      await page.locator("svg path[stroke='var(--stays)']").first().waitFor({ state: "attached" });
      const { violations } = await new AxeBuilder({ page }).analyze();
      const serious = violations.filter((v) => v.impact === "serious" || v.impact === "critical");
      expect(serious.map((v) => `${v.id}: ${v.nodes.map((n) => n.html).join(" ")}`)).toEqual([]);
    }
  });
}

test("at 1024 by 768 everything is on the screen, and targets are large enough for a wet finger", async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await open(page);
  await expect(page.getByRole("slider", { name: "Parking pitch and roll" })).toBeInViewport({ ratio: 1 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
  const small = await page
    .locator("header button, header a, ol button")
    .evaluateAll((all) => all.filter((e) => e.getBoundingClientRect().height < 39.5).map((e) => e.outerHTML));
  expect(small).toEqual([]);
});
