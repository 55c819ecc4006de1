import { readFile } from "node:fs/promises";
import { AxeBuilder } from "@axe-core/playwright";
import { expect, inspector, type Locator, openSparrow, rigOf, saved, summary, test } from "./fresh.ts";

for (const way of ["pointer", "keys"] as const) {
  test(`by ${way}: a part is placed, turned, moved, joined by a run with two bends, a tee put into another run, all taken out again`, async ({
    page,
  }) => {
    await openSparrow(page);
    const before = await rigOf(page, "sparrow");
    const press = async (what: Locator) => {
      if (way === "pointer") return what.click();
      await what.focus();
      await page.keyboard.press("Enter");
    };
    const find = async (text: string, name: RegExp) => {
      if (way === "pointer") await page.getByRole("button", { name: "Search" }).click();
      else await page.keyboard.press("Control+k");
      await page.getByPlaceholder(/A part, a run/).fill(text);
      const item = page.getByRole("option", { name }).first();
      if (way === "pointer") return item.click();
      await expect(item).toHaveAttribute("aria-selected", "true");
      await page.keyboard.press("Enter");
    };

    await find("place ball valve", /ball valve 15 mm/);
    const part = inspector(page, "part");
    await expect(part.getByRole("heading", { name: "ball valve 15 mm" })).toBeVisible();
    await press(part.getByRole("button", { name: "Turn" }));
    await saved(page);
    const fields = () => part.getByRole("textbox", { name: "Above floor" });
    const height = await fields().inputValue();
    if (way === "pointer") {
      await fields().fill("1 m");
      await fields().press("Enter");
    } else {
      await page.locator("[data-sheet]").focus();
      await page.keyboard.press("PageUp");
    }
    await expect(fields()).not.toHaveValue(height);
    await saved(page);

    await press(part.getByRole("button", { name: /^a no pipe yet/ }));
    const port = inspector(page, "port");
    await port.getByRole("combobox", { name: "Run from here to" }).selectOption({ index: 1 });
    const run = inspector(page, "run");
    await expect(run).toBeVisible();
    const id = (await run.getAttribute("data-inspector"))?.split("/")[1];
    await press(run.getByRole("listitem").first().getByRole("button"));
    const point = inspector(page, "point");
    for (const bends of [1, 2]) {
      await press(point.getByRole("button", { name: "Add a bend after" }));
      await expect.poll(async () => (await rigOf(page, "sparrow")).runs.find((r: { id: string }) => r.id === id).bends.length).toBe(bends);
    }
    await find("kitchen cold", /^kitchen cold\s*run/);
    await press(inspector(page, "run").getByRole("listitem").nth(1).getByRole("button"));
    await press(point.getByRole("button", { name: "Add a tee" }));
    await expect(part.getByRole("heading", { name: "tee, kitchen cold" })).toBeVisible();
    const during = await rigOf(page, "sparrow");
    expect([during.parts.length, during.runs.length]).toEqual([before.parts.length + 2, before.runs.length + 2]);

    // The way back leads through all of it; what was made alone is removed by its key.
    for (let n = 0; n < 3; n++) {
      await press(page.getByRole("button", { name: "Undo" }));
      await saved(page);
    }
    await find("ball valve 15", /^ball valve 15 mm\s*part/);
    await expect(part.getByRole("heading", { name: "ball valve 15 mm" })).toBeVisible();
    await page.locator("[data-sheet]").focus();
    await page.keyboard.press("Delete");
    await expect.poll(async () => (await rigOf(page, "sparrow")).runs.length).toBe(before.runs.length);
    expect((await rigOf(page, "sparrow")).parts.map((p: { id: string }) => p.id)).toEqual(before.parts.map((p: { id: string }) => p.id));
  });
}

test("Escape takes back a drag, and what it took back is not saved", async ({ page }) => {
  const before = await openSparrow(page);
  const bend = page.locator('[data-point="kitchen-cold:b2"]');
  const height = (await bend.getAttribute("aria-valuetext")) ?? "";
  const point = await bend.boundingBox();
  if (!point) throw new Error("the low bend is not in the strip");
  const [x, y] = [point.x + point.width / 2, point.y + point.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let up = 0; up <= 40; up += 5) await page.mouse.move(x, y - up);
  await expect(bend).not.toHaveAttribute("aria-valuetext", height);
  await page.keyboard.press("Escape");
  await expect(bend).toHaveAttribute("aria-valuetext", height);
  await page.mouse.up();
  await expect(summary(page)).toContainText(`${before} in dips`);
  await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled();
});

