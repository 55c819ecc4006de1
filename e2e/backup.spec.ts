import { readFile } from "node:fs/promises";
import { expect, test } from "./fresh.ts";

test("all data is saved as one file, and restored after what it replaces is said", async ({ page }) => {
  await page.goto("/");
  const backup = page.getByRole("region", { name: "Backup" });
  const [file] = await Promise.all([page.waitForEvent("download"), backup.getByRole("link", { name: "Save backup" }).click()]);
  expect(file.suggestedFilename()).toMatch(/^warm-conduit-\d{4}-\d\d-\d\d\.backup$/);
  const saved = await readFile(await file.path());
  await expect(backup).toContainText("Last backup:");

  // The shelf scrolls by itself: what is hidden in it does not make the page longer.
  expect(await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight)).toBeLessThanOrEqual(0);

  // A rig goes; another window has one open.
  const other = await page.context().newPage();
  await other.goto("/rigs/sparrow");
  await other.locator("[data-summary][data-stale=false]").waitFor();
  const { rigs } = await (await page.request.get("/api/rigs")).json();
  const tern = rigs.find((r: { id: string }) => r.id === "tern");
  await page.request.delete(`/api/rigs/tern?revision=${tern.revision}`);
  const takenOff = page.getByRole("region", { name: "Deleted" });
  await expect(takenOff).toContainText("Tern");

  const choose = (name: string, buffer: Buffer) =>
    backup.getByLabel("Backup file").setInputFiles({ name, mimeType: "application/octet-stream", buffer });
  await choose("torn.backup", saved.subarray(0, saved.length / 2));
  await expect(backup.getByRole("alert")).toContainText("“torn.backup”: it is damaged");
  await choose("all.backup", saved);
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText(`holds ${rigs.length} rigs`);
  await expect(dialog).toContainText(`It replaces ${rigs.length - 1} rigs here`);
  await dialog.getByRole("button", { name: "Replace all data" }).click();
  await expect(backup.getByRole("status")).toContainText("in the data folder as before-restore-");
  await expect(takenOff).not.toBeAttached();
  // The other window shows what is there now.
  await other.locator("[data-summary][data-stale=false]").waitFor();
});
