import type { Page } from "@playwright/test";
import { clockOf, type Clock } from "./clock";
import { expect, openSite, SITE_TIMEOUT_MS, perWorker as shared, type Site } from "./site";
import { done } from "./work";

export const MINUTE_MS = 60_000;
export const HOUR_MS = 3_600_000;

/** A site that no other file uses, whose clock the tests move. */
export const moving = () =>
  shared.extend<object, { site: Site; clock: Clock }>({
    site: [
      async ({}, use, worker) => openSite(use, 4300 + worker.parallelIndex),
      { scope: "worker", timeout: SITE_TIMEOUT_MS },
    ],
    clock: [async ({ site }, use) => use(clockOf(site)), { scope: "worker" }],
  });

export const BUMP = { number: "GI-03", gas: "methane, half its lower limit", verdict: "alarmed", zeroed: true };

/** Reads the air at each point by posts, with an instrument zeroed in fresh air just before: outside air. */
export async function air(
  clock: Clock,
  nils: Page,
  permit: string,
  points: readonly string[],
  toxics_ppm = {},
): Promise<void> {
  await done(nils, "gear.bump", BUMP);
  for (const point of points) {
    await done(nils, "permit.begin-sample", { permit, point, instrument: "GI-03" });
    await clock.on(2 * MINUTE_MS);
    await done(nils, "permit.read-air", { permit, point, oxygen_percent: 20.9, flammable_percent: 0, toxics_ppm });
  }
}

/** Sees a state in the head of the page; pages hear of it by themselves. */
export async function sees(page: Page, state: string): Promise<void> {
  await expect(page.getByRole("heading", { level: 1 }).getByText(state, { exact: true })).toBeVisible();
}
