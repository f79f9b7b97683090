import { guardRelease, type LiveJob } from "../../../src/core/guard/guardRelease";
import { proveSwap } from "../../../src/core/guard/proveSwap";
import { barrierField } from "../../../src/core/barrier/pairs";
import { requirePairs } from "../../../src/core/judge/requirePairs";
import { LADDERS, weaker, type Grade } from "../../../src/core/requirement/grades";
import { profileOf } from "../../../src/core/requirement/profiles";
import { placeName, type StateGraph } from "../../../src/core/trace/stateGraph";
import { workFaces } from "../../../src/core/trace/workFaces";
import { engineCase } from "../../support/plantArbitrary";
import { propertyRuns } from "../../support/runs";
import { seededRandom } from "../../support/seededRandom";
import { Failures, flowGrade } from "./byFailures";
import { lockGrade } from "./locksByFailures";
import { trickyPlant, type TrickyCase } from "./trickyPlant";

const STATES = propertyRuns(400).numRuns;

/** By the judge from failures: what each energy has at a job's face with these devices isolated, and what is asked. */
function gradesOf(one: TrickyCase, graph: StateGraph, job: LiveJob["job"], isolated: readonly string[]) {
  const faces = workFaces(graph, job, "job");
  if (!faces.ok) throw new Error("no face");
  const failures = new Failures({
    plant: one.plant,
    faceItems: job.faces.map(({ place }) => place),
    isolated: [...new Set(isolated)],
  });
  return requirePairs(barrierField(graph, faces.value), job, profileOf(job.profile)).flatMap((pair) =>
    pair.demands.flatMap((demand) => {
      if (demand.family === "heat" || demand.family === "radiation") return [];
      const from = `${placeName(graph, pair.source.vertex)}|${pair.source.carrier}`;
      const ladder: readonly string[] = LADDERS[demand.family];
      const grade = pair.face.places
        .map((place) => {
          const end = `${graph.places.names[place]}|${demand.arrives}`;
          if (demand.family === "flow") return flowGrade(failures, from, end, demand.scope);
          return lockGrade(failures, from, end, demand.family === "wire" ? "wire" : "motion");
        })
        .reduce((worst, next) => (ladder.indexOf(next) > ladder.indexOf(worst) ? next : worst));
      const { family } = demand;
      return [
        {
          way: `${placeName(graph, pair.source.vertex)} ${pair.face.name}`,
          family,
          grade: grade as Grade,
          asked: demand.grade!,
        },
      ];
    }),
  );
}

/** Ways of a job that are worth less than they were, and than is asked. */
function fallen(
  one: TrickyCase,
  graph: StateGraph,
  { job }: LiveJob,
  now: readonly string[],
  then: readonly string[],
): Set<string> {
  const before = gradesOf(one, graph, job, now);
  const after = gradesOf(one, graph, job, then);
  return new Set(
    after.flatMap(({ way, family, grade, asked }, i) => {
      const ladder: readonly string[] = LADDERS[family];
      return ladder.indexOf(grade) > ladder.indexOf(weaker(family, asked, before[i]!.grade)) ? [way] : [];
    }),
  );
}

/** Jobs at places of a plant, one of them on its own face and others elsewhere, each with locks of its own. */
function liveState(seed: number) {
  const random = seededRandom(seed);
  const one = trickyPlant(random);
  const { graph, job } = engineCase(one);
  const tags = one.plant.items.filter(({ device, bleed }) => !device && !bleed).map(({ tag }) => tag);
  const opened = one.plant.items.filter(({ device, bleed }) => bleed || device).map(({ tag }) => tag);
  const live = [0, 1, 2].map((n): LiveJob => ({
    number: `J-${n}`,
    job:
      n === 0 ? job : { ...job, faces: [{ place: random.pick(tags), how: [random.pick(["open", "enter"] as const)] }] },
    holds: one.isolated.filter(() => random.chance(0.55)),
    opened,
    accepted: {},
    people: [],
    counts: true,
  }));
  return { random, one, graph, live };
}

test(`in ${STATES} live states a lift is let through exactly where no face falls below what is asked or there now`, () => {
  let [refused, allowed, onGradeAlone] = [0, 0, 0];
  for (let seed = 1; seed <= STATES; seed++) {
    const { random, one, graph, live } = liveState(seed);
    const lifting = live.filter(({ holds }) => holds.length > 0);
    if (lifting.length === 0) continue;
    const { number, holds } = random.pick(lifting);
    const device = random.pick(holds);
    const now = live.flatMap((job) => job.holds);
    const then = live.flatMap((job) => (job.number === number ? job.holds.filter((tag) => tag !== device) : job.holds));
    const harms = guardRelease(graph, live, [{ job: number, device }]);
    for (const job of live) {
      const found = new Set(
        harms.filter((harm) => harm.job === job.number).map(({ source, face }) => `${source} ${face}`),
      );
      expect([seed, device, job.number, [...found].sort()]).toEqual([
        seed,
        device,
        job.number,
        [...fallen(one, graph, job, now, then)].sort(),
      ]);
    }
    if (harms.length > 0) refused++;
    else allowed++;
    if (harms.some(({ depth, needs }) => depth >= needs)) onGradeAlone++;
  }
  expect(refused).toBeGreaterThan(STATES / 20);
  expect(allowed).toBeGreaterThan(STATES / 20);
  expect(onGradeAlone).toBeGreaterThan(0);
});

test("a swap that is allowed leaves every live face what was asked or there, while both hang, after, and by its own locks alone", () => {
  let [refused, allowed] = [0, 0];
  for (let seed = 1; seed <= STATES; seed++) {
    const { random, one, graph, live } = liveState(seed);
    const [job] = live;
    const devices = one.plant.items.filter(({ device }) => device).map(({ tag }) => tag);
    const others = devices.filter((tag) => !live.some(({ holds }) => holds.includes(tag)));
    if (job!.holds.length === 0 || others.length === 0) continue;
    const [from, to] = [random.pick(job!.holds), random.pick(others)];
    const fault = proveSwap(graph, live, { jobs: [job!.number], from, to });
    const now = live.flatMap(({ holds }) => holds);
    const both = [...now, to];
    const rest = live.flatMap(({ number, holds }) =>
      number === job!.number ? holds.filter((tag) => tag !== from) : holds,
    );
    const alone = [...job!.holds.filter((tag) => tag !== from), to];
    const fell =
      live.some((each) => [both, [...rest, to]].some((then) => fallen(one, graph, each, now, then).size > 0)) ||
      // By its own locks too: what others lock is theirs to lift.
      fallen(one, graph, job!, job!.holds, alone).size > 0;
    if (fault === null) expect([seed, from, to, fell]).toEqual([seed, from, to, false]);
    else if (fault.code === "harm") expect([seed, from, to, fell]).toEqual([seed, from, to, true]);
    if (fault === null) allowed++;
    else refused++;
  }
  expect(allowed).toBeGreaterThan(STATES / 50);
  expect(refused).toBeGreaterThan(STATES / 50);
});
