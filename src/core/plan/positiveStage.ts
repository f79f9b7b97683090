import { gateOf, positiveField } from "../judge/positiveGate";
import type { School } from "../request/jobFile";
import type { WorkFace } from "../trace/workFaces";
import { barrierDepths } from "../barrier/barrierDepth";
import { choosePoints } from "../cut/choosePoints";
import { faceByCarrier, facing, type BarrierField, type Pair } from "../barrier/pairs";
import { scoped, type Demand, type RequiredPair } from "../judge/requirePairs";

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
        return [face, barrierDepths(own, face, sources, own.creditable, { enough: 1 })] as const;
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
