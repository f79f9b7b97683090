import { LADDERS, meets, type Grade } from "../requirement/grades";
import type { SourceVertex } from "../trace/sources";
import { vertexOf } from "../trace/stateGraph";
import type { WorkFace } from "../trace/workFaces";
import { barrierDepths } from "../barrier/barrierDepth";
import type { Opened } from "./drains";
import { ofClass } from "../barrier/countsFor";
import { faceByCarrier, facing, type BarrierField } from "../barrier/pairs";
import { gateOf } from "./positiveGate";
import { scoped, type Demand, type RequiredPair } from "./requirePairs";
import { sectionsOf, type Cavity } from "./sections";
import { standingOf, type FaceWays, type Standing } from "./standing";
import { faultsOfWay, zoneFaults } from "./whyNot";
import { NO_WAY } from "./ways";

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
  standing: Standing;
  /** Sections between barriers and the zone that people work in, and what is opened to drain them. */
  cavities: readonly Cavity[];
  judge: (pair: RequiredPair, demand: Demand) => Judgement;
}>;

/**
 * Judges grades for one isolated set: of each pair the worst over all its ways, and over all places of the face. A grade
 * is what the plan gives once its own steps are done: bleeds opened and watched, faces proved, hot parts cooled and
 * measured. It is never better than what the devices can give.
 *
 * Cost: what is dark and drained, linear in the plant; and a linear search for each face place, arriving carrier, scope
 * and kind of positive device asked about, which serves all sources.
 */
export function graderOf(
  field: BarrierField,
  pairs: readonly RequiredPair[],
  isolated: ReadonlySet<number>,
  only?: Opened,
): Grader {
  const standing = standingOf(field, isolated, only);
  const depths = depthsOver(pairs, isolated);
  const ones = depthsOver(pairs, isolated, 1);
  /** No barrier of the field's kind stands on some way: searched no farther than that takes. */
  const isLit = (own: BarrierField, key: string, pair: RequiredPair, demand: Demand) =>
    ones(own, key, pair, demand) === 0;
  const lockable = ofClass(field, "lockable");
  const isolating = ofClass(field, "isolating");
  let cavities: readonly Cavity[] | undefined;
  const waysAt = new Map<WorkFace, Map<string, readonly FaceWays[]>>();

  const judge: Grader["judge"] = (pair, demand) => {
    const grade = worstOf(demand, gradesAt(pair, demand, null));
    return {
      grade,
      get depth() {
        return depths(field, "any", pair, demand);
      },
      held: demand.grade === null || meets(demand.family, grade, demand.grade),
      // Words cost more than the grade, and most are never read.
      get because() {
        const said = new Set<string>();
        gradesAt(pair, demand, said);
        return [...said];
      },
    };
  };

  /** The grade at each place of the face that the source may reach in this form. */
  function gradesAt(pair: RequiredPair, demand: Demand, because: Because): Grade[] {
    if (isLit(field, "any", pair, demand)) return ["none"];
    const { source } = pair;
    const at = waysInto(pair, demand);
    // No way to any of them that crosses no positive device.
    const isPositive = at.every(({ ways }) => ways.crossed[source.vertex] === NO_WAY);
    switch (demand.family) {
      case "flow":
        if (isPositive) return ["positive"];
        if (demand.positive) because?.add("no blind position or disconnection on every way");
        return at.map((one) => flowGrade(one, source.vertex, because));
      case "wire":
        if (isPositive) return ["separated"];
        because?.add("no visible break that can be locked on every way");
        if (!isLit(isolating, "isolating", pair, demand)) return ["locked isolating device"];
        because?.add("no device on the way that isolates takes a lock");
        if (!isLit(lockable, "lockable", pair, demand)) return ["locked switch"];
        because?.add("no device on the way takes a lock");
        return ["tagged only"];
      case "motion":
        if (isPositive) return ["restrained"];
        because?.add("nothing that can be locked pins, blocks or uncouples it");
        if (!isLit(lockable, "lockable", pair, demand)) return ["drive isolated only"];
        because?.add("its drive takes no lock");
        return ["none"];
      case "heat":
        return ["isolated and cooled"];
      case "radiation":
        if (isPositive) return ["removed"];
        if (!isLit(lockable, "lockable", pair, demand)) return ["shutter locked and surveyed"];
        because?.add("the shutter takes no lock");
        return ["none"];
    }
  }

  /** Ways to each place of the face, as the source would come. Most sources of a face share them. */
  function waysInto(pair: RequiredPair, demand: Demand): readonly FaceWays[] {
    const { source, face } = pair;
    const gate = gateOf(demand, pair);
    const own = standing.ownGate(source);
    const key = `${demand.arrives} ${demand.scope} ${gate} ${own}`;
    const known = waysAt.get(face) ?? new Map<string, readonly FaceWays[]>();
    waysAt.set(face, known);
    const found =
      known.get(key) ??
      face.places
        .map((place) => vertexOf(field.graph, place, demand.arrives))
        .filter((vertex) => vertex >= 0)
        .map((vertex) => standing.ways({ scope: demand.scope, gate, source, face: vertex }));
    known.set(key, found);
    return found;
  }

  function flowGrade(at: FaceWays, from: number, because: Because): Grade {
    const crossed = at.ways.crossed[from]!;
    if (crossed === NO_WAY) return "positive";
    if (crossed === 0) return "none";
    const isDouble = !at.byOneUnit(from);
    if (isDouble && at.ways.unproved().some[from] === 0) return "proved double";
    if (isDouble && because) for (const fault of faultsOfWay(field, standing, at, from)) because.add(fault);
    const zone = at.zone();
    if (!zone.faceSpoilt && zone.comesThroughSpoilt[from] === 0) return "proved single";
    if (because) for (const fault of zoneFaults(field, standing, at.face, zone, from)) because.add(fault);
    return isDouble ? "unproved double" : "unproved single";
  }

  return {
    standing,
    get cavities() {
      return (cavities ??= sectionsOf(field, isolated, standing));
    },
    judge,
  };
}

