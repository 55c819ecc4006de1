import { AxeBuilder } from "@axe-core/playwright";
import { expect, saved, test } from "./fresh.ts";

test("a rig is begun from a body and a starter, its brief answered, and what follows is told", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: "New rig" }).first().click();
  await page.getByRole("textbox", { name: "Name" }).fill("Hedge");
  await page.getByRole("textbox", { name: "Name" }).press("Enter");
  await page.getByRole("radio", { name: /^Demountable cabin/ }).click();
  await expect(page.getByRole("radio", { name: /^Weekends, drains/ })).toBeDisabled();
  await page.getByRole("radio", { name: /^Short panel van/ }).click();
  const length = page.getByRole("textbox", { name: "Inside length" });
  await length.fill("9 m");
  await length.press("Enter");
  await expect(page.getByRole("alert").first()).toContainText("from 1600 mm to 3.20 m");
  await length.fill("9 ft");
  await length.press("Enter");
  await expect(length).toHaveValue("2.74 m");
  await page.getByRole("radio", { name: /^Weekends, drains/ }).click();
  await expect(page.locator("[data-draft=current] path").first()).toBeAttached();
  await page.getByRole("button", { name: "Create rig" }).click();

  // It is there to be drawn in, with five questions of the brief at hand; the whole of it is a press away.
  await expect(page).toHaveURL(/\/rigs\/hedge(-\d+)?$/);
  const five = page.getByRole("region", { name: "Five questions" });
  await expect(five.getByRole("textbox")).toHaveCount(5);
  await five.getByRole("textbox", { name: "Lowest temperature" }).fill("-12");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Brief's night/ })).toContainText("−12.0 °C");
  await five.getByRole("button", { name: "Done" }).click();
  await expect(five).toBeHidden();
  await page.getByRole("link", { name: "Brief", exact: true }).click();
  const follows = (id: string) => page.locator(`[data-follows="${id}"]`);
  await expect(follows("wanted")).toContainText("18.0 L a day, so 54.0 L between fills");
  await expect(page.getByRole("region", { name: "Measure next" })).toContainText("Content of fresh tank");
  const people = page.getByRole("textbox", { name: "People" });
  await people.fill("4");
  await people.press("Enter");
  await expect(follows("wanted")).toContainText("36.0 L a day, so 108 L");
  await expect(follows("lasts").getByLabel("Not met")).toBeVisible();
  await page.getByRole("radio", { name: "bucket" }).click();
  await expect(follows("grey")).toContainText("is carried or rolled out");
  await saved(page);
  // One key takes each answer back.
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("radio", { name: "built-in tank" })).toHaveAttribute("aria-checked", "true");
  expect((await new AxeBuilder({ page }).analyze()).violations.filter((v) => v.impact === "serious" || v.impact === "critical")).toEqual(
    [],
  );
  await page.getByRole("link", { name: "Open the bench" }).click();
  await expect(page.locator("[data-summary]")).toContainText("45 mL left: airlocked");
  const id = new URL(page.url()).pathname.split("/")[2];
  const { revision } = await (await page.request.get(`/api/rigs/${id}`)).json();
  await page.request.delete(`/api/rigs/${id}?revision=${revision}`);
});

test("a table is pasted: bad rows are told by line, good ones taken in one step", async ({ page }) => {
  await page.goto("/rigs/sparrow");
  await page.locator("[data-summary][data-stale=false]").waitFor();
  const count = async () => (await (await page.request.get("/api/rigs/sparrow")).json()).rig.parts.length;
  const before = await count();
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("import or copy tables");
  await page.keyboard.press("Enter");
  const dialog = page.getByRole("dialog", { name: "Parts and runs as tables" });
  await dialog
    .getByRole("textbox", { name: "Table" })
    .fill(
      "name\tstock\tfrom rear\tfrom kerb\tabove floor\npet wash\tpet-wash\t1.2 m\t2 in\t60 cm\nodd\tpet-wish\t1\t1\t1\ncan\tcan\t500\t500\t0",
    );
  await expect(dialog).toContainText("2 parts from a table; 1 row left out");
  await expect(dialog).toContainText("Line 3, stock: there is no “pet-wish” in stock");
  await dialog.getByRole("button", { name: "Import valid rows" }).click();
  await expect.poll(count).toBe(before + 2);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(count).toBe(before);
  const csv = await (await page.request.get("/api/rigs/sparrow/runs.csv")).text();
  expect(csv.split("\n")[0]).toContain("run,carries,pipe,part,port,from rear (mm)");
});

