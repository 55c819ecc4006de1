import { expect, type Page, saved, test } from "./fresh.ts";

/** Everything that a hand does, one by one: presses, taps, a text typed at once, a choice. */
function hand(page: Page) {
  let actions = 0;
  const counted = <T>(act: Promise<T>) => {
    actions++;
    return act;
  };
  return {
    count: () => actions,
    press: (key: string) => counted(page.keyboard.press(key)),
    click: (role: "link" | "button" | "radio" | "option" | "tab" | "switch", name: string | RegExp) =>
      counted(page.getByRole(role, { name }).first().click()),
    type: (label: string | RegExp, text: string) =>
      counted(page.getByRole("textbox", { name: label }).or(page.getByPlaceholder(label)).first().fill(text)),
  };
}

test("a newcomer draws tank, pump, heater, two taps and two drains from nothing, and is safe, in at most 90 actions", async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto("/");
  const does = hand(page);
  await does.click("link", "New rig");
  await does.type("Name", "Plover");
  await does.click("radio", /^Long panel van/);
  await does.click("radio", /^None yet/);
  await does.click("button", "Create rig");
  await page.locator("[data-sheet]").waitFor();

  const parts = async () => (await page.locator("[data-sheet]").getAttribute("data-parts")) ?? "";
  /** A part, its place and what it joins, in words. */
  const put = async (words: string) => {
    const before = await parts();
    await does.press("Control+k");
    await does.type(/A part, a run/, `place ${words}`);
    await expect(page.getByRole("option", { name: /above the floor/ })).toBeVisible();
    await does.press("Enter");
    await expect.poll(parts).not.toBe(before);
  };
  const line = async (from: string, to: string) => {
    await does.press("r");
    await does.type("Start at", from);
    await does.press("Enter");
    await expect(page.getByRole("textbox", { name: "Next point" })).toHaveValue("");
    await does.type("Next point", `to ${to}`);
    await does.press("Enter");
    await expect(page.locator("[data-run-bar]")).toHaveCount(0);
  };
  await put("water tank at 0.2, 0.3, 0.6");
  await put("vent with insect mesh at 0.2, 0.3, 1.2 joining water tank vent");
  await put("fill spout with its cap at 0.1, 0.8, 1.2 joining water tank fill");
  await put("tee at 0.9, 0.5, 0.42 joining water tank outlet");
  await put("drain cock at 0.9, 0.45, 0.1 joining tee c");
  await put("diaphragm pump at 1.1, 0.4, 0.52 joining tee b");
  await put("tee at 1.4, 0.4, 0.25 joining diaphragm pump out");
  await put("drain cock at 1.4, 0.35, 0.1 joining tee c");
  await put("tee at 1.7, 0.4, 0.3 joining tee b");
  await put("storage heater 10 L at 2, 0.1, 0.4 joining tee c");
  await put("tee at 2.4, 0.5, 0.35 joining tee b");
  await put("lever mixer tap at 2.9, 0.2, 0.9 joining tee c");
  await put("tee at 2.4, 0.3, 0.75 joining storage heater 10 L hot");
  await put("lever mixer tap at 2.9, 0.6, 0.9 joining tee b");
  await line("tee b", "lever mixer tap hot");
  await line("tee c", "lever mixer tap hot");
  await saved(page);
  await expect(page.locator("[data-outlook]").first()).toContainText("Freeze damage");
  await does.click("tab", /^Issues/);
  await does.click("button", "Fix all…");
  await does.click("button", /^Apply all \d/);
  await expect(page.locator("[data-outlook]").first()).toContainText("Safe");
  await expect(page.locator("[data-outlook]").first()).toContainText("Nothing freezes by morning");
  await saved(page);
  console.log(`safe after ${does.count()} actions`);
  expect(does.count()).toBeLessThanOrEqual(90);
  const id = new URL(page.url()).pathname.split("/")[2];
  const { revision } = await (await page.request.get(`/api/rigs/${id}`)).json();
  await page.request.delete(`/api/rigs/${id}?revision=${revision}`);
});
