import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: "core",
          include: ["core/**/*.test.ts", "demo/**/*.test.ts"],
          // The core keeps nothing that a test could leave behind: files share what they import, which takes a third less time.
          isolate: false,
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
      {
        test: {
          name: "unit",
          include: ["contract/**/*.test.ts", "web/**/*.test.{ts,tsx}", "scripts/**/*.test.ts"],
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        test: {
          name: "api",
          include: ["server/**/*.test.ts"],
          globalSetup: ["server/testing/database.ts"],
          fileParallelism: false,
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
    ],
  },
});
