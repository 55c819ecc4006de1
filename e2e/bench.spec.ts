import { AxeBuilder } from "@axe-core/playwright";
import { expect, type Page, pools, poolsMl, saved, summary, takeKitchenCold, test } from "./fresh.ts";

const kitchen = '[data-point="kitchen-cold:b2"]';
const height = (page: Page) => page.locator(kitchen).getAttribute("aria-valuetext");

async function open(page: Page) {
  await page.goto("/");
  await page.getByRole("link", { name: /Sparrow/ }).click();
  const left = await pools(page);
  await takeKitchenCold(page);
  return left;
}

test("a height is dragged until a pool vanishes, undone, redone, and found again as it was left", async ({ page }) => {
  const before = await open(page);
  const full = await poolsMl(page);
  const was = await height(page);
  const point = await page.locator(kitchen).boundingBox();
  if (!point) throw new Error("the low bend is not in the strip");
  const [x, y] = [point.x + point.width / 2, point.y + point.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let up = 0; up <= 70; up += 5) await page.mouse.move(x, y - up);
  await expect.poll(() => poolsMl(page)).toBeLessThan(full / 2);
  const less = await pools(page);
  await expect(page.locator("[data-save]")).toHaveAttribute("data-save", "saved");
  await page.mouse.up();
  await saved(page);
  const left = await height(page);

  await page.keyboard.press("Control+z");
  await expect(summary(page)).toContainText(`${before} in dips`);
  expect(await height(page)).toBe(was);
  await page.keyboard.press("Control+Shift+z");
  await expect(summary(page)).toContainText(`${less} in dips`);
  await page.keyboard.press("Control+z");
  await expect(summary(page)).toContainText(`${before} in dips`);
  await page.keyboard.press("Control+Shift+z");
  await expect(summary(page)).toContainText(`${less} in dips`);
  await saved(page);

  await page.reload();
  await expect(summary(page)).toContainText(`${less} in dips`);
  await page.getByRole("combobox", { name: "Run" }).click();
  await page.getByRole("option", { name: "kitchen cold" }).click();
  expect(await height(page)).toBe(left);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(summary(page)).toContainText(`${before} in dips`);
});

