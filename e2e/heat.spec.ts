import { expect, rigOf, saved, test } from "./fresh.ts";

type Named = { id: string };

const heat = async (page: import("@playwright/test").Page, rig: string) => {
  await page.goto(`/rigs/${rig}`);
  await page.locator("[data-sheet]").waitFor();
  await page.keyboard.press("g");
  await page.getByRole("tab", { name: "Heat" }).click();
  await page.locator("[data-heat-panel]").waitFor();
};

const find = async (page: import("@playwright/test").Page, name: string) => {
  await page.keyboard.press("Control+k");
  await page.getByRole("dialog").getByRole("combobox").waitFor();
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
};

test("Lantern's circuits: fluid along every line, watts at each emitter, what the night uses, by the hour", async ({ page }) => {
  await heat(page, "lantern");
  const panel = page.locator("[data-heat-panel]");
  await expect(page.locator("[data-view=plan] [data-heat]:not([data-heat='0'])")).toBeAttached();
  await expect(page.locator("[data-view=plan] [data-watts=rad-living]")).toBeAttached();
  await expect(panel.locator("[data-heat-part=heater]")).toContainText(/\d+ W/);
  await expect(panel.locator("[data-energy=fuel]")).toContainText(/L of fuel until morning/);
  await expect(panel.locator("[data-energy=battery]")).toContainText(/such (a )?night/);
  await expect(panel).toContainText("carbon monoxide");
  await expect(panel.locator("[data-heat-goes]")).toContainText(/living space\d+ W/);
  await expect(panel.locator("[data-hot-loops]")).toContainText("return pump sends");
  // The wet room wishes for more of the flow: its valve opens, and the others close.
  await panel.getByText("Share the flow among the branches").click();
  const wet = panel.locator("[data-branch=rad-wet]");
  await expect(wet).toContainText("% open");
  const shared = await wet.textContent();
  await wet.getByLabel("Parts").fill("80");
  await page.keyboard.press("Enter");
  await expect(wet).not.toHaveText(shared ?? "");
  // The hour scrubs it: the evening's load is another than the morning's.
  const morning = await panel.locator("[data-heat-part=heater] strong").textContent();
  await page.getByRole("slider", { name: "Hour" }).focus();
  await page.keyboard.press("Home");
  await expect(panel.locator("[data-heat-part=heater] strong")).not.toHaveText(morning ?? "");
  // A press on what gives heat selects it, and its thermostat is typed.
  await panel.locator("[data-heat-part=rad-living]").click();
  await page.getByRole("tab", { name: "Selected" }).click();
  const figures = page.locator("[data-heat-figures]");
  await figures.getByLabel("Thermostat").fill("12");
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await rigOf(page, "lantern")).parts.find((p: Named) => p.id === "rad-living").heat?.holdC).toBe(12);
  // Its fan is switched by hand, and its heater burns for ten minutes at the least.
  const heatOf = async (id: string) => (await rigOf(page, "lantern")).parts.find((p: Named) => p.id === id).heat;
  await figures.getByLabel("Fan", { exact: true }).selectOption("always off");
  await expect.poll(async () => (await heatOf("rad-living"))?.fan).toBe("off");
  await expect(figures.getByLabel("Fan starts at")).toBeDisabled();
  await find(page, "coolant heater");
  await figures.getByLabel("Least run").fill("10 min");
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await heatOf("heater"))?.leastRunS).toBe(600);
  await page.getByRole("tab", { name: "Heat" }).click();
  await expect(panel.locator("[data-heat-part=heater]")).toContainText(/\d+ W/);
});

test("Pump, valve, heater and thermostat are tapped where they are drawn", async ({ page }) => {
  await heat(page, "lantern");
  // All of the screen for the drawing.
  await page.keyboard.press("n");
  await page.locator("[data-view=plan] [data-watts=rad-living]").waitFor();
  await page.getByRole("tab", { name: "Selected" }).click();
  // Tapped again where the drawing was still settling.
  const tap = async (drawn: string, thing: string) => {
    const held = page.locator(`[data-inspector="part/${thing}"]`);
    await expect(async () => {
      const box = await page.locator(`[data-view=plan] ${drawn}`).first().boundingBox();
      if (!box) throw new Error(`${drawn} is not drawn`);
      await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
      await expect(held).toBeVisible({ timeout: 2000 });
    }).toPass();
    return held;
  };
  await expect((await tap("[data-name=circulator]", "circulator")).getByLabel("Runs", { exact: true })).toBeVisible();
  await expect((await tap("[data-name='valve of the wet room radiator']", "valve-wet")).getByLabel(/^In /).first()).toBeVisible();
  await expect((await tap("[data-watts=rad-living]", "rad-living")).getByLabel("Thermostat")).toBeVisible();
  await expect((await tap("[data-watts=heater]", "heater")).getByLabel("Stops at")).toBeVisible();
});

