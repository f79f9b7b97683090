import { barrierDepths } from "../barrier/barrierDepth";
import { graderOf, type Grader } from "../judge/grade";
import { barrierField, type BarrierField } from "../barrier/pairs";
import { requirePairs, type Demand, type RequiredPair } from "../judge/requirePairs";
import { BARRIERS_FOR, isGradeOf, weaker, meets, type Grade } from "../requirement/grades";
import { limitsLost } from "../losses/limitsLost";
import { profileOf } from "../requirement/profiles";
import type { Job } from "../request/jobFile";
import { placeName, type StateGraph } from "../trace/stateGraph";
import { workFaces } from "../trace/workFaces";

/** A job that is standing on locked points, with what it counts on. */
export type LiveJob = Readonly<{
  number: string;
  job: Job;
  /** Tags of the devices its own isolation holds now. */
  holds: readonly string[];
  /** Tags of the bleeds, and of the valves before them, that its isolation has opened and not closed again. */
  opened: readonly string[];
  /** What a person accepted below what the rules ask, by `source carrier face`. */
  accepted: Readonly<Record<string, Readonly<{ grade: string; depth: number }>>>;
  people: readonly string[];
  /** Its isolation is proven: it counts on every lock that hangs. Before that, and on its way back, on its own only. */
  counts: boolean;
}>;

/** A face that a release would light, or leave with less than people count on. */
export type Harm = Readonly<{
  job: string;
  face: string;
  source: string;
  /** Barriers that would be left, and those that must be. */
  depth: number;
  needs: number;
  /** The grade that would be left, and the least that may be; null where a job asks plain numbers of barriers. */
  grade: Grade | null;
  asked: Grade | null;
  people: readonly string[];
}>;

/**
 * What lifting these devices would do to every live job, the releasing one left out when its own work is over. Empty means
 * that nobody's face loses anything that they count on. A device stays held while any other job holds it.
 *
 * Cost: harmsBetween.
 */
export function guardRelease(
  graph: StateGraph,
  live: readonly LiveJob[],
  release: readonly Readonly<{ job: string; device: string }>[],
): Harm[] {
  const lifted = (number: string, device: string) => release.some((one) => one.job === number && one.device === device);
  return harmsBetween(
    graph,
    live,
    live.map((one) => one.holds.filter((device) => !lifted(one.number, device))),
  );
}

/**
 * What a change of the locks would do to every live job: a harm for each form of arrival that would be lit, or fall below
 * the least of what the rules ask, what was accepted and what stands today. `then` is what each of them would hold.
 *
 * All jobs' held devices together keep a face dark, for nobody asks whose lock it is. A job that is not proven yet, or is
 * on its way back, has proved nothing with other jobs' locks and loses nothing with them: its own alone are counted for it.
 * Only bleeds that were opened prove anything. What would be lit comes first.
 *
 * Cost: two judgements for each live job.
 */
export function harmsBetween(
  graph: StateGraph,
  live: readonly LiveJob[],
  then: readonly (readonly string[])[],
): Harm[] {
  const heldNow = live.flatMap(({ holds }) => holds);
  const heldThen = then.flat();
  const openedByAll = live.flatMap(({ opened }) => opened);
  return live
    .flatMap((one) =>
      harmsTo(graph, one, {
        now: one.counts ? heldNow : one.holds,
        // What hangs for others is there all the same, whether this job counts on it or not.
        then: heldThen,
        opened: one.counts ? openedByAll : one.opened,
      }),
    )
    .sort((a, b) => a.depth - b.depth);
}

