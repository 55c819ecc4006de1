import { expect, inspector, type Page, saved, summary, test } from "./fresh.ts";

/** A new rig, begun from a body with no plumbing in it. */
async function begin(page: Page, name: string) {
  await page.goto("/");
  await page.getByRole("link", { name: "New rig" }).first().click();
  await page.getByRole("textbox", { name: "Name" }).fill(name);
  await page.getByRole("textbox", { name: "Name" }).press("Enter");
  await page.getByRole("radio", { name: /^Long panel van/ }).click();
  await page.getByRole("radio", { name: /^None yet/ }).click();
  await page.getByRole("button", { name: "Create rig" }).click();
  await page.locator("[data-sheet]").waitFor();
}

/** A part by its name in stock and its place, typed; named as it is to be called. */
async function place(page: Page, what: string, at: string, name?: string) {
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill(`place ${what} at ${at}`);
  await expect(page.getByRole("option", { name: new RegExp(`^${what}: `) })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(inspector(page, "part").getByRole("heading", { name: what })).toBeVisible();
  if (name) {
    const field = inspector(page, "part").getByRole("textbox", { name: "Name" });
    await field.fill(name);
    await field.press("Enter");
    await expect(inspector(page, "part").getByRole("heading", { name })).toBeVisible();
  }
  await saved(page);
}

/** A run from port to port, both by name, over what is typed between. Each word is followed by Enter at once. */
async function run(page: Page, from: string, ...words: string[]) {
  await page.locator("[data-sheet]").focus();
  await page.keyboard.press("r");
  const bar = page.locator("[data-run-bar]");
  for (const [i, text] of [from, ...words].entries()) {
    const field = bar.getByLabel(i === 0 ? "Start at" : "Next point");
    await field.fill(text);
    await field.press("Enter");
    if (i < words.length) await expect(bar.getByLabel("Next point")).toHaveValue("");
  }
  await expect(bar).toHaveCount(0);
  await saved(page);
}

/**
 * Water in a straight pipe, mL, that leans away from where it leaves: at its low end `deep` mm over the floor of the bore,
 * nothing at its high end, `length` mm on. Deeper than the bore it is full; where the level runs out, half of the bore is.
 */
const leaning = (bore: number, length: number, deep: number) => ((Math.PI / 4) * bore ** 2 * length * (1 - bore / 2 / deep)) / 1000;

const settled = (page: Page) => expect(summary(page)).toHaveAttribute("data-stale", "false");

/** A figure of the line that tells what stays, in its unit. */
async function told(page: Page, where: string) {
  await settled(page);
  const text = ((await summary(page).textContent()) ?? "").replace(/\s+/g, " ");
  const figure = text.match(new RegExp(`([\\d.]+) (mL|L|fl oz|gal) ${where}`));
  if (!figure) throw new Error(`nothing ${where} in “${text}”`);
  return Number(figure[1]);
}

test("all lines to one drain: level nothing left, nose up what lies in the rear line, nose down what lies in the front one", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await begin(page, "One drain");
  await place(page, "cold tap", "470 mm, 460 mm, 800 mm", "rear tap");
  await place(page, "cold tap", "3570 mm, 460 mm, 800 mm", "front tap");
  await place(page, "tee", "2000 mm, 480 mm, 156 mm");
  await place(page, "drain cock", "2100 mm, 900 mm, 100 mm");
  // Both fall by 2 % to the tee: 30 mm on 1.50 m, and 30.4 mm on 1.52 m.
  await run(page, "rear tap cold", "0.5, 0.5, 0.2", "to tee a");
  await run(page, "front tap cold", "3.6, 0.5, 0.2004", "to tee b");
  await run(page, "tee c", "to drain cock in");
  await settled(page);
  await expect(summary(page)).toContainText("nothing left");

  // Three degrees raise 1 m by 52.4 mm. The rear line's bend then lies so much below the middle of the tee, where the water leaves; it stands in the riser.
  const slope = Math.tan((3 * Math.PI) / 180);
  for (const [key, steps, length, falls] of [
    ["ArrowRight", 6, 1500, 30],
    ["ArrowLeft", 12, 1520, 30.4],
  ] as const) {
    const slider = page.getByRole("slider", { name: "Parking pitch" });
    await slider.focus();
    for (let k = 0; k < steps; k++) await slider.press(key);
    const deep = slope * (length + 40) - falls;
    const byHand = leaning(12.3, (length * deep) / (slope * length - falls), deep) + leaning(12.3, deep, deep);
    expect(Math.abs((await told(page, "in dips")) - byHand)).toBeLessThan(1.5);
  }
});

