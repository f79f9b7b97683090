/** A step with its duration and the ids of the steps that must end before it starts. */
export type TimedStep = Readonly<{ id: string; duration_s: number; after: readonly string[] }>;

/** When a step may start and when it must, counted from the start of the first, and what it may slip. */
export type Placed = Readonly<{ id: string; early_s: number; late_s: number; slack_s: number }>;

export type CriticalPath = Readonly<{
  length_s: number;
  /** In the order given. */
  steps: readonly Placed[];
  /** One longest chain, first to last. */
  chain: readonly string[];
}>;

/** Steps that cannot be put in an order: what is wrong, and at which step. */
export class BadPrecedence extends Error {
  constructor(
    readonly step: string,
    readonly why: string,
  ) {
    super(`step ${step} ${why}`);
  }
}

/** Slack below this is rounding of sums, not time. */
const NO_SLACK_s = 1e-6;

/**
 * Earliest and latest start of every step and the longest chain through them (the critical path method).
 *
 * Latest starts are those that keep the whole as short as it can be. Cost: linear in steps and precedences.
 *
 * @throws BadPrecedence for a step named twice, one that waits for a step there is not, or a circle, naming a step of it.
 */
export function criticalPath(steps: readonly TimedStep[]): CriticalPath {
  const order = inOrder(steps);
  const early = new Float64Array(steps.length);
  const end = (i: number) => early[i]! + steps[i]!.duration_s;
  for (const i of order.sequence) {
    early[i] = order.before[i]!.reduce((latest, before) => Math.max(latest, end(before)), 0);
  }
  const length_s = steps.reduce((longest, _, i) => Math.max(longest, end(i)), 0);
  const late = new Float64Array(steps.length).fill(length_s);
  for (const i of [...order.sequence].reverse()) {
    late[i] = Math.min(...order.after[i]!.map((after) => late[after]!), length_s) - steps[i]!.duration_s;
  }
  const slack = (i: number) => (late[i]! - early[i]! < NO_SLACK_s ? 0 : late[i]! - early[i]!);
  return {
    length_s,
    steps: steps.map(({ id }, i) => ({ id, early_s: early[i]!, late_s: early[i]! + slack(i), slack_s: slack(i) })),
    chain: longestChain(steps, order, early, length_s),
  };
}

type Order = Readonly<{
  /** Indices, every step after those it waits for. */
  sequence: readonly number[];
  before: readonly (readonly number[])[];
  after: readonly (readonly number[])[];
}>;

/** A topological order, first come first; Kahn's algorithm. */
export function inOrder(steps: readonly Omit<TimedStep, "duration_s">[]): Order {
  const indexOf = new Map<string, number>();
  steps.forEach(({ id }, i) => {
    if (indexOf.has(id)) throw new BadPrecedence(id, "is there twice");
    indexOf.set(id, i);
  });
  const before = steps.map(({ id, after }) =>
    [...new Set(after)].map((other) => {
      const index = indexOf.get(other);
      if (index === undefined) throw new BadPrecedence(id, `waits for ${other}, which is not among the steps`);
      return index;
    }),
  );
  const after: number[][] = steps.map(() => []);
  before.forEach((list, i) => list.forEach((earlier) => after[earlier]!.push(i)));
  const waiting = before.map((list) => list.length);
  const sequence = steps.map((_, i) => i).filter((i) => waiting[i] === 0);
  for (let head = 0; head < sequence.length; head++) {
    for (const next of after[sequence[head]!]!) if (--waiting[next]! === 0) sequence.push(next);
  }
  if (sequence.length < steps.length) {
    const stuck = waiting.findIndex((count) => count > 0);
    throw new BadPrecedence(onCircle(steps, before, stuck), "waits for itself, by way of the steps before it");
  }
  return { sequence, before, after };
}

/** A step that really is on a circle: whoever walks back among the waiting comes round to it. */
function onCircle(steps: readonly { id: string }[], before: readonly (readonly number[])[], from: number): string {
  const done = new Set<number>();
  const isStuck = (i: number): boolean => before[i]!.length > 0;
  let at = from;
  while (!done.has(at)) {
    done.add(at);
    at = before[at]!.find((i) => done.has(i)) ?? before[at]!.find(isStuck) ?? at;
  }
  return steps[at]!.id;
}

function longestChain(
  steps: readonly TimedStep[],
  { before }: Order,
  early: Float64Array,
  length_s: number,
): readonly string[] {
  const end = (i: number) => early[i]! + steps[i]!.duration_s;
  let at = steps.findIndex((_, i) => length_s - end(i) < NO_SLACK_s);
  const chain: string[] = [];
  while (at >= 0) {
    chain.unshift(steps[at]!.id);
    const start = early[at]!;
    at = start < NO_SLACK_s ? -1 : (before[at]!.find((i) => Math.abs(end(i) - start) < NO_SLACK_s) ?? -1);
  }
  return chain;
}
