import { test as base, expect, type Page } from "@playwright/test";

/** A test that finds the demo rig as it ships, whatever was done to it before. */
export const test = base.extend<{ asShipped: undefined }>({
  asShipped: [
    async ({ request }, use) => {
      const { revision } = await (await request.get("/api/rigs/sparrow")).json();
      const back = await request.post("/api/rigs/sparrow/revisions/1/go-back", { data: { base: revision } });
      expect(back.ok()).toBe(true);
      await use(undefined);
    },
    { auto: true },
  ],
});

/** What stays after draining, in a line. */
export const summary = (page: Page) => page.locator("[data-summary]");

/** Waits until every change is on the server's disk. */
export const saved = (page: Page) => expect(page.locator("[data-save]")).toHaveAttribute("data-save", "saved");

export type { Locator } from "@playwright/test";
export { expect, type Page };