/** Where reasons are put, when somebody asks for them. */
type Because = Set<string> | null;

function worstOf({ family }: Demand, grades: readonly Grade[]): Grade {
  const ladder: readonly Grade[] = LADDERS[family];
  return grades.reduce((worst, grade) => (ladder.indexOf(grade) > ladder.indexOf(worst) ? grade : worst));
}

/**
 * Least barriers among some of the isolated devices, to a face as it is met by one carrier; each search is made once. What is
 * `below` barriers away or more is not told apart.
 */
function depthsOver(pairs: readonly RequiredPair[], isolated: ReadonlySet<number>, below?: number) {
  const known = new Map<WorkFace, Map<string, ReadonlyMap<SourceVertex, number>>>();
  return (own: BarrierField, key: string, pair: RequiredPair, demand: Demand): number => {
    const ofFace = known.get(pair.face) ?? new Map<string, ReadonlyMap<SourceVertex, number>>();
    known.set(pair.face, ofFace);
    const name = `${key} ${demand.scope} ${demand.arrives}`;
    if (!ofFace.has(name)) {
      const face = faceByCarrier(pair.face, demand.arrives);
      const sources = pairs.filter((one) => one.face === pair.face).map((one) => one.source);
      const kept = new Set([...isolated].filter((item) => own.creditable.has(item)));
      const scopedField = facing(scoped(own, demand.scope), [face]);
      const found = barrierDepths(scopedField, face, sources, kept, below === undefined ? { enough: 2 } : { below });
      ofFace.set(name, new Map([...found].map(([source, { depth }]) => [source, depth])));
    }
    // Not found is not lit where only what is near was looked at; else it does not come that way.
    return ofFace.get(name)!.get(pair.source) ?? below ?? 0;
  };
}
