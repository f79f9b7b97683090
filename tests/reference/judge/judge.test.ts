import { graderOf } from "../../../src/core/judge/grade";
import { barrierField } from "../../../src/core/barrier/pairs";
import { requirePairs } from "../../../src/core/judge/requirePairs";
import { LADDERS, type Grade } from "../../../src/core/requirement/grades";
import { profileOf } from "../../../src/core/requirement/profiles";
import { placeName } from "../../../src/core/trace/stateGraph";
import { workFaces } from "../../../src/core/trace/workFaces";
import { engineCase } from "../../support/plantArbitrary";
import { propertyRuns } from "../../support/runs";
import { seededRandom } from "../../support/seededRandom";
import { Failures, flowGrade } from "./byFailures";
import { lockGrade } from "./locksByFailures";
import { walksFrom } from "./byWalks";
import { shuffled, TRAPS, trickyPlant, type TrickyCase } from "./trickyPlant";

const PLANTS = propertyRuns(2000).numRuns;

type Found = Readonly<{ key: string; family: keyof typeof LADDERS; engine: Grade; reference: Grade; text: string }>;

function judged({ plant, job, isolated }: TrickyCase): Found[] {
  const { graph, job: read } = engineCase({ plant, job });
  const faces = workFaces(graph, read, "job");
  if (!faces.ok) throw new Error("no face");
  const field = barrierField(graph, faces.value);
  const pairs = requirePairs(field, read, profileOf("strict"));
  const items = new Set(isolated.map((tag) => graph.itemByTag.get(tag)!));
  const grader = graderOf(field, pairs, items);
  const faceItems = job.faces.map(({ place }) => place);
  const failures = new Failures({ plant, faceItems, isolated });
  return pairs.flatMap((pair) =>
    pair.demands.flatMap((demand): Found[] => {
      const from = `${placeName(graph, pair.source.vertex)}|${pair.source.carrier}`;
      const ends = pair.face.places.map((place) => `${graph.places.names[place]}|${demand.arrives}`);
      const grades = ends.map((face): string => {
        if (demand.family === "flow") return flowGrade(failures, from, face, demand.scope);
        return lockGrade(failures, from, face, demand.family === "wire" ? "wire" : "motion");
      });
      if (demand.family === "heat" || demand.family === "radiation") return [];
      const ladder: readonly string[] = LADDERS[demand.family];
      const reference = grades.reduce((worst, grade) =>
        ladder.indexOf(grade) > ladder.indexOf(worst) ? grade : worst,
      );
      const { grade: engine, because } = grader.judge(pair, demand);
      return [
        {
          key: `${from} ${pair.face.name} ${demand.arrives} ${demand.scope}`,
          family: demand.family,
          engine,
          reference: reference as Grade,
          text: because.join("; "),
        },
      ];
    }),
  );
}

test(`on ${PLANTS} plants full of traps no grade is better than what may fail allows, and none is worse`, () => {
  const met = new Map<string, number>();
  const grades = new Map<string, number>();
  const wrong: string[] = [];
  for (let seed = 1; seed <= PLANTS; seed++) {
    const one = trickyPlant(seededRandom(seed));
    for (const trap of one.traps) met.set(trap, (met.get(trap) ?? 0) + 1);
    for (const { key, engine, reference, text } of judged(one)) {
      grades.set(reference, (grades.get(reference) ?? 0) + 1);
      if (engine !== reference) wrong.push(`seed ${seed}: ${key}: ${engine}, by failures ${reference} (${text})`);
    }
  }
  const rare = TRAPS.filter((trap) => (met.get(trap) ?? 0) < PLANTS * 0.1);
  expect(wrong.slice(0, 20)).toEqual([]);
  expect(rare).toEqual([]);
  for (const grade of ["positive", "proved double", "proved single", "unproved double", "unproved single", "none"]) {
    expect([grade, (grades.get(grade) ?? 0) > PLANTS / 40]).toEqual([grade, true]);
  }
});

