/** The site's time zone; one database is one site. */
export function siteTimeZone(): string {
  return process.env.LANTERN_TIME_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
}

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

/** "06:05" */
export function siteClock(at_ms: number, timeZone = siteTimeZone()): string {
  return new Intl.DateTimeFormat("en-GB", { timeZone, hour: "2-digit", minute: "2-digit", hourCycle: "h23" }).format(
    at_ms,
  );
}

/** The time of this request, in ms UTC: a page is drawn for one moment. */
export function requestTime_ms(): number {
  return Date.now();
}
