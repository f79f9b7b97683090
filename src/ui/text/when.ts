/** Times for reading, in the site's time zone. Both server and browser are given the zone, so that they agree. */
export function clock(at_ms: number, timeZone: string): string {
  return new Intl.DateTimeFormat("en-GB", { timeZone, hour: "2-digit", minute: "2-digit", hourCycle: "h23" }).format(
    at_ms,
  );
}

/** "Sun 29 Nov, 06:05"; where half a year or more lies between, "29 Nov 2027": the year says more than the hour. */
export function dayAndClock(at_ms: number, timeZone: string): string {
  if (Math.abs(at_ms - Date.now()) > FAR_MS) {
    return new Intl.DateTimeFormat("en-GB", { timeZone, day: "numeric", month: "short", year: "numeric" }).format(
      at_ms,
    );
  }
  const day = new Intl.DateTimeFormat("en-GB", { timeZone, weekday: "short", day: "numeric", month: "short" }).format(
    at_ms,
  );
  return `${day}, ${clock(at_ms, timeZone)}`;
}
const FAR_MS = 183 * 86_400_000;

/** "6 h 20 min", "45 min". */
export function span(ms: number): string {
  const minutes = Math.round(Math.abs(ms) / 60_000);
  const hours = Math.floor(minutes / 60);
  if (hours === 0) return `${minutes} min`;
  return minutes % 60 === 0 ? `${hours} h` : `${hours} h ${minutes % 60} min`;
}
