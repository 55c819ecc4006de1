import { expect, inspector, openSparrow, rigOf, saved, summary, test } from "./fresh.ts";

test("a port of the selected part is taken in the drawing", async ({ page }) => {
  await openSparrow(page);
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
  await openSparrow(page);
  const before = await rigOf(page, "sparrow");
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("place cold tap");
  await page.keyboard.press("Enter");
  await saved(page);
  await inspector(page, "part")
    .getByRole("button", { name: /^cold no pipe yet/ })
    .click();
  await inspector(page, "port").getByRole("button", { name: "Draw line from here" }).click();
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
  const now = await rigOf(page, "sparrow");
  // One part, its run, and in the line a tee with what goes on from it.
  expect(now.parts.length).toBe(before.parts.length + 2);
  expect(now.runs.length).toBe(before.runs.length + 2);
  const made = now.runs.find((r: { from: { part: string } }) => r.from.part?.startsWith("cold-tap"));
  expect(made.to.part).toMatch(/^tee-/);
  expect(made.bends).toHaveLength(2);
  expect(made.bends[1].at.yM).toBe(made.bends[0].at.yM);
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page);
  expect((await rigOf(page, "sparrow")).runs.length).toBe(before.runs.length);
});

test("R, then words straight away: no letter is a shortcut, a run begins and ends on ports by name and carries what was chosen", async ({
  page,
}) => {
  await openSparrow(page);
  const { revision } = await (await page.request.get("/api/rigs/sparrow")).json();
  const path = page.url();
  await page.locator('[data-point="kitchen-cold:b2"]').press("r");
  const bar = page.locator("[data-run-bar]");
  await expect(bar.getByLabel("Start at")).toBeFocused();
  // Each of these letters does something when no run is drawn; a fix and a fall are among them.
  await page.keyboard.type("fdch1234 r");
  await expect(bar.getByLabel("Start at")).toHaveValue("fdch1234 r");
  await expect(bar.getByRole("alert")).toBeVisible();
  expect([page.url(), (await (await page.request.get("/api/rigs/sparrow")).json()).revision]).toEqual([path, revision]);
  await bar.getByLabel("Carries").selectOption("waste");
  const free = "kitchen mixer spout";
  for (const [label, words] of [
    ["Start at", free],
    ["Next point", "at 2.5, 0.4, 0.6"],
    ["Next point", "down 0.2"],
  ] as const) {
    await bar.getByLabel(label).fill(words);
    await page.keyboard.press("Enter");
    await expect(bar.getByLabel("Next point")).toHaveValue("");
  }
  await bar.getByLabel("Next point").fill("to no such port");
  await page.keyboard.press("Enter");
  await expect(bar.getByRole("alert")).toContainText("port");
  await bar.getByRole("button", { name: "Finish here" }).click();
  await saved(page);
  const rig = await rigOf(page, "sparrow");
  const made = rig.runs.find((r: { from: { part: string; port: string } }) => r.from.part === "mixer" && r.from.port === "spout");
  expect(made.service).toBe("waste");
  expect([...made.bends.map((b: { at: unknown }) => b.at), made.to.at]).toEqual([
    { xM: 2.5, yM: 0.4, zM: 0.6 },
    { xM: 2.5, yM: 0.4, zM: 0.4 },
  ]);
});

test("several are taken with Shift or a rectangle, and moved as one", async ({ page }) => {
  const before = await openSparrow(page);
  const box = await page.locator("[data-sheet]").boundingBox();
  if (!box) throw new Error("there is no sheet");
  await page.keyboard.down("Shift");
  await page.mouse.move(box.x + 4, box.y + 30);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height * 0.4, { steps: 6 });
  await page.mouse.up();
  await page.keyboard.up("Shift");
  await page.getByRole("tab", { name: "Selected" }).click();
  await expect(page.getByRole("tabpanel")).toContainText(/\d+ selected/);
  const rig = await rigOf(page, "sparrow");
  await page.locator("[data-sheet]").focus();
  await page.keyboard.press("ArrowUp");
  await saved(page);
  const now = await rigOf(page, "sparrow");
  const moved = now.parts.filter(
    (p: { box: { at: { zM: number } } }, i: number) => Math.abs(p.box.at.zM - rig.parts[i].box.at.zM - 0.005) < 1e-6,
  );
  expect(moved.length).toBeGreaterThan(3);
  expect(moved.length).toBeLessThan(now.parts.length);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(summary(page)).toContainText(`${before} in dips`);
});