test("two waste tanks joined over a hump: the first keeps what stands below the hump", { tag: "@long" }, async ({ page }) => {
  test.setTimeout(90_000);
  await begin(page, "Hump");
  await place(page, "grey tank", "0.3, 0.3, 0.2", "first grey");
  await place(page, "grey tank", "1.5, 0.3, 0.05", "second grey");
  await place(page, "grey dump valve", "1.3, 0.485, 0");
  await place(page, "vent with insect mesh", "0.73, 0.505, 0.6", "first vent");
  await place(page, "vent with insect mesh", "1.93, 0.505, 0.6", "second vent");
  await run(page, "first grey vent", "to first vent end");
  await run(page, "second grey vent", "to second vent end");
  await run(page, "second grey drain", "to grey dump valve in");
  await run(page, "first grey drain", "0.2, 0.525, 0.2", "0.2, 0.525, 0.25", "0.2, 0.9, 0.24", "1.725, 0.9, 0.2", "to second grey inlet");
  // The hump is 50 mm above the first tank's floor: 0.45 m x 0.45 m x 0.05 m = 10.1 L stay in it, of the 16.2 L to which it is
  // half full. The second one runs out.
  expect(await told(page, "in tanks")).toBe(10.1);
  // Of its pipe of 24 mm, 100 mm lie full below the hump, and the 50 mm that rise to it.
  expect(Math.abs((await told(page, "in dips")) - (Math.PI * 12 ** 2 * 100) / 1000 - leaning(24, 50, 50))).toBeLessThan(1);
  await page.getByRole("link", { name: "Drain", exact: true }).click();
  await expect(page.getByLabel("Water left").getByRole("listitem")).toHaveText(/^first grey and first grey to second grey/);
});

test("two fresh tanks of which one breathes: the other keeps all of its water, until it gets a vent", { tag: "@long" }, async ({
  page,
}) => {
  test.setTimeout(90_000);
  await begin(page, "Breath");
  await place(page, "water tank", "0.3, 0.3, 0.4", "near tank");
  await place(page, "water tank", "0.3, 1.0, 0.4", "far tank");
  await place(page, "tee", "1.5, 0.93, 0.3");
  await place(page, "drain cock", "1.7, 1.2, 0.1");
  await place(page, "fill spout with its cap", "0.05, 0.81, 0.9");
  await place(page, "vent with insect mesh", "0.28, 0.33, 0.9");
  await run(page, "near tank vent", "to vent with insect mesh end");
  await run(page, "fill spout with its cap end", "to near tank fill");
  await run(page, "near tank outlet", "to tee a");
  await run(page, "far tank outlet", "to tee b");
  await run(page, "tee c", "to drain cock in");
  // 0.5 m x 0.6 m x 0.2 m stay in the far tank, and its outlet line full: 0.859 m of 12.3 mm.
  expect(await told(page, "in tanks")).toBe(60);
  expect(Math.abs((await told(page, "airlocked")) - (Math.PI / 4) * 12.3 ** 2 * Math.hypot(0.78, 0.35, 0.086))).toBeLessThan(1);
  await place(page, "vent with insect mesh", "0.28, 1.03, 0.9", "far vent");
  await run(page, "far tank vent", "to far vent end");
  await settled(page);
  await expect(summary(page)).toContainText("nothing left");
});

