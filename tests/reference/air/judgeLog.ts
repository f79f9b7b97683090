import type { LogEntry } from "../../../src/core/permit/record/permitLog";

/**
 * Whether work may go on, or begin, on the air that a permit's log tells of. Written apart from the program, from the rules
 * of the trade: it looks at each thing that must be true by itself, over the whole log, and knows no state.
 */
export type AirWorld = Readonly<{
  entry: boolean;
  points: readonly string[];
  /** Reached only by somebody inside. */
  inside: readonly string[];
  cover: string | null;
  gases: readonly string[];
  retest_min: number;
  /** What every instrument of the model may be off by, and its zero bands; oxygen and toxic of the air, flammable of the limit. */
  off: Readonly<{ oxygen: number; flammable: number; toxic: number; zeroFlammable: number }>;
  /** What burns that may be there, and is not read by name, may be so many times what the sensors read. */
  raised: number;
  limits: Readonly<{ oxygenLeast: number; oxygenMost: number; flammableBelow: number; toxicMost: number }>;
  withdrawn: readonly string[];
  /** Points where a gas detector stands, sends well and sees all that is asked. */
  watched: readonly string[];
  badElsewhere: readonly number[];
  /** When a blower that reports by itself said that it stands, or said nothing. */
  stood: readonly number[];
  /** It does so now. */
  stands: boolean;
}>;

type Read = Extract<LogEntry, { type: "air" }>;
const MIN = 60_000;

