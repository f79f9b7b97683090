import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "./tests/e2e",
  // Wide, for a machine whose speed changes several-fold: a hang is still found.
  timeout: 600_000,
  expect: { timeout: 90_000 },
  workers: 2,
  fullyParallel: true,
  retries: 0,
  reporter: [["list"], ["json"]],
  use: {
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.LANTERN_CHROMIUM ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});
