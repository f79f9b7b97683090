import { inOrder } from "../network/criticalPath";

/** Where a step is done: metres from the site datum, and its level. */
export type Spot = Readonly<{ x_m: number; y_m: number; level_m: number }>;
export type WalkedStep = Readonly<{ id: string; after: readonly string[]; spot: Spot }>;

export type Walk = Readonly<{
  order: readonly string[];
  /** Metres walked, a metre of stairs counted as three. */
  length_m: number;
}>;

/** Climbing a metre takes about as long as walking three. Common practice, no source. */
const CLIMB = 3;
/** Rounds of improvement: each costs steps², and after a few nothing changes. */
const MOST_ROUNDS = 6;

/** A shorter walk than this is rounding. */
const LEAST_GAIN_m = 1e-9;

/** How far it is from one spot to another; nothing to or from nowhere. */
export function apart_m(a: Spot | null, b: Spot | null): number {
  if (a === null || b === null) return 0;
  const [x, y] = [a.x_m - b.x_m, a.y_m - b.y_m];
  // Math.hypot guards against overflow, which metres do not need, and takes ten times as long.
  return Math.sqrt(x * x + y * y) + CLIMB * Math.abs(a.level_m - b.level_m);
}

/**
 * An order for one party that keeps every precedence and walks little: always on to the nearest step that may be done,
 * then single steps are moved while that shortens the walk and breaks nothing.
 *
 * Not proved shortest. Cost: steps² a round, at most six rounds.
 *
 * @throws BadPrecedence as criticalPath does.
 */
export function walkingOrder(steps: readonly WalkedStep[], from: Spot | null = null): Walk {
  const { before, after } = inOrder(steps);
  const order = nearestFirst(steps, before, after, from);
  for (let round = 0; round < MOST_ROUNDS; round++) if (!moveOnce(steps, order, before, after, from)) break;
  const spots = [from, ...order.map((i) => steps[i]!.spot)];
  return {
    order: order.map((i) => steps[i]!.id),
    length_m: spots.slice(1).reduce((sum, spot, i) => sum + apart_m(spots[i]!, spot), 0),
  };
}

function nearestFirst(
  steps: readonly WalkedStep[],
  before: readonly (readonly number[])[],
  after: readonly (readonly number[])[],
  from: Spot | null,
): number[] {
  const waiting = before.map((list) => list.length);
  const ready = steps.map((_, i) => i).filter((i) => waiting[i] === 0);
  const order: number[] = [];
  let here = from;
  while (ready.length > 0) {
    let best = 0;
    let least = Infinity;
    ready.forEach((i, at) => {
      const far = apart_m(here, steps[i]!.spot);
      if (far < least || (far === least && i < ready[best]!)) [best, least] = [at, far];
    });
    const [next] = ready.splice(best, 1) as [number];
    order.push(next);
    here = steps[next]!.spot;
    for (const later of after[next]!) if (--waiting[later]! === 0) ready.push(later);
  }
  return order;
}

/** Moves each step to where it shortens the walk most, between what it waits for and what waits for it. */
function moveOnce(
  steps: readonly WalkedStep[],
  order: number[],
  before: readonly (readonly number[])[],
  after: readonly (readonly number[])[],
  from: Spot | null,
): boolean {
  const position = new Int32Array(order.length);
  order.forEach((i, at) => (position[i] = at));
  // Where the party stands at each place of the order, the start in front; nothing is walked from nowhere or to the end.
  const stand = [from, ...order.map((i) => steps[i]!.spot), null];
  let moved = false;
  for (let i = 0; i < order.length; i++) {
    const here = steps[i]!.spot;
    const at = position[i]!;
    let low = 0;
    for (const one of before[i]!) low = Math.max(low, position[one]! + 1);
    let high = order.length - 1;
    for (const one of after[i]!) high = Math.min(high, position[one]! - 1);
    const [left, right] = [stand[at]!, stand[at + 2]!];
    const saved = apart_m(left, here) + apart_m(here, right) - apart_m(left, right);
    // Whatever the new place, no more than what is saved here can be gained.
    if (saved < LEAST_GAIN_m) continue;
    let [bestAt, bestGain] = [at, LEAST_GAIN_m];
    for (let to = low; to <= high; to++) {
      if (to === at) continue;
      const gap = to < at ? to : to + 1;
      const [a, b] = [stand[gap]!, stand[gap + 1]!];
      const gain = saved - (apart_m(a, here) + apart_m(here, b) - apart_m(a, b));
      if (gain > bestGain) [bestAt, bestGain] = [to, gain];
    }
    if (bestAt === at) continue;
    order.splice(at, 1);
    order.splice(bestAt, 0, i);
    for (let place = Math.min(at, bestAt); place <= Math.max(at, bestAt); place++) {
      position[order[place]!] = place;
      stand[place + 1] = steps[order[place]!]!.spot;
    }
    moved = true;
  }
  return moved;
}
