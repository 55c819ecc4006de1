import { join } from "node:path";
import { defineConfig } from "@playwright/test";
import { launchOptions } from "./browser.mjs";

const root = join(import.meta.dirname, "..");
const server = join(root, "src/WarmConduit.Server/bin/Release/net10.0/WarmConduit.Server.dll");

/** Where the application answers that the tests of a worker have for themselves. */
export const address = (worker: number) => `http://127.0.0.1:${5291 + worker}`;

/** The built application with the demo rigs and a new database, for a worker. */
const application = (worker: number) => {
  const data = join(root, `artifacts/e2e-data-${worker}`);
  return {
    command: `rm -rf ${data} && exec dotnet ${server} --port ${new URL(address(worker)).port} --data ${data} --demo ${root}/demo --web ${root}/web/dist`,
    url: `${address(worker)}/api/units`,
    reuseExistingServer: false,
  };
};

const workers = 2;

export default defineConfig({
  testDir: ".",
  testMatch: "*.spec.ts",
  // Long ones belong to `./warm-conduit campaign browser`.
  ...(process.env.WARM_CONDUIT_LONG ? { grep: /@long/ } : { grepInvert: /@long/ }),
  outputDir: "results",
  workers,
  forbidOnly: true,
  // A loaded machine is slow, and that alone is no fault.
  timeout: 90_000,
  expect: { timeout: 15_000 },
  webServer: Array.from({ length: workers }, (_, worker) => application(worker)),
  use: {
    viewport: { width: 1280, height: 800 },
    // What moves on screen takes a processor to draw; tests of motion ask for it.
    contextOptions: { reducedMotion: "reduce" },
    launchOptions,
  },
});
