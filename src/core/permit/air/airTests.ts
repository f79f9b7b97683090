import { judgeAir, type AirLimits, type AirReading, type Shown } from "../../atmosphere/airLimits";
import { correctionFor } from "../../atmosphere/sensorReading";
import { readByName, substance } from "../../atmosphere/substances";
import { AT_A_POINT_s, instrumentsFor, ROUND_s } from "../../atmosphere/testPoints";
import type { GasSheet } from "../../gear/gasSheet";
import { leftEmpty_ms } from "../people/entries";
import { sameNumber } from "../../gear/gear";
import { sinceClock } from "../record/clockSet";
import { entriesOf, lastOf, type LogEntry } from "../record/permitLog";
import type { PermitFacts, PostedDetector } from "../record/permitTypes";
import { keeps } from "./airRules";

export type PointTest = Readonly<{
  point: string;
  /** The last reading there, however old; null when none was ever taken. */
  last: Readonly<{ at_ms: number; reading: AirReading; against: readonly string[] }> | null;
  /** Why it has to be read (again); null when the reading stands. */
  wants: string | null;
}>;

export type AirState = Readonly<{
  points: readonly PointTest[];
  /** Every point was read since the last event, within its time, and is within limits. */
  fit: boolean;
  /** When the oldest of the readings is too old; null while something is missing. */
  until_ms: number | null;
  /** Readings before this moment count no more, and why. */
  since: Readonly<{ at_ms: number; why: string }> | null;
  /** In words, point by point, what is missing or against it. */
  wants: readonly string[];
}>;

type AirFacts = Pick<PermitFacts, "testPoints" | "withdrawnInstruments" | "detectors" | "gases" | "badElsewhere">;
type AirEntry = Extract<LogEntry, { type: "air" }>;

export type AirAsk = Readonly<{
  every_min: number;
  now_ms: number;
  entry: boolean;
  /** Work begins now: the whole round is fresh. */
  begins?: boolean;
  /** Only these of the points. */
  only?: (point: string) => boolean;
}>;

const MINUTE_MS = 60_000;
/** When work begins no reading of the round is older. Common practice, no source. */
export const START_AGE_min = 30;

/**
 * How the air stands by its tests. A reading stands for its own point, its own gases and its own time; it dies of age and of
 * what happened since: a break, a stop, a purge, an empty space, the ventilation standing, a bad reading in the same air.
 * A point stands when what was read there since, by instruments that nobody withdrew, says of oxygen, of what burns and of
 * each gas that may be there that it is within limits.
 *
 * Cost: linear in the log for each point.
 */
export function airState(facts: AirFacts, log: readonly LogEntry[], ask: AirAsk): AirState {
  const since = countsSince(facts, log, ask.entry);
  const gases = namesOf(facts);
  const points = facts.testPoints.filter((point) => ask.only?.(point) ?? true);
  const readAt = (point: string) =>
    entriesOf(inRightAir(log), "air").filter((entry) => !keeps("point") || entry.point === point);
  const tooLong = keeps("round") && ask.begins ? roundTooLong(log, since) : () => false;
  const ages: number[] = [];
  const tests = points.map((point): PointTest => {
    const all = readAt(point);
    const last = all.at(-1);
    if (last === undefined) {
      const wasRead = entriesOf(log, "air").some((entry) => entry.point === point);
      return { point, last: null, wants: wasRead ? "to be read again since the clock was set right" : "not read yet" };
    }
    const shown = { at_ms: last.at_ms, reading: last.reading, against: last.against };
    const wants = (why: string) => ({ point, last: shown, wants: why });
    if (last.against.length > 0) return wants(last.against.join(", "));
    const isWithdrawn = (entry: AirEntry) =>
      keeps("withdrawn") && facts.withdrawnInstruments.some((number) => sameNumber(number, entry.instrument));
    if (isWithdrawn(last)) return wants(`read with ${last.instrument}, which was withdrawn`);
    const standing = all.filter((entry) => !isWithdrawn(entry) && entry.against.length === 0 && isAfter(entry, since));
    if (standing.length === 0) return wants(`to be read again ${since!.why}`);
    const isKept = keepsFresh(facts.detectors, point, gases);
    const most_min = ask.begins && keeps("start age") ? Math.min(START_AGE_min, ask.every_min) : ask.every_min;
    const good = standing.filter(({ at_ms }) => isKept || !keeps("age") || ask.now_ms < at_ms + most_min * MINUTE_MS);
    if (good.length === 0) return wants(`read more than ${most_min} minutes ago`);
    const missing = keeps("gases") ? gases.filter((gas) => !good.some((entry) => hasRead(entry, gas))) : [];
    if (missing.length > 0) return wants(missing.map((gas) => `${gas} was not read`).join(", "));
    const used = lastOfEach(good, gases);
    if (!isKept && used.some(tooLong)) return wants("to be read again: its round took too long for one instrument");
    if (!isKept) ages.push(...used.map(({ at_ms }) => at_ms));
    return { point, last: shown, wants: null };
  });
  const wants = tests.flatMap(({ point, wants }) => (wants === null ? [] : [`${point}: ${wants}`]));
  if (tests.length === 0) wants.push("no test point is named");
  const fit = wants.length === 0;
  const until_ms = ages.length === 0 ? Infinity : Math.min(...ages) + ask.every_min * MINUTE_MS;
  return { points: tests, fit, until_ms: fit ? until_ms : null, since, wants };
}