test("a leg pulled at its middle gets a bend, and a port in hand is moved on its tank, whose figures follow", async ({ page }) => {
  await openSparrow(page);
  const bends = async () => (await rigOf(page, "sparrow")).runs.find((r: { id: string }) => r.id === "cold-main").bends.length;
  const before = await bends();
  // The night closed, so that the drawing is as large as it gets.
  await page.keyboard.press("n");
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
  await expect(tank).toContainText("Below the outlet, can't be pumped0 mL");
  await tank.getByRole("button", { name: /^outlet/ }).click();
  const port = page.locator('[data-view=side] rect[data-handle="tank:outlet"]');
  const at = async () =>
    (await rigOf(page, "sparrow")).parts.find((p: { id: string }) => p.id === "tank").ports.find((p: { id: string }) => p.id === "outlet")
      .offset.zM;
  const low = await at();
  await pull(await middleOf(port), 0, -12);
  await saved(page);
  expect(await at()).toBeGreaterThan(low + 0.02);
  await inspector(page, "port")
    .getByRole("button", { name: /^Select / })
    .click();
  await expect(tank.locator("dd").first()).not.toHaveText("0 mL");
  // Another size: the ports go with it.
  await tank.getByLabel("High").fill("300 mm");
  await page.keyboard.press("Enter");
  await expect
    .poll(async () => (await rigOf(page, "sparrow")).parts.find((p: { id: string }) => p.id === "tank").box.size.zM)
    .toBeCloseTo(0.3, 6);
});

test("what is in hand is carried to another rig, kept as one's own part, hidden by service, and the history leads back", async ({
  page,
}) => {
  await openSparrow(page);
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
  await pump.getByRole("button", { name: "Add to my parts" }).click();
  await expect.poll(async () => (await parts("sparrow")).filter((p) => p.own).length).toBe(1);
  await page.locator("[data-sheet]").focus();
  await page.keyboard.press("Control+c");
  await page.keyboard.press("Control+v");
  await expect.poll(async () => (await parts("sparrow")).filter((p) => p.stock === "pump").length).toBe(3);

  await page.getByRole("button", { name: "Layers" }).click();
  const runs = page.locator("[data-view=plan] [data-run], [data-view=plan] [data-name]");
  const before = await runs.count();
  await page.getByLabel("cold", { exact: true }).uncheck();
  await expect.poll(() => runs.count()).toBeLessThan(before);
  await page.getByRole("button", { name: "Show all", exact: true }).click();
  await expect.poll(() => runs.count()).toBe(before);
  await page.keyboard.press("Escape");

  await page.locator("[data-sheet]").focus();
  await page.keyboard.press("h");
  const history = page.getByRole("dialog", { name: "History" });
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

test("what is typed goes to the thing that it was typed for, however soon another is taken", async ({ page }) => {
  await openSparrow(page);
  const held: (() => void)[] = [];
  await page.route("**/api/units/parse", async (route) => {
    await new Promise<void>((go) => held.push(go));
    await route.continue();
  });
  const before = await rigOf(page, "sparrow");
  const [pump, tank] = before.parts.filter((p: { stock: string }) => ["pump", "tank"].includes(p.stock));
  const find = async (name: string) => {
    await page.keyboard.press("Control+k");
    await page.getByPlaceholder(/A part, a run/).fill(name);
    await page.keyboard.press("Enter");
    await expect(inspector(page, "part").getByRole("heading", { name, exact: true })).toBeVisible();
  };
  await find(pump.name);
  await inspector(page, "part").getByRole("textbox", { name: "Mass" }).fill("3.3 kg");
  await find(tank.name);
  const mass = inspector(page, "part").getByRole("textbox", { name: "Mass" });
  const stood = await mass.inputValue();
  expect(held.length).toBe(1);
  for (const go of held) go();
  await saved(page);
  await expect.poll(async () => (await rigOf(page, "sparrow")).parts.find((p: { id: string }) => p.id === pump.id).massKg).toBe(3.3);
  expect((await rigOf(page, "sparrow")).parts.find((p: { id: string }) => p.id === tank.id)).toEqual(tank);
  await expect(mass).toHaveValue(stood);
});

test("the palette takes a part, its place and what it joins in words, completed and explained", async ({ page }) => {
  await openSparrow(page);
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
  const rig = await rigOf(page, "sparrow");
  expect(rig.runs.filter((r: { from: { part: string } }) => r.from.part === "mixer")).toHaveLength(1);
});
