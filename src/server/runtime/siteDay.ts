import { Temporal } from "temporal-polyfill";
import { siteTimeZone } from "./siteTime";

/** The last moment of a day such as 2027-11-29 by the site's clock, in ms UTC: what counts until a day counts through all of it. */
export function dayEnd_ms(day: string, timeZone = siteTimeZone()): number {
  return Temporal.PlainDate.from(day).add({ days: 1 }).toZonedDateTime(timeZone).epochMilliseconds - 1000;
}
