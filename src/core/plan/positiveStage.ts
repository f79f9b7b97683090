import { gateOf, positiveField } from "../judge/positiveGate";
import type { Job, School } from "../request/jobFile";
import { familyOf } from "../requirement/grades";
import type { RuleProfile } from "../requirement/profile";
import { HOWS } from "../request/jobFile";
import { CARRIERS } from "../plant/carriers";
import type { WorkFace } from "../trace/workFaces";
import { barrierDepths } from "../judge/barrierDepth";
import { choosePoints } from "../cut/choosePoints";
import { barrierField, faceByCarrier, facing, narrowed, type BarrierField, type Pair } from "../judge/pairs";
import { requirePairs, scoped, type Demand, type RequiredPair } from "../judge/requirePairs";

/** A demand for positive isolation, and whether positive devices can meet it. */
export type PositiveDemand = Readonly<{ pair: RequiredPair; demand: Demand; possible: boolean }>;

export type PositiveStage = Readonly<{
  devices: ReadonlySet<number>;
  demands: readonly PositiveDemand[];
  exact: boolean;
}>;

/**
 * The positive devices: for each family the cheapest set with one on every way that asks for it.
 *
 * A pin or an open coupling restrains what a drive moves; where a fluid is the drive, a blind in its line does too. A
 * blind does not separate conductors, nor a withdrawn breaker restrain a load.
 *
 * Cost: a cut for each family asked.
 */
export function positiveStage(
  field: BarrierField,
  pairs: readonly RequiredPair[],
  costOf: (item: number) => number,
  school: School,
): PositiveStage {
  const byGate = new Map<string, { pair: RequiredPair; demand: Demand }[]>();
  for (const pair of pairs) {
    for (const demand of pair.demands) {
      if (demand.positive) {
        const group = `${gateOf(demand, pair)}|${demand.scope}`;
        byGate.set(group, [...(byGate.get(group) ?? []), { pair, demand }]);
      }
    }
  }
  const devices = new Set<number>();
  const demands: PositiveDemand[] = [];
  let exact = true;
  for (const asked of byGate.values()) {
    const [one] = asked;
    if (one === undefined) continue;
    const gate = gateOf(one.demand, one.pair);
    // Judged by form of arrival: a pin need not stop what comes as fluid.
    const faceOf = new Map<string, WorkFace>();
    for (const { pair, demand } of asked) {
      const face = faceByCarrier(pair.face, demand.arrives);
      if (!faceOf.has(face.name)) faceOf.set(face.name, face);
    }
    const met = (pair: Pair, demand: Demand) => faceOf.get(faceByCarrier(pair.face, demand.arrives).name)!;
    const own = facing(positiveField(scoped(field, one.demand.scope), gate), [...faceOf.values()]);
    const reach = new Map(
      own.faces.map((face) => {
        const sources = asked.filter(({ pair, demand }) => met(pair, demand) === face).map(({ pair }) => pair.source);
        return [face, barrierDepths(own, face, sources, own.creditable, 1)] as const;
      }),
    );
    const judged = asked.map((each): PositiveDemand => ({
      ...each,
      possible: (reach.get(met(each.pair, each.demand))?.get(each.pair.source)?.depth ?? 0) > 0,
    }));
    demands.push(...judged);
    const wanted = judged
      .filter(({ possible }) => possible)
      .map(({ pair, demand }): Pair => ({
        source: pair.source,
        face: met(pair, demand),
        required: 1,
        available: 1,
        k: 1,
      }));
    const chosen = choosePoints(own, wanted, costOf, school);
    for (const device of chosen.devices) devices.add(device);
    exact &&= chosen.exact;
  }
  return { devices, demands, exact };
}

export type OpeningStage = Readonly<{
  /** Valves and drives that make fitting the blinds safe. */
  devices: ReadonlySet<number>;
  exact: boolean;
  /** Ways into a flange that is to be opened which have too few barriers. */
  short: readonly RequiredPair[];
}>;

/**
 * Fitting a blind is itself a line break at that flange: the points that give every blind the grade that opening its line
 * asks, by devices that are not blinds themselves. Energy is taken to come from both sides.
 *
 * Cost: one cut over all the flanges together.
 */
export function openingStage(
  field: BarrierField,
  blinds: ReadonlySet<number>,
  job: Job,
  profile: RuleProfile,
  costOf: (item: number) => number,
): OpeningStage {
  const { graph } = field;
  const fitted = [...blinds].filter((item) =>
    graph.plant.items[item]?.device?.stops.some((carrier) => familyOf(carrier) === "flow"),
  );
  if (fitted.length === 0) return { devices: new Set(), exact: true, short: [] };
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
  const barred = new Set([...graph.plant.items.keys()].filter((item) => !field.creditable.has(item)));
  const own = narrowed(barrierField(graph, flanges, barred), (item) => {
    const device = graph.plant.items[item]?.device;
    return !(device?.positive && device.stops.some((carrier) => familyOf(carrier) === "flow"));
  });
  const opened = { ...job, require: undefined };
  const asked = requirePairs(own, opened, profile).map((pair): RequiredPair => {
    // Nothing positive can be fitted before the first flange is open: two barriers stand in for it.
    const required = Math.max(0, ...pair.demands.map((demand) => (demand.positive ? 2 : demand.barriers)));
    return { ...pair, required, k: Math.min(required, pair.available) };
  });
  const chosen = choosePoints(own, asked, costOf, job.school);
  return {
    devices: chosen.devices,
    exact: chosen.exact,
    short: asked.filter((pair) => pair.available < pair.required),
  };
}
