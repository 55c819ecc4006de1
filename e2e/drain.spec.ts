import { expect, openSparrow, pools, poolsMl, saved, summary, test } from "./fresh.ts";

test("a fix is looked at in every view, done by a key, and undone", async ({ page }) => {
  const before = await openSparrow(page);
  const full = await poolsMl(page);
  const fixes = page.getByRole("list", { name: "Fixes" });
  // What the list promises is what the bench tells once it is done.
  await expect(fixes.getByRole("listitem").first()).toContainText(/\d mL less water left/);
  const less = Number.parseFloat(
    /(\d+) mL less water left/.exec((await fixes.getByRole("listitem").first().textContent()) ?? "")?.[1] ?? "0",
  );
  await fixes.getByRole("listitem").first().hover();
  for (const view of ["[data-view=side]", "[data-view=plan]", "[data-strip]"])
    await expect(page.locator(`${view} [data-fix-ghost]`)).toHaveCount(1);
  await expect(page.locator("[data-band]")).toContainText("373 mm to 795 mm");
  await page.locator("[data-sheet]").press("m");
  await expect.poll(async () => Math.abs(full - less - (await poolsMl(page)))).toBeLessThan(1.5);
  await expect(page.locator("[data-fix-ghost]")).toHaveCount(0);
  await saved(page);
  await page.keyboard.press("Control+z");
  await expect(summary(page)).toContainText(`${before} in dips`);
});

