import { expect, inspector, type Locator, type Page, rigOf, saved, test } from "./fresh.ts";

/** A tank that feeds a tap by its height, filled and vented: where its parts stand, and where the one bend is, in millimetres. */
const parts: [find: string, stock: string, at: [number, number, number]][] = [
  ["place water tank", "tank", [100, 200, 1200]],
  ["place cold tap", "cold-tap", [1500, 460, 700]],
  ["place fill spout", "fill-spout", [20, 1000, 1500]],
  ["place vent with insect mesh", "vent-cap", [20, 20, 1600]],
];
const lines: [port: string, to: string, label: RegExp][] = [
  ["outlet", "cold tap", /^cold tap cold$/],
  ["fill", "fill spout with its cap", /^fill spout/],
  ["vent", "vent with insect mesh", /^vent with/],
];
const bend = [1530, 500, 1180] as const;

const table = `name, stock, from rear, from kerb, above floor
water tank, tank, 100, 200, 1200
cold tap, cold-tap, 1500, 460, 700
fill spout with its cap, fill-spout, 20, 1000, 1500
vent with insect mesh, vent-cap, 20, 20, 1600
`;
const runsTable = (pipes: Record<string, { service: string; pipe: string }>) => {
  const line = (port: string, end: string, middle = "") =>
    `${port}, ${pipes[port]?.service}, ${pipes[port]?.pipe}, water tank, ${port}\n${middle}, , , ${end}\n`;
  return `run, carries, pipe, part, port, from rear, from kerb, above floor\n${line("outlet", "cold tap, cold", `, , , , , ${bend.join(", ")}\n`)}${line("fill", "fill spout with its cap, end")}${line("vent", "vent with insect mesh, end")}`;
};

async function begin(page: Page, name: string) {
  const made = await page.request.post("/api/starts", {
    data: { name, lengthM: 3, widthM: 1.7, heightM: 1.9, living: "weekends", school: "drain" },
  });
  const { id } = await made.json();
  await page.goto(`/rigs/${id}`);
  await page.locator("[data-sheet]").waitFor();
  return id as string;
}

const mm = (p: { xM: number; yM: number; zM: number }) => [p.xM, p.yM, p.zM].map((m) => Math.round(m * 1000));

/** What the rig is, without the ids and names that whoever made it gave. */
async function drawn(page: Page, id: string) {
  const rig = await rigOf(page, id);
  const stock = new Map(rig.parts.map((p: { id: string; stock: string }) => [p.id, p.stock]));
  const end = (e: { part: string; port: string }) => `${stock.get(e.part)}.${e.port}`;
  return {
    parts: rig.parts.map((p: { stock: string; name: string; box: { at: never } }) => [p.stock, p.name, ...mm(p.box.at)].join(" ")).sort(),
    runs: rig.runs
      .map((r: { service: string; pipe: string; from: never; to: never; bends: { at: never }[] }) =>
        [r.service, r.pipe, end(r.from), end(r.to), ...r.bends.map((b) => mm(b.at).join(","))].join(" "),
      )
      .sort(),
  };
}

async function typePlace(page: Page, form: Locator, at: readonly number[]) {
  for (const [i, label] of ["From the rear", "From the kerb", "Above floor"].entries()) {
    await form.getByRole("textbox", { name: label }).fill(`${at[i]} mm`);
    await page.keyboard.press("Enter");
  }
  await saved(page);
}

async function find(page: Page, text: string, byPointer: boolean) {
  if (byPointer) await page.getByRole("button", { name: "Search" }).click();
  else await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill(text);
  if (byPointer) await page.getByRole("option").first().click();
  else await page.keyboard.press("Enter");
}

