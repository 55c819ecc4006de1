import { expect, saved, test } from "./fresh.ts";

const tasks: Record<string, string[]> = {
  sparrow: ["tank", "pumpOut", "drain", "antifreeze"],
  lantern: ["tank", "town", "pumpOut", "drain", "blowOut", "antifreeze", "bypassFilter"],
};

for (const [rig, kinds] of Object.entries(tasks))
  test(`${rig} through its scenarios under the water lens, by pointer and by keys`, async ({ page }) => {
    await page.goto(`/rigs/${rig}`);
    await page.locator("[data-sheet]").waitFor();
    await page.keyboard.press("w");
    await page.getByRole("tab", { name: "Water" }).click();
    const water = page.locator("[data-water]");
    const valves = page.getByLabel("Valves set to");
    for (const kind of kinds) {
      await valves.selectOption(kind);
      await expect(page.locator(`[data-task=${kind}]`)).toHaveAttribute("data-can", "true");
    }
    await valves.selectOption("tank");
    // Every tap by pointer, on its knob: it opens, and what comes out stands beside it and in the list.
    const taps = await water
      .getByRole("button", { name: "Open" })
      .all()
      .then((all) => all.length);
    expect(taps).toBeGreaterThan(1);
    await water.getByRole("button", { name: "Open" }).first().click();
    await expect(water.locator("[data-outlet]").first()).toContainText(/\d.*L\/min · .*bar · .*°C/);
    await expect(page.locator("[data-view=side] [data-flows]:not([data-flows='0'])")).toBeAttached();
    const alone = Number.parseFloat((await water.locator("[data-outlet] strong").first().textContent()) ?? "");
    // By keys: what is opened next takes from it.
    const next = water.getByRole("button", { name: "Open" }).first();
    await next.focus();
    await page.keyboard.press("Enter");
    await expect(water.locator("[data-outlet]")).toHaveCount(2);
    await expect
      .poll(async () => Number.parseFloat((await water.locator("[data-outlet] strong").first().textContent()) ?? ""))
      .toBeLessThan(alone - 0.2);
    // Closed on its knob in the drawing.
    const open = await water.locator("[data-outlet]").count();
    await page.locator("[data-view=side] [data-knob][data-on=true]:has(text) circle").nth(1).click({ force: true });
    await expect(water.locator("[data-outlet]")).toHaveCount(open - 1);
    await water.getByText("Why not more?").click();
    await expect(water.locator("[data-costs]").first()).toContainText("bar");
    await expect(water.locator("[data-costs]").first()).toContainText("All lines 1/2 in");
  });

test("the pump stopped, nothing comes; a position is kept, and saved as a scenario of one's own", async ({ page }) => {
  await page.goto("/rigs/sparrow");
  await page.locator("[data-sheet]").waitFor();
  await page.keyboard.press("w");
  await page.getByRole("tab", { name: "Water" }).click();
  const water = page.locator("[data-water]");
  await water.getByRole("button", { name: "Open" }).first().click();
  await expect(water.locator("[data-outlet] strong")).not.toHaveText("0 L/min");
  await water.getByRole("button", { name: "Stop" }).click();
  await expect(water.locator("[data-remark=nothing]")).toContainText("no pump runs");
  await water.getByRole("button", { name: "Turn back" }).click();
  await water.getByLabel("tank valve").selectOption("closed");
  await water.getByLabel("Save as a scenario").fill("Tank off");
  await water.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByLabel("Valves set to").locator("option:checked")).toHaveText("Tank off");
  await expect(water.getByLabel("tank valve")).toHaveValue("closed");
  await saved(page);
  // The wait for hot water, and filling, when they are opened.
  await water.getByText("Wait for hot water").click();
  await expect(water.locator("[data-hot-wait]")).toContainText("wasted a day");
  // Tried on the whole rig before it is applied.
  await water.locator("[data-hot-wait]").getByRole("button", { name: "Try" }).first().click();
  await expect(water.locator("[data-tried]")).not.toBeEmpty();
  await water.locator("[data-tried]").getByRole("button", { name: "Apply" }).click();
  await saved(page);
  await water.getByText("Filling and vent").click();
  await expect(water.locator("[data-filling]").first()).toContainText("by hose");
});

