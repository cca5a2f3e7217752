import { defineConfig } from "@playwright/test";
import { CHROMIUM, CHROMIUM_FLAGS } from "./scripts/browser.ts";

const port = Number(process.env.RIMEFELL_E2E_PORT ?? 4879);

export default defineConfig({
  testDir: "e2e",
  globalSetup: "./e2e/quick.ts",
  // Long enough for a machine at a quarter of its speed; what must be quick is measured against that speed.
  timeout: 600_000,
  expect: { timeout: 180_000 },
  workers: 1,
  reporter: [["list"]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // What moves costs the processor a picture at a time, which it wants for the plans; two tests look at what does.
    contextOptions: { reducedMotion: "reduce" },
    launchOptions: { executablePath: CHROMIUM, args: CHROMIUM_FLAGS },
  },
  webServer: {
    command: "node --import tsx e2e/serve.ts",
    // The server answers before its pages are built, so its health does not tell that they are there.
    wait: { stdout: /Rimefell is ready at/ },
    timeout: 300_000,
    gracefulShutdown: { signal: "SIGTERM", timeout: 10_000 },
    env: { RIMEFELL_PORT: String(port) },
  },
});
