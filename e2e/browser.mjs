import { existsSync } from "node:fs";

/** How Debian's Chromium is started: without its windows where that is installed. */
export const launchOptions = {
  executablePath: ["/usr/bin/chromium-headless-shell", "/usr/bin/chromium"].find((path) => existsSync(path)),
  args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
};
