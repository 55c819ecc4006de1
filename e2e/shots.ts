import { join } from "node:path";
import { type Page, takeKitchenCold, test } from "./fresh.ts";

/** A view as it is found, from its top on. */
async function shot(page: Page, name: string) {
  await page.evaluate(() => scrollTo(0, 0));
  await page.screenshot({ path: join(import.meta.dirname, "../docs/screenshots", `${name}.png`), animations: "disabled" });
}

// Under the drain lens until another is chosen; the night is a line.
test.beforeEach(({ page }) =>
  page.addInitScript(() => {
    if (localStorage.getItem("shot")) return;
    localStorage.setItem("shot", "yes");
    const state = { lens: "drain", tab: "findings", large: "sheet", shown: { rail: true, weather: false }, follow: true };
    localStorage.setItem("bench-view", JSON.stringify({ state, version: 3 }));
  }),
);

async function bench(page: Page) {
  await page.goto("/rigs/sparrow");
  await page.locator("[data-summary]").waitFor();
  await takeKitchenCold(page);
  await page.locator("[data-strip] [data-wet]").first().waitFor();
  // Names are placed once all rests.
  await page.waitForTimeout(600);
}

test("shelf", async ({ page }) => {
  await page.goto("/");
  await page.locator("[data-outlook]").nth(2).waitFor();
  await shot(page, "shelf");
});

/** The rig as it is at 3 am. */
async function atThree(page: Page) {
  const hour = page.getByRole("slider", { name: "Hour", exact: true });
  await hour.press("Home");
  for (let h = 0; h < 5; h++) await hour.press("ArrowRight");
  await page.waitForTimeout(800);
}

test("bench, drain lens", async ({ page }) => {
  await bench(page);
  await page.locator('[data-point="kitchen-cold:b2"]').focus();
  await shot(page, "bench-drain");
});

test("bench, cold lens", async ({ page }) => {
  await bench(page);
  await page.keyboard.press("n");
  await page.getByRole("radio", { name: "Full" }).click();
  await page.getByRole("switch", { name: "Heat" }).click();
  await page.keyboard.press("n");
  await page.keyboard.press("Escape");
  await page.getByRole("radio", { name: "Cold" }).click();
  await page.getByRole("tab", { name: "Freezes" }).click();
  await atThree(page);
  await shot(page, "bench-cold");
});

test("bench, tablet in the dark", async ({ page }) => {
  await page.emulateMedia({ colorScheme: "dark" });
  await page.setViewportSize({ width: 1024, height: 768 });
  await bench(page);
  await shot(page, "bench-dark-tablet");
});

/** Lantern under the water lens. */
async function water(page: Page) {
  await page.goto("/rigs/lantern");
  await page.locator("[data-summary][data-stale=false]").waitFor();
  await page.keyboard.press("Escape");
  await page.keyboard.press("w");
  await page.getByRole("tab", { name: "Water" }).click();
  await page.locator("[data-water][data-stale=false]").waitFor();
}

test("supply: three taps open", async ({ page }) => {
  await water(page);
  const open = page.locator("[data-water]").getByRole("button", { name: "Open" });
  for (const n of [0, 1, 2]) await open.nth(n).click();
  await page.getByText("Why not more?").click();
  await page.locator("[data-costs]").first().waitFor();
  await page.waitForTimeout(900);
  await shot(page, "water");
});

test("a valve card", async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 1040 });
  await water(page);
  await page.getByLabel("Valves set to").selectOption("town");
  await page.getByRole("button", { name: "Valve card…" }).click();
  await page.locator("[data-valve-card]").waitFor();
  await page.waitForTimeout(400);
  await shot(page, "valve-card");
});

for (const place of ["brief", "shell"] as const)
  test(place, async ({ page }) => {
    await page.goto(`/rigs/sparrow/${place}`);
    await page.locator("[data-follows], [data-zones]").first().waitFor();
    if (place === "shell") {
      await page.getByRole("switch", { name: "Heat" }).click();
      await page.getByRole("button", { name: /^garage/ }).click();
    }
    await page.waitForTimeout(500);
    await shot(page, place);
  });

test("weights", async ({ page }) => {
  await page.goto("/rigs/sparrow/weights");
  for (const [label, value] of [
    ["Front axle, weighed empty", "1150 kg"],
    ["Rear axle, weighed empty", "830 kg"],
    ["Rear axle limit", "1450 kg"],
    ["Gross weight limit", "2800 kg"],
    ["People, furniture, gear", "420 kg"],
  ] as const) {
    const field = page.getByRole("textbox", { name: label });
    await field.fill(value);
    await field.press("Enter");
    await page.waitForTimeout(400);
  }
  await page.waitForTimeout(600);
  await shot(page, "weights");
});

