// The functions of the package apart, and not its classes: a page fetches half as much.
import { getISO } from "temporal-polyfill/fns/Calendar";
import * as instant from "temporal-polyfill/fns/Instant";
import * as plainDate from "temporal-polyfill/fns/PlainDate";
import * as plainDateTime from "temporal-polyfill/fns/PlainDateTime";
import * as zoned from "temporal-polyfill/fns/ZonedDateTime";
import { readWhen, whenText } from "../../core/units/whenText";

/**
 * Times as they are typed and shown in forms are the site's, whatever zone the browser is in: somebody who plans from another
 * country, and a tablet that was never set, mean the clock on the wall of the plant.
 */

/** The site's zone, as the page says it. */
export function siteZone(): string {
  return document.documentElement.dataset.zone ?? "UTC";
}

/**
 * The moment of a time such as 29 Mar 2026, 01:30 by the site's clock, in ms UTC. A time that the clocks leap over has none: then
 * what is wrong with it, to be refused by name. Of one that comes twice, the first. Null for nothing.
 */
export function instantOf(text: string, zone = siteZone()): number | string | null {
  if (text.trim() === "") return null;
  const read = readWhen(text);
  if (read?.time == null) return `${text} is no time: write it as 29 Mar 2026, 13:30`;
  const typed = plainDateTime.fromString(`${read.date}T${read.time}`, getISO);
  const at = plainDateTime.toZonedDateTime(typed, zone, { disambiguation: "earlier" });
  return plainDateTime.equals(zoned.toPlainDateTime(at), typed)
    ? at.epochMilliseconds
    : `${whenText(read)} does not exist in ${zone}: the clocks go forward over it`;
}

/** The last moment of a day by the site's clock, in ms UTC: what is good until a day is good through the whole of it. */
export function endOfDay(day: string, zone = siteZone()): number | string | null {
  if (day.trim() === "") return null;
  const read = readWhen(day);
  if (read === null) return `${day} is no day: write it as 29 Mar 2026`;
  const next = plainDate.addDays(plainDate.fromString(read.date, getISO), 1);
  return plainDate.toZonedDateTime(next, zone).epochMilliseconds - 1000;
}

/** How a form holds a moment by the site's clock: 2026-03-29T13:30. */
export function siteField(at_ms: number, zone: string): string {
  const at = instant.toZonedDateTimeISO(instant.fromEpochMilliseconds(at_ms), zone);
  return plainDateTime.toString(zoned.toPlainDateTime(at), { smallestUnit: "minute" });
}
