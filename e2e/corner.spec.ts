import { expect, inspector, openSparrow, rigOf, saved, test } from "./fresh.ts";

test("the corner view turns by keys and drag, looks under the floor, takes a part, and lifts what is in hand", async ({ page }) => {
  await openSparrow(page);
  await page.keyboard.press("2");
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
  await page.getByRole("button", { name: "Show all, 3D" }).click();
  await page.locator('[data-point="kitchen-cold:b2"]').focus();
  await corner.focus();
  await page.keyboard.press("ArrowUp");
  await expect(page.locator('[data-point="kitchen-cold:b2"]')).toHaveAttribute("aria-valuetext", "215 mm");
  await saved(page);
});

test("in the corner view a port and a room are taken too; stock and turn are chosen in the inspector", async ({ page }) => {
  await openSparrow(page);
  await page.keyboard.press("2");
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("place ball valve");
  await page.keyboard.press("Enter");
  const part = inspector(page, "part");
  await part.getByRole("combobox", { name: "Stock part" }).selectOption({ label: "angle valve" });
  await expect(part).toContainText("angle valve");
  await part.getByRole("combobox", { name: /^Turned/ }).selectOption("3");
  await saved(page);
  const valve = async () => (await rigOf(page, "sparrow")).parts.find((p: { stock: string }) => p.stock === "angle-valve");
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
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.25);
  await expect(inspector(page, "zone")).toHaveAttribute("data-inspector", "zone/living");
  await expect(page.locator("[data-corner] [data-zone=living]")).toBeVisible();
});

test("in the corner view what is in hand is pulled in its plane, and by its lead up and down", async ({ page }) => {
  await openSparrow(page);
  await page.keyboard.press("2");
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("fresh tank");
  await page.keyboard.press("Enter");
  const at = async () => (await rigOf(page, "sparrow")).parts.find((p: { id: string }) => p.id === "tank").box.at;
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
