import { expect, inspector, type Page, pools, saved, takeKitchenCold, test } from "./fresh.ts";

/** Keys alone, counted from the place's start; a figure that is typed counts as none. */
function keys(page: Page) {
  let presses = 0;
  return {
    async press(...names: string[]) {
      for (const name of names) await page.keyboard.press(name);
      presses += names.length;
    },
    type: (text: string) => page.keyboard.type(text),
    count: () => presses,
  };
}

const start = async (page: Page, path: string) => {
  await page.goto(`/rigs/sparrow${path}`);
  await page.locator("[data-outlook]").first().waitFor();
};

/** What has the focus, and that it is no longer the page itself. */
const focused = (page: Page) => page.evaluate(() => document.activeElement?.tagName !== "BODY");

interface Task {
  name: string;
  path: string;
  do(page: Page, key: ReturnType<typeof keys>): Promise<void>;
}

/** Searched for and selected; the drawing has the focus then. */
const take = async (page: Page, key: ReturnType<typeof keys>, words: string) => {
  await key.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).waitFor();
  await key.type(words);
  await page
    .getByRole("option", { name: new RegExp(words) })
    .first()
    .waitFor();
  await key.press("Enter");
  await expect(page.locator("[role=application]:focus")).toHaveCount(1);
};

const tasks: Task[] = [
  {
    name: "a height is nudged",
    path: "",
    async do(page, key) {
      await take(page, key, "kitchen cold");
      await key.press(".", ".", "ArrowUp");
      await expect(page.getByRole("button", { name: "Undo" })).toBeEnabled();
    },
  },
  {
    name: "a part is added",
    path: "",
    async do(page, key) {
      await key.press("a");
      await page.getByPlaceholder(/Tank, pump/).waitFor();
      await key.type("drain cock");
      await page
        .getByRole("option", { name: /^drain cock/ })
        .first()
        .waitFor();
      await key.press("Enter");
      await expect(page.locator("[data-inspector^='part/']")).toContainText("drain cock");
    },
  },
  {
    name: "a line is drawn from port to port",
    path: "",
    async do(page, key) {
      await key.press("r");
      await expect(page.getByRole("textbox", { name: "Start at" })).toBeFocused();
      await key.type("outdoor shower spout");
      await key.press("Enter");
      const next = page.getByRole("textbox", { name: "Next point" });
      await expect(next).toHaveValue("");
      await expect(next).toBeFocused();
      await key.type("to kitchen mixer spout");
      await key.press("Enter");
      await expect(page.locator("[data-inspector^='run/']")).toContainText("outdoor shower to kitchen mixer");
    },
  },
  {
    name: "a line gets its even fall",
    path: "",
    async do(page, key) {
      await take(page, key, "kitchen cold");
      await key.press("f");
      await expect(page.getByRole("button", { name: "Undo" })).toBeEnabled();
    },
  },
  {
    name: "the lens and the large view are changed, and the night is opened",
    path: "",
    async do(page, key) {
      await key.press("Tab", "Enter", "c", "2", "n", "n");
      await expect(page.getByRole("radio", { name: "Cold" })).toBeChecked();
      await expect(page.locator("[data-corner]")).toBeVisible();
    },
  },
  {
    name: "a part is deleted and brought back",
    path: "",
    async do(page, key) {
      await take(page, key, "relief valve");
      await key.press("Delete", "Control+z");
      await expect(page.getByRole("button", { name: "Redo" })).toBeEnabled();
    },
  },
];

for (const task of tasks)
  test(`by keys alone, in at most 12 presses: ${task.name}`, async ({ page }) => {
    await start(page, task.path);
    await pools(page);
    const key = keys(page);
    await task.do(page, key);
    expect(key.count()).toBeLessThanOrEqual(12);
    expect(await focused(page)).toBe(true);
    await saved(page);
  });

/** From the start of a place: Tab until a control has the focus. */
async function tabTo(page: Page, name: string | RegExp, key: ReturnType<typeof keys>) {
  for (let n = 0; n < 40; n++) {
    await key.press("Tab");
    const label = await page.evaluate(() => {
      const e = document.activeElement;
      return `${e?.getAttribute("aria-label") ?? ""} ${e?.textContent ?? ""}`;
    });
    if (typeof name === "string" ? label.includes(name) : name.test(label)) return;
  }
  throw new Error(`No way by Tab to ${name}`);
}

test("drain and night by keys alone, in at most 12 presses from the place's start", async ({ page }) => {
  await start(page, "/drain");
  await page.getByRole("checkbox").first().waitFor();
  const drain = keys(page);
  await drain.press("Tab", "Enter");
  await tabTo(page, /Done: Open drain/, drain);
  await drain.press("Space");
  await expect(page.getByRole("checkbox").first()).toBeChecked();
  expect(drain.count()).toBeLessThanOrEqual(12);
  await start(page, "/night");
  await page.locator("[data-hours]").waitFor();
  const night = keys(page);
  await night.press("Tab", "Enter");
  await tabTo(page, "Hour", night);
  await night.press("ArrowLeft");
  await expect(page.getByRole("heading", { name: "05:00 next day" })).toBeVisible();
  expect(night.count()).toBeLessThanOrEqual(12);
});

test("what is typed before the search has loaded is typed into it", async ({ page }) => {
  let load = () => {};
  const wanted = new Promise<void>((done) => {
    load = done;
  });
  await page.route(/Palette-.*js/, async (route) => {
    await wanted;
    await route.continue();
  });
  await start(page, "");
  await pools(page);
  await page.locator("[data-sheet]").focus();
  // Left before it is there, it is gone with what was typed.
  await page.keyboard.press("Control+k");
  await page.keyboard.type("grab");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("textbox", { name: "Search" })).toHaveCount(0);
  await expect(page.locator("[data-sheet]")).toBeFocused();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("grey tank");
  load();
  await expect(page.getByRole("dialog").getByRole("combobox")).toHaveValue("grey tank");
  await page.keyboard.press("Enter");
  await expect(inspector(page, "part")).toBeVisible();
  // No letter of it acted on the drawing.
  expect(await page.evaluate(() => JSON.parse(localStorage.getItem("bench-view") ?? "{}").state.lens)).toBe("drain");
});

test("the focus goes back to where it was once a dialog is closed", async ({ page }) => {
  await start(page, "");
  await takeKitchenCold(page);
  for (const [open, close] of [
    ["Control+k", "Escape"],
    ["?", "Escape"],
    ["h", "Escape"],
  ] as const) {
    const from = page.locator("[data-sheet]");
    await from.focus();
    await page.keyboard.press(open);
    await expect(page.getByRole("dialog")).toBeVisible();
    await page.keyboard.press(close);
    await expect(page.getByRole("dialog")).toHaveCount(0);
    await expect(from, open).toBeFocused();
  }
  for (const name of ["Fix all…", "Layers", "Help"]) {
    const opener = page.getByRole("button", { name }).first();
    await opener.focus();
    await page.keyboard.press("Enter");
    await expect(page.getByRole("dialog")).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(opener, name).toBeFocused();
  }
});
