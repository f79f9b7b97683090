import { cache } from "react";
import { readShiftHours, SHIFT_HOURS, shiftChangesBetween } from "../../core/schedule/shifts";
import { now_ms } from "./clock";

/** The site's time zone; one database is one site. */
export function siteTimeZone(): string {
  return process.env.LANTERN_TIME_ZONE ?? (machineZone ??= Intl.DateTimeFormat().resolvedOptions().timeZone);
}

let machineZone: string | undefined;

/** Making one costs far more than using it, and shift changes ask for many times. */
const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(timeZone: string, withDay: boolean): Intl.DateTimeFormat {
  const key = `${timeZone} ${withDay}`;
  const day = withDay ? ({ day: "numeric", month: "short", year: "numeric" } as const) : {};
  const known =
    formats.get(key) ??
    new Intl.DateTimeFormat("en-GB", { timeZone, ...day, hour: "2-digit", minute: "2-digit", hourCycle: "h23" });
  formats.set(key, known);
  return known;
}

/** "14 Nov 2026, 06:05" in the site's time. */
export function siteTime(at_ms: number, timeZone = siteTimeZone()): string {
  return formatOf(timeZone, true).format(at_ms);
}

/** "06:05" */
export function siteClock(at_ms: number, timeZone = siteTimeZone()): string {
  return formatOf(timeZone, false).format(at_ms);
}

/** The site's own shift hours. What is written down wrongly stops the server at its first look, and says how to write it. */
export function shiftHours(): readonly number[] {
  const written = process.env.LANTERN_SHIFT_HOURS;
  if (written === undefined || written.trim() === "") return SHIFT_HOURS;
  const hours = readShiftHours(written);
  if (hours === null)
    throw new Error(`LANTERN_SHIFT_HOURS is “${written}”: write whole hours from 0 to 23, as in 6,14,22`);
  return hours;
}

/** Shift changes by zone, hours and day: many permits ask of the same days. */
const changesOf = new Map<string, readonly number[]>();
const DAY_MS = 86_400_000;
const DAYS_MOST = 1000;

/** Every shift change between two moments by the site's clock, in ms. Cost: the days between; each is worked out once. */
export function shiftChanges(from_ms: number, to_ms: number, timeZone = siteTimeZone()): number[] {
  const hours = shiftHours();
  const found: number[] = [];
  for (let day = Math.floor(from_ms / DAY_MS); day * DAY_MS < to_ms; day++) {
    for (const at_ms of changesOn(day, timeZone, hours)) if (from_ms <= at_ms && at_ms < to_ms) found.push(at_ms);
  }
  return found;
}

function changesOn(day: number, timeZone: string, hours: readonly number[]): readonly number[] {
  const key = `${timeZone} ${hours.join()} ${day}`;
  const known = changesOf.get(key);
  if (known) return known;
  const clock = (at_ms: number) => {
    const [hour = 0, minute = 0] = siteClock(at_ms, timeZone).split(":").map(Number);
    return { hour, minute };
  };
  const changes = shiftChangesBetween(day * DAY_MS, (day + 1) * DAY_MS, clock, hours);
  if (changesOf.size >= DAYS_MOST) changesOf.clear();
  changesOf.set(key, changes);
  return changes;
}

/** The time of this request, in ms UTC: a page and its frame are drawn for one moment. */
export const requestTime_ms = cache(() => now_ms());