test("a pump set is placed as one, every part has its picture, and what is piped backwards is mended by a press", async ({ page }) => {
  await page.goto("/rigs/sparrow");
  await page.locator("[data-summary][data-stale=false]").waitFor();
  const rig = async () => (await (await page.request.get("/api/rigs/sparrow")).json()).rig;
  const before = await rig();
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("place");
  const pictures = page.locator("[data-glyph]");
  await expect(pictures.first()).toBeVisible();
  const plain = await pictures.evaluateAll((all) =>
    all.filter((g) => g.querySelector("path")?.getAttribute("d") === "M5 5h14v14H5z").map((g) => g.getAttribute("data-glyph")),
  );
  expect(plain).toEqual([]);
  expect(await pictures.count()).toBeGreaterThan(60);
  await page.getByPlaceholder(/A part, a run/).fill("pump set");
  await page.keyboard.press("Enter");
  const count = async () => (await rig()).parts.length;
  await expect.poll(count).toBe(before.parts.length + 6);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(count).toBe(before.parts.length);

  const { revision } = await (await page.request.get("/api/rigs/sparrow")).json();
  const swap = (id: string, end: "from" | "to", port: string) => ({
    kind: "change",
    thing: `runs/${id}`,
    values: { [end]: { part: "pump", port } },
  });
  await page.request.post("/api/rigs/sparrow/edits", {
    data: { base: revision, edits: [swap("strainer-pump", "to", "out"), swap("pump-accumulator", "from", "in")] },
  });
  const finding = page.getByRole("button", { name: /pump.*backwards/ });
  await finding.click();
  await page.getByRole("button", { name: "Apply: Swap its two lines" }).click();
  await expect(finding).toHaveCount(0);
  await expect.poll(async () => (await rig()).runs.find((r: { id: string }) => r.id === "strainer-pump").to.port).toBe("in");
});

test("a room is pulled wider, its faces follow, a forgotten room is drawn, layers change what a face lets through", async ({ page }) => {
  await page.goto("/rigs/sparrow/shell");
  const zone = async (id: string) =>
    (await (await page.request.get("/api/rigs/sparrow")).json()).rig.shell.zones.find((z: { id: string }) => z.id === id);
  await page.getByRole("button", { name: /^garage/ }).click();
  const form = page.getByRole("region", { name: "Room: garage" });
  const before = await zone("garage");
  const edge = page.locator('[data-zones="side"] [data-edge="xM+"]');
  const box = await edge.boundingBox();
  if (!box) throw new Error("the edge is not drawn");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 30, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await zone("garage")).box.size.xM).toBeGreaterThan(before.box.size.xM + 0.15);
  const after = await zone("garage");
  const floor = (z: typeof before) =>
    z.faces.filter((f: { side: string }) => f.side === "floor").reduce((sum: number, f: { areaM2: number }) => sum + f.areaM2, 0);
  expect(floor(after)).toBeCloseTo(after.box.size.xM * after.box.size.yM, 2);
  // One step in the history.
  await page.keyboard.press("Control+z");
  await expect.poll(() => zone("garage")).toEqual(before);

  await page.getByRole("switch", { name: "Heat" }).click();
  const face = page.locator('[data-face="garage/face-01"]');
  await expect(face).toContainText("1.17 W/m²K");
  await face.getByRole("button", { name: /^rear doors/ }).click();
  await face.getByRole("combobox", { name: "Build-up" }).selectOption({ label: "bare sheet metal" });
  await expect(face).not.toContainText("1.17 W/m²K");
  await page
    .getByRole("region", { name: "Rooms people forget" })
    .getByRole("listitem")
    .filter({ hasText: "wall cavity" })
    .getByRole("button")
    .click();
  await expect(page.getByRole("region", { name: "Room: wall cavity" })).toBeVisible();
  await expect.poll(async () => (await zone("wall-cavity"))?.faces.length ?? 0).toBeGreaterThan(3);
  await expect(form).toHaveCount(0);
});