test("a valve that is missing is named with its place, placed by its fix, and the card shows which way handles point", async ({ page }) => {
  const { rig } = await (await page.request.get("/api/rigs/sparrow")).json();
  const part = (id: string, stock: string, x: number, ports: [string, number, number][]) => ({
    id,
    name: id,
    stock,
    box: { at: { xM: x, yM: 0.5, zM: 0.2 }, size: { xM: 0.06, yM: 0.06, zM: 0.06 } },
    ports: ports.map(([port, dx, dz]) => ({ id: port, offset: { xM: dx, yM: 0, zM: dz } })),
  });
  const run = (id: string, from: [string, string], to: [string, string]) => ({
    id,
    name: id,
    service: "cold",
    pipe: "pex-1/2",
    from: { part: from[0], port: from[1] },
    to: { part: to[0], port: to[1] },
    bends: [],
  });
  // A hose that is joined to the tank's line fills the tank as well: nothing stops it.
  const body = {
    ...rig,
    id: "hose",
    name: "Hose",
    parts: [
      part("join", "tee", 1.5, [
        ["a", 0, 0],
        ["b", 0.06, 0],
        ["c", 0.03, 0.03],
      ]),
      part("tank", "tank", 0.4, [
        ["outlet", 0.06, 0],
        ["vent", 0, 0.06],
      ]),
      part("tap", "cold-tap", 2.4, [
        ["cold", 0, 0],
        ["spout", 0, 0.06],
      ]),
      part("town", "town-inlet", 1.5, [
        ["in", 0, 0.3],
        ["out", 0.06, 0.3],
      ]),
    ],
    runs: [
      run("from-tank", ["tank", "outlet"], ["join", "a"]),
      run("to-tap", ["join", "b"], ["tap", "cold"]),
      run("town-line", ["town", "out"], ["join", "c"]),
    ],
    byHand: [],
    plans: [],
    left: undefined,
    scenarios: rig.scenarios.map((s: object) => ({ ...s, settings: [] })),
  };
  const made = await page.request.post("/api/rigs", { data: body });
  expect(made.status(), await made.text()).toBe(201);
  const { id } = await made.json();
  await page.goto(`/rigs/${id}`);
  await page.locator("[data-sheet]").waitFor();
  await page.keyboard.press("w");
  await page.getByRole("tab", { name: "Water" }).click();
  const valves = page.getByLabel("Valves set to");
  await valves.selectOption("town");
  await expect(page.locator("[data-task=town]")).toHaveAttribute("data-can", "false");
  await page.getByRole("button", { name: "Place a valve in from-tank" }).click();
  await expect(page.locator("[data-task=town]")).toHaveAttribute("data-can", "true");
  await expect(page.locator("[data-task=town]")).toContainText("1 to turn");
  await saved(page);
  await page.getByRole("button", { name: "Valve card…" }).click();
  const card = page.locator("[data-valve-card]");
  await expect(card).toContainText("Use town water");
  await expect(card).toContainText("closed");
  await expect(card.locator("[data-handle-turn]").first()).toBeAttached();
  const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save as SVG" }).click()]);
  expect(file.suggestedFilename()).toContain("town");
  await page.keyboard.press("Escape");
  await page.request.delete(`/api/rigs/${id}?base=${(await (await page.request.get(`/api/rigs/${id}`)).json()).revision}`);
});

test("a scenario of one's own is found by what it asks; gear that is joined for it gives its water", async ({ page }) => {
  await page.goto("/rigs/sparrow");
  await page.locator("[data-sheet]").waitFor();
  await page.keyboard.press("w");
  await page.getByRole("tab", { name: "Water" }).click();
  const water = page.locator("[data-water]");
  await water.getByRole("button", { name: "Add a scenario…" }).click();
  await page.keyboard.type("Garden only");
  await page.keyboard.press("Enter");
  const goal = water.locator("[data-goal]");
  await goal.getByLabel("Water comes from: add").selectOption({ label: "fresh tank 60 L" });
  await goal.getByLabel("It has to get to: add").selectOption({ label: "outdoor shower" });
  await expect(water.locator("[data-task=own]")).toHaveAttribute("data-can", "true");
  // What must not be reached and cannot be kept from it is told; taken out of the list, it is well again.
  await goal.getByLabel("It must not get to: add").selectOption({ label: "pump" });
  await expect(water.locator("[data-task=own]")).toHaveAttribute("data-can", "false");
  await goal.getByRole("button", { name: "Remove pump" }).click();
  await expect(water.locator("[data-task=own]")).toHaveAttribute("data-can", "true");
  await water.getByRole("button", { name: "Open" }).last().click();
  await expect(water.locator("[data-outlet] strong")).not.toHaveText("0 L/min");
  // From a bottle the tank is not drawn from, and its line is off.
  await water.locator("[data-gear]").selectOption({ label: "The hose of a bottle on pump, in place of strainer to pump" });
  await goal.getByRole("button", { name: "Remove fresh tank 60 L" }).click();
  await expect(goal.locator("[data-places=from]")).toContainText("nowhere yet");
  await expect(water.locator("[data-outlet] strong")).not.toHaveText("0 L/min");
  await goal.getByRole("button", { name: "Remove this scenario" }).click();
  await expect(page.getByLabel("Valves set to")).toHaveValue("tank");
  await expect(page.getByLabel("Valves set to")).not.toContainText("Garden only");
  await saved(page);
});
