import { choosePoints } from "../cut/choosePoints";
import { graderOf, type Judgement } from "../judge/grade";
import { barrierField, narrowed, type BarrierField, type Pair } from "../barrier/pairs";
import { requirePairs, type Demand, type RequiredPair } from "../judge/requirePairs";
import { CARRIERS } from "../plant/carriers";
import { BARRIERS_FOR, familyOf, type Family, type Grade } from "../requirement/grades";
import type { RuleProfile } from "../requirement/profile";
import { HOWS, type Job } from "../request/jobFile";
import type { WorkFace } from "../trace/workFaces";
import { repair } from "./repair";

/** Flanges to be opened for blinds, as faces of their own, with what each asks before anything positive can stand. */
export type Opening = Readonly<{ field: BarrierField; pairs: readonly RequiredPair[] }>;

/** A way into a flange that is to be opened which is not held as asked. */
export type OpeningShort = Readonly<{ pair: RequiredPair; demand: Demand; judged: Judgement }>;

/** Nothing positive can be fitted before the first flange is open: what stands in for it until then. */
const STANDS_IN: Readonly<Partial<Record<Family, Grade>>> = {
  flow: "proved double",
  wire: "locked isolating device",
  motion: "drive isolated only",
  radiation: "shutter locked and surveyed",
};

/**
 * Fitting a blind is itself a line break at that flange: what opening its line asks, of devices that are not blinds
 * themselves. Energy is taken to come from both sides. Null where no blind is fitted into a line.
 *
 * Cost: as asking what a job asks, with the flanges as its faces.
 */
export function openingOf(
  field: BarrierField,
  blinds: ReadonlySet<number>,
  job: Job,
  profile: RuleProfile,
): Opening | null {
  const { graph } = field;
  const inLine = (item: number) =>
    graph.plant.items[item]?.device?.positive === true &&
    graph.plant.items[item].device.stops.some((carrier) => familyOf(carrier) === "flow");
  const fitted = [...blinds].filter(inLine);
  if (fitted.length === 0) return null;
  const flanges = fitted.map((index): WorkFace => {
    const item = graph.plant.items[index]!;
    const found = graph.places.resolveFace(item.tag);
    if (!found.ok) throw new Error(`${item.tag} has no place`);
    return {
      name: item.tag,
      how: HOWS.filter((how) => how === "open"),
      items: [index],
      places: found.places,
      carriers: CARRIERS,
      narrowedWithoutReason: false,
    };
  });
  const passing = new Set([...graph.plant.items.keys()].filter((item) => !field.creditable.has(item)));
  const own = narrowed(barrierField(graph, flanges, field.struck, passing, field.limitsLost), (item) => !inLine(item));
  const pairs = requirePairs(own, { ...job, require: undefined }, profile, true).map((pair): RequiredPair => {
    const demands = pair.demands.map((demand): Demand => {
      const grade = demand.positive ? STANDS_IN[demand.family] : undefined;
      return grade === undefined ? demand : { ...demand, grade, ...BARRIERS_FOR[grade] };
    });
    const required = Math.max(0, ...demands.map(({ barriers }) => barriers));
    return { ...pair, demands, required, k: Math.min(required, pair.available) };
  });
  return { field: own, pairs };
}

/** Valves and drives that make opening the flanges safe, as far as counting barriers goes. Cost: a cut over all flanges. */
export function openingPoints(
  { field, pairs }: Opening,
  costOf: (item: number) => number,
  school: Job["school"],
): ReadonlySet<number> {
  return choosePoints(field, pairs satisfies readonly Pair[], costOf, school).devices;
}

/** Further points so that opening them is proved too, where the plant has them. Cost: see repair. */
export function openingRepair(
  { field, pairs }: Opening,
  isolated: ReadonlySet<number>,
  costOf: (item: number) => number,
  school: Job["school"],
): ReadonlySet<number> {
  return repair(field, pairs, stageOne(field, isolated), costOf, school).added;
}

/** What opening the flanges still lacks with these points isolated, blinds left out. Cost: a judgement. */
export function openingShortOf({ field, pairs }: Opening, isolated: ReadonlySet<number>): OpeningShort[] {
  const grader = graderOf(field, pairs, stageOne(field, isolated));
  return pairs.flatMap((pair) =>
    pair.demands.flatMap((demand): OpeningShort[] => {
      const judged = grader.judge(pair, demand);
      return judged.held ? [] : [{ pair, demand, judged }];
    }),
  );
}

function stageOne(field: BarrierField, isolated: ReadonlySet<number>): ReadonlySet<number> {
  return new Set([...isolated].filter((item) => field.creditable.has(item)));
}
