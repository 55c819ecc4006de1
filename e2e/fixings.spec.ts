import { expect, saved, takeKitchenCold, test } from "./fresh.ts";

test("a clip and a grommet hold a run at a point, slack sags and is told, and its mend takes it out", async ({ page }) => {
  const run = async () =>
    (await (await page.request.get("/api/rigs/sparrow")).json()).rig.runs.find((r: { id: string }) => r.id === "kitchen-cold");
  await page.goto("/rigs/sparrow");
  await takeKitchenCold(page);
  await page.locator('[data-point="kitchen-cold:b1"]').first().focus();
  await page.getByRole("tab", { name: "Selected" }).click();
  await page.getByRole("button", { name: "Add a clip after" }).click();
  const held = page.getByLabel("Fixed here by");
  await expect(held).toHaveValue("clip");
  await held.selectOption("grommet");
  await saved(page);
  expect((await run()).bends.map((b: { fixing?: string }) => b.fixing ?? null)).toContain("grommet");

  await page.getByRole("button", { name: "Select the run" }).click();
  const slack = page.getByLabel("Extra length");
  await slack.fill("40 mm");
  await slack.press("Enter");
  await saved(page);
  await expect.poll(async () => (await run()).slackM).toBeCloseTo(0.04);
  await page.getByRole("tab", { name: /Issues/ }).click();
  await page.getByRole("button", { name: /kitchen cold sags/ }).click();
  const mend = page.getByRole("list", { name: "Fixes" }).getByRole("listitem").filter({ hasText: "Remove extra length" });
  await mend.getByRole("button", { name: /Apply/ }).click();
  await saved(page);
  await expect.poll(async () => (await run()).slackM ?? null).toBe(null);
});
