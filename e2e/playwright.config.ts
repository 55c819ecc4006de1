import { join } from "node:path";
import { defineConfig } from "@playwright/test";

const port = 5291;
const root = join(import.meta.dirname, "..");
const server = join(root, "src/WarmConduit.Server/bin/Release/net10.0/WarmConduit.Server.dll");
const data = join(root, "artifacts/e2e-data");

/** The built application with the demo rig and a new database. */
export const application = {
  command: `rm -rf ${data} && exec dotnet ${server} --port ${port} --data ${data} --demo ${root}/demo --web ${root}/web/dist`,
  url: `http://127.0.0.1:${port}/api/units`,
  reuseExistingServer: false,
};

export default defineConfig({
  testDir: ".",
  testMatch: "*.spec.ts",
  outputDir: "results",
  workers: 1,
  forbidOnly: true,
  webServer: application,
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: ["--no-sandbox", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
    },
  },
});
