import { readFile } from "node:fs/promises";
import { AxeBuilder } from "@axe-core/playwright";
import { expect, type Locator, type Page, saved, summary, test } from "./fresh.ts";

async function open(page: Page) {
  await page.goto("/rigs/sparrow");
  await expect(summary(page)).toContainText("129 mL stays in 2 pools");
}

const inspector = (page: Page, kind: string) => page.locator(`[data-inspector^="${kind}/"]`);
const rigOf = async (page: Page) => (await (await page.request.get("/api/rigs/sparrow")).json()).rig;

for (const way of ["pointer", "keys"] as const) {
  test(`by ${way}: a part is placed, turned, moved, joined by a run with two bends, a tee put into another run, all taken out again`, async ({
    page,
  }) => {
    await open(page);
    const before = await rigOf(page);
    const press = async (what: Locator) => {
      if (way === "pointer") return what.click();
      await what.focus();
      await page.keyboard.press("Enter");
    };
    const find = async (text: string, name: RegExp) => {
      if (way === "pointer") await page.getByRole("button", { name: "Find or do" }).click();
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
      await expect.poll(async () => (await rigOf(page)).runs.find((r: { id: string }) => r.id === id).bends.length).toBe(bends);
    }
    await find("kitchen cold", /^kitchen cold\s*run/);
    await press(inspector(page, "run").getByRole("listitem").nth(1).getByRole("button"));
    await press(point.getByRole("button", { name: "Put in a tee" }));
    await expect(part.getByRole("heading", { name: "tee, kitchen cold" })).toBeVisible();
    const during = await rigOf(page);
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
    await expect.poll(async () => (await rigOf(page)).runs.length).toBe(before.runs.length);
    expect((await rigOf(page)).parts.map((p: { id: string }) => p.id)).toEqual(before.parts.map((p: { id: string }) => p.id));
  });
}

test("the corner view turns by keys and drag, looks under the floor, takes a part, and lifts what is in hand", async ({ page }) => {
  await open(page);
  const corner = page.locator("[data-corner]");
  const picture = () => corner.locator("path").evaluateAll((all) => all.map((p) => p.getAttribute("d")).join());
  const first = await picture();
  await corner.focus();
  // While it turns it is painted on a canvas; at rest it is a drawing again.
  const painted = await corner.evaluate(async (svg) => {
    svg.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", bubbles: true }));
    for (let n = 0; n < 3; n++) await new Promise(requestAnimationFrame);
    const canvas = svg.parentElement?.querySelector("canvas");
    const seen = canvas?.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height).data;
    return seen?.filter((_, i) => i % 4 === 3 && (seen[i] ?? 0) > 0).length ?? 0;
  });
  expect(painted).toBeGreaterThan(5000);
  await expect.poll(picture).not.toBe(first);
  await expect(page.locator("canvas")).toHaveCount(0);
  for (let n = 0; n < 5; n++) await page.getByRole("button", { name: "Look from lower down" }).click();
  await expect(page.getByRole("region", { name: "Corner" })).toContainText("from below");
  await page.getByRole("button", { name: "Show all of it, Corner" }).click();
  await page.locator('[data-point="kitchen-cold:b2"]').focus();
  await corner.focus();
  await page.keyboard.press("ArrowUp");
  await expect(page.locator('[data-point="kitchen-cold:b2"]')).toHaveAttribute("aria-valuetext", "215 mm");
  await saved(page);
});

