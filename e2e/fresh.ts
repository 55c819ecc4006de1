import { test as base, expect, type Page } from "@playwright/test";
import { address } from "./playwright.config.ts";

/** A test that finds the demo rigs as they ship, whatever was done to it before. */
export const test = base.extend<{ asShipped: undefined }>({
  // biome-ignore lint/correctness/noEmptyPattern: the runner reads from it what a fixture needs
  baseURL: async ({}, use, info) => use(address(info.parallelIndex)),
  // The night is open over the drawing, as a reader leaves it who is about to change it.
  context: async ({ context }, use) => {
    await context.addInitScript(() => {
      const state = { lens: "drain", tab: "findings", large: "sheet", shown: { rail: true, weather: true }, follow: true };
      if (!localStorage.getItem("bench-view")) localStorage.setItem("bench-view", JSON.stringify({ state, version: 2 }));
    });
    await use(context);
  },
  asShipped: [
    async ({ request }, use) => {
      for (const id of ["sparrow", "tern", "lantern"]) {
        // A page of the test before may save what was left while it closes.
        await expect(async () => {
          const { revision } = await (await request.get(`/api/rigs/${id}`)).json();
          const back = revision > 1 ? await request.post(`/api/rigs/${id}/revisions/1/go-back`, { data: { base: revision } }) : null;
          if (back && !back.ok()) throw new Error(`${id}: ${await back.text()}`);
        }).toPass({ timeout: 10_000 });
      }
      await use(undefined);
    },
    { auto: true },
  ],
});

/** What is left after draining, in a line. */
export const summary = (page: Page) => page.locator("[data-summary]");

/** What stays in pools, as the bench tells it ("129 mL"), once it does. */
export async function pools(page: Page): Promise<string> {
  await expect(summary(page)).toContainText(/\d (mL|L) in dips/);
  return /([\d.,]+ (?:mL|L)) in dips/.exec((await summary(page).textContent()) ?? "")?.[1] ?? "";
}

/** The same in mL. */
export async function poolsMl(page: Page): Promise<number> {
  const [figure = "", unit] = (await pools(page)).split(" ");
  return Number.parseFloat(figure.replace(",", "")) * (unit === "L" ? 1000 : 1);
}

/** Waits until every change is on the server's disk. */
export const saved = (page: Page) => expect(page.locator("[data-save]")).toHaveAttribute("data-save", "saved");

/** The rig as it is saved. */
export const rigOf = async (page: Page, id: string) => (await (await page.request.get(`/api/rigs/${id}`)).json()).rig;

/** Opens Sparrow as it ships, with its answers and the most that it keeps selected; what stays in its pools. */
export async function openSparrow(page: Page) {
  await page.goto("/rigs/sparrow");
  const left = await pools(page);
  await takeKitchenCold(page);
  return left;
}

/** Selects the finding of what stays in Sparrow's line to the kitchen. */
export const takeKitchenCold = (page: Page) => page.getByRole("button", { name: /kitchen cold keeps/ }).click();

/** The form of what is in hand, of a kind. */
export const inspector = (page: Page, kind: string) => page.locator(`[data-inspector^="${kind}/"]`);

export type { Locator } from "@playwright/test";
export { expect, type Page };
