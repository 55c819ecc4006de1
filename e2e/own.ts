import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const root = join(import.meta.dirname, "..");

/** An application of a test's own, that it may kill. */
export async function startOwn(port: number, data = mkdtempSync(join(tmpdir(), "warm-conduit-e2e-")), ...more: string[]) {
  const server = join(root, "src/WarmConduit.Server/bin/Release/net10.0/WarmConduit.Server.dll");
  const process = spawn(
    "dotnet",
    [server, "--port", String(port), "--data", data, "--demo", join(root, "demo"), "--web", join(root, "web/dist"), ...more],
    { stdio: ["ignore", "pipe", "inherit"] },
  );
  await new Promise<void>((answers, fails) => {
    process.stdout?.on("data", (said) => String(said).includes("Warm Conduit answers at") && answers());
    process.on("exit", () => fails(new Error("it did not start")));
  });
  return { address: `http://127.0.0.1:${port}`, data, kill: () => kill(process) };
}

/** Ends it with no chance to tidy up. */
function kill(process: ChildProcess) {
  return new Promise<void>((gone) => {
    process.on("exit", () => gone());
    process.kill("SIGKILL");
  });
}