/** What tells of the air: of what was read or blown by a clock that was wrong nobody knows how old it is, or how long it took. */
function inRightAir(log: readonly LogEntry[]): readonly LogEntry[] {
  if (!keeps("clock")) return log;
  const since = sinceClock(log);
  const set = log[log.length - since.length - 1];
  if (set === undefined) return since;
  // A sample that was begun before was not waited for by any clock; what it showed bad is bad.
  const wasBegunBefore = (entry: LogEntry) =>
    entry.type === "air" && entry.against.length === 0 && (entry.drawn_ms ?? entry.at_ms) <= set.at_ms;
  return since.filter((entry) => !wasBegunBefore(entry));
}

/** Toxic gases that may be there and that some instrument sees: each is read by name. */
export function namesOf({ gases }: Pick<PermitFacts, "gases">): string[] {
  return readByName(gases.filter(({ seen }) => seen).map(({ gas }) => gas));
}

function hasRead(entry: AirEntry, gas: string): boolean {
  return entry.reading.toxics.some((one) => one.gas === gas && one.fraction !== null);
}

/** What a point stands on: the last reading, and the last of each gas, which may be an earlier one. */
function lastOfEach(good: readonly AirEntry[], gases: readonly string[]): AirEntry[] {
  return [good.at(-1)!, ...gases.flatMap((gas) => good.findLast((entry) => hasRead(entry, gas)) ?? [])];
}

/** A sample begun before an event is not one taken after it. */
function isAfter(entry: AirEntry, since: AirState["since"]): boolean {
  if (since === null) return true;
  return (keeps("begun before") ? (entry.drawn_ms ?? entry.at_ms) : entry.at_ms) > since.at_ms;
}

/** A gas detector that stands at the point, sends, is well, and sees all that is asked keeps it fresh. */
function keepsFresh(detectors: readonly PostedDetector[], point: string, gases: readonly string[]): boolean {
  return detectors.some(({ place, kind, reads, against, silent }) => {
    if (against.length > 0 || silent) return false;
    if (!keeps("detector")) return true;
    const asked = ["oxygen", "flammable", ...gases];
    return kind === "gas" && place === point && asked.every((gas) => reads.includes(gas));
  });
}

/** Says of a reading that its instrument was still about the same round too long after it. */
function roundTooLong(log: readonly LogEntry[], since: AirState["since"]): (entry: AirEntry) => boolean {
  const latest = new Map<string, number>();
  for (const entry of entriesOf(log, "air")) if (isAfter(entry, since)) latest.set(entry.instrument, entry.at_ms);
  return ({ instrument, at_ms }) => (latest.get(instrument) ?? at_ms) - at_ms > ROUND_s * 1000;
}

/**
 * How many instruments a round needs, so that none is about it too long, nor longer than the retest leaves; null where one
 * point alone takes longer.
 */
export function instrumentsNeeded(
  points: number,
  sheet: GasSheet | null,
  wait_s: number,
  every_min: number,
): number | null {
  if (sheet === null) return 1;
  return instrumentsFor(points, wait_s + AT_A_POINT_s, Math.min(ROUND_s, every_min * 60));
}

