import { expect, type Page, rigOf, saved, test } from "./fresh.ts";
import { startOwn } from "./own.ts";

/** Chooses a procedure under Lay-up and begins it. */
async function begin(page: Page, rig: string, kind: string, address = "") {
  await page.goto(`${address}/rigs/${rig}/layup`);
  await page.getByRole("combobox", { name: "Procedure" }).selectOption(kind);
  await expect(page.locator(`[data-procedure=${kind}]`)).toBeVisible();
  await page.locator("[data-begin]").click();
  await page.waitForURL(/\/walk\//);
  await expect(page.locator("[data-step]")).toBeVisible();
}

/** Says Done of every step that is left; `on`: what else is done at a step. */
async function walkOn(page: Page, on: (step: string) => Promise<void> = async () => {}) {
  const walked = page.locator("[data-walked]");
  await expect(walked).toBeVisible();
  const steps = Number((await walked.getAttribute("data-walked"))?.split("/")[1]);
  for (let done = Number((await walked.getAttribute("data-walked"))?.split("/")[0]); done < steps; done++) {
    await expect(walked).toHaveAttribute("data-walked", `${done}/${steps}`);
    await on((await page.locator("[data-step]").getAttribute("data-step")) ?? "");
    await page.locator("[data-done]").click();
  }
  await expect(walked).toHaveAttribute("data-walked", `${steps}/${steps}`);
}

test("Tern is laid up by air to its end, and opened again in spring", async ({ page }) => {
  test.setTimeout(180_000);
  await begin(page, "tern", "airLayUp");
  const big = await page.locator("[data-done]").boundingBox();
  expect(big?.height).toBeGreaterThanOrEqual(64);
  await walkOn(page);
  // Every drain and every outlet was seen to: what is left is a film, and what the air did not get to.
  const end = page.locator("[data-end-word]");
  await expect(end).toContainText("of water in it");
  await expect(page.locator("[data-end-night]").last()).toContainText("On your coldest night");
  const left = (await rigOf(page, "tern")).left;
  expect(left.filter((a: { kind: string }) => a.kind === "blown").length).toBeGreaterThan(5);
  await expect(page.getByLabel("At the end", { exact: true })).toContainText("drain A");
  // Told of the night that it was begun for, and by the same words once it has ended.
  const told = await page.locator("[data-end-night]").allTextContents();
  await page.locator("[data-end]").click();
  await expect(page.getByText(/^Ended /)).toBeVisible();
  await expect(page.locator("[data-end-night]")).toHaveText(told);
  await page.getByRole("link", { name: "Open the logbook" }).click();
  await expect(page.locator("[data-entry][data-kind=walk]").first()).toContainText("Lay up: drain and air: 30 of 30 steps done");
  // In spring: closed, flushed, sanitised with a stronger bleach, stood for its time, and looked over.
  await page.goto("/rigs/tern/layup");
  await page.getByRole("combobox", { name: "Procedure" }).selectOption("reopen");
  await page.getByLabel("Chlorine in the product, %").fill("12");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("All steps")).toContainText("of bleach of 12 %");
  await page.locator("[data-begin]").click();
  await page.waitForURL(/\/walk\//);
  await walkOn(page, async (step) => {
    if (step !== "contact") return;
    // The wait runs by the clock: it goes on while the page is closed.
    await page.getByRole("button", { name: "Start the timer" }).click();
    await expect(page.locator("[data-timer=runs]")).toContainText(/1:59:\d\d/);
    await page.reload();
    await expect(page.locator("[data-timer=runs]")).toContainText(/1:59:\d\d/);
  });
  await page.locator("[data-end]").click();
  await expect(page.getByText(/^Ended /)).toBeVisible();
  // It is full again, and the rig knows.
  expect((await rigOf(page, "tern")).left.map((a: { kind: string }) => a.kind)).toEqual(["filled"]);
});

test("Sparrow's weekend drain with a jug that is short: killed half way, it goes on at its step", async ({ browser }, info) => {
  const own = await startOwn(5391 + info.parallelIndex);
  const page = await browser.newPage();
  await begin(page, "sparrow", "weekendDrain", own.address);
  const step = page.locator("[data-step]");
  let at = "";
  while ((await page.getByLabel("Measured volume").count()) === 0) {
    at = (await step.getAttribute("data-step")) ?? "";
    await page.locator("[data-done]").click();
    await expect(step).not.toHaveAttribute("data-step", at);
  }
  const drain = (await step.getAttribute("data-step")) ?? "";
  // Tapped from a jug: half a litre came of more.
  await page.getByRole("button", { name: "Add 500 mL" }).click();
  await expect(page.locator("[data-proof]")).toContainText("would have come");
  await page.locator("[data-done]").click();
  await expect(step).not.toHaveAttribute("data-step", drain);
  at = (await step.getAttribute("data-step")) ?? "";
  const walked = await page.locator("[data-walked]").getAttribute("data-walked");
  await own.kill();
  // Said while nothing answers: kept on this device, and shown as done.
  await page.locator("[data-done]").click();
  await expect(step).not.toHaveAttribute("data-step", at);
  await expect(page.getByText("No connection:")).toBeVisible();
  const again = await startOwn(5391 + info.parallelIndex, own.data);
  await expect(page.getByText("No connection:")).toHaveCount(0);
  const after = (await page.locator("[data-walked]").getAttribute("data-walked")) ?? "";
  expect(Number(after.split("/")[0])).toBe(Number(walked?.split("/")[0]) + 1);
  const now = (await step.getAttribute("data-step")) ?? "";
  await page.reload();
  await expect(step).toHaveAttribute("data-step", now);
  // One step is skipped, with a reason; the rest is done.
  await page.getByRole("button", { name: "Skip", exact: true }).click();
  await page.getByRole("button", { name: "Can't reach it" }).click();
  await walkOn(page);
  await expect(page.locator("[data-end-word=doubtful]")).toContainText("Less came than should have");
  await page.locator("[data-end]").click();
  await page.getByRole("link", { name: "Open the logbook" }).click();
  await expect(page.locator("[data-kind=walk]")).toContainText("Can't reach it");
  await expect(page.locator("[data-kind=litres]")).toContainText("500 mL of");
  await page.close();
  await again.kill();
});

test("two devices on one walk-through: the first wins, the other is told, and nothing is sent twice", async ({ page, browser }) => {
  await page.goto("/rigs/tern/layup");
  await page.getByLabel("Your name").fill("Ann");
  await begin(page, "tern", "weekendDrain");
  const context = await browser.newContext();
  const other = await context.newPage();
  await other.goto(page.url());
  const step = other.locator("[data-step]");
  const first = (await page.locator("[data-step]").getAttribute("data-step")) ?? "";
  await expect(step).toHaveAttribute("data-step", first);
  // What one says the other shows.
  await page.locator("[data-done]").click();
  await expect(step).not.toHaveAttribute("data-step", first);
  const second = (await step.getAttribute("data-step")) ?? "";
  // Out of reach it goes on by itself.
  await context.setOffline(true);
  await other.locator("[data-done]").click();
  await expect(step).not.toHaveAttribute("data-step", second);
  await expect(other.getByText("1 step kept on this device")).toBeVisible();
  await page.getByRole("button", { name: "Skip", exact: true }).click();
  await page.getByRole("button", { name: "Frozen or stuck" }).click();
  await expect(page.locator("[data-stand=skipped]")).toHaveCount(1);
  await context.setOffline(false);
  await expect(other.locator("[data-told]")).toContainText("Skipped already by Ann");
  await expect(other.locator("[data-stand=skipped]")).toHaveCount(1);
  await context.close();
});

test("a phone on the local network enters the code, runs a procedure, and changes nothing else", async ({ browser }, info) => {
  const port = 5393 + info.parallelIndex;
  const own = await startOwn(port, undefined, "--share", "127.0.0.2");
  const page = await browser.newPage();
  await page.goto(own.address);
  await page.getByRole("button", { name: "Share with a phone" }).click();
  await expect(page.getByRole("img", { name: "The address as a QR code" })).toBeVisible();
  const code = (await page.locator("[data-code]").getAttribute("data-code")) ?? "";
  const phone = await (await browser.newContext({ viewport: { width: 360, height: 740 }, hasTouch: true })).newPage();
  await phone.goto(`http://127.0.0.2:${port}/rigs/tern/layup`);
  await phone.getByLabel("Code", { exact: true }).fill(code === "111111" ? "222222" : "111111");
  await phone.getByRole("button", { name: "Enter" }).click();
  await expect(phone.getByText("4 tries left")).toBeVisible();
  await phone.getByLabel("Code", { exact: true }).fill(code);
  await phone.getByRole("button", { name: "Enter" }).click();
  await phone.getByRole("combobox", { name: "Procedure" }).selectOption("weekendDrain");
  await expect(phone.locator("[data-procedure=weekendDrain]")).toBeVisible();
  await phone.locator("[data-begin]").click();
  await phone.waitForURL(/\/walk\//);
  // Done is at hand without scrolling, and wide enough for a knuckle.
  const done = await phone.locator("[data-done]").boundingBox();
  expect((done?.y ?? 0) + (done?.height ?? 0)).toBeLessThanOrEqual(740);
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  await walkOn(phone);
  // The first machine sees it go by.
  await page.goto(`${own.address}/rigs/tern/layup`);
  await expect(page.getByRole("link", { name: /Go on: Drain between trips/ })).toContainText(/(\d+) of \1 steps behind you/);
  // A change of the rig is refused there.
  await phone.goto(`http://127.0.0.2:${port}/rigs/tern/drain`);
  const revision = (await (await page.request.get(`${own.address}/api/rigs/tern`)).json()).revision;
  await phone.getByRole("button", { name: "Mark as filled" }).click();
  await expect(phone.locator("[data-save=refused]")).toContainText("Change the rig on the first machine");
  expect((await (await page.request.get(`${own.address}/api/rigs/tern`)).json()).revision).toBe(revision);
  await own.kill();
});

test("the logbook: written, corrected, found again, due, and carried over", async ({ page }) => {
  await page.goto("/rigs/tern/log");
  const entries = page.getByLabel("Entries", { exact: true });
  await page.getByLabel("What was done or seen").fill("Frost on the hatch of the shower");
  await page.getByLabel("Your name").fill("Ilse");
  await page.getByLabel("Outdoors").fill("-4");
  await page.getByRole("button", { name: "Write it down" }).click();
  const row = entries.locator("li", { hasText: "Frost on the hatch" }).first();
  await expect(row).toContainText("−4");
  await row.getByRole("button", { name: /Correct/ }).click();
  await page.getByLabel("What was done or seen").fill("Frost on the hatch of the toilet");
  await page.getByRole("button", { name: "Write the correction" }).click();
  const corrected = entries.locator("li", { hasText: "hatch of the toilet" });
  await expect(corrected).toHaveCount(1);
  // What was written stays, under it.
  await corrected.getByText("Corrected").click();
  await expect(corrected).toContainText("hatch of the shower");
  await page.getByRole("searchbox", { name: "Search the logbook" }).fill("ilse toilet");
  await expect(entries.locator("[data-found]")).toHaveAttribute("data-found", "1");
  await page.getByRole("searchbox", { name: "Search the logbook" }).fill("");
  await page.getByRole("button", { name: "Leaks", exact: true }).click();
  await expect(entries.locator("[data-kind]:not([data-kind=leak])")).toHaveCount(0);
  await page.getByRole("button", { name: "Leaks", exact: true }).click();
  // A drain that gives less from year to year.
  await expect(page.locator("[data-collected='parts/drain-b'][data-clogs=true]")).toContainText("Less than before");
  // Due, done today, and not due any more.
  const clean = page.locator("[data-due=tank-clean]");
  await expect(clean).toHaveAttribute("data-is-due", "true");
  await page.getByRole("button", { name: "Done today: Clean the tank" }).click();
  await expect(clean).toHaveAttribute("data-is-due", "false");
  await page.getByText("Change intervals").click();
  await page.getByLabel("How often: Clean the tank").selectOption("0");
  await expect(clean).toHaveCount(0);
  const [table] = await Promise.all([page.waitForEvent("download"), page.getByRole("link", { name: "Save as table" }).click()]);
  await page.getByLabel("Logbook table").setInputFiles((await table.path()) as string);
  await expect(page.getByText("Nothing in it was new.")).toBeVisible();
  await page
    .getByLabel("Logbook table")
    .setInputFiles({ name: "a.csv", mimeType: "text/csv", buffer: Buffer.from("at,words\nsome day,x") });
  await expect(page.getByText("line 2, column at")).toBeVisible();
  await saved(page);
});

test("steps of one's own, and what goes home", async ({ page }) => {
  await page.goto("/rigs/sparrow/layup");
  await page.getByRole("combobox", { name: "Procedure" }).selectOption("drainLayUp");
  const own = page.getByLabel("Your own steps");
  await own.getByText("Your own steps").click();
  await own.getByLabel("What to do").fill("Chock the wheels");
  await own.getByLabel("Before all other steps").check();
  await own.getByRole("button", { name: /Add to/ }).click();
  await expect(page.locator("[data-step='own:step-']").or(page.locator("[data-step^='own:']"))).toContainText("Chock the wheels");
  await own.getByLabel("What it is").selectOption("home");
  await own.getByLabel("What goes home").fill("the guitar");
  await own.getByRole("button", { name: "Add to every lay-up" }).click();
  await expect(page.getByLabel("All steps")).toContainText("Take home: the guitar");
  await page.getByRole("combobox", { name: "Procedure" }).selectOption("reopen");
  await expect(page.getByLabel("All steps")).toContainText("Bring back: the guitar");
  await expect(page.getByLabel("All steps")).not.toContainText("Chock the wheels");
  await saved(page);
});
