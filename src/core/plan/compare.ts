import type { Job, Objective, School } from "../request/jobFile";
import type { Read } from "../plant/problem";
import { LADDERS } from "../requirement/grades";
import type { StateGraph } from "../trace/stateGraph";
import { prepare } from "./choose";
import { planFor, type Plan } from "./plan";

/** One way of isolating the same work, for laying beside the others. */
export type Alternative = Readonly<{
  objective: Objective;
  school: School;
  devices: readonly string[];
  locks: number;
  minutes: number;
  /** Consumers that go dark besides the work, by tag. */
  dark: readonly string[];
  /** How many more cannot go on: dead heads, dry pumps, backed-up drains, lost protection, liquid locked in. */
  alsoStops: number;
  /** Criticality of all of these together, each item once. */
  criticality: number;
  exact: boolean;
  /** Ways that are not held as asked. */
  shortfalls: number;
  /** The weakest grade against what flows, the family where plans differ most; "none asked" where nothing flows. */
  weakest: string;
  /** In which of the figures it is the best of those compared. */
  best: readonly ("fewest locks" | "least outage" | "quickest")[];
}>;

export type Comparison = Readonly<{
  alternatives: readonly Alternative[];
  /** Index into `alternatives`, and why. */
  recommended: number;
  reason: string;
}>;

const TRIED: readonly (readonly [Objective, School])[] = [
  ["balanced", "work"],
  ["balanced", "supply"],
  ["effort", "work"],
  ["effort", "supply"],
  ["fewest locks", "work"],
  ["least outage", "work"],
];

/** A lock more or less than this is not worth a consumer going dark, in the recommendation's one figure. Practice. */
const MINUTES_FOR_ONE_DARK = 20;

/**
 * The plans that differ, each objective and both schools tried, with the figures people choose by. Equal sets are shown
 * once, under the first name that found them. Cost: six plans; what reaches the work is looked for
 * once.
 */
export function compare(
  graph: StateGraph,
  job: Job,
  file = "job",
): Read<{ comparison: Comparison; plans: readonly Plan[] }> {
  const plans: Plan[] = [];
  const seen = new Set<string>();
  const prepared = prepare(graph, job, file);
  if (!prepared.ok) return prepared;
  for (const [objective, school] of TRIED) {
    const made = planFor(prepared.value, objective, school);
    const key = made.points.map((point) => point.device).join();
    if (seen.has(key)) continue;
    seen.add(key);
    plans.push(made);
  }
  const figures = plans.map((made) => {
    const dark = made.goesDark.filter((loss) => !loss.isWork);
    const items = new Map([...dark, ...made.alsoStops].map(({ tag, criticality }) => [tag, criticality]));
    return {
      made,
      dark: dark.map((loss) => loss.tag),
      criticality: [...items.values()].reduce((sum, one) => sum + one, 0),
    };
  });
  const least = (of: (figure: (typeof figures)[number]) => number) => Math.min(...figures.map(of));
  const fewest = least(({ made }) => made.points.length);
  const lightest = least(({ criticality }) => criticality);
  const quickest = least(({ made }) => made.minutes);
  const alternatives = figures.map(({ made, dark, criticality }): Alternative => {
    const best: Alternative["best"][number][] = [];
    if (made.points.length === fewest) best.push("fewest locks");
    if (criticality === lightest) best.push("least outage");
    if (made.minutes === quickest) best.push("quickest");
    return {
      objective: made.objective,
      school: made.school,
      devices: made.points.map((point) => point.device),
      locks: made.points.length,
      minutes: made.minutes,
      dark,
      alsoStops: made.alsoStops.length,
      criticality,
      exact: made.exact,
      shortfalls: made.shortfalls.length,
      weakest: weakestFlow(made),
      best,
    };
  });
  const price = (one: Alternative) => one.minutes + MINUTES_FOR_ONE_DARK * one.criticality;
  let recommended = 0;
  alternatives.forEach((one, index) => {
    const so = alternatives[recommended]!;
    // Protection first; then time and what goes dark; then locks.
    const better = one.shortfalls - so.shortfalls || price(one) - price(so) || one.locks - so.locks;
    if (better < 0) recommended = index;
  });
  return {
    ok: true,
    warnings: [],
    value: { plans, comparison: { alternatives, recommended, reason: reasonFor(alternatives, recommended) } },
  };
}

function weakestFlow(made: Plan): string {
  const grades = made.routes.filter((route) => route.family === "flow").map((route) => route.grade);
  return LADDERS.flow.findLast((grade) => grades.includes(grade)) ?? "none asked";
}

function reasonFor(alternatives: readonly Alternative[], recommended: number): string {
  const chosen = alternatives[recommended];
  if (chosen === undefined) return "";
  if (alternatives.length === 1) return "Every objective and both schools choose the same points.";
  const others = alternatives.filter((_, index) => index !== recommended);
  if (others.every((other) => other.shortfalls > chosen.shortfalls))
    return "It leaves the fewest ways short of what is asked.";
  const dark = [
    chosen.dark.length === 0 ? "nothing else is cut off" : `${chosen.dark.length} others are cut off`,
    ...(chosen.alsoStops > 0 ? [`${chosen.alsoStops} more cannot go on as they are`] : []),
  ].join(", ");
  const [quick] = [...alternatives].sort((a, b) => a.minutes - b.minutes);
  const extra = quick === undefined ? 0 : chosen.minutes - quick.minutes;
  if (extra <= 0) return `It is the quickest at ${chosen.minutes} min, and ${dark}.`;
  return `It takes ${extra.toFixed(extra % 1 === 0 ? 0 : 1)} min more than the quickest, and ${dark}.`;
}