test("the night, hour by hour, and what it rests on", async ({ page }) => {
  await page.goto("/rigs/lantern/night");
  await page.getByRole("radio", { name: "Full" }).click();
  // The plan over a night with no heat at all.
  await page.waitForTimeout(800);
  await page.getByRole("button", { name: "Compare with…" }).click();
  await page.getByLabel("Saved with the rig").selectOption({ label: "Heat fails at two" });
  await page.waitForTimeout(1500);
  await atThree(page);
  await page.evaluate(() => scrollTo(0, 0));
  await shot(page, "night");
  await page.setViewportSize({ width: 1280, height: 1000 });
  await page.getByRole("radio", { name: "Brief's night" }).click();
  await page.getByRole("tab", { name: "Improve" }).click();
  await page.getByRole("button", { name: "Find the cheapest set" }).click();
  await page.getByLabel("Hold it").getByLabel("Outdoors").fill("-25");
  await page.keyboard.press("Enter");
  await page.locator("[data-whole=true]").waitFor();
  await page.waitForTimeout(600);
  await shot(page, "improve");
});

test("drain-down: order, water going down, how it may stand", async ({ page }) => {
  await page.goto("/rigs/lantern/drain");
  const ticks = page.getByLabel("Draining steps").getByRole("checkbox");
  for (let n = 0; n < 3; n++) await ticks.nth(n).click();
  await page.getByLabel("State").waitFor();
  await page.getByRole("button", { name: /Open drain C/ }).click();
  await page.locator("[data-after='3'][aria-busy=false]").waitFor();
  await page.waitForTimeout(600);
  await shot(page, "drain");
});

test("lay-up: a step of it, and the air lens", async ({ page }) => {
  await page.goto("/rigs/tern/layup");
  await page.getByRole("combobox", { name: "Procedure" }).selectOption("airLayUp");
  await page.getByLabel("All steps").getByText("until only mist comes").nth(1).click();
  await page.evaluate(() => scrollTo(0, 0));
  await page.waitForTimeout(800);
  await shot(page, "layup");
  await page.goto("/rigs/tern/log");
  await page.locator("[data-collected]").first().waitFor();
  await page.waitForTimeout(600);
  await shot(page, "logbook");
  await page.goto("/rigs/tern");
  await page.locator("[data-sheet]").waitFor();
  await page.keyboard.press("x");
  await page.getByRole("tab", { name: "Air" }).click();
  await page.locator("[data-air]").first().waitFor();
  await page.waitForTimeout(800);
  await shot(page, "bench-air");
});

test("the heat lens: what warms what, and what it uses; a mode of its valves", async ({ page }) => {
  await page.goto("/rigs/lantern");
  await page.locator("[data-summary][data-stale=false]").waitFor();
  await page.keyboard.press("Escape");
  await page.keyboard.press("g");
  await page.getByRole("tab", { name: "Heat" }).click();
  await page.locator("[data-modes]").waitFor();
  await page.locator("[data-hot-loops]").waitFor();
  await page.waitForTimeout(1200);
  await page.locator("[data-energy]").last().scrollIntoViewIfNeeded();
  await shot(page, "bench-heat");
  await page.getByText(/^Compare \d+ modes/).click();
  await page.locator("[data-mode='Rooms and frost protection']").click();
  await page.mouse.move(500, 780);
  await page.locator("[data-heat-panel]").evaluate((panel) => panel.scrollTo(0, 0));
  await page.waitForTimeout(1500);
  await shot(page, "heat-modes");
});

test("a walk-through on a phone", async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  await page.goto("/rigs/sparrow/layup");
  await page.getByRole("combobox", { name: "Procedure" }).selectOption("weekendDrain");
  await page.locator("[data-procedure=weekendDrain]").waitFor();
  await page.locator("[data-begin]").click();
  const jug = page.getByLabel("Measured volume");
  const step = page.locator("[data-step]");
  await step.waitFor();
  while ((await jug.count()) === 0) {
    const was = (await step.getAttribute("data-step")) ?? "";
    await page.locator("[data-done]").click();
    await page.locator(`[data-step]:not([data-step="${was}"])`).waitFor();
  }
  await page.waitForTimeout(600);
  await shot(page, "walk-phone");
});

test("a fix looked at before it is done", async ({ page }) => {
  await bench(page);
  await page.getByRole("list", { name: "Fixes" }).getByRole("listitem").first().hover();
  await page.waitForTimeout(500);
  await shot(page, "fixes");
});
