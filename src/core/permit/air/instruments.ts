import { z } from "zod";
import { EXACT, judgeAir, type AirLimits } from "../../atmosphere/airLimits";
import type { GasSheet } from "../../gear/gasSheet";
import type { InstrumentKind } from "../../gear/instrumentKinds";
import { keeps } from "./airRules";
import { blindTo, raisedBy } from "./airTests";

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
  /** A blower says whether it runs. */
  running: z.boolean().nullable().default(null),
  /** Left in the battery, 0 to 1. */
  battery: z.number().min(0).max(1),
  /** What the instrument finds wrong with itself; null while it is well. */
  fault: z.string().min(1).max(120).nullable().default(null),
});
export type Sent = z.output<typeof sentSchema>;

/** Below this a battery may not last until somebody comes. Common practice, no source. */
const BATTERY_LOW = 0.1;

/** What the register knows of the instrument that sends, null for nothing, and what gases may be where it stands. */
export type Sender = Readonly<{ kind: InstrumentKind; sheet: GasSheet | null; gases: readonly string[] }>;

/**
 * What is against a message: the limits of the place, then the instrument itself. Empty while all is well. What burns is
 * raised and the instrument's error added as for a reading by hand; of an instrument that the register does not describe
 * the sensor is taken to be catalytic and calibrated on methane, which raises the most.
 */
export function againstSent(sent: Sent, limits: AirLimits, { kind, sheet, gases }: Sender): string[] {
  const self = [
    ...(sent.fault === null ? [] : [`it reports ${sent.fault}`]),
    ...(sent.battery < BATTERY_LOW ? [`its battery is at ${Math.round(sent.battery * 100)} %`] : []),
  ];
  const isGauge = keeps("judged as air") ? kind === "gauge" : sent.pressure_Pa !== null;
  if (isGauge) return [...againstPressure(sent), ...self];
  switch (kind) {
    case "blower":
      return sent.running === false ? ["the blower stands", ...self] : self;
    case "gas":
    case "gauge":
      return [...judgeAir(sent, limits, shownOf(sheet, gases)).against, ...blindOf(sheet, sent, gases), ...self];
  }
}

function shownOf(sheet: GasSheet | null, gases: readonly string[]) {
  const error = sheet === null || !keeps("error") ? EXACT.error : sheet.error;
  const by = sheet ?? { reads: [], burns: "catalytic" as const, calibrated: null };
  return { ...EXACT, error, flammableTimes: keeps("true") ? raisedBy(by, gases) : 1 };
}

/** What it cannot see; of an instrument that the register does not describe its own list of gases is asked elsewhere. */
function blindOf(sheet: GasSheet | null, sent: Sent, gases: readonly string[]): string[] {
  return sheet === null || !keeps("sees") ? [] : blindTo(sheet, gases, sent.oxygen ?? 0);
}

function againstPressure({ pressure_Pa, least_Pa, most_Pa }: Sent): string[] {
  const bar = (pa: number) => `${Number((pa / 1e5).toFixed(2))} bar`;
  if (pressure_Pa === null) return ["it sends no pressure"];
  if (most_Pa !== null && pressure_Pa > most_Pa) return [`${bar(pressure_Pa)} is above ${bar(most_Pa)}`];
  if (least_Pa !== null && pressure_Pa < least_Pa) return [`${bar(pressure_Pa)} is below ${bar(least_Pa)}`];
  return [];
}

/** What a message should carry and does not: then the instrument has told nobody anything, as if it were silent. */
export function missingFrom(sent: Sent, kind: InstrumentKind, reads: readonly string[]): string[] {
  if (!keeps("missing gases")) return [];
  switch (kind) {
    case "blower":
      return sent.running === null ? ["whether it runs"] : [];
    case "gauge":
      return sent.pressure_Pa === null ? ["pressure"] : [];
    case "gas":
      return reads.filter((gas) =>
        gas === "oxygen"
          ? sent.oxygen === null
          : gas === "flammable"
            ? sent.flammable === null
            : !sent.toxics.some((one) => one.gas === gas && one.fraction !== null),
      );
  }
}

type Heard = Readonly<{ posted_ms: number; last_ms: number | null }>;

/** From when on an instrument is silent, if it sends nothing more, in ms. */
export function silentFrom_ms({ posted_ms, last_ms }: Heard): number {
  return Math.max(posted_ms, last_ms ?? 0) + SILENT_AFTER_MS + 1;
}

export function isSilent(row: Heard, now_ms: number): boolean {
  // Heard in what is still to come: the clock was set back, and nobody knows when it was.
  if ((row.last_ms ?? 0) > now_ms + SILENT_AFTER_MS) return true;
  return now_ms >= silentFrom_ms(row);
}
