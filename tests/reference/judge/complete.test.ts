import { plan } from "../../../src/core/plan/plan";
import { barrierField } from "../../../src/core/barrier/pairs";
import { requirePairs } from "../../../src/core/judge/requirePairs";
import { meets, type Grade } from "../../../src/core/requirement/grades";
import { profileOf } from "../../../src/core/requirement/profiles";
import { placeName } from "../../../src/core/trace/stateGraph";
import { workFaces } from "../../../src/core/trace/workFaces";
import { engineCase } from "../../support/plantArbitrary";
import { propertyRuns } from "../../support/runs";
import { seededRandom } from "../../support/seededRandom";
import { Failures, flowGrade } from "./byFailures";
import { lockGrade } from "./locksByFailures";
import { trickyPlant, type TrickyCase } from "./trickyPlant";

const PLANTS = propertyRuns(250).numRuns;
/** So many sets are judged from failures for each plant at most: 2 to the 7th. */
const MOST_DEVICES = 7;

/** The ways that are not held with these devices isolated, by the judge from failures. */
function unheld(one: TrickyCase, isolated: readonly string[]): ReadonlySet<string> {
  const { graph, job } = engineCase(one);
  const faces = workFaces(graph, job, "job");
  if (!faces.ok) throw new Error("no face");
  const failures = new Failures({ plant: one.plant, faceItems: one.job.faces.map(({ place }) => place), isolated });
  const found = new Set<string>();
  for (const pair of requirePairs(barrierField(graph, faces.value), job, profileOf("strict"))) {
    for (const demand of pair.demands) {
      if (demand.family === "heat" || demand.family === "radiation") continue;
      const from = `${placeName(graph, pair.source.vertex)}|${pair.source.carrier}`;
      const isHeld = pair.face.places.every((place) => {
        const end = `${graph.places.names[place]}|${demand.arrives}`;
        const grade =
          demand.family === "flow"
            ? flowGrade(failures, from, end, demand.scope)
            : lockGrade(failures, from, end, demand.family === "wire" ? "wire" : "motion");
        return meets(demand.family, grade as Grade, demand.grade!);
      });
      if (!isHeld) found.add(`${placeName(graph, pair.source.vertex)} ${pair.source.carrier} ${pair.face.name}`);
    }
  }
  return found;
}

test("a small plant's plan holds whenever any set of its devices does, and what it calls impossible no set holds", () => {
  let [tried, held, notHeld, impossible] = [0, 0, 0, 0];
  for (let seed = 1; seed <= PLANTS; seed++) {
    const one = trickyPlant(seededRandom(seed + 50_000));
    const devices = one.plant.items.filter(({ device }) => device?.credit).map(({ tag }) => tag);
    // Blinds ask of their flanges too: those plants are judged by the plan's own tests.
    if (devices.length > MOST_DEVICES || one.plant.items.some(({ device }) => device?.positive)) continue;
    const { graph, job } = engineCase(one);
    const made = plan(graph, job);
    if (!made.ok) throw new Error(made.problems[0]?.message);
    tried++;
    const isolated = made.value.points.map(({ device }) => device);
    const left = unheld(one, isolated);
    expect([seed, made.value.held]).toEqual([seed, left.size === 0]);
    if (left.size === 0) {
      held++;
      continue;
    }
    notHeld++;
    const sets = Array.from({ length: 2 ** devices.length }, (_, bits) =>
      devices.filter((_, i) => (bits >> i) % 2 === 1),
    );
    const leftBy = sets.map((set) => unheld(one, set));
    expect([seed, isolated, leftBy.some((ways) => ways.size === 0)]).toEqual([seed, isolated, false]);
    for (const { source, carrier, face, proved } of made.value.shortfalls) {
      if (proved !== "impossible") continue;
      const way = `${source} ${carrier} ${face}`;
      impossible++;
      expect([seed, way, leftBy.every((ways) => ways.has(way))]).toEqual([seed, way, true]);
    }
  }
  expect(tried).toBeGreaterThan(PLANTS / 10);
  expect(held).toBeGreaterThan(0);
  expect(notHeld).toBeGreaterThan(0);
  expect(impossible).toBeGreaterThan(0);
});

test("no plan fails on twins, blinds, switches or anything else that the generator makes", () => {
  for (let seed = 1; seed <= PLANTS; seed++) {
    const one = trickyPlant(seededRandom(seed + 90_000));
    const { graph, job } = engineCase(one);
    const made = plan(graph, job);
    expect([seed, made.ok]).toEqual([seed, true]);
    if (!made.ok) continue;
    const isolated = made.value.points.map(({ device }) => device);
    expect([seed, made.value.held && unheld(one, isolated).size > 0]).toEqual([seed, false]);
  }
});