test("Escape takes back a drag, and what it took back is not saved", async ({ page }) => {
  await open(page);
  const point = await page.locator('[data-point="kitchen-cold:b2"]').boundingBox();
  if (!point) throw new Error("the low bend is not in the strip");
  const [x, y] = [point.x + point.width / 2, point.y + point.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let up = 0; up <= 40; up += 5) await page.mouse.move(x, y - up);
  await expect(page.locator('[data-point="kitchen-cold:b2"]')).not.toHaveAttribute("aria-valuetext", "210 mm");
  await page.keyboard.press("Escape");
  await expect(page.locator('[data-point="kitchen-cold:b2"]')).toHaveAttribute("aria-valuetext", "210 mm");
  await page.mouse.up();
  await expect(summary(page)).toContainText("129 mL stays in 2 pools");
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
      await open(page);
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(size.width);
      for (const [tab, view] of [
        ["Corner", "[data-corner]"],
        ["Fall strip", "[data-strip]"],
        ["Side and plan", "[data-sheet]"],
      ] as const) {
        await page.getByRole("radio", { name: tab }).tap();
        await expect(page.locator(view)).toBeVisible();
      }
      for (const tab of ["First ice", "In hand", /Findings/]) {
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

test("a drawing is saved as it is seen: as SVG that stands alone, and as PNG", async ({ page }) => {
  await open(page);
  for (const view of ["Side over plan", "Corner", "Fall strip"]) {
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
    await alone.close();
  }
  await page.getByRole("button", { name: "Save or print, Corner" }).click();
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("menuitem", { name: "Save as PNG" }).click()]);
  const png = await readFile(await download.path());
  expect(png.subarray(1, 4).toString()).toBe("PNG");
  // Twice as fine as the screen.
  const seen = await page.locator("[data-corner]").boundingBox();
  expect(png.readUInt32BE(16)).toBeCloseTo(2 * (seen?.width ?? 0), -1);
});

test("a drawing is printed alone, and the key says what strokes and marks mean", async ({ page }) => {
  await page.addInitScript(() => {
    window.print = () => {
      (window.top as Window & { printed?: string }).printed = document.body.innerHTML;
    };
  });
  await open(page);
  await page.getByRole("button", { name: "Save or print, Corner" }).click();
  await page.getByRole("menuitem", { name: "Print" }).click();
  const paths = await page.evaluate(() => {
    const paper = document.createElement("div");
    paper.innerHTML = (window as Window & { printed?: string }).printed ?? "";
    return [...paper.querySelectorAll("body > *, svg path")].length;
  });
  expect(paths).toBeGreaterThan(50);
  await page.getByRole("button", { name: "Key" }).click();
  const key = page.getByRole("dialog", { name: "Key to the drawings" });
  for (const words of ["cold", "coolant", "water that stays", "drain", "open end"]) await expect(key).toContainText(words);
});

test("a port of the part in hand is taken in the drawing", async ({ page }) => {
  await open(page);
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("fresh tank");
  await page.keyboard.press("Enter");
  const ports = page.locator('[data-view="side"] rect[data-handle]');
  const outlet = page.locator('[data-view="side"] rect[data-handle="tank:outlet"]');
  await expect(ports.first()).toBeVisible();
  const id = (await outlet.getAttribute("data-handle"))?.split(":");
  await outlet.click();
  await expect(inspector(page, "port")).toHaveAttribute("data-inspector", `port/${id?.[0]}/${id?.[1]}`);
});

test("a run is drawn from a port by taps and words, ends in another run with a tee, and is one step to undo", async ({ page }) => {
  await open(page);
  const before = await rigOf(page);
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("place cold tap");
  await page.keyboard.press("Enter");
  await saved(page);
  await inspector(page, "part")
    .getByRole("button", { name: /^cold no pipe yet/ })
    .click();
  await inspector(page, "port").getByRole("button", { name: "Draw a run from here" }).click();
  const bar = page.locator("[data-run-bar]");
  const words = bar.getByLabel("Next point");
  await words.fill("down a lot");
  await expect(bar.getByRole("alert")).toBeVisible();
  await words.fill("d");
  await bar.getByRole("button", { name: "down" }).click();
  await expect(words).toHaveValue("down ");
  await words.pressSequentially("100 mm");
  await expect(bar).toContainText("100 mm on");
  await words.press("Enter");
  await expect(words).toHaveValue("");
  // A tap in the side view: what it cannot tell, across the vehicle, stays.
  const sheet = await page.locator('[data-view="side"]').boundingBox();
  if (!sheet) throw new Error("there is no sheet");
  const target = page.locator('[data-view="side"] path[data-name="cold main over the arch"]').first();
  const box = await target.boundingBox();
  if (!box) throw new Error("the line is not drawn");
  await page.mouse.click(box.x + box.width / 2, box.y - 40);
  await expect(page.locator('[data-ghost="side"] circle')).toHaveCount(4);
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  await expect(bar).toHaveCount(0);
  await saved(page);
  const now = await rigOf(page);
  // One part, its run, and in the line a tee with what goes on from it.
  expect(now.parts.length).toBe(before.parts.length + 2);
  expect(now.runs.length).toBe(before.runs.length + 2);
  const made = now.runs.find((r: { from: { part: string } }) => r.from.part?.startsWith("cold-tap"));
  expect(made.to.part).toMatch(/^tee-/);
  expect(made.bends).toHaveLength(2);
  expect(made.bends[1].at.yM).toBe(made.bends[0].at.yM);
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page);
  expect((await rigOf(page)).runs.length).toBe(before.runs.length);
});

