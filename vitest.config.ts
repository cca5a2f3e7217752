import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: "core",
          include: ["core/**/*.test.ts", "demo/**/*.test.ts"],
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
      { test: { name: "unit", include: ["contract/**/*.test.ts", "web/**/*.test.{ts,tsx}", "scripts/**/*.test.ts"] } },
      {
        test: {
          name: "api",
          include: ["server/**/*.test.ts"],
          globalSetup: ["server/testing/database.ts"],
          fileParallelism: false,
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