test("an empty rig becomes a small system by pointer, by keys and from a table, and the three are one; undone to the start and done again it is the same", {
  tag: "@long",
}, async ({ page }) => {
  test.setTimeout(120_000);
  const made: Record<string, string> = {};
  for (const way of ["pointer", "keys"] as const) {
    const id = await begin(page, `By ${way}`);
    made[way] = id;
    for (const [text, stock, at] of parts) {
      await find(page, text, way === "pointer");
      await expect(inspector(page, "part")).toHaveAttribute("data-inspector", new RegExp(`^part/${stock}`));
      await typePlace(page, inspector(page, "part"), at);
    }
    const ids = new Map((await rigOf(page, id)).parts.map((p: { id: string; stock: string }) => [p.stock, p.id]));
    for (const [port, to, label] of lines) {
      await find(page, "water tank", way === "pointer");
      if (way === "pointer") {
        const middle = async (of: Locator) => {
          const box = await of.boundingBox();
          if (!box) throw new Error("it is not drawn");
          return [box.x + box.width / 2, box.y + box.height / 2] as const;
        };
        const from = await middle(page.locator(`[data-view=plan] rect[data-handle="${ids.get("tank")}:${port}"]`));
        const on = await middle(page.locator(`[data-view=plan] [data-name="${to}"]`).first());
        await page.mouse.move(...from);
        await page.mouse.down();
        await page.mouse.move((from[0] + on[0]) / 2, (from[1] + on[1]) / 2, { steps: 5 });
        await page.mouse.move(...on, { steps: 5 });
        await page.mouse.up();
      } else {
        await inspector(page, "part")
          .getByRole("button", { name: new RegExp(`^${port} no pipe yet`) })
          .focus();
        await page.keyboard.press("Enter");
        const choice = inspector(page, "port").getByRole("combobox", { name: "Run from here to" });
        const wanted = await choice
          .locator("option")
          .evaluateAll((all, source) => all.map((o) => o.textContent ?? "").find((t) => new RegExp(source).test(t)), label.source);
        if (!wanted) throw new Error(`no port is called ${label}`);
        await choice.focus();
        await choice.selectOption({ label: wanted });
      }
      await expect(inspector(page, "run")).toBeVisible();
      await saved(page);
      if (port !== "outlet") continue;
      const start = inspector(page, "run").getByRole("listitem").first().getByRole("button");
      const add = inspector(page, "point").getByRole("button", { name: "Add a bend after" });
      for (const button of [start, add]) {
        if (way === "pointer") await button.click();
        else {
          await button.focus();
          await page.keyboard.press("Enter");
        }
      }
      await expect(inspector(page, "point").getByRole("heading")).toContainText("bend 1");
      await typePlace(page, inspector(page, "point"), bend);
    }
  }

  const pipes: Record<string, { service: string; pipe: string }> = {};
  for (const r of (await rigOf(page, made.keys as string)).runs) pipes[r.from.port] = r;
  const id = await begin(page, "From a table");
  for (const text of [table, runsTable(pipes)]) {
    await find(page, "import or copy tables", false);
    await page.getByRole("textbox", { name: "Table" }).fill(text);
    await page.getByRole("button", { name: "Import valid rows" }).click();
    await saved(page);
  }
  await expect.poll(async () => (await rigOf(page, id)).runs.length).toBe(3);
  const pointer = await drawn(page, made.pointer as string);
  expect(pointer.runs).toHaveLength(3);
  expect(await drawn(page, made.keys as string)).toEqual(pointer);
  expect(await drawn(page, id)).toEqual(pointer);

  const end = await rigOf(page, id);
  const both = { undo: page.getByRole("button", { name: "Undo" }), redo: page.getByRole("button", { name: "Redo" }) };
  for (const button of [both.undo, both.undo]) {
    await button.click();
    await saved(page);
  }
  await expect(both.undo).toBeDisabled();
  await expect.poll(async () => (await rigOf(page, id)).parts.length).toBe(0);
  for (const button of [both.redo, both.redo]) {
    await button.click();
    await saved(page);
  }
  await expect(both.redo).toBeDisabled();
  await expect.poll(async () => await rigOf(page, id)).toEqual(end);
});
