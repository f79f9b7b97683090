import { z } from "zod";
import { judgeAir, type AirLimits } from "../../atmosphere/airLimits";

/** An instrument that says nothing for so long is taken to be broken. It sends every second. */
export const SILENT_AFTER_MS = 10_000;

const fraction = z.number().min(0).max(10).nullable();

/**
 * One message of an instrument. Gas as fractions: oxygen and toxics of the air, flammable of the lower limit. A gauge sends
 * a pressure in pascal and the least and most that may be.
 */
export const sentSchema = z.object({
  version: z.literal(1),
  /** Counts up; a message that comes late or twice is left aside. */
  sequence: z.number().int().min(0),
  oxygen: fraction.default(null),
  flammable: fraction.default(null),
  toxics: z
    .array(z.object({ gas: z.string().min(1).max(40), fraction }))
    .max(12)
    .default([]),
  pressure_Pa: z.number().nullable().default(null),
  least_Pa: z.number().nullable().default(null),
  most_Pa: z.number().nullable().default(null),
  /** Left in the battery, 0 to 1. */
  battery: z.number().min(0).max(1),
  /** What the instrument finds wrong with itself; null while it is well. */
  fault: z.string().min(1).max(120).nullable().default(null),
});
export type Sent = z.output<typeof sentSchema>;

/** Below this a battery may not last until somebody comes. Common practice, no source. */
const BATTERY_LOW = 0.1;

/** What is against a message: the limits of the place, then the instrument itself. Empty while all is well. */
export function againstSent(sent: Sent, limits: AirLimits): string[] {
  const self = [
    ...(sent.fault === null ? [] : [`it reports ${sent.fault}`]),
    ...(sent.battery < BATTERY_LOW ? [`its battery is at ${Math.round(sent.battery * 100)} %`] : []),
  ];
  if (sent.pressure_Pa !== null) {
    const bar = (pa: number) => `${Number((pa / 1e5).toFixed(2))} bar`;
    const { pressure_Pa, least_Pa, most_Pa } = sent;
    if (least_Pa !== null && pressure_Pa < least_Pa) self.unshift(`${bar(pressure_Pa)} is below ${bar(least_Pa)}`);
    if (most_Pa !== null && pressure_Pa > most_Pa) self.unshift(`${bar(pressure_Pa)} is above ${bar(most_Pa)}`);
    return self;
  }
  return [...judgeAir(sent, limits).against, ...self];
}

type Heard = Readonly<{ posted_ms: number; last_ms: number | null }>;

/** From when on an instrument is silent, if it sends nothing more, in ms. */
export function silentFrom_ms({ posted_ms, last_ms }: Heard): number {
  return Math.max(posted_ms, last_ms ?? 0) + SILENT_AFTER_MS + 1;
}

export function isSilent(row: Heard, now_ms: number): boolean {
  return now_ms >= silentFrom_ms(row);
}