test("Tern is mended as a whole, and then drains anywhere within a degree", async ({ page }) => {
  await page.goto("/rigs/tern/drain");
  const parking = page.getByLabel("Parking slope", { exact: true });
  await expect(parking).toContainText("it drains on 0% of the slopes");
  await page.goto("/rigs/tern");
  const before = await pools(page);
  await page.getByRole("button", { name: "Fix all…" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("outdoor shower cold: 4 bends up");
  // What cannot be bought is not proposed.
  await dialog.getByRole("radio", { name: "New parts", exact: true }).click();
  await expect(dialog).toContainText("no new part");
  await expect(dialog).not.toContainText(/\d new part/);
  await dialog.getByRole("radio", { name: "Anything" }).click();
  await dialog.getByRole("button", { name: /Apply all \d/ }).click();
  await expect(summary(page)).not.toContainText(before);
  await saved(page);
  await page.getByRole("link", { name: "Drain", exact: true }).click();
  await expect(parking).toContainText("it drains on 100% of the slopes");
  await expect(parking).toContainText("drains to the limits");
});

test("the order of draining, the water going down, a jug that is short, and the best way to stand", async ({ page }) => {
  await page.goto("/rigs/lantern/drain");
  const order = page.getByLabel("Draining steps");
  await expect(order.getByRole("listitem").first()).toContainText("Open drain A");
  await expect(order.getByRole("listitem").first()).toContainText(/[\d.]+ L/);
  const comes = /([\d.]+) L/.exec((await order.getByRole("listitem").first().textContent()) ?? "")?.[1] ?? "";
  const steps = await order.getByRole("checkbox").count();
  await expect(page.getByRole("heading", { name: `After step ${steps}` })).toBeVisible();
  for (let n = 0; n < steps; n++) await page.getByRole("button", { name: "Step back" }).click();
  await expect(page.getByRole("heading", { name: "Full, all closed" })).toBeVisible();
  await expect(page.locator("[data-after='0'][aria-busy=false] path[stroke='var(--stays)']").first()).toBeAttached();

  // Played, each step's water leaves by what it opens, until all is done; without motion it only steps.
  await page.emulateMedia({ reducedMotion: "no-preference" });
  await page.getByRole("button", { name: "Play the draining" }).click();
  await expect(page.locator("[data-after='1'] [data-leaving]:not([data-leaving='0']) .leaving-drop").first()).toBeAttached();
  await page.emulateMedia({ reducedMotion: "reduce" });
  await expect(page.locator("[data-after='2'] [data-leaving]")).toBeHidden();
  await page.getByRole("button", { name: "Stop the draining" }).click();
  await page.getByRole("slider", { name: "Steps done" }).press("Home");

  // Each step hangs as a tag on its valve; a tag is pressed as its step is, and both say what forgetting it costs.
  for (let n = 1; n <= steps; n++) await expect(page.locator(`[data-tag="${n}"]`).first()).toBeAttached();
  await page.locator("[data-tag='1']").click();
  await expect(page.getByRole("heading", { name: "After step 1" })).toBeVisible();
  await expect(order).toContainText(/If you forget it, \d+ L more stays, most of it in kerb-side tank/);

  // Half of what the two tanks hold is missing: one of their valves.
  await order.getByRole("button", { name: /Open drain A/ }).click();
  await order.getByLabel("Measured volume").fill(`${Number(comes) / 2} L`);
  await order.getByLabel("Measured volume").press("Enter");
  await expect(page.locator("[data-proof]")).toContainText(`is missing of ${comes} L`);
  await expect(page.locator("[data-proof] li").first()).toContainText(/valve, (kerb|far)-side tank is shut/);

  const parking = page.getByLabel("Parking slope", { exact: true });
  await expect(parking).toContainText("a block of 42 mm under each front wheel");
  await parking.getByRole("button", { name: "Show it on this slope" }).click();
  await expect(parking).toContainText("nose 0.5° up");
  await expect(parking).toContainText("Good as it is");
  // Stricter limits leave fewer ways to stand; they are the rig's own.
  await parking.getByLabel("Of a tank's content").fill("0.5 %");
  await parking.getByLabel("Of a tank's content").press("Enter");
  await expect(parking).not.toContainText("it drains on 57%");
});

test("what was done is ticked, what was not is told, and the night and the shelf start from it", async ({ page }) => {
  await page.goto("/rigs/tern/drain");
  const order = page.getByLabel("Draining steps");
  const state = order.getByLabel("State");
  await expect(order).toContainText("Tick each step");
  const boxes = order.getByRole("checkbox");
  const steps = await boxes.count();
  for (let n = 0; n < steps; n++) await boxes.nth(n).click();
  await expect(state).toContainText("in it");
  await expect(state).not.toContainText("not done");
  // One tap was forgotten: of its step the box is half ticked.
  await order.getByRole("button", { name: /Open every tap/ }).click();
  const shower = order.getByLabel("Taps").getByRole("checkbox", { name: /outdoor shower/ });
  const before = await state.textContent();
  await shower.click();
  await expect(order.getByRole("checkbox", { name: /Open every tap/ })).toHaveAttribute("aria-checked", "mixed");
  await expect(state).toContainText("not done: outdoor shower");
  await expect(state).not.toHaveText(before ?? "");
  await saved(page);
  await state.getByRole("button", { name: "Use this state for the night" }).click();
  await page.goto("/rigs/tern/night");
  await expect(page.getByRole("radio", { name: "As left" })).toBeChecked();
  await page.goto("/");
  await expect(page.getByRole("listitem").filter({ has: page.getByRole("heading", { name: /^Tern/ }) })).toContainText("as left");
  await expect(page.locator("[data-left]")).toContainText("not done: outdoor shower");
  // Full again, nothing of it counts any more; and that is undone like all else.
  await page.goto("/rigs/tern/drain");
  await state.getByRole("button", { name: "Mark as filled" }).click();
  await expect(state).toContainText("Full · filled");
  await page.keyboard.press("Control+z");
  await expect(state).toContainText("not done: outdoor shower");
  await saved(page);
});

test("all heights at once: looked at, done, and kept where they are locked", async ({ page }) => {
  await page.goto("/rigs/sparrow/drain");
  const heights = page.getByLabel("All heights at once");
  await expect(heights).toContainText("every line falls on a slope of 1.0°");
  await heights.getByRole("button", { name: "Preview" }).click();
  await expect(page.locator("[data-after] [data-fix-ghost]")).toHaveCount(1);
  await expect(page.locator("[data-after] [data-chain]")).toHaveCount(1);
  await heights.getByText("Fixed lines").click();
  await heights.getByRole("checkbox", { name: "kitchen cold", exact: true }).check();
  await expect(heights).toContainText("cannot help");
  await expect(heights).not.toContainText("kitchen cold, bend 2:");
  await heights.getByRole("checkbox", { name: "kitchen cold", exact: true }).uncheck();
  // One point alone is held, and let go with a slope of its own.
  await heights.getByRole("button", { name: "Lock kitchen cold, bend 2" }).click();
  const limits = heights.getByRole("region", { name: "Points with limits" });
  await expect(heights).toContainText("cannot help");
  await limits.getByRole("checkbox", { name: /kitchen cold, bend 2/ }).uncheck();
  await limits.getByLabel("On a slope of").fill("0");
  await limits.getByLabel("On a slope of").press("Enter");
  await expect(heights).toContainText("every line falls on a slope of 1.0°");
  await heights.getByRole("button", { name: /Move \d+ points/ }).click();
  await saved(page);
  await expect(page.getByLabel("Water left")).not.toContainText("in dips");
});
