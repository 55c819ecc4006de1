import { join } from "node:path";
import { type Page, test } from "@playwright/test";

const shot = (page: Page, name: string) =>
  page.screenshot({
    path: join(import.meta.dirname, "../docs/screenshots", `${name}.png`),
    animations: "disabled",
  });

async function bench(page: Page) {
  await page.goto("/rigs/sparrow");
  await page.locator("[data-summary]").waitFor();
  await page.locator("[data-strip] [data-wet]").first().waitFor();
}

test("shelf", async ({ page }) => {
  await page.goto("/");
  await page.locator("svg path[stroke='var(--stays)']").first().waitFor({ state: "attached" });
  await shot(page, "shelf");
});

test("bench, drain lens", async ({ page }) => {
  await bench(page);
  await page.locator('[data-point="kitchen-cold:b2"]').focus();
  await shot(page, "bench-drain");
});

test("bench, cold lens", async ({ page }) => {
  await bench(page);
  await page.getByRole("radio", { name: "Full" }).click();
  await page.getByRole("switch", { name: "Heat" }).click();
  await page.getByRole("radio", { name: "Cold" }).click();
  await page.getByRole("tab", { name: "First ice" }).click();
  await page.waitForTimeout(300);
  await shot(page, "bench-cold");
});

test("bench, tablet in the dark", async ({ page }) => {
  await page.emulateMedia({ colorScheme: "dark" });
  await page.setViewportSize({ width: 1024, height: 768 });
  await bench(page);
  await shot(page, "bench-dark-tablet");
});

test("bench, a part in hand, from below", async ({ page }) => {
  await bench(page);
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("grey tank");
  await page
    .getByRole("option", { name: /^grey tank/ })
    .first()
    .click();
  for (let n = 0; n < 4; n++) await page.getByRole("button", { name: "Look from lower down" }).click();
  await page.waitForTimeout(500);
  await shot(page, "bench-in-hand");
});

test("bench, tablet held upright", async ({ page }) => {
  await page.setViewportSize({ width: 768, height: 1024 });
  await page.goto("/rigs/sparrow");
  await page.locator("[data-summary][data-stale=false]").waitFor();
  await page.getByRole("radio", { name: "Corner" }).click();
  await page.waitForTimeout(500);
  await shot(page, "bench-portrait");
});
