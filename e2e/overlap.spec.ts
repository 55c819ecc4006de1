import { expect, rigOf, test } from "./fresh.ts";
import { crossed, overlaps } from "./overlap.ts";

const sizes = [
  [1280, 800],
  [1024, 768],
  [768, 1024],
  [1440, 900],
  [1920, 1080],
] as const;

// Under the water lens what is open has its figures in the drawing.
const places = ["", "water", "/brief", "/shell", "/night", "/drain", "/weights"];

for (const rig of ["lantern", "sparrow", "tern"])
  test(`nothing lies on anything else and no name on a line in ${rig}, in five sizes, and in the dark`, {
    tag: rig === "lantern" ? [] : "@long",
  }, async ({ page }) => {
    test.setTimeout(120_000);
    const found = new Set<string>();
    const lines = (await rigOf(page, rig)).runs.map((r: { name: string }) => r.name);
    for (const place of places) {
      await page.setViewportSize({ width: 1280, height: 800 });
      await page.goto(`/rigs/${rig}${place === "water" ? "" : place}`);
      await page.locator("[data-outlook]").first().waitFor();
      if (place === "water") {
        await page.locator("[data-sheet]").press("w");
        await page.getByRole("tab", { name: "Water" }).click();
        const open = page.locator("[data-water]").getByRole("button", { name: "Open" });
        await open.first().click();
        await open.first().click();
      }
      for (const [width, height] of place === "water" ? sizes.slice(0, 2) : sizes) {
        await page.setViewportSize({ width, height });
        // In the dark only colours are others: one size shows that nothing moves.
        for (const theme of place === "water" || width !== sizes[0][0] ? ["light"] : ["light", "dark"]) {
          await page.evaluate((to) => {
            document.documentElement.dataset.theme = to;
          }, theme);
          // Names are placed anew once the hand rests: until two looks see the same.
          let before: string[] = ["not looked yet"];
          let now: string[] = [];
          await expect
            .poll(
              async () => {
                [before, now] = [now, [...(await overlaps(page)), ...(await crossed(page, lines))]];
                return JSON.stringify(before) === JSON.stringify(now);
              },
              { intervals: [600] },
            )
            .toBe(true);
          for (const f of now) found.add(`${place || "/"} ${width}x${height}: ${f}`);
        }
      }
    }
    expect([...found]).toEqual([]);
  });
