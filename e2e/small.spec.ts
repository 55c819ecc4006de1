import { expect, inspector, type Page, rigOf, saved, summary, test } from "./fresh.ts";

/** A new rig, begun from a body with no plumbing in it. */
async function begin(page: Page, name: string) {
  await page.goto("/");
  await page.getByRole("link", { name: "New rig" }).first().click();
  await page.getByRole("textbox", { name: "Name" }).fill(name);
  await page.getByRole("textbox", { name: "Name" }).press("Enter");
  await page.getByRole("radio", { name: /^Long panel van/ }).click();
  await page.getByRole("radio", { name: /^None yet/ }).click();
  await page.getByRole("button", { name: "Make this rig" }).click();
  await page.getByRole("link", { name: "To the bench" }).click();
  await page.locator("[data-sheet]").waitFor();
}

/** A part by its name in stock and its place, typed; named as it is to be called. */
async function place(page: Page, what: string, at: string, name?: string) {
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill(`place ${what} at ${at}`);
  await expect(page.getByRole("option", { name: new RegExp(`^${what}: `) })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(inspector(page, "part").getByRole("heading", { name: what })).toBeVisible();
  if (name) {
    const field = inspector(page, "part").getByRole("textbox", { name: "Name" });
    await field.fill(name);
    await field.press("Enter");
    await expect(inspector(page, "part").getByRole("heading", { name })).toBeVisible();
  }
  await saved(page);
}

/** A run from port to port, both by name, over what is typed between. Each word is followed by Enter at once. */
async function run(page: Page, from: string, ...words: string[]) {
  await page.locator("[data-sheet]").focus();
  await page.keyboard.press("r");
  const bar = page.locator("[data-run-bar]");
  for (const [i, text] of [from, ...words].entries()) {
    const field = bar.getByLabel(i === 0 ? "Begin at" : "Next point");
    await field.fill(text);
    await field.press("Enter");
    if (i < words.length) await expect(bar.getByLabel("Next point")).toHaveValue("");
  }
  await expect(bar).toHaveCount(0);
  await saved(page);
}

test("all lines to one drain: level nothing stays, nose up what lies in the rear line, nose down what lies in the front one", async ({
  page,
}) => {
  await begin(page, "One drain");
  await place(page, "cold tap", "470 mm, 460 mm, 800 mm", "rear tap");
  await place(page, "cold tap", "3570 mm, 460 mm, 800 mm", "front tap");
  await place(page, "tee", "2000 mm, 480 mm, 156 mm");
  await place(page, "drain cock", "2100 mm, 900 mm, 100 mm");
  await run(page, "rear tap cold", "0.5, 0.5, 0.2", "to tee a");
  await run(page, "front tap cold", "3.6, 0.5, 0.2004", "to tee b");
  await run(page, "tee c", "to drain cock in");
  await page.screenshot({ path: "/tmp/small.png" });
  console.log(await summary(page).innerText());
  for (const [key, n] of [["ArrowRight", 6], ["ArrowLeft", 12]] as const) {
    const slider = page.getByRole("slider", { name: "Parking pitch" });
    await slider.focus();
    for (let k = 0; k < n; k++) await slider.press(key);
    await expect(summary(page)).toHaveAttribute("data-stale", "false");
    await page.waitForTimeout(1500);
    console.log(await slider.getAttribute("aria-valuetext"), await summary(page).innerText());
  }
});

test("two waste tanks joined over a hump: the first keeps what stands below the hump", async ({ page }) => {
  await begin(page, "Hump");
  await place(page, "grey tank", "0.3, 0.3, 0.1", "first grey");
  await place(page, "grey tank", "1.5, 0.3, 0.1", "second grey");
  await place(page, "grey dump valve", "1.3, 0.485, 0.05");
  await place(page, "vent with insect mesh", "0.73, 0.505, 0.6", "first vent");
  await place(page, "vent with insect mesh", "1.93, 0.505, 0.6", "second vent");
  await run(page, "first grey vent", "to first vent end");
  await run(page, "second grey vent", "to second vent end");
  await run(page, "second grey drain", "to grey dump valve in");
  await run(page, "first grey drain", "0.2, 0.525, 0.1", "0.2, 0.525, 0.24", "0.2, 0.9, 0.24", "1.725, 0.9, 0.235", "to second grey inlet");
  await page.screenshot({ path: "/tmp/small2.png" });
  console.log(await summary(page).innerText());
  console.log(await page.getByRole("tabpanel").innerText());
  await page.getByRole("link", { name: "Drain", exact: true }).click();
  console.log(await page.getByLabel("What holds water").innerText());
});

test("two fresh tanks of which one breathes", async ({ page }) => {
  await begin(page, "Breath");
  await place(page, "water tank", "0.3, 0.3, 0.4", "near tank");
  await place(page, "water tank", "0.3, 1.0, 0.4", "far tank");
  await place(page, "tee", "1.5, 0.93, 0.3");
  await place(page, "drain cock", "1.7, 1.2, 0.1");
  await place(page, "fill spout with its cap", "0.05, 0.81, 0.9");
  await place(page, "vent with insect mesh", "0.28, 0.33, 0.9");
  await run(page, "near tank vent", "to vent with insect mesh end");
  await run(page, "fill spout with its cap end", "to near tank fill");
  await run(page, "near tank outlet", "to tee a");
  await run(page, "far tank outlet", "to tee b");
  await run(page, "tee c", "to drain cock in");
  await page.screenshot({ path: "/tmp/small3.png" });
  console.log(await summary(page).innerText());
  console.log(await page.getByRole("tabpanel").innerText());
  await page.getByRole("link", { name: "Drain", exact: true }).click();
  console.log(await page.getByLabel("What holds water").innerText());
});

test("a fill with a dip, in US units", async ({ page }) => {
  await begin(page, "Dip");
  await page.getByRole("button", { name: /^Units: metric/ }).click();
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("from a table");
  await page.keyboard.press("Enter");
  const dialog = page.getByRole("dialog", { name: "Parts and runs as tables" });
  await dialog.getByLabel("Table", { exact: true }).fill(`name, stock, from rear, from kerb, above floor
fresh tank, tank, 40, 10, 20
spout, fill-spout, 8.425, 30.08, 38.425
mesh, vent-cap, 39.2, 11.2, 38
cock, drain-cock, 70, 30, 5
`);
  await dialog.getByRole("button", { name: "Take the good rows" }).click();
  await saved(page);
  await page.screenshot({ path: "/tmp/small4.png" });
  await run(page, "fresh tank vent", "to mesh end");
  await run(page, "spout end", "20, 31.654, 22.299", "to fresh tank fill");
  await run(page, "fresh tank outlet", "to cock in");
  console.log(await summary(page).innerText());
  console.log(await page.getByRole("tabpanel").innerText());
  await page.getByRole("link", { name: "Drain", exact: true }).click();
  console.log(await page.getByLabel("What holds water").innerText());
});