test("in the corner view a port and a room are taken too; stock and turn are chosen in the inspector", async ({ page }) => {
  await open(page);
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("place ball valve");
  await page.keyboard.press("Enter");
  const part = inspector(page, "part");
  await part.getByRole("combobox", { name: "From stock" }).selectOption({ label: "angle valve" });
  await expect(part).toContainText("angle valve");
  await part.getByRole("combobox", { name: /^Turned/ }).selectOption("3");
  await saved(page);
  const valve = async () => (await rigOf(page)).parts.find((p: { stock: string }) => p.stock === "angle-valve");
  await expect.poll(async () => (await valve())?.orientation?.quarterTurns).toBe(3);
  const id = (await valve()).id;
  const port = page.locator(`[data-corner] rect[data-handle="${id}:b"]`);
  await expect(port).toBeVisible();
  await page.waitForTimeout(400);
  await port.click();
  await expect(inspector(page, "port")).toHaveAttribute("data-inspector", `port/${id}/b`);
  // High above the floor there is nothing but the room.
  const box = await page.locator("[data-corner]").boundingBox();
  if (!box) throw new Error("there is no corner view");
  await page.mouse.click(box.x + box.width * 0.5, box.y + 24);
  await expect(inspector(page, "zone")).toHaveAttribute("data-inspector", "zone/living");
  await expect(page.locator("[data-corner] [data-zone=living]")).toBeVisible();
});

test("a panel keeps its size from visit to visit, and grows by keys", async ({ page }) => {
  await open(page);
  const width = async () => (await page.locator("[data-sheet]").boundingBox())?.width ?? 0;
  const before = await width();
  const grip = page.getByRole("separator").first();
  await grip.focus();
  for (let n = 0; n < 4; n++) await page.keyboard.press("ArrowRight");
  await expect.poll(width).toBeGreaterThan(before + 20);
  const wide = await width();
  await page.waitForTimeout(400);
  await page.reload();
  await expect.poll(width).toBeCloseTo(wide, -1);
});

