/** Times for reading, in the site's time zone. Both server and browser are given the zone, so that they agree. */

/** Making one costs far more than using it, and a board writes hundreds of times. */
const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(timeZone: string, kind: keyof typeof KINDS): Intl.DateTimeFormat {
  const key = `${kind} ${timeZone}`;
  const known = formats.get(key) ?? new Intl.DateTimeFormat("en-GB", { timeZone, ...KINDS[kind] });
  formats.set(key, known);
  return known;
}
const KINDS = {
  clock: { hour: "2-digit", minute: "2-digit", hourCycle: "h23" },
  date: { day: "numeric", month: "short", year: "numeric" },
  day: { weekday: "short", day: "numeric", month: "short" },
} as const;

export function clock(at_ms: number, timeZone: string): string {
  return formatOf(timeZone, "clock").format(at_ms);
}

/** "Sun 29 Nov, 06:05"; where half a year or more lies between, "29 Nov 2027": the year says more than the hour. */
export function dayAndClock(at_ms: number, timeZone: string): string {
  if (Math.abs(at_ms - Date.now()) > FAR_MS) return formatOf(timeZone, "date").format(at_ms);
  return `${formatOf(timeZone, "day").format(at_ms)}, ${clock(at_ms, timeZone)}`;
}
const FAR_MS = 183 * 86_400_000;

/** "6 h 20 min", "45 min". */
export function span(ms: number): string {
  const minutes = Math.round(Math.abs(ms) / 60_000);
  const hours = Math.floor(minutes / 60);
  if (hours === 0) return `${minutes} min`;
  return minutes % 60 === 0 ? `${hours} h` : `${hours} h ${minutes % 60} min`;
}