test("keys alone: choose a run, nudge a bend, type a height in inches, be told what is wrong with one", async ({ page }) => {
  await open(page);
  await page.getByRole("combobox", { name: "Run" }).focus();
  for (const [key, name] of [
    ["ArrowDown", "kitchen hot"],
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
  await page.getByRole("tab", { name: "Selected" }).click();
  const field = page.getByRole("textbox", { name: "Above floor" });
  await field.fill("8 1/2 in");
  await field.press("Enter");
  await expect(field).toHaveValue("216 mm");
  await field.fill("8 cubits");
  await field.press("Enter");
  await expect(page.getByRole("tabpanel").getByRole("alert")).toContainText("is not a unit of length");
  // Escape takes it back, and leaving the field does not keep what Escape took back.
  await field.press("Escape");
  await expect(field).toHaveValue("216 mm");
  await field.fill("210");
  await field.press("Enter");
  await expect(page.locator(kitchen)).toHaveAttribute("aria-valuetext", "210 mm");
  await saved(page);
});

test("the night answers: heat keeps the kitchen, full lines freeze in the hatch, a slope holds the tank back", async ({ page }) => {
  await open(page);
  await page.getByRole("radio", { name: "Cold" }).click();
  await page.getByRole("radio", { name: "Full" }).click();
  await page.getByRole("tab", { name: "Freezes" }).click();
  const ladder = page.getByRole("tabpanel");
  // Only the rows in sight are there.
  await page.setViewportSize({ width: 1280, height: 2400 });
  await expect(ladder.getByRole("button", { name: /^hot drain leg/ })).not.toContainText("not tonight");
  await page.getByRole("switch", { name: "Heat" }).click();
  await expect(ladder.getByRole("button", { name: /^hot drain leg/ })).toContainText("not tonight");
  await expect(ladder.getByRole("button", { name: /^outdoor shower/ })).toContainText("22:");
  await page.getByRole("slider", { name: "Parking pitch" }).focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowRight");
  await page.getByRole("tab", { name: /Issues/ }).click();
  await expect(
    page
      .getByRole("tabpanel")
      .getByRole("button", { name: /fresh tank/ })
      .first(),
  ).toBeVisible();
});

test("a finding leads to its place, and its number can be asked why", async ({ page }) => {
  await open(page);
  const findings = page.getByRole("tabpanel");
  await findings.getByRole("button", { name: /shower hot keeps/ }).click();
  await expect(page.getByRole("combobox", { name: "Run" })).toHaveText("shower hot");
  await expect(findings).toContainText("Ice here breaks: outdoor shower");
  await findings.getByRole("button", { name: /^Why/ }).click();
  // Beside the finding, not over it.
  await expect(findings.locator("[data-why]")).toContainText("lowest high point");
  await expect(findings).toContainText("Ice here breaks: outdoor shower");
});

test("a second window follows by itself, and each undoes only its own", async ({ page, context }) => {
  await open(page);
  const other = await context.newPage();
  await open(other);
  await page.locator(kitchen).press("ArrowUp");
  await saved(page);
  await expect(other.locator(kitchen)).toHaveAttribute("aria-valuetext", "215 mm");
  await expect(other.getByRole("button", { name: "Undo" })).toBeDisabled();
  await other.locator('[data-point="kitchen-cold:from"]').press("PageUp");
  await saved(other);
  await expect(page.locator('[data-point="kitchen-cold:from"]')).toHaveAttribute("aria-valuetext", "378 mm");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(other.locator(kitchen)).toHaveAttribute("aria-valuetext", "210 mm");
  await expect(other.locator('[data-point="kitchen-cold:from"]')).toHaveAttribute("aria-valuetext", "378 mm");
});

test("one thing changed in two windows at once is a clash: it is named, and both are kept and can be opened", async ({ page, context }) => {
  await open(page);
  const other = await context.newPage();
  await open(other);
  // A window that hears nothing and saves late.
  await other.route("**/api/rigs/sparrow/since/*", (route) => route.abort());
  await page.locator(kitchen).press("ArrowUp");
  await saved(page);
  await other.locator(kitchen).press("PageUp");
  const dialog = other.getByRole("dialog");
  await expect(dialog).toContainText("changed the same thing: kitchen cold");
  await dialog.getByRole("button", { name: "Keep mine" }).click();
  await saved(other);
  await page.reload();
  await takeKitchenCold(page);
  await expect(page.locator(kitchen)).toHaveAttribute("aria-valuetext", "235 mm");

  await page.locator(kitchen).press("ArrowUp");
  await saved(page);
  await other.locator(kitchen).press("PageDown");
  await dialog.getByRole("button", { name: "Keep both" }).click();
  await expect(other).toHaveURL(/sparrow-\d+$/);
  await takeKitchenCold(other);
  await expect(other.locator(kitchen)).toHaveAttribute("aria-valuetext", "210 mm");
  const copy = other.url().split("/").at(-1);
  await page.request.delete(`/api/rigs/${copy}?revision=2`);
});

test("twelve windows share one stream and all follow", { tag: "@long" }, async ({ page, context }) => {
  let streams = 0;
  context.on("request", (request) => {
    if (request.url().endsWith("/api/changes")) streams++;
  });
  const before = await open(page);
  const others = [];
  for (let n = 1; n < 12; n++) {
    const other = await context.newPage();
    await other.goto("/rigs/sparrow");
    await expect(summary(other)).toContainText(`${before} in dips`);
    await takeKitchenCold(other);
    others.push(other);
  }
  await page.locator(kitchen).press("ArrowUp");
  for (const other of others) await expect(other.locator(kitchen)).toHaveAttribute("aria-valuetext", "215 mm");
  expect(streams).toBe(1);
  // When the window that has the stream closes, another takes over.
  await page.close();
  const [second, third] = others as [Page, Page];
  await second.bringToFront();
  await second.locator(kitchen).press("ArrowUp");
  await expect(third.locator(kitchen)).toHaveAttribute("aria-valuetext", "220 mm");
  expect(streams).toBe(2);
});

test("a rig file is saved, opened again, and refused with field and reason when it is wrong", async ({ page }) => {
  await open(page);
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save to file" }).click()]);
  const rig = await (await fetch(new URL("/api/rigs/sparrow/file", page.url()))).text();
  expect(download.suggestedFilename()).toBe("sparrow.rig.json");
  await page.getByRole("link", { name: "Rigs", exact: true }).click();
  const input = page.getByLabel("Rig file");
  await input.setInputFiles({
    name: "bad.json",
    mimeType: "application/json",
    buffer: Buffer.from(rig.replace('"pex-1/2"', '"bamboo"')),
  });
  await expect(page.getByRole("dialog")).toContainText("line 1, pipe: there is no pipe 'bamboo'");
  await page.getByRole("button", { name: "Close" }).click();
  // A good one is let fall anywhere on the shelf.
  const files = await page.evaluateHandle((text) => {
    const dropped = new DataTransfer();
    dropped.items.add(new File([text], "good.json", { type: "application/json" }));
    return dropped;
  }, rig);
  await page.locator("main").dispatchEvent("drop", { dataTransfer: files });
  await expect(page).toHaveURL(/\/rigs\/sparrow-\d+$/);
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Sparrow (2)" })).toBeVisible();
  const off = async () => {
    await page.getByRole("button", { name: "Delete Sparrow (2)" }).click();
    await page.getByRole("button", { name: "Delete", exact: true }).click();
    await expect(page.getByRole("link", { name: /Sparrow/ })).toHaveCount(1);
  };
  await off();
  const gone = page.getByRole("region", { name: "Deleted" }).getByRole("listitem").filter({ hasText: "Sparrow (2)" });
  await gone.getByRole("button", { name: "Restore" }).first().click();
  await expect(page.getByRole("link", { name: /Sparrow/ })).toHaveCount(2);
  await off();
});

for (const theme of ["light", "dark"] as const) {
  test(`no serious fault of access on any place, ${theme}`, { tag: theme === "dark" ? "@long" : [] }, async ({ page }) => {
    // Eight places, each read whole.
    test.setTimeout(90_000);
    await page.emulateMedia({ colorScheme: theme });
    for (const [place, there] of [
      ["/", "svg path[stroke='var(--stays)']"],
      ["/rigs/sparrow", "svg path[stroke='var(--stays)']"],
      ["/rigs/sparrow/brief", "[data-follows]"],
      ["/rigs/sparrow/shell", "[data-zones]"],
      ["/rigs/sparrow/night", "[data-hours]"],
      ["/rigs/sparrow/weights", "[data-weights]"],
      ["/rigs/sparrow/drain", "[data-envelope]"],
      ["/new", "[data-draft=current] path"],
    ] as const) {
      await page.goto(place);
      await page.locator(there).first().waitFor({ state: "attached" });
      if (place.endsWith("shell")) {
        await page.getByRole("button", { name: /^living space/ }).click();
        await page.locator("[data-face]").first().waitFor();
      }
      // In the dark only colours are others.
      const reader = new AxeBuilder({ page });
      if (theme === "dark") reader.withRules("color-contrast");
      const { violations } = await reader.analyze();
      const serious = violations.filter((v) => v.impact === "serious" || v.impact === "critical");
      expect(serious.map((v) => `${v.id}: ${v.nodes.map((n) => n.html).join(" ")}`)).toEqual([]);
    }
  });
}

test("at 1024 by 768 everything is on the screen, and targets are large enough for a wet finger", async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await open(page);
  await expect(page.getByRole("slider", { name: "Parking pitch" })).toBeInViewport({ ratio: 1 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
  const small = await page
    .locator("header button, header a, ol button")
    .evaluateAll((all) => all.filter((e) => e.checkVisibility() && e.getBoundingClientRect().height < 39.5).map((e) => e.outerHTML));
  expect(small).toEqual([]);
});