test("A pad is put on Sparrow's tank, and taken off by the undo; too strong for plastic it is said", async ({ page }) => {
  await heat(page, "sparrow");
  // Drained, as Sparrow is left: its pad has nothing to warm.
  await expect(page.locator("[data-heat-panel]")).toContainText("is empty on this night: switch its pad off");
  await page.locator("[data-heat-part=tank]").click();
  await page.getByRole("tab", { name: "Selected" }).click();
  const pad = page.locator("[data-pad]");
  await pad.getByLabel("Power").fill("400");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.getByRole("tab", { name: /^Issues/ }).click();
  await expect(page.getByRole("tabpanel").first()).toContainText("pad gives");
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await rigOf(page, "sparrow")).parts.find((p: Named) => p.id === "tank").pad.powerW).toBe(40);
  // On its rear side, with its sensor on another part, it goes by that.
  await find(page, "fresh tank 60 L");
  await page.getByRole("tab", { name: "Selected" }).click();
  await pad.getByLabel("Lies").selectOption("on its rear side");
  await expect(pad).toContainText("water up to its upper edge");
  await pad.getByLabel("Sensor of its thermostat").selectOption("on grey tank 32 L");
  await expect(pad).toContainText("nothing else stops it");
  await expect
    .poll(async () => (await rigOf(page, "sparrow")).parts.find((p: Named) => p.id === "tank").pad)
    .toMatchObject({ side: "rear", sensor: { kind: "part", partId: "grey-tank" } });
  await find(page, "grey tank 32 L");
  await expect(page.locator("[data-sensed-here]")).toContainText("fresh tank 60 L");
  // What heats water gets an element.
  await find(page, "storage heater 10 L");
  await page.getByRole("tab", { name: "Selected" }).click();
  await page.getByRole("button", { name: "Add an element" }).click();
  await expect(page.locator("[data-pad]")).toContainText("Never switch it on dry");
  await expect.poll(async () => (await rigOf(page, "sparrow")).parts.find((p: Named) => p.id === "heater").pad?.supply).toBe("mains");
});

test("A line is taped along another, and let go again", async ({ page }) => {
  await heat(page, "lantern");
  await find(page, "trace along the pump set");
  await page.getByRole("tab", { name: "Selected" }).click();
  const traces = page.locator("[data-traces]");
  await traces.getByLabel("Tape along another line").selectOption("link-a");
  const tracesOf = async () => (await rigOf(page, "lantern")).runs.find((r: Named) => r.id === "c-trace-2").traces;
  const taped = async () => (await tracesOf()).length;
  await expect.poll(taped).toBe(2);
  await traces.getByLabel("Insulation").first().selectOption("each its own");
  await expect.poll(async () => (await tracesOf())[0].wrapped).toBeFalsy();
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await tracesOf())[0]).toEqual({ id: "link-a", kind: "plain", wrapped: true });
  await traces.getByRole("button", { name: "Remove" }).first().click();
  await expect.poll(async () => (await tracesOf()).map((t: Named) => t.id)).toEqual(["link-b"]);
  // Undone twice it is as it was before the second line.
  await page.keyboard.press("Control+z");
  await expect.poll(taped).toBe(2);
  await page.keyboard.press("Control+z");
  await expect.poll(taped).toBe(1);
  // One act lays a line along another, taped to it.
  await find(page, "shower hot");
  await page.locator("[data-trace-along]").click();
  await saved(page);
  const laid = (await rigOf(page, "lantern")).runs.find((r: { name: string }) => r.name === "Trace along shower hot");
  expect(laid.traces).toEqual([{ id: "shower-hot", kind: "aluminiumTape", wrapped: true }]);
  await expect(page.locator("[data-traces]")).toContainText("shower hot");
  // One that is taped to nothing can lie in the floor, under what is chosen.
  await find(page, "heater outlet");
  await page.getByRole("button", { name: "Lay it in the floor" }).click();
  await page.locator("[data-floor]").getByLabel("Below it").selectOption("pe-foam");
  const floor = async () => (await rigOf(page, "lantern")).runs.find((r: Named) => r.id === "c-out").floor;
  await expect.poll(async () => (await floor())?.below?.material).toBe("pe-foam");
  await page.getByRole("button", { name: "Take it out of the floor" }).click();
  await expect.poll(floor).toBeFalsy();
});

