import { exampleOf } from "../../src/core/calc/address";
import { calculate } from "../../src/core/calc/calculator";
import { CALCULATORS } from "../../src/core/calc/calculators/calculators";
import { crewSchedule } from "../../src/core/schedule/crewSchedule";
import { criticalPath } from "../../src/core/network/criticalPath";
import { walkingOrder } from "../../src/core/schedule/walkingOrder";
import { seededRandom } from "../support/seededRandom";

const CREWS = ["electrical", "mechanical", "process"] as const;

/** Steps of the shape that plans have: each waits for a few of the last thirty before it. */
function steps(count: number) {
  const random = seededRandom(11);
  return Array.from({ length: count }, (_, i) => ({
    id: `s${i}`,
    duration_s: 60 + random.below(3600),
    after: [...new Set(Array.from({ length: random.below(4) }, () => i - 1 - random.below(30)))]
      .filter((earlier) => earlier >= 0)
      .map((earlier) => `s${earlier}`),
    crew: random.pick(CREWS),
    spot: { x_m: random.below(200), y_m: random.below(100), level_m: random.below(3) * 6 },
  }));
}

/** Median of a few runs, in ms, after one that warms up. */
function time(work: () => unknown, times = 7): number {
  work();
  const runs = Array.from({ length: times }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return runs[Math.floor(runs.length / 2)]!;
}

const SIZES = [100, 1000, 4000];
const rows = SIZES.map((size) => {
  const made = steps(size);
  return {
    size,
    "critical path": time(() => criticalPath(made)),
    "schedule over crews": time(() => crewSchedule(made, () => 3)),
    "walking order": time(() => walkingOrder(made), size > 1000 ? 3 : 7),
  };
});
const names = ["critical path", "schedule over crews", "walking order"] as const;
const ms = (value: number) => value.toFixed(value < 10 ? 2 : 0);
const grows = (name: (typeof names)[number]) =>
  (Math.log(rows.at(-1)![name] / rows[1]![name]) / Math.log(SIZES.at(-1)! / SIZES[1]!)).toFixed(2);
const sums = CALCULATORS.filter((one) => one.schema === undefined)
  .map((one) => ({ name: one.name, ms: time(() => calculate(one, exampleOf(one.fields)), 30) }))
  .sort((a, b) => b.ms - a.ms);
const middle = sums[Math.floor(sums.length / 2)]!.ms;
process.stdout.write(
  `${[
    "",
    `| | ${SIZES.map((size) => `${size} steps`).join(" | ")} | grows as |`,
    `| --- | ${SIZES.map(() => "---:").join(" | ")} | ---: |`,
    ...names.map((name) => `| ${name}, ms | ${rows.map((row) => ms(row[name])).join(" | ")} | n^${grows(name)} |`),
    "",
    "| calculator | ms | ÷ the middle one |",
    "| --- | ---: | ---: |",
    ...sums.slice(0, 5).map((one) => `| ${one.name} | ${ms(one.ms)} | ${(one.ms / middle).toFixed(1)} |`),
    `| the middle of ${sums.length} | ${ms(middle)} | 1.0 |`,
  ].join("\n")}\n\nNode ${process.version}. Times of one run; compare only within it.\n`,
);
