import { spawnSync } from "node:child_process";
import { join, resolve } from "node:path";
import { buildSync } from "esbuild";
import fc from "fast-check";
import { exampleOf } from "../../src/core/calc/address";
import { CALCULATORS } from "../../src/core/calc/calculators/calculators";
import { propertyRuns } from "../support/runs";

const HOME = resolve(__dirname, "../..");
const PROGRAM = join(HOME, ".lantern", "calc-under-test.mjs");
beforeAll(() => {
  buildSync({
    entryPoints: [join(HOME, "src/cli/main.ts")],
    outfile: PROGRAM,
    bundle: true,
    platform: "node",
    format: "esm",
  });
});

function calc(args: readonly string[], input?: string) {
  const done = spawnSync("node", [PROGRAM, "calc", ...args], { cwd: HOME, encoding: "utf8", input });
  return { code: done.status, out: done.stdout, err: done.stderr };
}

test("a figure comes with where it comes from, from an argument or from standard input", () => {
  const text = JSON.stringify({ density_kg_m3: 1000, height_m: 10 });
  for (const done of [calc(["static-head", text]), calc(["static-head"], text)]) {
    expect(done).toMatchObject({ code: 0, err: "" });
    const answer = JSON.parse(done.out) as Record<string, unknown>;
    expect(answer.pressure_Pa).toBeCloseTo(98_066.5, 6);
    expect(answer).toMatchObject({ governs: "pressure_Pa", source: "arithmetic" });
  }
});

test("the critical path names its steps, and a circle is refused by name", () => {
  const steps = [
    { id: "a", duration_s: 5, after: [] },
    { id: "b", duration_s: 3, after: ["a"] },
    { id: "c", duration_s: 1, after: ["a"] },
  ];
  expect(JSON.parse(calc(["critical-path", JSON.stringify({ steps })]).out)).toMatchObject({
    length_s: 8,
    steps: [
      { id: "a", early_s: 0, late_s: 0, slack_s: 0 },
      { id: "b", early_s: 5, late_s: 5, slack_s: 0 },
      { id: "c", early_s: 5, late_s: 7, slack_s: 2 },
    ],
  });
  const circle = calc(["critical-path", JSON.stringify({ steps: [{ id: "a", duration_s: 1, after: ["a"] }] })]);
  expect(circle).toMatchObject({
    code: 1,
    out: "",
    err: "critical-path, steps: step a waits for itself, by way of the steps before it\n",
  });
});

test.each([
  [["static-head", "{}"], "static-head, density_kg_m3: is missing (in kg/m³)"],
  [["hidden-gas", '{"oxygen":20.8}'], "hidden-gas, oxygen: must be at most 0.25 (as a fraction of 1: 21 % is 0.21)"],
  [
    ["mixture-lfl", '{"parts":[{"vol":0.8,"lfl":1.2}]}'],
    "mixture-lfl, parts.1.lfl: must be at most 1 (as a fraction of 1: 21 % is 0.21)",
  ],
  [["static-head", '{"density_kg_m3":0,"height_m":1}'], "static-head, density_kg_m3: must be above 0"],
  [["static-head", '{"density_kg_m3":"1,5","height_m":1}'], "static-head, density_kg_m3: must be a number"],
  [["static-head", '{"density_kg_m3":1000,"height_m":1000000000}'], "static-head, height_m: must be at most 5000"],
  [["static-head", '{"density_kg_m3":1000,"height_m":1,"hight":2}'], "static-head: hight: not known here"],
  [["static-head", "{"], "static-head"],
  [["no-such"], "unknown calculator no-such; one of purge-dilution"],
  [
    ["purge-dilution", '{"volume_m3":1,"flow_m3_s":1,"c0":0.2,"c":0.01,"cs":0.05}'],
    "purge-dilution, c: is never reached: the space ends at 5 %",
  ],
] as const)("%j is refused in one line", (args, says) => {
  const done = calc(args, "");
  expect(done.code).toBe(1);
  expect(done.out).toBe("");
  expect(done.err).toContain(says);
  expect(done.err.trim().split("\n")).toHaveLength(1);
});

test("whatever is asked, the command line answers finite figures or one line that names the calculator", () => {
  const wild = fc.constantFrom<unknown>(0, -1, 1e9, 1e300, 5e-324, "", "1,5", null, true, [], {}, [{}], "NaN");
  const seen = { figures: 0, refusals: 0 };
  fc.assert(
    fc.property(
      fc.constantFrom(...CALCULATORS),
      fc.array(fc.tuple(fc.nat(), wild), { maxLength: 2 }),
      (which, slips) => {
        const keys = Object.keys(which.fields);
        const input = { ...exampleOf(which.fields) };
        for (const [at, value] of slips) input[keys[at % Math.max(1, keys.length)] ?? "steps"] = value;
        const done = calc([which.name, JSON.stringify(input)]);
        if (done.code === 0) {
          seen.figures++;
          expect(done.out).not.toMatch(/NaN|Infinity|undefined/);
          JSON.parse(done.out);
        } else {
          seen.refusals++;
          expect(done.out).toBe("");
          expect(done.err).toMatch(new RegExp(`^${which.name}[,:] .+\n$`));
          expect(done.err).not.toMatch(/NaN|Infinity|undefined|\bat .*:\d+:\d+/);
        }
      },
    ),
    propertyRuns(50),
  );
  expect(Math.min(seen.figures, seen.refusals)).toBeGreaterThan(5);
}, 120_000);