/** The last moment that made earlier readings worthless; only what is after it counts. */
function countsSince(facts: Pick<AirFacts, "badElsewhere">, log: readonly LogEntry[], entry: boolean) {
  const moments: { at_ms: number; why: string }[] = [];
  const add = (at_ms: number | null | undefined, why: string) => {
    if (at_ms !== null && at_ms !== undefined) moments.push({ at_ms, why });
  };
  if (keeps("break")) {
    add(lastOf(log, "break begun")?.at_ms, "after the break");
    add(lastOf(log, "break ended")?.at_ms, "after the break");
  }
  if (keeps("stop")) add(lastOf(log, "stopped")?.at_ms, "after work was stopped");
  if (keeps("same air")) {
    const bad = lastBad(log);
    if (bad) add(bad.at_ms, `after bad air at ${bad.point}`);
  }
  if (entry) {
    if (keeps("empty")) {
      add(leftEmpty_ms(log), "after everybody was out");
      add(lastOf(log, "ventilation ended")?.at_ms, "after the blower stood");
    }
    if (keeps("purge")) {
      add(lastOf(log, "purge begun")?.at_ms, "after the purge");
      add(lastOf(log, "purge ended")?.at_ms, "after the purge");
    }
    if (keeps("other permits")) {
      for (const { at_ms, permit, point } of facts.badElsewhere) add(at_ms, `after bad air at ${point}, ${permit}`);
    }
  }
  return moments.reduce<AirState["since"]>((late, one) => (late === null || one.at_ms > late.at_ms ? one : late), null);
}

/** The last reading that was against a limit. */
export function lastBad(log: readonly LogEntry[]): AirEntry | undefined {
  return entriesOf(log, "air")
    .filter(({ against }) => against.length > 0)
    .at(-1);
}

export type Sample = Readonly<{ begun_ms: number; ready_ms: number; instrument: string }>;

/** The sample that is being drawn at a point, and when its reading may be taken; null when none is. */
export function sampleAt(log: readonly LogEntry[], point: string): Sample | null {
  const last = entriesOf(log, "sample begun", "air")
    .filter((entry) => entry.point === point)
    .at(-1);
  if (last === undefined || last.type === "air") return null;
  return { begun_ms: last.at_ms, ready_ms: last.at_ms + last.wait_s * 1000, instrument: last.instrument };
}

/** Where an instrument is drawing under this permit, and has not been read yet; null where nowhere. */
export function drawsAt(log: readonly LogEntry[], instrument: string): string | null {
  const open = new Map<string, string>();
  for (const entry of entriesOf(log, "sample begun", "air")) {
    if (entry.type === "air") open.delete(entry.point);
    else open.set(entry.point, entry.instrument);
  }
  return [...open].find(([, number]) => sameNumber(number, instrument))?.[0] ?? null;
}

/** What a reading is worth by its instrument: the errors, and the bands inside which it shows nothing. */
export function shownBy(
  sheet: GasSheet,
  isZeroed: boolean,
  log: readonly LogEntry[],
  point: string,
  gases: readonly string[],
): Shown {
  const error = keeps("error") ? sheet.error : { oxygen: 0, flammable: 0, toxic: 0 };
  const band = keeps("nil") ? sheet.zero.flammable : Infinity;
  return {
    error,
    zero: {
      flammable: keeps("nil") && !isZeroed ? null : band === Infinity ? 0.02 : band,
      toxic: isZeroed ? sheet.zero.toxic : null,
    },
    flammableTimes: keeps("true") ? raisedBy(sheet, gases) : 1,
    mean: (gas, now) => {
      const before = entriesOf(log, "air")
        .filter((entry) => entry.point === point)
        .flatMap(({ reading }) => reading.toxics.flatMap((one) => (one.gas === gas ? [one.fraction ?? now] : [])));
      return [...before, now].reduce((sum, one) => sum + one, 0) / (before.length + 1);
    },
  };
}

/**
 * How much a catalytic sensor may read too little of what burns here and is not read by name; of a gas nobody knows the most.
 * Infrared sees what it was made for as much as methane or more.
 */
export function raisedBy(sheet: Pick<GasSheet, "reads" | "burns" | "calibrated">, gases: readonly string[]): number {
  if (sheet.burns !== "catalytic") return 1;
  const burning = gases.filter((gas) => substance(gas)?.lfl !== undefined && !sheet.reads.includes(gas));
  const calibratedOn = sheet.calibrated ?? "methane";
  const times =
    burning.length === 0 ? [correctionFor("", calibratedOn)] : burning.map((gas) => correctionFor(gas, calibratedOn));
  return Math.max(...times);
}

export type Judged = Readonly<{ against: readonly string[]; explain: readonly string[] }>;

/** What is against this reading, and what has to be explained of it: only what the instrument can see counts. */
export function judgeReading(
  reading: AirReading,
  limits: AirLimits,
  sheet: GasSheet,
  by: Shown,
  gases: readonly string[],
): Judged {
  const { against, explain } = judgeAir(reading, limits, by);
  const blind = keeps("sees") ? blindTo(sheet, gases, reading.oxygen ?? 0) : [];
  return { against: [...against, ...blind], explain };
}

