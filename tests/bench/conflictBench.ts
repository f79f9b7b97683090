import { conflictsBetween } from "../../src/core/conflict/pair";
import { findConflicts } from "../../src/core/conflict/search";
import type { Work } from "../../src/core/conflict/work";
import { seededRandom } from "../support/seededRandom";
import { HOUR_MS, work } from "../support/works";

const WEEKS = 6;
const AREAS = 25;

/** Jobs of six weeks on a site of 110 × 60 m, by day: each at two places, every third with a flame, a lift or a pressure test. */
export function weeksOfWork(count: number, seed = 1): Work[] {
  const { next: random, below: whole } = seededRandom(seed);
  return Array.from({ length: count }, (_, i) => {
    const from_ms = whole(WEEKS * 7 * 24 * 4) * (HOUR_MS / 4);
    const to_ms = from_ms + (2 + whole(8)) * HOUR_MS;
    const spots = Array.from({ length: 2 }, () => ({
      tag: `T-${whole(800)}`,
      x_m: random() * 110,
      y_m: random() * 60,
      level_m: [0, 0, 5, 12][whole(4)]!,
      isKnown: true,
      isOpened: random() < 0.5,
    }));
    const what = (["flame", "lift", "keep-out", "exhaust"] as const)[whole(12)];
    const [at] = spots;
    return work(`J-${String(i).padStart(4, "0")}`, {
      from_ms,
      to_ms,
      spots,
      zones: what && at ? [{ ...at, what, by: `P-${i}`, name: at.tag, reach_m: 10.668, from_ms, to_ms }] : [],
      people: [`crew ${whole(120)}`, `crew ${whole(120)}`, `lead ${whole(AREAS)}`],
      stops: Array.from({ length: 4 }, () => `D-${whole(1500)}`),
      needs: random() < 0.1 ? [`D-${whole(1500)}`] : [],
      gear: [`GD-${whole(200)}`],
    });
  });
}

/** Every pair: their times first, from flat arrays, then the same full comparison. */
export function allPairs(works: readonly Work[]): number {
  const from = Float64Array.from(works, ({ from_ms }) => from_ms);
  const to = Float64Array.from(works, ({ to_ms }) => to_ms);
  let found = 0;
  for (let i = 0; i < works.length; i++) {
    for (let j = i + 1; j < works.length; j++) {
      if (from[i]! < to[j]! && from[j]! < to[i]!) found += conflictsBetween(works[i]!, works[j]!).length;
    }
  }
  return found;
}

/** The same without looking at times first: what the full comparison alone takes for every pair. */
export function allPairsInFull(works: readonly Work[]): number {
  let found = 0;
  for (let i = 0; i < works.length; i++) {
    for (let j = i + 1; j < works.length; j++) found += conflictsBetween(works[i]!, works[j]!).length;
  }
  return found;
}

function median_ms(run: () => unknown, times = 9): number {
  run();
  const took = Array.from({ length: times }, () => {
    const begun = performance.now();
    run();
    return performance.now() - begun;
  });
  return took.sort((a, b) => a - b)[times >> 1]!;
}

const SIZES = [500, 1000, 2000];
const rows = SIZES.map((size) => {
  const works = weeksOfWork(size);
  const found = findConflicts(works).length;
  const search = median_ms(() => findConflicts(works));
  const pairs = median_ms(() => allPairs(works), 5);
  const full = median_ms(() => allPairsInFull(works), 3);
  return { size, found, search, pairs, full };
});
const ms = (value: number) => value.toFixed(value < 10 ? 1 : 0);
process.stdout.write(
  `${[
    "",
    "| jobs | conflicts | search, ms | all pairs, times first, ms | all pairs in full, ms | in full ÷ search |",
    "| ---: | ---: | ---: | ---: | ---: | ---: |",
    ...rows.map(
      ({ size, found, search, pairs, full }) =>
        `| ${[size, found, ms(search), ms(pairs), ms(full), (full / search).toFixed(1)].join(" | ")} |`,
    ),
  ].join("\n")}\n\nNode ${process.version}. Times of one run; compare only within it.\n`,
);
