import { expect, openSparrow, type Page, poolsMl, saved, summary, test } from "./fresh.ts";

const run = (page: Page) => page.getByRole("combobox", { name: "Run" });

test("the shelf tells each rig's verdict, and says so when it is empty or cannot be fetched", async ({ page }) => {
  await page.goto("/");
  const card = page.getByRole("link", { name: /Sparrow/ });
  await expect(card).toContainText("weekends, self-draining");
  await expect(card).toContainText("safe to −1.7 °C");
  await expect(card).toContainText(/\d (mL|L) in dips/);
  await expect(card).toContainText("by hand: filter, pump, strainer");

  const rigs = [
    {
      id: "torn",
      revision: 1,
      name: "torn",
      unreadable: "formatVersion: version 9 is not known",
      what: { text: "Saved", values: [] },
      savedAt: "2031-01-01T00:00:00Z",
    },
  ];
  await page.route("**/api/rigs", (route) => route.fulfill({ json: { rigs, removed: [] } }));
  await page.reload();
  const torn = page.locator('[data-unreadable="torn"]');
  await expect(torn).toContainText("version 9 is not known");
  await expect(torn.getByRole("link", { name: "Save raw file" })).toHaveAttribute("href", "/api/rigs/torn/file");

  await page.unroute("**/api/rigs");
  await page.route("**/api/rigs", (route) => route.fulfill({ json: { rigs: [], removed: [] } }));
  await page.reload();
  await expect(page.getByRole("heading", { name: "No rigs yet" })).toBeVisible();

  await page.unroute("**/api/rigs");
  await page.route("**/api/rigs", (route) => route.abort());
  await page.reload();
  await expect(page.getByRole("alert")).toContainText("Couldn't load the rigs");
  await page.unroute("**/api/rigs");
  await page.getByRole("button", { name: "Try again" }).click();
  await expect(card).toBeVisible();
});

test("an address that leads nowhere says so and leads back", async ({ page }) => {
  await page.goto("/rigs/albatross");
  await expect(page.getByRole("heading")).toContainText("no rig “albatross”");
  await page.getByRole("link", { name: "All rigs" }).click();
  await expect(page.getByRole("link", { name: /Sparrow/ })).toBeVisible();
  await page.goto("/attic/key");
  await expect(page.getByRole("main")).toContainText("This page doesn't exist");
});

test("a rig that was taken off elsewhere says what waits here, and saves it once it is brought back", async ({ page }) => {
  const begun = { name: "Lent", lengthM: 3, widthM: 1.7, heightM: 1.9, living: "weekends", school: "drain" };
  const { id } = await (await page.request.post("/api/starts", { data: begun })).json();
  await page.goto(`/rigs/${id}`);
  await page.locator("[data-sheet]").waitFor();
  await page.route(`**/api/rigs/${id}/edits`, (route) => route.abort());
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("place cold tap");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status")).toContainText("kept on this device");
  await page.request.delete(`/api/rigs/${id}?revision=1`);
  await expect(page.getByRole("main")).toContainText("One change was not saved yet, and is kept on this device: Add cold tap");
  await page.reload();
  await expect(page.getByRole("main")).toContainText("Add cold tap");
  await page.unroute(`**/api/rigs/${id}/edits`);
  await page.request.post(`/api/rigs/${id}/bring-back`, { data: {} });
  await page.reload();
  await expect.poll(async () => (await (await page.request.get(`/api/rigs/${id}`)).json()).rig?.parts.length).toBe(1);
});