test("a fill with a dip, in US units, from a table and in words: what lies in the dip", async ({ page }) => {
  test.setTimeout(90_000);
  await begin(page, "Dip");
  await page.getByRole("button", { name: /^Units: metric/ }).click();
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("import or copy tables");
  await page.keyboard.press("Enter");
  const dialog = page.getByRole("dialog", { name: "Parts and runs as tables" });
  // Bare numbers are inches. The fill port comes to 40, 31 21/32, 26 19/64 inches.
  await dialog.getByRole("textbox", { name: "Table" }).fill(`name, stock, from rear, from kerb, above floor
fresh tank, tank, 40, 10, 20
spout, fill-spout, 8.425, 30.08, 38.425
mesh, vent-cap, 39.2, 11.2, 38
cock, drain-cock, 70, 30, 5
`);
  await dialog.getByRole("button", { name: "Import valid rows" }).click();
  await saved(page);
  await run(page, "fresh tank vent", "to mesh end");
  await run(page, "fresh tank outlet", "to cock in");
  await settled(page);
  await expect(summary(page)).toContainText("nothing left");
  await run(page, "spout end", "20, 31.654, 22.299", "to fresh tank fill");
  // The dip lies 4 in below the fill port: 20.396 in rise to it, and of the line from the spout, 20.331 in that come down by
  // 17.701 in, the last 4.594 in are under water.
  const [bore, mLPerFloz] = [38 / 25.4, 29.5735];
  const byHand = ((leaning(bore, 20.396, 4) + leaning(bore, 4.594, 4)) * 25.4 ** 3) / mLPerFloz;
  expect(Math.abs((await told(page, "left")) - byHand)).toBeLessThan(0.15);
  await page.getByRole("link", { name: "Drain", exact: true }).click();
  await expect(page.getByLabel("Water left")).toContainText(`${byHand.toFixed(1)} fl oz`);
});

/**
 * When dead water in a bare 12.3/15.9 mm pipe comes to 0 °C, h, in a duct that passes so many W/K to what lies above and below
 * it: stepped by seconds, with the film of still air after ISO 12241 and what
 * radiates worked out at each, and the air of the duct warmed by what the water gives off.
 */
function hoursToIce(waterC: number, metres: number, above: number, aboveC: number, below: number, belowC: number, jPerK: number) {
  const [inner, outer, k] = [0.0123, 0.0159, 0.41];
  const jPerMK = (Math.PI / 4) * (inner ** 2 * 1000 * 4200 + (outer ** 2 - inner ** 2) * 940 * 2000);
  let [water, air, surface, seconds] = [waterC, (above * aboveC + below * belowC) / (above + below), waterC, 0];
  for (; water > 0 && seconds < 86_400; seconds++) {
    const [rise, ts, ta] = [Math.max(surface - air, 1e-3), surface + 273.15, air + 273.15];
    const film = 1.25 * (rise / outer) ** 0.25 + 0.9 * 5.67e-8 * (ts ** 2 + ta ** 2) * (ts + ta);
    const [through, off] = [(2 * Math.PI * k) / Math.log(outer / inner), Math.PI * outer * film];
    surface = (through * water + off * air) / (through + off);
    water -= (off * (surface - air)) / jPerMK;
    air += (metres * off * (surface - air) + above * (aboveC - air) + below * (belowC - air)) / jPerK;
  }
  return seconds / 3600;
}

