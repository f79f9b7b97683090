import { cache } from "react";
import { now_ms } from "./clock";

/** The site's time zone; one database is one site. */
export function siteTimeZone(): string {
  return process.env.LANTERN_TIME_ZONE ?? (machineZone ??= Intl.DateTimeFormat().resolvedOptions().timeZone);
}

let machineZone: string | undefined;

/** "14 Nov 2026, 06:05" in the site's time. */
export function siteTime(at_ms: number, timeZone = siteTimeZone()): string {
  return new Intl.DateTimeFormat("en-GB", {
    timeZone,
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  }).format(at_ms);
}

/** Making one costs far more than using it, and shift changes ask for many times. */
const clocks = new Map<string, Intl.DateTimeFormat>();

/** "06:05" */
export function siteClock(at_ms: number, timeZone = siteTimeZone()): string {
  let clock = clocks.get(timeZone);
  if (clock === undefined) {
    clock = new Intl.DateTimeFormat("en-GB", { timeZone, hour: "2-digit", minute: "2-digit", hourCycle: "h23" });
    clocks.set(timeZone, clock);
  }
  return clock.format(at_ms);
}

/** Shift changes by the site's clock. Common practice. */
export const SHIFT_HOURS = [6, 14, 22] as const;

/** Every shift change between two moments, in ms. Hours of the site's clock: days of 23 and 25 hours have theirs too. */
export function shiftChanges(from_ms: number, to_ms: number, timeZone = siteTimeZone()): number[] {
  const HOUR_MS = 3_600_000;
  const QUARTER_MS = HOUR_MS / 4;
  const found: number[] = [];
  // By quarters, for zones that are not a whole hour off.
  for (let at = Math.ceil(from_ms / QUARTER_MS) * QUARTER_MS; at < to_ms; at += QUARTER_MS) {
    const [hour, minute] = siteClock(at, timeZone).split(":").map(Number);
    if (minute === 0 && SHIFT_HOURS.some((change) => change === hour)) found.push(at);
  }
  return found;
}

/** The time of this request, in ms UTC: a page and its frame are drawn for one moment. */
export const requestTime_ms = cache(() => now_ms());
