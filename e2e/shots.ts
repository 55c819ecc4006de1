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