test("walk by walk, on the small ones: as many units and as many spaces", () => {
  let walked = 0;
  for (let seed = 1; seed <= PLANTS; seed++) {
    const one = trickyPlant(seededRandom(seed));
    if (one.plant.items.length > 14) continue;
    const failures = new Failures({
      plant: one.plant,
      faceItems: one.job.faces.map(({ place }) => place),
      isolated: one.isolated,
    });
    const { graph, job } = engineCase(one);
    const faces = workFaces(graph, job, "job");
    if (!faces.ok) throw new Error("no face");
    const field = barrierField(graph, faces.value);
    const pairs = requirePairs(field, job, profileOf("strict"));
    const grader = graderOf(field, pairs, new Set(one.isolated.map((tag) => graph.itemByTag.get(tag)!)));
    for (const pair of pairs) {
      for (const demand of pair.demands) {
        if (demand.family !== "flow" || pair.face.places.length > 1) continue;
        const from = `${placeName(graph, pair.source.vertex)}|${pair.source.carrier}`;
        const found = walksFrom(failures, from, `${pair.face.name}|${demand.arrives}`, demand.scope);
        const { grade } = grader.judge(pair, demand);
        const shown = `seed ${seed}: ${from} ${pair.face.name} ${demand.scope}: ${grade}`;
        walked++;
        if (found === null) expect(`${shown}`).toContain("positive");
        else {
          expect([shown, grade === "proved double"]).toEqual([shown, found.fewestUnits >= 2 && found.allPassASpace]);
          expect([shown, grade === "none"]).toEqual([shown, found.fewestUnits === 0]);
          if (grade === "unproved single") expect([shown, found.fewestUnits]).toEqual([shown, 1]);
        }
      }
    }
  }
  expect(walked).toBeGreaterThan(PLANTS / 10);
});

const graded = (one: TrickyCase) => new Map(judged(one).map(({ key, engine }) => [key, engine]));

test("the order of items, links and faces changes no grade", () => {
  for (let seed = 1; seed <= PLANTS / 5; seed++) {
    const random = seededRandom(seed);
    const one = trickyPlant(random);
    const { plant, job } = one;
    const other: TrickyCase = {
      ...one,
      plant: { ...plant, items: shuffled(plant.items, random), links: shuffled(plant.links, random) },
      job: { ...job, faces: [...job.faces].reverse() },
      isolated: shuffled(one.isolated, random),
    };
    expect([seed, [...graded(other)].sort()]).toEqual([seed, [...graded(one)].sort()]);
  }
});

test("one more device isolated lowers no depth, and a grade only where it stops a drain or was itself the space", () => {
  let lowered = 0;
  for (let seed = 1; seed <= PLANTS; seed++) {
    const one = trickyPlant(seededRandom(seed));
    const device = one.plant.items.find(({ tag, device }) => device?.credit && !one.isolated.includes(tag));
    if (device === undefined) continue;
    const faceItems = one.job.faces.map(({ place }) => place);
    const more = { ...one, isolated: [...one.isolated, device.tag] };
    const drained = (isolated: readonly string[]) => new Failures({ plant: one.plant, faceItems, isolated }).drained;
    const [before, after] = [drained(one.isolated), drained(more.isolated)];
    const stopsDrain = [...before].some((node) => !after.has(node));
    const grades = graded(more);
    for (const { key, family, engine } of judged(one)) {
      const ladder: readonly Grade[] = LADDERS[family];
      if (ladder.indexOf(grades.get(key)!) <= ladder.indexOf(engine)) continue;
      lowered++;
      // What it isolates was a drained place until now: it counts among those that drain no more.
      expect([seed, key, device.tag, stopsDrain]).toEqual([seed, key, device.tag, true]);
      expect([seed, key, grades.get(key)]).not.toEqual([seed, key, "none"]);
    }
  }
  expect(lowered).toBeGreaterThan(0);
});