test("units and light are chosen once and kept on this device", async ({ page }) => {
  const before = await openSparrow(page);
  const ounces = (await poolsMl(page)) / 29.5735;
  await page.getByRole("button", { name: /^Units/ }).click();
  await expect(summary(page)).toContainText(`${ounces.toFixed(1)} fl oz in dips`);
  await expect(page.locator('[data-point="kitchen-cold:b2"]')).toHaveAttribute("aria-valuetext", "8 1/4 in");
  await page.getByRole("button", { name: "Dark screen" }).click();
  await page.reload();
  await expect(summary(page)).toContainText(`${ounces.toFixed(1)} fl oz in dips`);
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dark");
  await page.getByRole("button", { name: "Light screen" }).click();
  await page.getByRole("button", { name: /^Units/ }).click();
  await expect(summary(page)).toContainText(`${before} in dips`);
});

test("a tee moves with every run that meets there, and a tank does not move at all", async ({ page }) => {
  const before = await openSparrow(page);
  const tee = page.locator('[data-point="kitchen-cold:from"]');
  await expect(tee).toHaveAttribute("aria-label", /heater feed tee, 353 mm/);
  await tee.focus();
  await page.keyboard.press("PageDown");
  await page.keyboard.press("PageDown");
  // The main now climbs to its tee from the other side: three runs changed together.
  await expect(page.getByRole("tabpanel")).toContainText("cold main over the arch");
  // Two nudges in one breath are one change.
  await saved(page);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(summary(page)).toContainText(`${before} in dips`);

  await run(page).click();
  await page.getByRole("option", { name: "tank to valve" }).click();
  const tank = page.locator('[data-point="suction-tank:from"]');
  await expect(tank).toHaveAttribute("aria-disabled", "true");
  await tank.press("ArrowUp");
  await page.getByRole("tab", { name: "Selected" }).click();
  await expect(page.getByRole("textbox", { name: "Above floor" })).toBeDisabled();
  await saved(page);
});

test("side and plan share one scale and zoom together, panels can be hidden, and a press on a line or a part takes it in every view", async ({
  page,
}) => {
  await openSparrow(page);
  const side = page.locator('svg[data-view="side"]');
  const mixer = (view: string) => page.locator(`svg[data-view="${view}"] path[data-name="kitchen mixer"]`).last().boundingBox();
  const small = await mixer("side");
  expect((await mixer("plan"))?.x).toBeCloseTo(small?.x ?? 0, 1);
  expect((await mixer("plan"))?.width).toBeCloseTo(small?.width ?? 0, 1);
  await page.getByRole("button", { name: "Zoom in, Side and plan" }).click();
  expect((await mixer("side"))?.width).toBeGreaterThan(1.3 * (small?.width ?? 0));
  expect((await mixer("plan"))?.x).toBeCloseTo((await mixer("side"))?.x ?? 0, 1);
  await side.hover();
  await page.mouse.wheel(0, -200);
  await page.getByRole("button", { name: "Show all, Side and plan" }).click();
  expect((await mixer("side"))?.width).toBeCloseTo(small?.width ?? 0, 1);

  // The other view is small beside it; a press makes it large, and it is so when the page comes back.
  await page.getByRole("button", { name: "Make 3D large" }).click();
  await expect(page.locator("[data-corner]")).toBeVisible();
  await page.reload();
  await expect(page.locator("[data-corner]")).toBeVisible();
  await expect(page.locator("[data-sheet]")).toHaveCount(0);
  await page.getByRole("button", { name: "Make Side and plan large" }).click();
  await expect(page.locator("[data-sheet]")).toBeVisible();

  await page.keyboard.press("Escape");
  await page.waitForTimeout(300);
  const box = await mixer("side");
  if (!box) throw new Error("the mixer is not in the side view");
  await page.mouse.click(box.x + box.width / 2, box.y + 4);
  await expect(page.locator('[data-inspector="part/mixer"]')).toBeVisible();
  await expect(page.locator('svg[data-view="plan"] text', { hasText: "kitchen mixer" })).toHaveCSS("font-weight", "650");
});