test("Modes of Lantern: looked at, kept, printed as one table", async ({ page }) => {
  await heat(page, "lantern");
  const modes = page.locator("[data-modes]");
  await expect(modes.locator("[data-mode]")).toHaveCount(8);
  await modes.getByText(/^Compare 8 modes/).click();
  await modes.locator("[data-mode='Hot water alone']").click();
  await expect(modes.locator("[data-chosen-mode]")).toContainText("valve of the living radiator closed");
  // Only what is warmed has its watts in the drawing, and the verdict is of this mode.
  await expect(page.locator("[data-view=plan] [data-watts=coil]")).toBeAttached();
  await expect(page.locator("[data-view=plan] [data-watts=rad-living]")).not.toBeAttached();
  await expect(page.locator("[data-outlook]")).not.toHaveAttribute("data-outlook", "safe");
  await modes.getByRole("button", { name: "Keep it under a name…" }).click();
  await modes.getByLabel("Name of the mode").fill("Summer");
  await page.keyboard.press("Enter");
  await expect(modes.getByLabel("Valves and pumps set to")).toContainText("Summer");
  await expect
    .poll(async () => (await rigOf(page, "lantern")).scenarios.find((s: { name: string }) => s.name === "Summer")?.kind)
    .toBe("heating");
  await modes.getByRole("button", { name: "Show the table of positions…" }).click();
  await expect(page.locator("[data-mode-table]")).toContainText("Summer");
  await page.keyboard.press("Escape");
  await modes.getByRole("button", { name: "Remove this mode" }).click();
  await expect(page.locator("[data-outlook]")).toHaveAttribute("data-outlook", "safe");
});

test("The fuel runs out at an hour of the night by one press, and is let burn again", async ({ page }) => {
  await heat(page, "lantern");
  const panel = page.locator("[data-heat-panel]");
  await expect(page.locator("[data-outlook]")).toHaveAttribute("data-outlook", "safe");
  await page.getByRole("slider", { name: "Hour" }).focus();
  await page.keyboard.press("Home");
  await panel.getByRole("button", { name: "Run out of fuel" }).click();
  await expect(panel).toContainText("Planned: fuel is out");
  await expect(panel.locator("[data-heat-part=heater] strong")).toHaveText(/^0/);
  await panel.getByRole("button", { name: "Take it back" }).click();
  await expect(panel.locator("[data-heat-part=heater] strong")).not.toHaveText(/^0/);
  await expect(panel.locator("[data-circuit-issues]")).toHaveCount(0);
  // What the brief gives is used up at an hour: the night is looked at with it empty from then on.
  await panel.locator("[data-plan-empty=fuel]").click();
  await expect(panel).toContainText(/Planned: fuel is out, \d/);
  await expect(panel.locator("[data-plan-empty=fuel]")).toHaveCount(0);
  await panel.getByRole("button", { name: "Take it back" }).click();
  // A valve sticks: what lies behind it gets nothing.
  await expect(panel.locator("[data-heat-part=coil]")).toContainText("L/min");
  await panel.getByRole("button", { name: "Stick valve of the calorifier coil shut" }).click();
  await expect(panel).toContainText("Planned: valve of the calorifier coil sticks");
  await expect(panel.locator("[data-heat-part=coil]")).toHaveCount(0);
});

