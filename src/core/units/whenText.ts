/** Days and times as people type and read them, by the clock on the wall: no zone is meant here. */

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"] as const;
const DAYS = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"] as const;

/** A day as 2026-11-29, and a time as 03:21; null where none was typed. */
export type WallTime = Readonly<{ date: string; time: string | null }>;

const TIME = /(?:[T,]?\s*(\d{1,2})[:.](\d{2})(?::\d{2}(?:\.\d+)?)?)?/.source;
const ISO = new RegExp(`^(\\d{4})-(\\d{1,2})-(\\d{1,2})${TIME}$`);
const WORDS = new RegExp(
  `^(?:[a-z]{2,9}\\.?,?\\s+)?(\\d{1,2})\\.?\\s*([a-z]{3,9})\\.?(?:,?\\s+(\\d{4}))?${TIME}$`,
  "i",
);
const CLOCK = /^(\d{1,2})[:.](\d{2})$/;

/**
 * Reads "29 Nov 2026, 03:21", "Sun 29 Nov 03:21", "2026-11-29T03:21", or "03:21" alone. What is not typed is taken from
 * `near`: its day, or the year that brings the day nearest to it. A day that there is not, as 31 Feb, is none. Months are in
 * words or in ISO order: 03/04 means two days to two people, and is not read. Cost: constant.
 */
export function readWhen(text: string, near: string | null = null): WallTime | null {
  const typed = text.trim();
  const clock = CLOCK.exec(typed);
  if (clock) return near === null ? null : made(near.slice(0, 10), clock[1], clock[2]);
  const iso = ISO.exec(typed);
  if (iso) return made(dateOf(Number(iso[1]), Number(iso[2]), Number(iso[3])), iso[4], iso[5]);
  const words = WORDS.exec(typed);
  if (!words) return null;
  const name = words[2]!.toLowerCase();
  const month = MONTHS.findIndex((one) => name.startsWith(one.toLowerCase())) + 1;
  if (month === 0) return null;
  const day = Number(words[1]);
  if (words[3] !== undefined) return made(dateOf(Number(words[3]), month, day), words[4], words[5]);
  return near === null ? null : made(nearestYear(near, month, day), words[4], words[5]);
}

function made(date: string | null, hour: string | undefined, minute: string | undefined): WallTime | null {
  if (date === null) return null;
  if (hour === undefined || minute === undefined) return { date, time: null };
  if (Number(hour) > 23 || Number(minute) > 59) return null;
  return { date, time: `${hour.padStart(2, "0")}:${minute}` };
}

function dateOf(year: number, month: number, day: number): string | null {
  const at = new Date(Date.UTC(year, month - 1, day));
  const isThere = at.getUTCFullYear() === year && at.getUTCMonth() === month - 1 && at.getUTCDate() === day;
  return isThere ? at.toISOString().slice(0, 10) : null;
}

function nearestYear(near: string, month: number, day: number): string | null {
  const from = Date.parse(`${near.slice(0, 10)}T00:00Z`);
  const year = Number(near.slice(0, 4));
  const dates = [year - 1, year, year + 1].flatMap((one) => dateOf(one, month, day) ?? []);
  const far = (date: string) => Math.abs(Date.parse(`${date}T00:00Z`) - from);
  return dates.sort((a, b) => far(a) - far(b))[0] ?? null;
}

/** "Sun 29 Nov 2026, 03:21" of 2026-11-29T03:21; without a time where none is given. */
export function whenText({ date, time }: WallTime): string {
  const at = new Date(`${date}T00:00Z`);
  const day = `${DAYS[at.getUTCDay()]} ${at.getUTCDate()} ${MONTHS[at.getUTCMonth()]} ${at.getUTCFullYear()}`;
  return time === null ? day : `${day}, ${time}`;
}
