import { sameNumber } from "./gearNumber";
import type { GasSheet } from "./gasSheet";
import type { PersonId } from "../people/roles";
import { refuse } from "../refusal/result";
import type { Refusal } from "../refusal/refusal";

export const GEAR_KINDS = [
  "lock",
  "hasp",
  "box",
  "tag",
  "portable earth",
  "voltage tester",
  "proving unit",
  "insulating gloves",
  "gas instrument",
  "pressure gauge",
  "thermometer",
  "survey meter",
  "harness",
] as const;
export type GearKind = (typeof GEAR_KINDS)[number];

/** A numbered thing of the register. */
export type Gear = Readonly<{
  kind: GearKind;
  number: string;
  /** Whose it is; null: the site's. A person's lock is used by that person only. */
  owner: PersonId | null;
  /** Locks: what is stamped on its key. */
  key: string | null;
  /** Test, calibration or bump test is good until then; null where nobody wrote it down. */
  inDateUntil_ms: number | null;
  /** What it may be used on, in volts; null where nobody wrote it down. */
  rating_V: number | null;
  /** How far its reading may be off, in the unit it reads. */
  error: number | null;
  withdrawn: boolean;
  /** Who took it out of use; null where it is in use, or was taken out before that was written down. */
  withdrawnBy: PersonId | null;
  /** Gas instruments: when test gas was last blown on it and it alarmed; null where nobody saw that. */
  bumpedAt_ms: number | null;
  /** Gas instruments: when it was last zeroed in fresh air; null where nobody saw that. */
  zeroedAt_ms: number | null;
  /** Gas instruments: what it reads and how; null where nobody wrote it down. */
  sheet: GasSheet | null;
  /** Number of the job it was handed out to; null: in the store, or on its owner. */
  withJob: string | null;
}>;

/** Things that are tested at intervals: without a date they count as out of date. Common practice. */
const DATED: ReadonlySet<GearKind> = new Set<GearKind>([
  "portable earth",
  "voltage tester",
  "proving unit",
  "insulating gloves",
  "gas instrument",
  "pressure gauge",
  "thermometer",
  "survey meter",
  "harness",
]);

export function isDated(kind: GearKind): boolean {
  return DATED.has(kind);
}

export type Use = Readonly<{
  kind: GearKind;
  number: string;
  at_ms: number;
  /** The job it is wanted for. */
  job: string | null;
  /** The voltage it has to stand. */
  needs_V?: number;
  /** Somebody is about to read from it: a gas instrument was then bumped before. */
  toRead?: boolean;
}>;

/** How long a bump test speaks for an instrument: a day's use. Common practice, no source. */
export const BUMP_GOOD_h = 24;
const HOUR_MS = 3_600_000;

/**
 * Why a thing may not be used now; null when it may. What the register does not know, or has no date or rating for, is
 * not used: nobody can say that it is sound.
 */
export function gearFault(gear: Gear | undefined, use: Use): Refusal | null {
  const { kind, number } = use;
  if (gear === undefined) return { code: "gear unknown", kind, number };
  if (gear.withdrawn) return { code: "gear withdrawn", kind, number };
  if (DATED.has(kind) && (gear.inDateUntil_ms === null || gear.inDateUntil_ms <= use.at_ms)) {
    return { code: "gear out of date", kind, number };
  }
  if (gear.withJob !== null && gear.withJob !== use.job) {
    return { code: "gear elsewhere", kind, number, job: gear.withJob };
  }
  if (use.toRead && kind === "gas instrument" && !isBumped(gear, use.at_ms)) {
    return { code: "gear not bumped", number, hours: BUMP_GOOD_h };
  }
  if (use.needs_V !== undefined && (gear.rating_V === null || gear.rating_V < use.needs_V)) {
    return { code: "gear rating", kind, number, rating: gear.rating_V, needs: use.needs_V };
  }
  return null;
}

/** Whether test gas made it alarm within a day before. */
export function isBumped({ bumpedAt_ms }: Pick<Gear, "bumpedAt_ms">, at_ms: number): boolean {
  return bumpedAt_ms !== null && at_ms < bumpedAt_ms + BUMP_GOOD_h * HOUR_MS;
}

