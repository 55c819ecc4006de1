import { expect, saved, test } from "./fresh.ts";

test("a lay-up is walked step by step, with what comes out, what can hurt, and how it ends", async ({ page }) => {
  await page.goto("/rigs/tern/layup");
  await page.getByRole("combobox", { name: "Procedure" }).selectOption("airLayUp");
  const sums = page.locator("[data-procedure=airLayUp]");
  await expect(sums).toContainText("come out");
  // Heat first; every step in turn by the big button, to the end.
  await expect(page.locator("[data-step]")).toContainText("off, and leave it off");
  const steps = await page.getByLabel("All steps").getByRole("button").count();
  expect(steps).toBeGreaterThan(15);
  const seen = new Set<string>();
  for (let i = 0; i < steps; i++) {
    seen.add((await page.locator("[data-step]").getAttribute("data-step")) ?? "");
    const next = page.locator("[data-next]");
    if (i < steps - 1) await next.click();
    if (i < steps - 1) await expect(page.locator("[data-step]")).not.toHaveAttribute("data-step", [...seen].at(-1) as string);
  }
  expect(seen.size).toBe(steps);
  await expect(page.locator("[data-next]")).toBeDisabled();
  const big = await page.getByRole("button", { name: "Back", exact: true }).boundingBox();
  expect(big?.height).toBeGreaterThanOrEqual(64);
  // The regulator has its limit and its caution; the step shows its part on the drawing.
  await page.getByLabel("All steps").getByText("set the regulator to").click();
  await expect(page.getByLabel("Step", { exact: true })).toContainText("A tap is open before the air is on.");
  await page.getByLabel("All steps").getByText("until only mist comes").first().click();
  await expect(page.locator("[data-step-drawing]")).not.toHaveAttribute("data-step-drawing", "");
  await expect(page.getByLabel("At the end")).toContainText("drain A");
  // An emergency begins with what freezes first.
  await page.getByRole("combobox", { name: "Procedure" }).selectOption("heatFailed");
  await expect(page.locator("[data-step]")).toContainText("has ice in");
});

test("the air of each outlet, the source that it comes from, and a port where there is none", async ({ page }) => {
  await page.goto("/rigs/tern/layup");
  await page.getByRole("radio", { name: "Blow out" }).click();
  const left = page.locator("[data-air-left]");
  const by = async (source: string) => {
    await page.getByLabel("Air from").selectOption(source);
    await expect(page.getByLabel("Air", { exact: true }).locator("[aria-busy=true]")).toHaveCount(0);
  };
  await by("workshopCompressor");
  await expect(page.locator("[data-outlet-air][data-carries=all]").first()).toBeVisible();
  const workshop = Number(await left.getAttribute("data-air-left"));
  await by("footPump");
  await expect(page.locator("[data-outlet-air][data-carries=bubbles]").first()).toBeVisible();
  expect(Number(await left.getAttribute("data-air-left"))).toBeGreaterThan(workshop);
  // One outlet by itself: only its lines are drawn.
  const all = Number(await page.locator("[data-air]").first().getAttribute("data-air"));
  await page.locator("[data-outlet-air] button").first().click();
  await expect.poll(async () => Number(await page.locator("[data-air]").first().getAttribute("data-air"))).toBeLessThan(all);
  // Mistakes on a simulated compressor: the regulator left open, then the outlet shut.
  await page.getByText("Try it on a simulated compressor").click();
  await page.getByRole("slider", { name: "Regulator" }).focus();
  await page.keyboard.press("End");
  await page.getByRole("switch", { name: "Outlet open" }).click();
  await by("workshopCompressor");
  await expect(page.locator("[data-compressor=fault]")).toContainText("their limit is");
  await page.getByRole("slider", { name: "Regulator" }).focus();
  await page.keyboard.press("Home");
  await expect(page.locator("[data-compressor=fault]")).toContainText("No outlet is open");
  // Sparrow has no port: one is proposed, and placed.
  await page.goto("/rigs/sparrow/layup");
  await expect(page.getByText("There is nowhere to join an air hose.")).toBeVisible();
  await page.locator("[data-port-place]").first().getByRole("button", { name: "Place" }).click();
  await expect(page.locator("[data-outlet-air]:not([data-carries=none])").first()).toBeVisible();
  await saved(page);
});

test("antifreeze: how much to buy, how strong it is at each tap, and what stays plain", async ({ page }) => {
  await page.goto("/rigs/tern/layup");
  await page.getByRole("radio", { name: "Antifreeze" }).click();
  const total = page.locator("[data-fluid]");
  await expect(total).toContainText("of antifreeze");
  const drained = Number(await total.getAttribute("data-fluid"));
  const first = page.locator("[data-outlet-fluid]").first();
  await expect(first).toContainText("no ice to");
  const strong = (await first.textContent()) ?? "";
  await page.getByRole("switch", { name: "Drained first" }).click();
  // On full lines there is more to push out, and it is thinned.
  await expect.poll(async () => Number(await total.getAttribute("data-fluid"))).toBeGreaterThan(drained);
  await expect
    .poll(async () => Number.parseInt(/(\d+) ?% glycol/.exec((await first.textContent()) ?? "")?.[1] ?? "99", 10))
    .toBeLessThan(Number.parseInt(/(\d+) ?% glycol/.exec(strong)?.[1] ?? "0", 10));
});

test("on a phone the lay-up has one column, and the step is at hand", async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  await page.goto("/rigs/tern/layup");
  await expect(page.locator("[data-step]")).toBeVisible();
  for (const tab of ["Steps", "Blow out", "Antifreeze"]) {
    await page.getByRole("radio", { name: tab }).click();
    await expect(page.locator("[data-step], [data-air-left], [data-fluid]").first()).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  }
});
