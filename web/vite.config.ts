import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

const server = process.env.WARM_CONDUIT_API ?? "http://127.0.0.1:5210";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  server: { host: "127.0.0.1", proxy: { "/api": server, "/openapi": server } },
  // A file that needs a browser's objects says so: most need none, and start in a fraction of the time.
  test: { environment: "node", reporters: ["default"] },
  build: { target: "es2022", manifest: true },
});
