import { criticalPath, inOrder, type Placed, type TimedStep } from "../network/criticalPath";

/** A step that may need a person of a crew while it lasts. */
export type CrewStep<C extends string = string> = TimedStep & Readonly<{ crew: C | null }>;

export type Scheduled = Placed &
  Readonly<{
    start_s: number;
    end_s: number;
    /** Which person of the crew, counted from 0; null where nobody is needed. */
    person: number | null;
    critical: boolean;
  }>;

export type CrewSchedule = Readonly<{
  length_s: number;
  /** What it would take with hands enough. */
  unlimited_s: number;
  /** In the order given. */
  steps: readonly Scheduled[];
  /** One chain that decides the length, first to last; links through a person who had to finish first are in it. */
  chain: readonly string[];
}>;

/**
 * A schedule in which nobody does two things at once: each step in turn, most urgent first, at the earliest moment when
 * what it waits for has ended and a person of its crew is free (serial schedule generation by latest start).
 *
 * Not proved shortest: that is hard in general. It never breaks precedence or uses more people than there are, and with
 * hands enough it is the critical path's. Slack and the deciding chain count the wait for people too.
 *
 * Cost: steps² for choosing, in the worst case; about a million comparisons for a thousand steps.
 *
 * @throws BadPrecedence as criticalPath does. RangeError for a crew of nobody.
 */
export function crewSchedule<C extends string>(
  steps: readonly CrewStep<C>[],
  sizeOf: (crew: C) => number,
): CrewSchedule {
  const free = criticalPath(steps);
  const { before, after } = inOrder(steps);
  const count = steps.length;
  const freeAt = new Map<C, number[]>();
  const lastOf = new Map<C, (number | null)[]>();
  for (const { crew } of steps) {
    if (crew === null || freeAt.has(crew)) continue;
    const size = sizeOf(crew);
    if (!(size >= 1)) throw new RangeError(`crew ${crew} has ${size} people: it must have at least 1`);
    freeAt.set(
      crew,
      Array.from({ length: size }, () => 0),
    );
    lastOf.set(
      crew,
      Array.from({ length: size }, () => null),
    );
  }
  const waiting = before.map((list) => list.length);
  const ready = steps.map((_, i) => i).filter((i) => waiting[i] === 0);
  const start = new Float64Array(count);
  const person: (number | null)[] = steps.map(() => null);
  const heldBy: (number | null)[] = steps.map(() => null);
  const end = (i: number) => start[i]! + steps[i]!.duration_s;
  while (ready.length > 0) {
    const at = mostUrgent(ready, (i) => free.steps[i]!.late_s);
    const [i] = ready.splice(at, 1) as [number];
    const possible = before[i]!.reduce((latest, earlier) => Math.max(latest, end(earlier)), 0);
    const { crew } = steps[i]!;
    if (crew === null) start[i] = possible;
    else {
      const people = freeAt.get(crew)!;
      const who = people.reduce((best, time, p) => (better(time, people[best]!, possible) ? p : best), 0);
      start[i] = Math.max(possible, people[who]!);
      person[i] = who;
      heldBy[i] = lastOf.get(crew)![who]!;
      people[who] = end(i);
      lastOf.get(crew)![who] = i;
    }
    for (const next of after[i]!) if (--waiting[next]! === 0) ready.push(next);
  }
  // A person's order is a precedence of its own; with it the critical path gives slack and the chain.
  const tied = criticalPath(
    steps.map((step, i) => {
      const held = heldBy[i];
      return { ...step, after: held === null || held === undefined ? step.after : [...step.after, steps[held]!.id] };
    }),
  );
  return {
    length_s: tied.length_s,
    unlimited_s: free.length_s,
    steps: tied.steps.map((placed, i) => ({
      ...placed,
      start_s: start[i]!,
      end_s: end(i),
      person: person[i]!,
      critical: placed.slack_s === 0,
    })),
    chain: tied.chain,
  };
}

function mostUrgent(ready: readonly number[], late: (i: number) => number): number {
  return ready.reduce((best, i, at) => (late(i) < late(ready[best]!) ? at : best), 0);
}

/** Of people who are free in time the one who waited least; else the one who is free first. */
function better(time: number, best: number, possible: number): boolean {
  if (time <= possible && best <= possible) return time > best;
  return time < best;
}
