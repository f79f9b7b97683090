import { meets, type Grade } from "../requirement/grades";
import { placeName } from "../trace/stateGraph";
import { barrierDepths } from "./barrierDepth";
import { cavitiesOf, type Cavity, type CavityMap } from "./cavities";
import { faceByCarrier, facing, narrowed, type BarrierField } from "./pairs";
import { gateOf, positiveField } from "./positiveGate";
import { scoped, type Demand, type RequiredPair } from "./requirePairs";

/** What a set of devices gives one demand of one pair. */
export type Judgement = Readonly<{
  grade: Grade;
  /** Barriers against this form of arrival. */
  depth: number;
  /** The grade is at least what is asked; always true under a job's own plain number of barriers. */
  held: boolean;
  /** Why no better, in words; empty when the best of its family. */
  because: readonly string[];
}>;

export type Grader = Readonly<{
  cavities: CavityMap["cavities"];
  judge: (pair: RequiredPair, demand: Demand) => Judgement;
}>;

/**
 * Judges grades for one isolated set. A grade is what the plan gives once its own steps are done: bleeds opened and
 * watched, faces proved, hot parts cooled and measured. It is never better than what the devices can give.
 *
 * Cost: one search for each face and kind of device asked about, and the cavities.
 */
export function graderOf(field: BarrierField, pairs: readonly RequiredPair[], isolated: ReadonlySet<number>): Grader {
  const cavities = cavitiesOf(field, isolated);
  const depthCache = new Map<string, number>();
  /** Least barriers among some devices, to the face as it is met by one carrier. */
  const depthOver = (own: BarrierField, key: string, pair: RequiredPair, demand: Demand, asked: number): number => {
    const face = faceByCarrier(pair.face, demand.arrives);
    const name = `${key} ${demand.scope} ${face.name}`;
    if (!depthCache.has(`${name} ${pair.source.vertex}`)) {
      const sources = pairs.filter((one) => one.face === pair.face).map((one) => one.source);
      const kept = new Set([...isolated].filter((item) => own.creditable.has(item)));
      const found = barrierDepths(facing(scoped(own, demand.scope), [face]), face, sources, kept, asked);
      for (const source of sources) depthCache.set(`${name} ${source.vertex}`, found.get(source)?.depth ?? 0);
    }
    return depthCache.get(`${name} ${pair.source.vertex}`)!;
  };
  const lockable = narrowed(field, (item) => field.graph.plant.items[item]?.device?.lockable === true);
  const positives = new Map<string, BarrierField>();
  const byPositive = (pair: RequiredPair, demand: Demand) => {
    const gate = gateOf(demand, pair);
    if (!positives.has(gate)) positives.set(gate, positiveField(field, gate));
    return depthOver(positives.get(gate)!, `positive ${gate}`, pair, demand, 1) > 0;
  };

  const judge: Grader["judge"] = (pair, demand) => {
    const depth = depthOver(field, "any", pair, demand, Math.max(2, pair.required));
    const because: string[] = [];
    const grade = ((): Grade => {
      if (depth === 0) return "none";
      switch (demand.family) {
        case "flow": {
          if (byPositive(pair, demand)) return "positive";
          if (demand.positive) because.push("no blind position or disconnection on every way");
          const between = depth >= 2 ? cavities.unprovedBetween(pair.source, pair.face) : {};
          if (depth >= 2 && between.cavity === undefined && between.live === undefined) return "proved double";
          if (between.live !== undefined) {
            const place = placeName(field.graph, between.live);
            because.push(`${place}, between its barriers, stays live from another source`);
          }
          if (between.cavity) because.push(undrainedWords(between.cavity));
          const zone = cavities.workZone(pair.face, demand.arrives);
          if (zone && zone.undrained.length === 0) return "proved single";
          because.push(
            zone
              ? undrainedWords(zone)
              : `${pair.face.name} stays live from another source, so nothing bled there proves it`,
          );
          return depth >= 2 ? "unproved double" : "unproved single";
        }
        case "wire":
          if (byPositive(pair, demand)) return "separated";
          because.push("no visible break on the way");
          if (depthOver(lockable, "lockable", pair, demand, 1) > 0) return "locked isolating device";
          because.push("no device on the way takes a lock");
          return "tagged only";
        case "motion":
          if (byPositive(pair, demand)) return "restrained";
          because.push("nothing pins, blocks or uncouples it");
          return "drive isolated only";
        case "heat":
          return "isolated and cooled";
        case "radiation":
          return byPositive(pair, demand) ? "removed" : "shutter locked and surveyed";
      }
    })();
    return {
      grade,
      depth,
      held: demand.grade === null || meets(demand.family, grade, demand.grade),
      because,
    };
  };
  return { cavities: cavities.cavities, judge };
}

function undrainedWords(cavity: Cavity): string {
  const named = cavity.undrained.slice(0, 3).join(", ");
  const more = cavity.undrained.length > 3 ? ` and ${cavity.undrained.length - 3} more` : "";
  return `no bleed surely drains ${named}${more}`;
}
