import { judgeAir, type AirLimits, type AirReading } from "../../atmosphere/airLimits";
import { leftEmpty_ms } from "../people/entries";
import { sameNumber } from "../../gear/gear";
import { entriesOf, lastOf, type LogEntry } from "../record/permitLog";
import type { PermitFacts } from "../record/permitTypes";

export type PointTest = Readonly<{
  point: string;
  /** The last reading there, however old; null when none was ever taken. */
  last: Readonly<{ at_ms: number; reading: AirReading; against: readonly string[] }> | null;
  /** Why it has to be read (again); null when the reading stands. */
  wants: string | null;
}>;

export type AirState = Readonly<{
  points: readonly PointTest[];
  /** Every point was read since the last break or the like, within its time, and is within limits. */
  fit: boolean;
  /** When the oldest of the readings is too old; null while something is missing. */
  until_ms: number | null;
  /** Readings before this moment count no more, and why. */
  since: Readonly<{ at_ms: number; why: string }> | null;
  /** In words, point by point, what is missing or against it. */
  wants: readonly string[];
}>;

/**
 * How the air stands by its tests: the last reading of every point counts, if it was taken after the last break began, the
 * last stop, the last time that everybody was out and the last purge, no longer ago than the retest interval, and with an
 * instrument that nobody withdrew since: one that fails its bump test has told nobody anything.
 */
export function airState(
  { testPoints, withdrawnInstruments }: Pick<PermitFacts, "testPoints" | "withdrawnInstruments">,
  log: readonly LogEntry[],
  p: Readonly<{ every_min: number; now_ms: number; entry: boolean }>,
): AirState {
  const since = countsSince(log, p.entry);
  const tests = testPoints.map((point): PointTest => {
    const entry = entriesOf(log, "air")
      .filter((one) => one.point === point)
      .at(-1);
    if (entry === undefined) return { point, last: null, wants: "not read yet" };
    const last = { at_ms: entry.at_ms, reading: entry.reading, against: entry.against };
    if (entry.against.length > 0) return { point, last, wants: entry.against.join(", ") };
    if (withdrawnInstruments.some((number) => sameNumber(number, entry.instrument))) {
      return { point, last, wants: `read with ${entry.instrument}, which was withdrawn` };
    }
    if (since !== null && entry.at_ms <= since.at_ms) return { point, last, wants: `to be read again ${since.why}` };
    if (p.now_ms >= entry.at_ms + p.every_min * 60_000) {
      return { point, last, wants: `read more than ${p.every_min} minutes ago` };
    }
    return { point, last, wants: null };
  });
  const wants = tests.flatMap(({ point, wants }) => (wants === null ? [] : [`${point}: ${wants}`]));
  if (tests.length === 0) wants.push("no test point is named");
  const oldest = Math.min(...tests.map(({ last }) => last?.at_ms ?? -Infinity));
  const fit = wants.length === 0;
  return { points: tests, fit, until_ms: fit ? oldest + p.every_min * 60_000 : null, since, wants };
}

/** The last moment that made earlier readings worthless; only what is after it counts. */
function countsSince(log: readonly LogEntry[], entry: boolean): AirState["since"] {
  const moments: { at_ms: number; why: string }[] = [];
  const add = (at_ms: number | null | undefined, why: string) => {
    if (at_ms !== null && at_ms !== undefined) moments.push({ at_ms, why });
  };
  add(lastOf(log, "break begun")?.at_ms, "after the break");
  add(lastOf(log, "stopped")?.at_ms, "after work was stopped");
  if (entry) {
    add(leftEmpty_ms(log), "after everybody was out");
    add(lastOf(log, "purge begun")?.at_ms, "after the purge");
    add(lastOf(log, "purge ended")?.at_ms, "after the purge");
  }
  return moments.reduce<AirState["since"]>((late, one) => (late === null || one.at_ms > late.at_ms ? one : late), null);
}

/** The sample that is being drawn at a point, and when its reading may be taken; null when none is. */
export function sampleAt(log: readonly LogEntry[], point: string): { ready_ms: number; instrument: string } | null {
  const last = entriesOf(log, "sample begun", "air")
    .filter((entry) => entry.point === point)
    .at(-1);
  if (last === undefined || last.type === "air") return null;
  return { ready_ms: last.at_ms + last.wait_s * 1000, instrument: last.instrument };
}

/** What is against this reading: the limits, then what is asked of each gas that may be here. */
export function readingFaults(reading: AirReading, limits: AirLimits, gases: readonly string[]): string[] {
  const missing = gases.filter((gas) => !reading.toxics.some((one) => one.gas === gas));
  return [...judgeAir(reading, limits).against, ...missing.map((gas) => `${gas} was not read`)];
}

/** The purge as it stands: what it must last, whether it runs, and whether one was finished since the space was empty. */
export function purgeState(
  log: readonly LogEntry[],
): Readonly<{ running: boolean; ready_ms: number | null; done: boolean; since_ms: number | null }> {
  const begun = lastOf(log, "purge begun");
  const ended = lastOf(log, "purge ended");
  const empty = leftEmpty_ms(log);
  const running = begun !== undefined && (ended === undefined || ended.at_ms < begun.at_ms);
  return {
    running,
    ready_ms: running ? begun.at_ms + begun.need_s * 1000 : null,
    // Begun after the space was last empty: air blown before that says nothing about the air after it.
    done: !running && ended !== undefined && begun !== undefined && (empty === null || begun.at_ms >= empty),
    since_ms: empty,
  };
}