test("a name of 80 characters breaks nothing, and a file saved right after an edit holds it", async ({ page }) => {
  await open(page);
  const long = "Sparrow with a very long name ".padEnd(80, "abcdefghi ").slice(0, 79).concat("x");
  await page.getByRole("button", { name: "Find or do" }).click();
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

test("several are taken with Shift or a rectangle, and moved as one", async ({ page }) => {
  await open(page);
  const box = await page.locator("[data-sheet]").boundingBox();
  if (!box) throw new Error("there is no sheet");
  await page.keyboard.down("Shift");
  await page.mouse.move(box.x + 4, box.y + 30);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height * 0.4, { steps: 6 });
  await page.mouse.up();
  await page.keyboard.up("Shift");
  await page.getByRole("tab", { name: "In hand" }).click();
  await expect(page.getByRole("tabpanel")).toContainText(/\d+ things in hand/);
  const before = await rigOf(page);
  await page.locator("[data-sheet]").focus();
  await page.keyboard.press("ArrowUp");
  await saved(page);
  const now = await rigOf(page);
  const moved = now.parts.filter(
    (p: { box: { at: { zM: number } } }, i: number) => Math.abs(p.box.at.zM - before.parts[i].box.at.zM - 0.005) < 1e-6,
  );
  expect(moved.length).toBeGreaterThan(3);
  expect(moved.length).toBeLessThan(now.parts.length);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(summary(page)).toContainText("129 mL stays in 2 pools");
});

test("a leg pulled at its middle gets a bend, and a port in hand is moved on its tank, whose figures follow", async ({ page }) => {
  await open(page);
  const bends = async () => (await rigOf(page)).runs.find((r: { id: string }) => r.id === "cold-main").bends.length;
  const before = await bends();
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("cold main");
  await page.keyboard.press("Enter");
  const plan = page.locator("[data-view=plan]");
  await plan.locator('path[data-handle^="cold-main/"]').first().waitFor();
  const pull = async (from: { x: number; y: number }, dx: number, dy: number) => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + dx / 2, from.y + dy / 2, { steps: 4 });
    await page.mouse.move(from.x + dx, from.y + dy, { steps: 4 });
    await page.mouse.up();
  };
  const middleOf = async (of: import("@playwright/test").Locator) => {
    const box = await of.boundingBox();
    if (!box) throw new Error("it is not drawn");
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  await pull(await middleOf(plan.locator('path[data-handle^="cold-main/"]').first()), 0, 30);
  await expect(inspector(page, "point")).toBeVisible();
  await saved(page);
  expect(await bends()).toBe(before + 1);
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page);
  expect(await bends()).toBe(before);

  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("fresh tank");
  await page.keyboard.press("Enter");
  const tank = inspector(page, "part");
  await expect(tank).toContainText("Below its outlet, never pumped0 mL");
  await tank.getByRole("button", { name: /^outlet/ }).click();
  const port = page.locator('[data-view=side] rect[data-handle="tank:outlet"]');
  const at = async () =>
    (await rigOf(page)).parts.find((p: { id: string }) => p.id === "tank").ports.find((p: { id: string }) => p.id === "outlet").offset.zM;
  const low = await at();
  await pull(await middleOf(port), 0, -12);
  await saved(page);
  expect(await at()).toBeGreaterThan(low + 0.02);
  await inspector(page, "port").getByRole("button", { name: /^Take/ }).click();
  await expect(tank.locator("dd").first()).not.toHaveText("0 mL");
  // Another size: the ports go with it.
  await tank.getByLabel("High").fill("300 mm");
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await rigOf(page)).parts.find((p: { id: string }) => p.id === "tank").box.size.zM).toBeCloseTo(0.3, 6);
});

test("what is in hand is carried to another rig, kept as one's own part, hidden by service, and the history leads back", async ({
  page,
}) => {
  await open(page);
  const parts = async (id: string) =>
    (await (await page.request.get(`/api/rigs/${id}`)).json()).rig.parts as { id: string; stock: string; own?: boolean }[];
  const take = async (name: string) => {
    await page.keyboard.press("Control+k");
    await page.getByPlaceholder(/A part, a run/).fill(name);
    await page.keyboard.press("Enter");
  };
  await take("diaphragm pump");
  await expect.poll(async () => (await parts("sparrow")).filter((p) => p.stock === "pump").length).toBe(2);
  const pump = inspector(page, "part");
  await pump.getByLabel("Name").fill("my quiet pump");
  await page.keyboard.press("Enter");
  await pump.getByRole("button", { name: "Keep as my own part" }).click();
  await expect.poll(async () => (await parts("sparrow")).filter((p) => p.own).length).toBe(1);
  await page.locator("[data-sheet]").focus();
  await page.keyboard.press("Control+c");
  await page.keyboard.press("Control+v");
  await expect.poll(async () => (await parts("sparrow")).filter((p) => p.stock === "pump").length).toBe(3);

  await page.getByRole("button", { name: "All shown" }).click();
  const runs = page.locator("[data-view=plan] [data-run], [data-view=plan] [data-name]");
  const before = await runs.count();
  await page.getByLabel("cold", { exact: true }).uncheck();
  await expect.poll(() => runs.count()).toBeLessThan(before);
  await page.getByRole("button", { name: "Show all", exact: true }).click();
  await expect.poll(() => runs.count()).toBe(before);
  await page.keyboard.press("Escape");

  await page.locator("[data-sheet]").focus();
  await page.keyboard.press("h");
  const history = page.getByRole("dialog", { name: "What was done" });
  await expect(history.getByRole("listitem").first()).toContainText("now");
  await history.getByRole("listitem").last().getByRole("button", { name: "Go back" }).click();
  await expect.poll(async () => (await parts("sparrow")).filter((p) => p.stock === "pump").length).toBe(1);
  await expect(history).toHaveCount(0);

  // In another rig it is put in where it was; the part of one's own is offered as long as a rig has it.
  const there = (await parts("tern")).length;
  await page.goto("/rigs/tern");
  await page.locator("[data-summary][data-stale=false]").waitFor();
  await page.locator("[data-sheet]").focus();
  await page.keyboard.press("Control+v");
  await expect.poll(async () => (await parts("tern")).length).toBe(there + 1);
  await take("place own my quiet pump");
  await expect.poll(async () => (await parts("tern")).length).toBe(there + 2);
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await parts("tern")).length).toBe(there);
});