for (const [name, size] of [
  ["on a portrait tablet", { width: 768, height: 1024 }],
  ["at 150 %", { width: 853, height: 533 }],
  ["at 200 %", { width: 640, height: 400 }],
] as const) {
  test.describe(name, () => {
    test.use({ viewport: size, hasTouch: true });

    test("everything is reached by tabs and a page that scrolls", async ({ page }) => {
      await openSparrow(page);
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(size.width);
      for (const [tab, view] of [
        ["3D", "[data-corner]"],
        ["Side and plan", "[data-sheet]"],
      ] as const) {
        await page.getByRole("radio", { name: tab }).tap();
        await expect(page.locator(view)).toBeVisible();
      }
      for (const tab of ["Freezes", "Selected", /Issues/]) {
        await page.getByRole("tab", { name: tab }).tap();
        await expect(page.getByRole("tabpanel")).toBeVisible();
      }
      await page.getByRole("slider", { name: "Parking roll" }).scrollIntoViewIfNeeded();
      await expect(page.getByRole("slider", { name: "Parking roll" })).toBeInViewport();
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(violations.filter((v) => v.impact === "serious" || v.impact === "critical").map((v) => v.id)).toEqual([]);
    });
  });
}

test("a drawing is saved as it is seen: as SVG that stands alone, and as PNG, on white paper from a dark screen too", async ({ page }) => {
  await page.emulateMedia({ colorScheme: "dark" });
  await openSparrow(page);
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dark");
  for (const view of ["Side and plan", "Run profile"]) {
    await page.getByRole("button", { name: `Save or print, ${view}` }).click();
    const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("menuitem", { name: "Save as SVG" }).click()]);
    expect(download.suggestedFilename()).toMatch(/^Sparrow-.*\.svg$/);
    const svg = await readFile(await download.path(), "utf8");
    // Nothing of it is said by the page that it came from.
    expect(svg).not.toContain("var(--");
    expect(svg).toContain('xmlns="http://www.w3.org/2000/svg"');
    const alone = await page.context().newPage();
    await alone.setContent(svg);
    expect(await alone.locator("svg path").count()).toBeGreaterThan(10);
    await expect(alone.locator("svg > rect").first()).toHaveCSS("fill", "rgb(255, 255, 255)");
    await expect(alone.locator("svg text").first()).toHaveCSS("fill", /rgb\((20, 24, 27|84, 94, 101)\)/);
    await alone.close();
  }
  await page.keyboard.press("2");
  await page.locator("[data-corner] [data-picture] path").first().waitFor({ state: "attached" });
  await page.getByRole("button", { name: "Save or print, 3D" }).click();
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("menuitem", { name: "Save as PNG" }).click()]);
  const png = await readFile(await download.path());
  expect(png.subarray(1, 4).toString()).toBe("PNG");
  // Twice as fine as the screen.
  const seen = await page.locator("[data-corner]").boundingBox();
  expect(png.readUInt32BE(16)).toBeCloseTo(2 * (seen?.width ?? 0), -1);
  await page.emulateMedia({ media: "print" });
  await expect(page.locator("body")).toHaveCSS("background-color", "rgb(241, 243, 244)");
});

test("a drawing is printed alone, and the key says what strokes and marks mean", async ({ page }) => {
  await page.addInitScript(() => {
    window.print = () => {
      (window.top as Window & { printed?: string }).printed = document.body.innerHTML;
    };
  });
  await openSparrow(page);
  await page.keyboard.press("2");
  await page.locator("[data-corner] [data-picture] path").first().waitFor({ state: "attached" });
  await page.getByRole("button", { name: "Save or print, 3D" }).click();
  await page.getByRole("menuitem", { name: "Print" }).click();
  const paths = await page.evaluate(() => {
    const paper = document.createElement("div");
    paper.innerHTML = (window as Window & { printed?: string }).printed ?? "";
    return [...paper.querySelectorAll("body > *, svg path")].length;
  });
  expect(paths).toBeGreaterThan(50);
  await page.getByRole("button", { name: "All signs" }).click();
  const key = page.getByRole("dialog", { name: "Legend" });
  for (const words of ["cold", "coolant", "water left", "drain", "open end"]) await expect(key).toContainText(words);
});