/** Why a person may not hang this lock as their own; null when they may. A lock nobody entered becomes theirs. */
export function personalLockFault(
  lock: Gear | undefined,
  by: PersonId,
  number: string,
  nameOf: (id: PersonId) => string,
): Refusal | null {
  if (lock === undefined) return null;
  if (lock.withdrawn) return { code: "gear withdrawn", kind: "lock", number };
  if (lock.owner === null) return { code: "lock of the site", lock: number };
  return lock.owner === by ? null : { code: "lock of another", lock: number, owner: nameOf(lock.owner) };
}

/** Why a lock may not hang on a point or a box for the site; null when it may. A lock nobody entered becomes the site's. */
export function siteLockFault(
  lock: Gear | undefined,
  number: string,
  nameOf: (id: PersonId) => string,
): Refusal | null {
  if (lock === undefined) return null;
  if (lock.withdrawn) return { code: "gear withdrawn", kind: "lock", number };
  return lock.owner === null ? null : { code: "lock of another", lock: number, owner: nameOf(lock.owner) };
}

/** No test or calibration speaks for a thing longer: what is dated beyond was mistyped. Common practice, no source. */
export const DATE_AT_MOST_YEARS = 5;
const YEAR_MS = 365.25 * 24 * HOUR_MS;

/** Why a date until which a thing is good cannot be; null when it can. */
export function dateFault(inDateUntil_ms: number | null, now_ms: number): Refusal | null {
  const isTooFar = inDateUntil_ms !== null && inDateUntil_ms > now_ms + DATE_AT_MOST_YEARS * YEAR_MS;
  return isTooFar ? { code: "date too far", years: DATE_AT_MOST_YEARS } : null;
}

/**
 * Why a thing that was withdrawn may not come back into use; null when it may. Somebody else than who withdrew it looks at
 * what was done to it, and what is tested at intervals has been tested since: a date that is still to come.
 */
export function returnFault(
  gear: Gear | undefined,
  use: Readonly<{
    kind: GearKind;
    number: string;
    by: PersonId;
    inDateUntil_ms: number | null;
    now_ms: number;
    nameOf: (id: PersonId) => string;
  }>,
): Refusal | null {
  const { kind, number } = use;
  if (gear === undefined) return { code: "gear unknown", kind, number };
  if (!gear.withdrawn)
    return { code: "wrong state", what: `The ${kind} ${number}`, state: "in use", needs: "withdrawn" };
  if (gear.withdrawnBy === use.by) return { code: "another returns it", kind, number, by: use.nameOf(use.by) };
  if (!DATED.has(kind)) return null;
  if (use.inDateUntil_ms === null || use.inDateUntil_ms <= use.now_ms)
    return { code: "gear out of date", kind, number };
  return dateFault(use.inDateUntil_ms, use.now_ms);
}

/**
 * Why a thing may not be entered so; null when it may. A lock has one owner, no two people have the same key, and what was
 * withdrawn comes back by an act of its own.
 */
export function entryFault(
  entry: Gear,
  register: readonly Gear[],
  nameOf: (id: PersonId) => string,
): ReturnType<typeof refuse> | null {
  const same = register.find((one) => one.kind === entry.kind && sameNumber(one.number, entry.number));
  if (same?.withdrawn) return refuse({ code: "gear withdrawn", kind: same.kind, number: same.number });
  if (same && same.owner !== null && same.owner !== entry.owner) {
    return refuse({ code: "lock of another", lock: same.number, owner: nameOf(same.owner) });
  }
  if (entry.kind !== "lock" || entry.key === null || entry.withdrawn) return null;
  const fitting = register.find(
    (one) =>
      one.kind === "lock" &&
      !sameNumber(one.number, entry.number) &&
      !one.withdrawn &&
      one.key !== null &&
      sameNumber(one.key, entry.key!) &&
      (one.owner === null || one.owner !== entry.owner),
  );
  if (fitting === undefined) return null;
  const owner = fitting.owner === null ? "the site" : nameOf(fitting.owner);
  return refuse({ code: "same key", key: entry.key, lock: fitting.number, owner });
}

export { gearNumber, sameNumber } from "./gearNumber";
