import { expect, inspector, type Page, rigOf, saved, summary, test } from "./fresh.ts";
test("x", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: "New rig" }).first().click();
  await page.getByRole("textbox", { name: "Name" }).fill("Ductx");
  await page.getByRole("textbox", { name: "Name" }).press("Enter");
  await page.getByRole("radio", { name: /^Long panel van/ }).click();
  await page.getByRole("radio", { name: /^None yet/ }).click();
  await page.getByRole("button", { name: "Make this rig" }).click();
  await page.getByRole("link", { name: "To the bench" }).click();
  await page.getByRole("link", { name: "Shell", exact: true }).click();

  await page.getByRole("listitem").filter({ hasText: "behind the skirt" }).getByRole("button").click();
  const room = page.locator("[aria-label^='Room: ']");
  await expect(room).toHaveAttribute("aria-label", /skirt/);
  for (const [label, text] of [["Name", "duct"], ["From the rear", "1 m"], ["From the kerb", "0.5 m"], ["Above floor", "-0.15 m"], ["Length", "2 m"], ["Width", "0.3 m"], ["Height", "0.15 m"], ["Air changes/h", "0"]] as const) {
    const f = room.getByRole("textbox", { name: label, exact: true }).first();
    await f.fill(text); await f.press("Enter"); await saved(page);
  }
  await page.getByRole("switch", { name: "Heat" }).click();
  await page.waitForTimeout(1500);
  console.log(await room.innerText());
  console.log((await rigOf(page, "ductx")).shell.zones.filter((z: any) => z.name === "duct" || z.id==="underfloor").map((z: any) => JSON.stringify(z)).join("\n"));
  await page.screenshot({ path: "/tmp/duct.png" });
});
