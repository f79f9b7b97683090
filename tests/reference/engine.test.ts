import { createHash } from "node:crypto";
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { check } from "@/core/plan/check";
import { plan } from "@/core/plan/plan";
import { engineCase } from "../support/plantArbitrary";
import { referenceCases } from "./referenceCases";

type Answer = Readonly<{
  id: string;
  pairs: readonly {
    source: string;
    carrier: string;
    face: string;
    required: number;
    available: number;
    depth: number;
  }[];
  optimum: number;
  by: string;
}>;
type Stored = Readonly<{ cases: string; answers: readonly Answer[] }>;

const STORED = join(__dirname, "answers", "engine.json");
const cases = referenceCases();
const fingerprint = createHash("sha256").update(JSON.stringify(cases)).digest("hex");

/** Works the answers out with networkx, igraph and scipy's HiGHS; null where they are not installed. */
function answersLive(): Answer[] | null {
  const python = "/usr/bin/python3";
  if (!existsSync(python)) return null;
  if (spawnSync(python, ["-c", "import networkx, igraph, scipy.optimize"]).status !== 0) return null;
  const done = spawnSync(python, [join(__dirname, "answerCases.py")], {
    input: JSON.stringify(cases),
    maxBuffer: 256 * 2 ** 20,
  });
  if (done.status !== 0) throw new Error(done.stderr.toString());
  return JSON.parse(done.stdout.toString()) as Answer[];
}

const live = answersLive();
if (process.env.LANTERN_STORE_ANSWERS && live) {
  writeFileSync(STORED, `${JSON.stringify({ cases: fingerprint, answers: live }, null, 0)}\n`);
}
const stored = JSON.parse(readFileSync(STORED, "utf8")) as Stored;

describe("the engine against networkx, igraph and HiGHS", () => {
  test("the stored answers are to these very cases, and there are more than 500", () => {
    expect(stored.cases).toBe(fingerprint);
    expect(stored.answers.length).toBeGreaterThan(500);
    expect(stored.answers.map((answer) => answer.id)).toEqual(cases.map((one) => one.id));
  });

  (live ? test : test.skip)("the libraries on this machine still give the stored answers", () => {
    expect(live).toEqual(stored.answers);
  });

  test("the cases reach every way of answering, often", () => {
    const count = (by: string) => stored.answers.filter((answer) => answer.by === by).length;
    expect(count("minimum cut")).toBeGreaterThan(60);
    expect(count("linear programme")).toBeGreaterThan(60);
    expect(count("integer programme")).toBeGreaterThan(150);
    const short = stored.answers.filter((answer) => answer.pairs.some((pair) => pair.available < pair.required));
    expect(short.length).toBeGreaterThan(100);
  });

  test.each(["one barrier", "two barriers", "three barriers", "anything"])(
    "%s: depth, available and optimum agree",
    (family) => {
      let proved = 0;
      let asked = 0;
      cases.forEach((one, index) => {
        if (one.family !== family) return;
        const answer = stored.answers[index]!;
        const { graph, job } = engineCase(one);
        const checked = check(graph, job);
        const planned = plan(graph, job);
        if (!checked.ok || !planned.ok) throw new Error(`${one.id} was refused`);
        const key = (row: { source: string; carrier: string; face: string }) =>
          `${row.face} ${row.source} ${row.carrier}`;
        const rows = (routes: typeof checked.value.routes) =>
          routes.map((route) => `${key(route)}: ${route.required} ${route.available} ${route.depth}`).sort();
        expect([one.id, ...rows(checked.value.routes)]).toEqual([
          one.id,
          ...answer.pairs.map((pair) => `${key(pair)}: ${pair.required} ${pair.available} ${pair.depth}`).sort(),
        ]);
        asked++;
        if (planned.value.exact) proved++;
        // What is proved is right, and what is not proved lies between its bound and no better than the truth.
        expect([one.id, Math.round(planned.value.bound * 100) <= answer.optimum]).toEqual([one.id, true]);
        if (planned.value.exact)
          expect([one.id, Math.round(planned.value.cost * 100)]).toEqual([one.id, answer.optimum]);
        else expect(Math.round(planned.value.cost * 100)).toBeGreaterThanOrEqual(answer.optimum);
        for (const route of planned.value.routes) {
          expect([one.id, route.depth >= Math.min(route.required, route.available)]).toEqual([one.id, true]);
        }
      });
      expect(asked).toBeGreaterThanOrEqual(150);
      expect(proved / asked).toBeGreaterThan(family === "anything" ? 0.97 : 0.999);
    },
  );
});