/** Gases that burn and that this instrument would not show, and why. */
export function blindTo(sheet: GasSheet, gases: readonly string[], oxygen: number): string[] {
  const burning = gases.filter((gas) => substance(gas)?.lfl !== undefined);
  if (!sheet.reads.includes("flammable") || sheet.burns === null) {
    return ["the instrument does not read what burns"];
  }
  if (sheet.burns === "catalytic" && oxygen < 0.1) {
    return ["a catalytic sensor needs some 10 % oxygen to read: use infrared, or draw through a diluting tube"];
  }
  const unseen = sheet.burns === "infrared" ? burning.filter((gas) => substance(gas)?.infraredBlind) : [];
  return unseen
    .filter((gas) => !sheet.reads.includes(gas))
    .map((gas) => `infrared does not see ${gas}: use a catalytic or a ${gas} sensor`);
}

/** The purge as it stands: what it must last, whether it runs, and whether one was finished since the space was empty. */
export function purgeState(
  log: readonly LogEntry[],
): Readonly<{ running: boolean; ready_ms: number | null; done: boolean; since_ms: number | null }> {
  const begun = lastOf(log, "purge begun");
  const ended = lastOf(log, "purge ended");
  const broken = lastOf(log, "purge broken");
  const isBroken = begun !== undefined && broken !== undefined && broken.at_ms >= begun.at_ms;
  const empty = latest(leftEmpty_ms(log), lastOf(log, "ventilation ended")?.at_ms ?? null, needsPurgeSince_ms(log));
  const running = begun !== undefined && !isBroken && (ended === undefined || ended.at_ms < begun.at_ms);
  return {
    running,
    ready_ms: running ? begun.at_ms + begun.need_s * 1000 : null,
    // Begun after the space was last empty: air blown before that says nothing about the air after it. Ended by a right clock.
    done:
      !running &&
      !isBroken &&
      lastOf(inRightAir(log), "purge ended") !== undefined &&
      begun !== undefined &&
      (empty === null || begun.at_ms >= empty),
    since_ms: empty,
  };
}

/** A limit was passed then, and no instrument was shown to have been at fault: the space is purged anew. */
function needsPurgeSince_ms(log: readonly LogEntry[]): number | null {
  if (!keeps("purged anew")) return null;
  return (
    entriesOf(log, "air").findLast(
      (entry) => entry.against.length > 0 && causeOf(log, entry)?.cause !== "instrument fault",
    )?.at_ms ?? null
  );
}

/** What was found of a bad reading; undefined while nobody wrote it down. */
export function causeOf(log: readonly LogEntry[], bad: AirEntry) {
  return entriesOf(log, "cause found").find(({ point, at_ms }) => point === bad.point && at_ms >= bad.at_ms);
}

const latest = (...all: readonly (number | null)[]): number | null =>
  all.reduce((late, one) => (one !== null && (late === null || one > late) ? one : late), null);

/** Does the blower run for those inside? */
export function isVentilated(log: readonly LogEntry[]): boolean {
  return lastOf(log, "ventilation begun", "ventilation ended")?.type === "ventilation begun";
}

/** Readings that stand, are within limits and not as outside air, and that nobody has explained since. */
export function unexplained(
  facts: AirFacts,
  log: readonly LogEntry[],
  entry: boolean,
): Readonly<{ point: string; words: string }>[] {
  const since = countsSince(facts, log, entry);
  return facts.testPoints.flatMap((point) => {
    const last = entriesOf(log, "air").findLast((one) => one.point === point && isAfter(one, since));
    const odd = last?.explain ?? [];
    if (last === undefined || odd.length === 0) return [];
    const said = entriesOf(log, "explained").findLast((one) => one.point === point && one.at_ms >= last.at_ms);
    return said ? [] : [{ point, words: `${point}: ${odd.join(", ")}` }];
  });
}

/** Points where the air was bad, no cause was found, and no gas detector stands that sends well and sees all that is asked. */
export function unwatched(facts: Pick<AirFacts, "detectors" | "gases">, log: readonly LogEntry[]): string[] {
  if (!keeps("stands there")) return [];
  const gases = facts.gases.map(({ gas }) => gas);
  const lost = entriesOf(log, "air").filter(
    (entry) => entry.against.length > 0 && causeOf(log, entry)?.cause === "not found",
  );
  return [...new Set(lost.map(({ point }) => point))].filter((point) => !keepsFresh(facts.detectors, point, gases));
}

/** Bad readings whose cause nobody has written down, by point. */
export function withoutCause(log: readonly LogEntry[]): string[] {
  const open = entriesOf(log, "air").filter((entry) => entry.against.length > 0 && causeOf(log, entry) === undefined);
  return [...new Set(open.map(({ point }) => point))];
}
