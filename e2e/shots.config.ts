import config from "./playwright.config.ts";

/** Makes the pictures of docs/screenshots. */
export default { ...config, testMatch: "shots.ts", workers: 1 };
