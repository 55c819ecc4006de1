import { expect, saved, test } from "./fresh.ts";

test("the opening picture moves, and stands still where that is wished; it is hidden for good", async ({ page }) => {
  await page.emulateMedia({ reducedMotion: "no-preference" });
  await page.goto("/");
  const opening = page.getByRole("region", { name: "What Warm Conduit does" });
  await expect(opening).toBeVisible();
  const moving = () => opening.evaluate((e) => e.getAnimations({ subtree: true }).length);
  expect(await moving()).toBeGreaterThan(5);
  await page.emulateMedia({ reducedMotion: "reduce" });
  await expect.poll(moving).toBe(0);
  await expect(opening.getByText("93 mL left in the dip")).toBeVisible();
  await opening.getByRole("button", { name: "Hide this" }).click();
  await page.reload();
  await expect(page.getByRole("heading", { name: "Sparrow" })).toBeVisible();
  await expect(opening).toHaveCount(0);
});

test("the first walk leads through six steps, and sees that each was done", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: /Take the first walk/ }).click();
  const walk = page.getByRole("region", { name: "First walk" });
  const done = walk.getByLabel("Done");
  const next = () => walk.getByRole("button", { name: "Next step" }).click();
  await expect(walk).toContainText("Step 1 of 6");
  await page.locator("[data-summary][data-stale=false]").waitFor();
  await next();
  await expect(done).toHaveCount(0);
  await page
    .getByRole("button", { name: /shower hot/ })
    .first()
    .click();
  await expect(done).toBeVisible();
  await page
    .getByRole("button", { name: /kitchen cold/ })
    .first()
    .click();
  await next();
  await next();
  await page.getByRole("list", { name: "Fixes" }).getByRole("button", { name: "Apply" }).first().click();
  await expect(done).toBeVisible();
  await saved(page);
  await next();
  await walk.getByRole("link", { name: "Open Drain" }).click();
  await expect(walk).toContainText("Step 5 of 6");
  await expect(done).toBeVisible();
  await next();
  await walk.getByRole("link", { name: "Open Night" }).click();
  await walk.getByRole("button", { name: "Finish" }).click();
  await expect(walk).toHaveCount(0);
});

test("the shelf is sorted by harm, and a rig is duplicated", async ({ page }) => {
  await page.goto("/");
  const names = page.locator("main ul h2 span:first-child");
  await page.getByRole("radio", { name: "Worst first" }).click();
  await expect(names.last()).toHaveText("Lantern");
  await page.getByRole("radio", { name: "Name" }).click();
  await expect(names.first()).toHaveText("Lantern");
  await page.getByRole("button", { name: "Duplicate Tern" }).click();
  const copy = page.getByRole("listitem").filter({ has: page.getByRole("heading", { name: /^Tern \(2\)/ }) });
  await expect(copy).toContainText("Freeze damage");
  await copy.getByRole("button", { name: "Delete Tern (2)" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Delete" }).click();
  await expect(copy).toHaveCount(0);
});

test("a room is added, drawn and duplicated, each in one step that is undone in one", async ({ page }) => {
  await page.goto("/rigs/sparrow/shell");
  const rooms = page.getByRole("region", { name: "Rooms", exact: true }).getByRole("listitem");
  await expect(rooms.first()).toBeVisible();
  const before = await rooms.count();
  await page.getByRole("button", { name: "Add room", exact: true }).click();
  await expect(rooms).toHaveCount(before + 1);
  await expect(page.getByRole("region", { name: "Room: new room" })).toContainText("W/K");
  await page.getByRole("button", { name: "Duplicate room" }).click();
  await expect(page.getByRole("region", { name: "Room: new room 2" })).toBeVisible();
  await page.getByRole("button", { name: "Draw room" }).click();
  const view = await page.locator("[data-draw=plan]").boundingBox();
  if (!view) throw new Error("no view");
  await page.mouse.move(view.x + 200, view.y + 60);
  await page.mouse.down();
  await page.mouse.move(view.x + 300, view.y + 130, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole("region", { name: "Room: new room 3" })).toBeVisible();
  await expect(rooms).toHaveCount(before + 3);
  for (const left of [2, 1, 0]) {
    await page.keyboard.press("Control+z");
    await expect(rooms).toHaveCount(before + left);
  }
  await saved(page);
});
