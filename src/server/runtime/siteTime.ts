import { cache } from "react";
import { readShiftHours, SHIFT_HOURS, shiftChangesBetween } from "../../core/schedule/shifts";
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

/** The site's own shift hours. What is written down wrongly stops the server at its first look, and says how to write it. */
export function shiftHours(): readonly number[] {
  const written = process.env.LANTERN_SHIFT_HOURS;
  if (written === undefined || written.trim() === "") return SHIFT_HOURS;
  const hours = readShiftHours(written);
  if (hours === null)
    throw new Error(`LANTERN_SHIFT_HOURS is “${written}”: write whole hours from 0 to 23, as in 6,14,22`);
  return hours;
}

/** Every shift change between two moments by the site's clock, in ms. */
export function shiftChanges(from_ms: number, to_ms: number, timeZone = siteTimeZone()): number[] {
  const clock = (at_ms: number) => {
    const [hour = 0, minute = 0] = siteClock(at_ms, timeZone).split(":").map(Number);
    return { hour, minute };
  };
  return shiftChangesBetween(from_ms, to_ms, clock, shiftHours());
}

/** The time of this request, in ms UTC: a page and its frame are drawn for one moment. */
export const requestTime_ms = cache(() => now_ms());
