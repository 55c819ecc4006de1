import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { expect, test } from "./fresh.ts";

/** Files of rigs that are looked at besides the demos: the long campaign lays some there. */
const folder = process.env.WARM_CONDUIT_SUM_RIGS;
const files = folder ? readdirSync(folder).filter((f) => f.endsWith(".json")) : [];

/** "4.60 L left: 420 mL in dips, …" without what is said besides; the sum of it, and of its parts, mL. */
function sumOf(text: string) {
  const where = "(?:in dips|in parts|in tanks|airlocked|as film and in sags)";
  const said = text
    .replace(/\s+/g, " ")
    .match(new RegExp(`nothing left|([\\d.]+ m?L) left: ((?:[\\d.]+ m?L )?${where}(?:, [\\d.]+ m?L ${where})*)`));
  if (!said) throw new Error(`no sum in “${text}”`);
  const parts = [...(said[2] ?? "").matchAll(/[\d.]+ m?L/g)].map((m) => m[0]);
  // One place alone is not given a figure of its own.
  const words = said[1] ?? "nothing";
  return { words, mL: mL(words), within: halfOf([words, ...parts]), parts: parts.reduce((a, b) => a + mL(b), 0), many: parts.length };
}

const mL = (figure: string) => (figure === "nothing" ? 0 : Number.parseFloat(figure) * (figure.endsWith("mL") ? 1 : 1000));

/** Each figure is rounded by itself: as much as half of the last digit of each. */
const halfOf = (figures: string[]) =>
  figures.reduce((sum, f) => sum + (f.endsWith("mL") ? 0.51 : 500 / 10 ** (f.split(/[. ]/)[1]?.replace(/\D/g, "").length ?? 0)), 0);

const settled = (page: Page) => expect(page.locator("[data-summary]")).toHaveAttribute("data-stale", "false");

/** One rig on shelf, bench and drain, level and at two slopes: one figure, and what it is made of adds up to it. */
async function oneSum(page: Page, id: string) {
  await page.goto("/");
  const card = page.locator(`li a[href='/rigs/${id}']`);
  await expect(card).toContainText("After draining");
  const shelf = sumOf((await card.textContent()) ?? "");
  const rows: string[] = [];
  await page.goto(`/rigs/${id}`);
  for (const slope of ["level", "nose up", "kerb side up"]) {
    if (slope !== "level") {
      const slider = page.getByRole("slider", { name: slope === "nose up" ? "Parking pitch" : "Parking roll" });
      await slider.focus();
      for (let n = 0; n < 3; n++) await slider.press("ArrowRight");
    }
    await settled(page);
    const bench = sumOf((await page.locator("[data-summary]").textContent()) ?? "");
    await page.getByRole("link", { name: "Drain", exact: true }).click();
    const holds = page.getByLabel("Water left");
    await expect(holds).toContainText(bench.words === "nothing" ? /nothing/i : `${bench.words} left`);
    const all = holds.getByRole("button", { name: /^Show all/ });
    if (await all.isVisible()) await all.click();
    const lines = await holds.getByRole("listitem").allInnerTexts();
    const figures = lines.flatMap((line) => line.match(/\n≈? ?([\d.]+ m?L)\n/)?.[1] ?? []);
    const listed = figures.reduce((sum, f) => sum + mL(f), 0);
    if (bench.many > 1) expect(Math.abs(bench.parts - bench.mL), `${id}, ${slope}: parts of the sum`).toBeLessThanOrEqual(bench.within);
    expect(Math.abs(listed - bench.mL), `${id}, ${slope}: ${lines.join(" | ")}`).toBeLessThanOrEqual(halfOf([bench.words, ...figures]));
    if (slope === "level") expect(shelf.words, `${id} on the shelf`).toBe(bench.words);
    rows.push(`${id}, ${slope}: ${bench.words}`);
    await page.getByRole("link", { name: "Bench", exact: true }).click();
  }
  return rows;
}

for (const id of ["sparrow", "tern", "lantern"])
  test(`what stays in ${id} is one sum on every screen, level and on slopes`, async ({ page }) => {
    await oneSum(page, id);
  });

for (const file of files)
  test(`what stays in ${file} is one sum on every screen`, async ({ page }) => {
    const rig = await (
      await page.request.post("/api/rigs", { data: JSON.parse(readFileSync(join(folder as string, file), "utf8")) })
    ).json();
    for (const row of await oneSum(page, rig.id)) console.log(`| ${row} |`);
    await page.request.delete(`/api/rigs/${rig.id}?revision=1`);
  });