test("A loop pump runs by a timer or by a button, and air stops a line at an hour", async ({ page }) => {
  await heat(page, "lantern");
  const panel = page.locator("[data-heat-panel]");
  const living = panel.locator("[data-heat-part=rad-living]");
  await expect(living).toContainText("L/min");
  // Air gathers in the line to a radiator, which gets nothing until that is taken back.
  const line = (await rigOf(page, "lantern")).runs.find((r: { to: { part: string } }) => r.to.part === "rad-living");
  await find(page, line.name);
  await page.getByRole("tab", { name: "Heat" }).click();
  await page.getByRole("slider", { name: "Hour" }).focus();
  await page.keyboard.press("Home");
  await panel.getByRole("button", { name: `Block ${line.name} with air` }).click();
  await expect(panel).toContainText(`Planned: air stops ${line.name}`);
  await expect(panel).toContainText("Bleed it at its highest point, cold");
  await expect(living).toHaveCount(0);
  await panel.getByRole("button", { name: "Take it back" }).click();
  await expect(living).toContainText("L/min");
  // A button: it rests until it is pressed.
  await find(page, "circulator");
  await page.getByRole("tab", { name: "Selected" }).click();
  const by = page.locator("[data-switch]");
  await by.getByLabel("Runs", { exact: true }).selectOption("button");
  await by.getByLabel("Runs for").fill("30 min");
  await page.keyboard.press("Enter");
  await saved(page);
  await page.getByRole("tab", { name: "Heat" }).click();
  await expect(panel).toContainText("nobody presses it on this night");
  await panel.getByRole("button", { name: "Press the button of circulator" }).click();
  await expect(panel).toContainText("circulator runs by its button: 30 min until morning");
  // Put on a timer it has no button that could be pressed: what was planned for it goes, and is said before.
  // A timer: from ten in the evening until seven, twenty minutes of every hour, and then all through.
  await page.getByRole("tab", { name: "Selected" }).click();
  await expect(by).toContainText("the press that is planned for it goes");
  await by.getByLabel("Runs", { exact: true }).selectOption("timer");
  await by.getByRole("button", { name: "Set times of the day" }).click();
  await by.getByLabel("Runs for").fill("2 h");
  await page.keyboard.press("Enter");
  await expect(by.getByRole("alert").filter({ hasText: /\S/ })).toContainText("60 min");
  await page.keyboard.press("Escape");
  await saved(page);
  await page.getByRole("tab", { name: "Heat" }).click();
  await expect(panel).toContainText(/circulator runs by its timer: 2\.7 h until morning/);
  await page.getByRole("tab", { name: "Selected" }).click();
  const planned = (await rigOf(page, "lantern")).plans.flatMap((p: { events: { kind: string }[] }) => p.events.map((e) => e.kind));
  expect(planned).not.toContain("pumpPressed");
  await by.getByLabel("In its times").selectOption("");
  await by.getByLabel("From", { exact: true }).selectOption("0");
  await expect
    .poll(async () => (await rigOf(page, "lantern")).parts.find((p: Named) => p.id === "circulator").heat?.switch)
    .toMatchObject({ kind: "timer", everyS: null, times: [{ fromHour: 0, untilHour: 7 }] });
  await page.getByRole("tab", { name: "Heat" }).click();
  await expect(panel).toContainText(/circulator runs by its timer: 6(\.0)? h until morning/);
});

test("The cheapest set that holds all water is found, and done as one step", async ({ page }) => {
  await page.goto("/rigs/lantern/night");
  await page.getByRole("tab", { name: "Improve" }).click();
  const panel = page.getByLabel("Hold it");
  await panel.getByRole("button", { name: "Find the cheapest set" }).click();
  await panel.getByLabel("Outdoors").fill("-25");
  await page.keyboard.press("Enter");
  // Stopped, it says so, and goes on from what is asked next.
  await panel.getByRole("button", { name: "Stop looking" }).click();
  await panel.getByRole("button", { name: "Find the cheapest set" }).click();
  const found = panel.locator("[data-whole=true]");
  await expect(found).toHaveAttribute("data-hold", "holds", { timeout: 30_000 });
  await expect(found.locator("[data-hold-piece]").first()).toContainText("Without it");
  await found.getByRole("button", { name: /^Apply/ }).click();
  await saved(page);
  await expect(found.locator("[data-hold-piece]")).toHaveCount(0, { timeout: 30_000 });
  await expect(found).toContainText("Nothing is needed");
  await page.keyboard.press("Control+z");
  await expect(found.locator("[data-hold-piece]").first()).toBeVisible({ timeout: 30_000 });
  await page.getByRole("tab", { name: "Winter" }).click();
  await expect(page.locator("[data-season-energy] [data-energy=fuel]")).toContainText("of fuel a winter", { timeout: 30_000 });
});
