import type { School } from "../request/jobFile";
import { BARRIERS_FOR } from "../requirement/grades";
import { sourcesOf } from "../trace/sources";
import { carrierOf, placeName, placeOf } from "../trace/stateGraph";
import type { WorkFace } from "../trace/workFaces";
import { barrierDepths } from "../judge/barrierDepth";
import { cavitiesOf } from "../judge/cavities";
import { choosePoints } from "../cut/choosePoints";
import { graderOf } from "../judge/grade";
import { barrierField, narrowed, type BarrierField, type Pair } from "../judge/pairs";
import type { RequiredPair } from "../judge/requirePairs";

/** More rounds than this have found nothing more to darken on any plant tried; each costs a cut. */
const ROUNDS = 4;

/**
 * Points that make the space between two barriers dark, where another energy keeps it live and so nothing there could be
 * bled: the sister pump that would pressurise the header, the branch that feeds it. Adds them only where that lets more
 * ways be held as asked. Greedy, so the plan is then not proved cheapest.
 *
 * Cost: a cut and a judgement of every way for each round.
 */
export function proofStage(
  field: BarrierField,
  pairs: readonly RequiredPair[],
  chosen: ReadonlySet<number>,
  costOf: (item: number) => number,
  school: School,
): ReadonlySet<number> {
  const added = new Set<number>();
  let isolated = new Set(chosen);
  let unheld = countUnheld(field, pairs, isolated);
  for (let round = 0; round < ROUNDS && unheld > 0; round++) {
    const faces = liveSpaces(field, pairs, isolated);
    if (faces.length === 0) break;
    const trial = new Set([...isolated, ...darken(field, faces, isolated, costOf, school)]);
    if (trial.size === isolated.size) break;
    const left = countUnheld(field, pairs, trial);
    if (left > unheld) break;
    for (const item of trial) if (!isolated.has(item)) added.add(item);
    // Darkening one space can show the next; what never helped is taken back below.
    isolated = trial;
    unheld = left;
  }
  if (countUnheld(field, pairs, chosen) === unheld) return new Set();
  for (const item of [...added].sort((a, b) => costOf(b) - costOf(a) || a - b)) {
    isolated.delete(item);
    if (countUnheld(field, pairs, isolated) > unheld) isolated.add(item);
    else added.delete(item);
  }
  return added;
}

function countUnheld(field: BarrierField, pairs: readonly RequiredPair[], isolated: ReadonlySet<number>): number {
  const grader = graderOf(field, pairs, isolated);
  return pairs.filter((pair) => !pair.demands.every((demand) => grader.judge(pair, demand).held)).length;
}

/** The live places between barriers of ways that ask to be proved double, as faces for that one carrier. */
function liveSpaces(field: BarrierField, pairs: readonly RequiredPair[], isolated: ReadonlySet<number>): WorkFace[] {
  const { graph } = field;
  const cavities = cavitiesOf(field, isolated);
  const faces = new Map<string, WorkFace>();
  for (const pair of pairs) {
    const demand = pair.demands.find((one) => one.family === "flow" && one.grade !== null);
    if (!demand?.grade || BARRIERS_FOR[demand.grade].barriers < 2 || pair.k < 2) continue;
    for (const vertex of cavities.liveBetween(pair.source, pair.face)) {
      const name = `${placeName(graph, vertex)} ${carrierOf(vertex)}`;
      faces.set(name, {
        name,
        how: [],
        items: [],
        places: [placeOf(vertex)],
        carriers: [carrierOf(vertex)],
        narrowedWithoutReason: false,
      });
    }
  }
  return [...faces.values()];
}

/** The cheapest further devices that put one barrier between these places and every feeding source. */
function darken(
  field: BarrierField,
  faces: readonly WorkFace[],
  isolated: ReadonlySet<number>,
  costOf: (item: number) => number,
  school: School,
): ReadonlySet<number> {
  const own = narrowed(barrierField(field.graph, faces), (item) => field.creditable.has(item));
  const { feeding } = sourcesOf(field.graph);
  const pairs = faces.flatMap((face) => {
    const depths = barrierDepths(own, face, feeding, own.creditable, 1);
    return [...depths].map(([source, { depth }]): Pair => ({
      source,
      face,
      required: 1,
      available: depth,
      k: Math.min(1, depth),
    }));
  });
  return choosePoints(own, pairs, (item) => (isolated.has(item) ? 0 : costOf(item)), school).devices;
}