test("a line in a duct under a warm floor: as warm as what it lies between, and when it freezes", { tag: "@long" }, async ({ page }) => {
  test.setTimeout(120_000);
  await begin(page, "Duct");
  await place(page, "cold tap", "1.07, 0.61, 0.3", "rear tap");
  await place(page, "cold tap", "2.87, 0.61, 0.3", "front tap");
  await run(page, "front tap cold", "2.9, 0.65, -0.05", "1.1, 0.65, -0.086", "to rear tap cold");
  const room = page.getByRole("region", { name: /^Room: / });
  const shell = async () => {
    await page.getByRole("link", { name: "Shell", exact: true }).click();
    await page.getByRole("switch", { name: "Heat" }).waitFor();
  };
  await shell();
  await page.getByRole("switch", { name: "Heat" }).click();
  await page.getByRole("listitem").filter({ hasText: "behind the skirt" }).getByRole("button").click();
  await expect(room).toHaveAttribute("aria-label", /skirt/);
  for (const [label, text] of [
    ["Name", "duct"],
    ["From the rear", "1 m"],
    ["From the kerb", "0.5 m"],
    ["Above floor", "-0.15 m"],
    ["Length", "2 m"],
    ["Width", "0.3 m"],
    ["Height", "0.15 m"],
    ["Air changes/h", "0"],
    ["Heat capacity, kJ/K", "10"],
  ] as const) {
    const field = room.getByRole("textbox", { name: label, exact: true }).first();
    await field.fill(text);
    await field.press("Enter");
    await saved(page);
  }
  // Resistances in m²K/W (ISO 6946): 0.17 on either side of a floor that heat comes down through, the wind's film outside: 4 + 4 · 4 and 4 ε σ T³ at -9 °C.
  const outside = 1 / (20 + 4 * 0.9 * 5.67e-8 * 264.15 ** 3);
  const [board, foam] = [0.012 / 0.13, 0.03 / 0.034];
  const walls = 0.69 * (0.98 / (0.13 + 0.006 / 0.13 + 0.025 / 0.036 + outside) + 0.02 / (0.13 + 0.006 / 0.13 + 0.026 / 50 + outside));
  const below = walls + 0.6 / (0.17 + board + foam + outside);
  for (const [floor, above] of [
    ["board 12 mm", 0.6 / (0.17 + board + 0.17)],
    ["floor: 12 mm board, 30 mm foam board, sheet metal", 0.6 / (0.17 + board + foam + 0.17)],
  ] as const) {
    await shell();
    if (!(await room.getByRole("button", { name: /^roof towards/ }).isVisible()))
      await page.getByRole("button", { name: /^duct/ }).first().click();
    await room.getByRole("button", { name: /^roof towards/ }).click();
    await room.getByRole("combobox", { name: "Build-up" }).selectOption({ label: floor });
    await saved(page);
    await page.getByRole("link", { name: "Night", exact: true }).click();
    const sums = page.getByRole("table").filter({ hasText: "degree-hours" });
    const coldest = async (of: string) =>
      Number.parseFloat(((await sums.getByRole("row", { name: of }).getByRole("cell").last().textContent()) ?? "").replace("−", "-"));
    const byHand = async () => (above * 18 + below * (await coldest("under the floor"))) / (above + below);
    await expect.poll(async () => Math.abs((await coldest("duct")) - (await byHand()))).toBeLessThan(0.08);
    if ((await byHand()) > 0) {
      await expect(page.getByText("No ice before 06:00")).toBeVisible();
      continue;
    }
    // Of the line, 1.80 m and two ends of 50 and 86 mm lie in the duct; its water starts at 12 °C.
    const minutes = 60 * hoursToIce(12, 1.936, above, 18, below, await coldest("under the floor"), 10_000);
    await page.getByRole("tab", { name: "Winter" }).click();
    const said = page.getByText(/^At −9\.0 °C front tap to rear tap, duct breaks after \d+ min/);
    await expect(said).toBeVisible();
    const told = Number((await said.textContent())?.match(/after (\d+) min/)?.[1]);
    expect(told / minutes).toBeGreaterThan(0.95);
    expect(told / minutes).toBeLessThan(1.02);
  }
});