/** What speaks against it, in no order; empty where nothing does. */
export function faultsOfAir(log: readonly LogEntry[], world: AirWorld, now_ms: number, begins: boolean): string[] {
  const faults: string[] = [];
  const reads = log.filter((one): one is Read => one.type === "air");
  // By a clock that was wrong: nobody knows when it was.
  const known = log.slice(log.findLastIndex(({ type }) => type === "clock set") + 1);
  const insideNow = log.reduce(
    (count, one) => count + (one.type === "went in" ? 1 : one.type === "came out" ? -1 : 0),
    0,
  );
  const isBad = (read: Read): boolean => {
    const { oxygen, flammable, toxics } = read.reading;
    if (oxygen === null || flammable === null) return true;
    const { off, limits, raised } = world;
    return (
      oxygen - off.oxygen < limits.oxygenLeast ||
      oxygen + off.oxygen > limits.oxygenMost ||
      raised * (flammable + off.flammable) >= limits.flammableBelow ||
      toxics.some(({ fraction }) => fraction !== null && fraction + off.toxic > limits.toxicMost)
    );
  };
  /** When the sample of this reading was begun. */
  const drawn_ms = (read: Read): number => {
    const before = log.slice(0, log.indexOf(read));
    const begun = before.findLast((one) => one.type === "sample begun" && one.point === read.point);
    return begun?.at_ms ?? read.at_ms;
  };
  // A blower matters while it blows the space out, and from then on while people rely on it.
  const stood_ms =
    world.stood.findLast((at_ms) => {
      const before = log.filter((one) => one.at_ms < at_ms);
      const last = (...types: LogEntry["type"][]) => before.findLast(({ type }) => types.includes(type))?.type;
      const purging = last("purge begun", "purge ended", "purge broken") === "purge begun";
      return purging || last("ventilation begun", "ventilation ended") === "ventilation begun";
    }) ?? null;
  const deadly: number[] = world.entry ? [...world.badElsewhere, ...(stood_ms === null ? [] : [stood_ms])] : [];
  let within = 0;
  for (const one of log) {
    if (one.type === "went in") within++;
    if (one.type === "came out" && --within === 0 && world.entry) deadly.push(one.at_ms);
    if (one.type === "break begun" || one.type === "break ended" || one.type === "stopped") deadly.push(one.at_ms);
    if (world.entry && (one.type === "purge begun" || one.type === "purge ended" || one.type === "ventilation ended")) {
      deadly.push(one.at_ms);
    }
    if (one.type === "air" && isBad(one)) deadly.push(one.at_ms);
  }
  const lastDeadly = Math.max(-Infinity, ...deadly);

  const needed = world.points.filter((point) => !world.inside.includes(point) || insideNow > 1);
  const used: Read[] = [];
  for (const point of needed) {
    const here = reads.filter((read) => read.point === point && known.includes(read));
    const last = here.at(-1);
    if (last === undefined) {
      faults.push(`${point} was never read`);
      continue;
    }
    if (isBad(last)) faults.push(`${point} is bad`);
    const standing = here.filter(
      (read) => !isBad(read) && !world.withdrawn.includes(read.instrument) && drawn_ms(read) > lastDeadly,
    );
    for (const what of ["oxygen", "flammable", ...world.gases]) {
      const says = standing.filter(({ reading }) =>
        what === "oxygen"
          ? reading.oxygen !== null
          : what === "flammable"
            ? reading.flammable !== null
            : reading.toxics.some(({ gas, fraction }) => gas === what && fraction !== null),
      );
      const best = says.at(-1);
      if (best === undefined) {
        faults.push(`${point} has no ${what} since`);
        continue;
      }
      if (world.watched.includes(point)) continue;
      const age_min = (now_ms - best.at_ms) / MIN;
      if (age_min >= world.retest_min) faults.push(`${what} at ${point} is ${age_min} min old`);
      if (begins && age_min >= 30) faults.push(`${what} at ${point} is ${age_min} min old at the start`);
      used.push(best);
    }
    const { oxygen, flammable } = last.reading;
    const isOdd = (oxygen ?? 1) < 0.208 || (oxygen ?? 0) > 0.215 || (flammable ?? 1) > world.off.zeroFlammable;
    const explained = log.some((one) => one.type === "explained" && one.point === point && one.at_ms >= last.at_ms);
    if (isOdd && !isBad(last) && !explained) faults.push(`${point} is odd and nobody said why`);
  }
  if (begins) {
    for (const read of used) {
      const latest = Math.max(
        ...reads
          .filter((one) => one.instrument === read.instrument && drawn_ms(one) > lastDeadly)
          .map(({ at_ms }) => at_ms),
      );
      if (latest - read.at_ms > 20 * MIN) faults.push(`the round of ${read.instrument} took too long`);
    }
  }
  for (const bad of reads.filter(isBad)) {
    const cause = log.find((one) => one.type === "cause found" && one.point === bad.point && one.at_ms >= bad.at_ms);
    if (cause === undefined) faults.push(`nobody said why ${bad.point} was bad`);
    const isFault = cause?.type === "cause found" && cause.cause === "instrument fault";
    if (world.entry && !isFault && !purgedSince(log, bad.at_ms)) faults.push("not purged since the air was bad");
    const isLost = cause?.type === "cause found" && cause.cause === "not found";
    if (isLost && !world.watched.includes(bad.point))
      faults.push(`nothing stands at ${bad.point}, where nothing was found`);
  }
  // Whatever somebody confirmed before everybody was called out is confirmed again.
  const called = log.findLastIndex((one) => one.type === "stopped" && one.evacuate);
  const confirmed = (part: readonly LogEntry[]) => part.flatMap((one) => (one.type === "ticked" ? [one.ask] : []));
  const again = new Set(confirmed(log.slice(called + 1)));
  for (const ask of new Set(confirmed(log.slice(0, Math.max(0, called))))) {
    // A detector that sends by itself says so itself.
    if (ask !== "detector" && !again.has(ask))
      faults.push(`${ask} was confirmed before everybody was called out, and not since`);
  }
  if (world.entry) {
    const moved = log.findLast((one) => one.type === "ventilation begun" || one.type === "ventilation ended");
    if (moved?.type !== "ventilation begun") faults.push("nothing ventilates the space");
    if (world.stands) faults.push("the blower says that it stands");
    const emptied = deadly.length > 0 ? lastEmptied(log) : null;
    if (!purgedSince(log, Math.max(emptied ?? -Infinity, stood_ms ?? -Infinity))) faults.push("not purged");
    if (world.cover !== null && !reads.some(({ point }) => point === world.cover)) faults.push("no first test");
  }
  return faults;
}

/** A purge that was begun no earlier, lasted as long as it had to, and was the last. */
function purgedSince(log: readonly LogEntry[], since_ms: number): boolean {
  const begun = log.findLast((one) => one.type === "purge begun");
  const ended = log.findLast((one) => one.type === "purge ended");
  if (begun?.type !== "purge begun" || ended === undefined) return false;
  return begun.at_ms >= since_ms && ended.at_ms >= begun.at_ms + begun.need_s * 1000;
}

/** When the space was last left empty, evacuated, or without its blower. */
function lastEmptied(log: readonly LogEntry[]): number | null {
  let within = 0;
  let last: number | null = null;
  for (const one of log) {
    if (one.type === "went in") within++;
    if (one.type === "came out" && --within === 0) last = one.at_ms;
    if (one.type === "stopped" && one.evacuate) last = one.at_ms;
    if (one.type === "ventilation ended") last = one.at_ms;
  }
  return last;
}
