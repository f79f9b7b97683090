import { defineConfig } from "@playwright/test";

/**
 * A zone in which it is between seven and eight in the morning now: the next shift change is six hours off whenever the
 * tests run. Servers and browsers take it over.
 */
function morningZone(now: Date): string {
  const MORNING_HOUR = 7;
  const west = now.getUTCHours() - MORNING_HOUR;
  // Zones reach from twelve hours west to fourteen east; these names count westwards.
  const hours = west > 12 ? west - 24 : west;
  return hours === 0 ? "Etc/GMT" : `Etc/GMT${hours > 0 ? "+" : ""}${hours}`;
}

// Workers read this file again, maybe in another hour.
process.env.TZ = process.env.LANTERN_MORNING_ZONE ??= morningZone(new Date());

const LONG = [
  "story.spec.ts",
  "races.spec.ts",
  "permits.spec.ts",
  "screens.spec.ts",
  "shift.spec.ts",
  "counts.spec.ts",
];

export default defineConfig({
  testDir: "./tests/e2e",
  globalSetup: "./tests/e2e/globalSetup.ts",
  // The longest first, so that no worker is left alone with one of them at the end.
  projects: [
    { name: "long", testMatch: LONG },
    { name: "short", testIgnore: LONG },
  ],
  // Wide, for a machine whose speed changes several-fold: a hang is still found.
  timeout: 600_000,
  expect: { timeout: 90_000 },
  workers: 2,
  // The tests of a file share its site, one after the other: see tests/e2e/site.ts.
  fullyParallel: false,
  retries: 0,
  reporter: [["list"], ["json"]],
  use: {
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: "reduce" },
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
