export type Random = Readonly<{
  /** A number in [0, 1). */
  next: () => number;
  /** A whole number in [0, below). */
  below: (below: number) => number;
  chance: (probability: number) => boolean;
  pick: <T>(from: readonly T[]) => T;
}>;

/** A small seeded generator (mulberry32, public domain), so that every machine makes the same plants. */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const below = (limit: number) => Math.floor(next() * limit);
  return {
    next,
    below,
    chance: (probability) => next() < probability,
    pick: (from) => {
      const found = from[below(from.length)];
      if (found === undefined) throw new RangeError("nothing to pick from");
      return found;
    },
  };
}
