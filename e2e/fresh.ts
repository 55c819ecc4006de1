import { readFileSync } from "node:fs";
import { join } from "node:path";
import { test as base, expect, type Page } from "@playwright/test";

const sparrow = JSON.parse(readFileSync(join(import.meta.dirname, "../demo/sparrow.json"), "utf8"));

/** A test that finds the demo rig as it ships, whatever was done to it before. */
export const test = base.extend<{ asShipped: undefined }>({
  asShipped: [
    async ({ request }, use) => {
      const { shelved } = await (await request.get("/api/rigs/sparrow")).json();
      const body = { baseRevision: shelved.revision, what: "As shipped", rig: sparrow };
      expect((await request.put("/api/rigs/sparrow", { data: body })).ok()).toBe(true);
      await use(undefined);
    },
    { auto: true },
  ],
});

/** What stays after draining, in a line. */
export const summary = (page: Page) => page.locator("[data-summary]");

/** Waits until every change is on the server's disk. */
export const saved = (page: Page) => expect(page.locator("[data-save]")).toHaveAttribute("data-save", "saved");

export { expect, type Page };
