import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { calculate } from "@/core/calc/calculator";
import { calculatorNamed } from "@/core/calc/calculators/calculators";
import { physicsCases } from "./physicsCases";

type Figures = Readonly<Record<string, number | null | readonly number[]>>;
type Answer = Readonly<{ id: string; answer: Figures }>;
type Stored = Readonly<{ cases: string; answers: readonly Answer[] }>;

const STORED = join(__dirname, "answers", "physics.json");
const cases = physicsCases();
const fingerprint = createHash("sha256").update(JSON.stringify(cases)).digest("hex");

/** Works the answers out with scipy, fluids and networkx; null where they are not installed. */
function answersLive(): Answer[] | null {
  const python = "/usr/bin/python3";
  if (!existsSync(python)) return null;
  if (spawnSync(python, ["-c", "import scipy.integrate, fluids, networkx"]).status !== 0) return null;
  const done = spawnSync(python, [join(__dirname, "answerPhysics.py")], {
    input: JSON.stringify(cases),
    maxBuffer: 64 * 2 ** 20,
  });
  if (done.status !== 0) throw new Error(done.stderr.toString());
  return JSON.parse(done.stdout.toString()) as Answer[];
}

const live = answersLive();
if (process.env.LANTERN_STORE_ANSWERS && live) {
  writeFileSync(STORED, `${JSON.stringify({ cases: fingerprint, answers: live })}\n`);
}
const stored = JSON.parse(readFileSync(STORED, "utf8")) as Stored;

/** Relative difference; solvers were asked for 1e-11. */
const CLOSE = 1e-6;
/** API 520 prints its constants with four figures. */
const CLOSE_TO_PRINTED = 2e-3;

function far(ours: number, theirs: number): number {
  return Math.abs(ours - theirs) / Math.max(Math.abs(theirs), 1e-12);
}

describe("the formulas against scipy, fluids and networkx", () => {
  test("the stored answers are to these very cases", () => {
    expect(stored.cases).toBe(fingerprint);
    expect(stored.answers.map(({ id }) => id)).toEqual(cases.map(({ id }) => id));
  });

  (live ? test : test.skip)("the libraries on this machine still give the stored answers", () => {
    for (const [i, one] of live!.entries()) {
      for (const [key, value] of Object.entries(one.answer)) {
        const kept = stored.answers[i]!.answer[key];
        if (typeof value === "number" && typeof kept === "number") expect(far(value, kept)).toBeLessThan(CLOSE);
        else expect(value).toEqual(kept);
      }
    }
  });

  for (const name of new Set(cases.map((one) => one.name))) {
    test(`${name} over a grid of inputs`, () => {
      for (const [i, one] of cases.entries()) {
        if (one.name !== name) continue;
        const done = calculate(calculatorNamed(name)!, one.input);
        if (!done.ok) throw new Error(`${one.id}: ${done.key} ${done.message}`);
        const ours: Record<string, unknown> = Object.fromEntries(
          done.calculation.results.map(({ key, value }) => [key, value]),
        );
        const steps = done.calculation.also?.steps as { early_s: number }[] | undefined;
        if (steps) ours.early_s = steps.map((step) => step.early_s);
        for (const [key, theirs] of Object.entries(stored.answers[i]!.answer)) {
          const mine = ours[key === "first_by_api520" ? "first_kg_s" : key];
          if (theirs === null || typeof theirs === "object") expect([one.id, key, mine]).toEqual([one.id, key, theirs]);
          else {
            const close = key === "first_by_api520" ? CLOSE_TO_PRINTED : CLOSE;
            const apart = far(mine as number, theirs);
            if (!(apart < close)) throw new Error(`${one.id}, ${key}: ${String(mine)} against ${theirs}`);
          }
        }
      }
    });
  }
});