test("axles are typed, and what each carries is told", async ({ page }) => {
  await page.goto("/rigs/sparrow/weights");
  await expect(page.locator('[data-weights="full"]')).toBeVisible();
  for (const [label, kg] of [
    ["Front axle, weighed empty", "1150"],
    ["Rear axle, weighed empty", "830"],
    ["Rear axle limit", "950"],
  ] as const) {
    const field = page.getByRole("textbox", { name: label });
    await field.fill(`${kg} kg`);
    await field.press("Enter");
    await expect(field).toHaveValue(`${kg} kg`);
    await saved(page);
  }
  const full = page.locator('[data-weights="full"]');
  await expect(full).toContainText("over: rear axle");
  await expect(page.getByRole("region", { name: "Tanks" })).toContainText("lifts the front axle");
});

test("a photo is straightened by four corners, lies faint under the side, and is refused when it is none", async ({ page }) => {
  await page.goto("/rigs/sparrow");
  await page.locator("[data-summary][data-stale=false]").waitFor();
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder(/A part, a run/).fill("photo under");
  await page.keyboard.press("Enter");
  const dialog = page.getByRole("dialog", { name: "Photos under the drawing" });
  const file = dialog.getByLabel("Picture file");
  await file.setInputFiles({ name: "wall.png", mimeType: "image/png", buffer: Buffer.from("not a picture") });
  await expect(dialog.getByRole("alert")).toContainText("not a JPEG or PNG");
  // A wall with a board on it, drawn here.
  const picture = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(1200, 800);
    const pen = canvas.getContext("2d") as OffscreenCanvasRenderingContext2D;
    pen.fillStyle = "#ddd";
    pen.fillRect(0, 0, 1200, 800);
    pen.fillStyle = "#933";
    pen.fillRect(400, 200, 400, 400);
    return [...new Uint8Array(await (await canvas.convertToBlob({ type: "image/png" })).arrayBuffer())];
  });
  await file.setInputFiles({ name: "kitchen wall.png", mimeType: "image/png", buffer: Buffer.from(picture) });
  const corner = dialog.getByRole("button", { name: "Corner, upper left" });
  // Until the picture has come, its frame has no height.
  const shown = dialog.locator("img").first();
  await expect.poll(() => shown.evaluate((i) => (i as HTMLImageElement).naturalWidth)).toBeGreaterThan(0);
  const [box, image] = [await corner.boundingBox(), await dialog.getByRole("img", { includeHidden: true }).first().boundingBox()];
  if (!box || !image) throw new Error("the picture is not shown");
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(image.x + image.width / 3, image.y + image.height / 4, { steps: 4 });
  await page.mouse.up();
  await dialog.getByLabel("Its width").fill("60 cm");
  await page.keyboard.press("Enter");
  await dialog.getByLabel("Left edge from the rear").fill("2 m");
  await page.keyboard.press("Enter");
  await dialog.getByRole("button", { name: "Add photo" }).click();
  await expect(dialog.getByText("kitchen wall")).toBeVisible();
  await dialog.getByRole("button", { name: "Close" }).click();
  await expect(page.locator("[data-view=side] image[data-photo]")).toHaveCount(1);
  const rig = async () => (await (await page.request.get("/api/rigs/sparrow")).json()).rig;
  await expect.poll(async () => (await rig()).shell.photos?.[0]?.widthM).toBeCloseTo(0.6);
  expect((await rig()).shell.photos[0].corners[0].x).toBeCloseTo(1 / 3, 1);
  const saved = await (await page.request.get("/api/rigs/sparrow/file")).json();
  expect(Object.keys(saved.pictures)).toEqual([saved.shell.photos[0].picture]);
});