function harmsTo(
  graph: StateGraph,
  { number, job, accepted, people }: LiveJob,
  locks: Readonly<{ now: readonly string[]; then: readonly string[]; opened: readonly string[] }>,
): Harm[] {
  if (job.faces.length === 0) return [];
  const faces = workFaces(graph, job, number);
  // A face that the register no longer has cannot be shown to be dark.
  if (!faces.ok) {
    return job.faces.map(({ place }) => ({
      job: number,
      face: place,
      source: "the register",
      depth: 0,
      needs: 1,
      grade: null,
      asked: null,
      people,
    }));
  }
  const index = (tags: readonly string[]) => new Set(tags.flatMap((tag) => graph.itemByTag.get(tag) ?? []));
  // What is isolated may cut the relief on which a limit stands; with other locks another field.
  const fieldWith = (held: readonly string[]) =>
    barrierField(graph, faces.value, index(job.struck), index(job.mustPass), limitsLost(graph, index(held)));
  const [fieldNow, fieldThen] = [fieldWith(locks.now), fieldWith(locks.then)];
  const pairs = requirePairs(fieldNow, job, profileOf(job.profile));
  if (job.require) {
    const [now, then] = [index(locks.now), index(locks.then)];
    return plainHarms([fieldNow, fieldThen], pairs, [now, then], { number, accepted, people });
  }
  const opened = index(locks.opened);
  const only = { bleeds: opened, valves: opened };
  const [before, after] = [
    graderOf(fieldNow, pairs, index(locks.now), only),
    graderOf(fieldThen, pairs, index(locks.then), only),
  ];
  return pairs.flatMap((pair): Harm[] => {
    const source = placeName(graph, pair.source.vertex);
    const allowed = accepted[`${source} ${pair.source.carrier} ${pair.face.name}`];
    const worst = pair.demands
      .flatMap((demand) => fall(pair, demand, before, after, allowed))
      .sort((a, b) => a.depth - b.depth)[0];
    return worst === undefined ? [] : [{ job: number, face: pair.face.name, source, ...worst, people }];
  });
}

type Fall = Pick<Harm, "depth" | "needs" | "grade" | "asked">;

/** Nothing, or what would be left of it, where that is less than the least of what is asked, accepted and there now. */
function fall(
  pair: RequiredPair,
  demand: Demand,
  before: Grader,
  after: Grader,
  allowed: LiveJob["accepted"][string] | undefined,
): Fall[] {
  const [now, then] = [before.judge(pair, demand), after.judge(pair, demand)];
  const grades: readonly Grade[] = [
    demand.grade!,
    now.grade,
    ...(allowed && isGradeOf(demand.family, allowed.grade as Grade) ? [allowed.grade as Grade] : []),
  ];
  const asked = grades.reduce((least, grade) => weaker(demand.family, least, grade));
  if (meets(demand.family, then.grade, asked)) return [];
  return [{ depth: then.depth, needs: BARRIERS_FOR[asked].barriers, grade: then.grade, asked }];
}

/** Under a job's own plain numbers: barriers against every form of arrival at once. */
function plainHarms(
  fields: readonly [now: BarrierField, then: BarrierField],
  pairs: readonly RequiredPair[],
  locks: readonly [now: ReadonlySet<number>, then: ReadonlySet<number>],
  { number, accepted, people }: Pick<LiveJob, "number" | "accepted" | "people">,
): Harm[] {
  const { faces, graph } = fields[0];
  return faces.flatMap((face) => {
    const ofFace = pairs.filter((pair) => pair.face === face && pair.required > 0);
    const sources = ofFace.map(({ source }) => source);
    const asked = Math.max(0, ...ofFace.map(({ required }) => required));
    const [before, after] = fields.map((field, at) =>
      barrierDepths(field, face, sources, locks[at]!, { enough: asked }),
    );
    return ofFace.flatMap((pair): Harm[] => {
      const source = placeName(graph, pair.source.vertex);
      const allowed = accepted[`${source} ${pair.source.carrier} ${face.name}`]?.depth ?? pair.required;
      const needs = Math.min(pair.required, allowed, before!.get(pair.source)?.depth ?? 0);
      const depth = after!.get(pair.source)?.depth ?? 0;
      if (depth >= needs) return [];
      return [{ job: number, face: face.name, source, depth, needs, grade: null, asked: null, people }];
    });
  });
}
