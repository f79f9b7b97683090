/** Times for reading, in the site's time zone. Both server and browser are given the zone, so that they agree. */
export function clock(at_ms: number, timeZone: string): string {
  return new Intl.DateTimeFormat("en-GB", { timeZone, hour: "2-digit", minute: "2-digit", hourCycle: "h23" }).format(
    at_ms,
  );
}

export function dayAndClock(at_ms: number, timeZone: string): string {
  const day = new Intl.DateTimeFormat("en-GB", { timeZone, weekday: "short", day: "numeric", month: "short" }).format(
    at_ms,
  );
  return `${day}, ${clock(at_ms, timeZone)}`;
}

/** "6 h 20 min", "45 min". */
export function span(ms: number): string {
  const minutes = Math.round(Math.abs(ms) / 60_000);
  const hours = Math.floor(minutes / 60);
  if (hours === 0) return `${minutes} min`;
  return minutes % 60 === 0 ? `${hours} h` : `${hours} h ${minutes % 60} min`;
}