test("in the corner view what is in hand is pulled in its plane, and by its lead up and down", async ({ page }) => {
  await open(page);
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("fresh tank");
  await page.keyboard.press("Enter");
  const at = async () => (await rigOf(page)).parts.find((p: { id: string }) => p.id === "tank").box.at;
  const before = await at();
  const lead = page.locator("[data-lead] circle");
  await lead.waitFor();
  await page.waitForTimeout(400);
  const pull = async (x: number, y: number, dx: number, dy: number) => {
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 4 });
    await page.mouse.move(x + dx, y + dy, { steps: 4 });
    await page.mouse.up();
    await saved(page);
  };
  const box = await lead.boundingBox();
  if (!box) throw new Error("there is no lead");
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await pull(x, y, 0, -30);
  await expect.poll(async () => (await at()).zM).toBeGreaterThan(before.zM + 0.05);
  const lifted = await at();
  expect([lifted.xM, lifted.yM]).toEqual([before.xM, before.yM]);
  await page.waitForTimeout(400);
  const now = await lead.boundingBox();
  if (!now) throw new Error("there is no lead");
  // On its lid, beneath the lead.
  await pull(now.x + now.width / 2, now.y + now.height / 2 + 60, 40, 0);
  await expect.poll(async () => Math.hypot((await at()).xM - lifted.xM, (await at()).yM - lifted.yM)).toBeGreaterThan(0.1);
  expect((await at()).zM).toBe(lifted.zM);
});

test("the palette takes a part, its place and what it joins in words, completed and explained", async ({ page }) => {
  await open(page);
  await page.keyboard.press("Control+k");
  const input = page.getByPlaceholder(/A part, a run/);
  await input.fill("place cold tap at 1 m, 200 parsecs, 40 cm");
  await expect(page.getByRole("alert")).toContainText("at character");
  await input.fill("place cold tap at 1 m, 20 cm, 40 cm");
  await expect(page.getByRole("option", { name: /1000 mm from the rear, 200 mm from the kerb/ })).toBeVisible();
  await input.fill("place drain cock at 1 m, 20 cm, 10 cm joining mixer sp");
  await expect(page.getByRole("option", { name: /drain cock: / })).toHaveCount(0);
  await input.fill("place drain cock at 1 m, 20 cm, 10 cm joining kitchen mixer spout");
  const said = page.getByRole("option", { name: /from kitchen mixer spout to its in/ });
  await expect(said).toBeVisible();
  await said.click();
  await expect(inspector(page, "part").getByRole("heading", { name: "drain cock" })).toBeVisible();
  await saved(page);
  const rig = await rigOf(page);
  expect(rig.runs.filter((r: { from: { part: string } }) => r.from.part === "mixer")).toHaveLength(1);
});
