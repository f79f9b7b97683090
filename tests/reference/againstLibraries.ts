import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { calculate } from "@/core/calc/calculator";
import { calculatorNamed } from "@/core/calc/calculators/calculators";
import type { PhysicsCase } from "./physicsCases";

type Figures = Readonly<Record<string, number | null | readonly number[]>>;
type Answer = Readonly<{ id: string; answer: Figures }>;
type Stored = Readonly<{ cases: string; answers: readonly Answer[] }>;

/** A key under which the libraries answer something else than the calculator prints, and how near it must come. */
export type Likeness = Readonly<{ ours: (figures: Readonly<Record<string, unknown>>) => number; close: number }>;

/** Relative difference; solvers were asked for 1e-11. */
const CLOSE = 1e-6;

function far(ours: number, theirs: number): number {
  return Math.abs(ours - theirs) / Math.max(Math.abs(theirs), 1e-12);
}

/**
 * Compares calculators with what Python's libraries answer to the same cases. The answers are stored, so that the comparison runs
 * where the libraries are not installed; where they are, they must still give what is stored.
 */
export function compareWithLibraries(
  p: Readonly<{
    cases: readonly PhysicsCase[];
    script: string;
    stored: string;
    needs: string;
    likenesses?: Readonly<Record<string, Likeness>>;
  }>,
): void {
  const path = join(__dirname, "answers", p.stored);
  const fingerprint = createHash("sha256").update(JSON.stringify(p.cases)).digest("hex");
  const live = answersLive(p);
  if (process.env.LANTERN_STORE_ANSWERS && live) {
    writeFileSync(path, `${JSON.stringify({ cases: fingerprint, answers: live })}\n`);
  }
  const stored = JSON.parse(readFileSync(path, "utf8")) as Stored;

  test("the stored answers are to these very cases", () => {
    expect(stored.cases).toBe(fingerprint);
    expect(stored.answers.map(({ id }) => id)).toEqual(p.cases.map(({ id }) => id));
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

  for (const name of new Set(p.cases.map((one) => one.name))) {
    test(`${name} over a grid of inputs`, () => {
      for (const [i, one] of p.cases.entries()) {
        if (one.name === name) compareCase(one, stored.answers[i]!.answer, p.likenesses ?? {});
      }
    });
  }
}

function compareCase(one: PhysicsCase, answer: Figures, likenesses: Readonly<Record<string, Likeness>>): void {
  const done = calculate(calculatorNamed(one.name)!, one.input);
  if (!done.ok) throw new Error(`${one.id}: ${done.key} ${done.message}`);
  const ours: Record<string, unknown> = Object.fromEntries(
    done.calculation.results.map(({ key, value }) => [key, value]),
  );
  // What is yes or no is compared as 1 or 0.
  for (const [key, value] of Object.entries(done.calculation.also ?? {})) {
    if (typeof value === "boolean") ours[key] = value ? 1 : 0;
  }
  const steps = done.calculation.also?.steps as { early_s: number }[] | undefined;
  if (steps) ours.early_s = steps.map((step) => step.early_s);
  for (const [key, theirs] of Object.entries(answer)) {
    const likeness = likenesses[key];
    const mine = likeness ? likeness.ours(ours) : ours[key];
    if (theirs === null || typeof theirs === "object") {
      expect([one.id, key, mine]).toEqual([one.id, key, theirs]);
      continue;
    }
    const apart = far(mine as number, theirs);
    if (!(apart < (likeness?.close ?? CLOSE))) throw new Error(`${one.id}, ${key}: ${String(mine)} against ${theirs}`);
  }
}

/** Works the answers out; null where the libraries are not installed. */
function answersLive(p: Readonly<{ cases: readonly PhysicsCase[]; script: string; needs: string }>): Answer[] | null {
  const python = "/usr/bin/python3";
  if (!existsSync(python) || spawnSync(python, ["-c", `import ${p.needs}`]).status !== 0) return null;
  const done = spawnSync(python, [join(__dirname, p.script)], {
    input: JSON.stringify(p.cases),
    maxBuffer: 64 * 2 ** 20,
  });
  if (done.status !== 0) throw new Error(done.stderr.toString());
  return JSON.parse(done.stdout.toString()) as Answer[];
}