test("a panel keeps its size from visit to visit, and grows by keys", async ({ page }) => {
  await openSparrow(page);
  const width = async () => (await page.locator("[data-sheet]").boundingBox())?.width ?? 0;
  const before = await width();
  const grip = page.getByRole("separator").last();
  await grip.focus();
  const kept = () => page.evaluate(() => JSON.stringify(Object.entries(localStorage).filter(([key]) => key.includes("bench-columns"))));
  const first = await kept();
  for (let n = 0; n < 4; n++) await page.keyboard.press("ArrowRight");
  // Until it has come to rest, and is kept.
  let wide = 0;
  await expect
    .poll(
      async () => {
        const now = await width();
        const rests = now === wide && now > before + 20 && (await kept()) !== first;
        wide = now;
        return rests;
      },
      { intervals: [300] },
    )
    .toBe(true);
  await page.reload();
  await expect.poll(width).toBeCloseTo(wide, -1);
});

test("a name of 80 characters breaks nothing, and a file saved right after an edit holds it", async ({ page }) => {
  await openSparrow(page);
  const long = "Sparrow with a very long name ".padEnd(80, "abcdefghi ").slice(0, 79).concat("x");
  await page.getByRole("button", { name: "Search" }).click();
  await page.getByPlaceholder(/A part, a run/).fill("fresh tank");
  await page
    .getByRole("option", { name: /^fresh tank/ })
    .first()
    .click();
  const name = inspector(page, "part").getByRole("textbox", { name: "Name" });
  await name.fill(long);
  await name.press("Enter");
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save to file" }).click()]);
  expect(await readFile(await download.path(), "utf8")).toContain(long);
  await expect(inspector(page, "part").getByRole("heading", { name: long })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280);
  const wide = await page
    .locator("aside, [role=tabpanel], header")
    .evaluateAll((all) => all.filter((e) => e.scrollWidth > e.clientWidth + 1).length);
  expect(wide).toBe(0);
});

test("a line begun on a port: a tap goes to the port, and what plan cannot tell is asked", async ({ page }) => {
  await openSparrow(page);
  await page.keyboard.press("r");
  await page.getByLabel("Start at").fill("outdoor shower spout");
  await page.getByLabel("Line being drawn").getByLabel("Start at").press("Enter");
  const plan = await page.locator("[data-view=plan]").boundingBox();
  if (!plan) throw new Error("no plan");
  await page.mouse.click(plan.x + plan.width * 0.4, plan.y + plan.height * 0.6);
  const height = page.getByLabel("Height of this bend");
  await height.fill("612 mm");
  await height.press("Enter");
  await page.getByRole("button", { name: "Finish here" }).click();
  const told = async () => (await rigOf(page, "sparrow")).runs.some((r: { to: { at?: { zM: number } } }) => r.to.at?.zM === 0.612);
  await expect.poll(told).toBe(true);
});

test("ports are named, a part is measured at a port, and points are walked along the whole way", async ({ page }) => {
  await openSparrow(page);
  // Along the way: past the end of the run in hand, with its profile.
  const sheet = page.locator("[data-sheet]");
  for (let n = 0; n < 4; n++) await sheet.press(".");
  await page.getByRole("tab", { name: "Selected" }).click();
  await expect(page.locator("[data-inspector]")).not.toContainText("kitchen cold,");
  await expect(page.locator("[data-band], [data-strip]").first()).toBeVisible();
  await expect(page.getByRole("region", { name: "Run profile" })).toContainText("kitchen cold");
  await page.getByRole("button", { name: "Go to previous point" }).click();
  await page.getByRole("button", { name: "Go to previous point" }).click();
  await expect(page.locator("[data-inspector]")).toContainText("kitchen cold");
  await page.getByRole("button", { name: "Zoom to selection, Side and plan" }).click();
  await expect(page.getByRole("button", { name: "Zoom out, Side and plan" })).toBeEnabled();

  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("fresh tank 60 L");
  await page.keyboard.press("Enter");
  const before = (await rigOf(page, "sparrow")).parts.find((p: { id: string }) => p.id === "tank");
  const form = page.locator("[data-inspector^='part/']");
  await form.getByLabel("Measured at").selectOption("outlet");
  const outlet = before.ports.find((p: { id: string }) => p.id === "outlet");
  const height = form.getByLabel("Above floor");
  await expect(form).toContainText("Port outlet; the part moves with it");
  await height.fill("400 mm");
  await height.press("Enter");
  const now = async () => (await rigOf(page, "sparrow")).parts.find((p: { id: string }) => p.id === "tank").box.at.zM + outlet.offset.zM;
  await expect.poll(now).toBeCloseTo(0.4, 9);

  await form.getByRole("button", { name: /^outlet/ }).click();
  const port = page.locator("[data-inspector^='port/']");
  await port.getByLabel("Name").fill("front outlet");
  await port.getByLabel("Name").press("Enter");
  await expect(port.getByRole("heading")).toContainText("port front outlet");
  await saved(page);
});