test("while the program is away a change is kept on this device, and saved when it is back", async ({ page }) => {
  await openSparrow(page);
  await page.route("**/api/rigs/sparrow/edits", (route) => route.abort());
  await page.locator('[data-point="kitchen-cold:b2"]').press("ArrowUp");
  await expect(page.getByRole("status")).toContainText("kept on this device");
  await page.getByRole("button", { name: "1 unsaved edit" }).click();
  await expect(page.getByRole("dialog")).toContainText("kitchen cold, bend 2 up 5 mm");
  await page.keyboard.press("Escape");
  await page.unroute("**/api/rigs/sparrow/edits");
  await expect(page.getByRole("status")).toHaveText("Saved", { timeout: 10_000 });
  // Screen, server and file are one.
  await expect(page.locator('[data-point="kitchen-cold:b2"]')).toHaveAttribute("aria-valuetext", "215 mm");
  const heights = async (path: string) => {
    const told = await (await page.request.get(path)).json();
    const { runs } = told.rig ?? told;
    return runs.find((r: { id: string }) => r.id === "kitchen-cold").bends[1].at.zM;
  };
  expect([await heights("/api/rigs/sparrow"), await heights("/api/rigs/sparrow/file")]).toEqual([0.215, 0.215]);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.locator('[data-point="kitchen-cold:b2"]')).toHaveAttribute("aria-valuetext", "210 mm");
});

test("lenses by key, ladder by hour, and the night's length answers", async ({ page }) => {
  await openSparrow(page);
  await page.keyboard.press("c");
  await expect(page.getByRole("slider", { name: "Hour", exact: true })).toHaveAttribute("aria-valuetext", "morning");
  await page.getByRole("tab", { name: "Freezes" }).click();
  const ladder = page.getByRole("tabpanel");
  await expect(ladder).toContainText("6 of 6 before morning");
  const left = page.getByRole("slider", { name: "How long it is left" });
  await left.focus();
  await left.press("Home");
  await expect(ladder).toContainText("22:30");
  for (let i = 0; i < 5; i++) await left.press("ArrowRight");
  await expect(ladder).toContainText("06:00 next day");
  await ladder.getByRole("button", { name: /^shower hot, garage/ }).click();
  await ladder.getByRole("button", { name: /^Why: first ice, shower hot, garage/ }).click();
  await expect(ladder.locator("[data-why]")).toContainText("estimate");
  await page.keyboard.press("d");
  await expect(summary(page)).toBeVisible();
});

test.describe("by touch", () => {
  test.use({ hasTouch: true, viewport: { width: 1024, height: 768 } });

  test("a finger takes a run, and pulls a height", async ({ page }) => {
    const before = await openSparrow(page);
    const full = await poolsMl(page);
    const mark = await page.locator('svg[data-view="plan"] [data-finding="pool:shower-hot"] circle').last().boundingBox();
    if (!mark) throw new Error("the finding has no mark in the plan");
    await page.touchscreen.tap(mark.x + mark.width / 2, mark.y + mark.height / 2);
    await expect(run(page)).toHaveText("shower hot");
    await page
      .getByRole("tabpanel")
      .getByRole("button", { name: /kitchen cold/ })
      .tap();
    const point = await page.locator('[data-point="kitchen-cold:b2"]').boundingBox();
    if (!point) throw new Error("the low bend is not in the strip");
    const [x, y] = [point.x + point.width / 2, point.y + point.height / 2];
    const touch = await page.context().newCDPSession(page);
    const send = (type: "touchStart" | "touchMove" | "touchEnd", dy: number) =>
      touch.send("Input.dispatchTouchEvent", { type, touchPoints: type === "touchEnd" ? [] : [{ x, y: y + dy }] });
    await send("touchStart", 0);
    for (let up = 5; up <= 60; up += 5) await send("touchMove", -up);
    await send("touchEnd", -60);
    await expect.poll(() => poolsMl(page)).toBeLessThan(full / 2);
    await saved(page);
    await page.getByRole("button", { name: "Undo" }).tap();
    await expect(summary(page)).toContainText(`${before} in dips`);
  });
});
