import fc from "fast-check";
import type { Competence, PersonId } from "../people/roles";
import type { PlannedStep, StepKind } from "../procedure/steps";
import { decideIsolation } from "./isolationLife";
import { open, type IsolationCommand, type IsolationLife } from "./isolation";
import { walkFacts } from "../../../tests/support/walkFacts";

const PIA = "pia" as PersonId;
const WAIT_s = 7080;
const step = (id: string, kind: StepKind, after: readonly string[] = [], competence: Competence = "process") =>
  ({
    id,
    phase: "isolate",
    kind,
    subject: "T-1",
    plate: null,
    words: id,
    competence,
    after,
    carrier: null,
    limit: null,
    secondPerson: false,
  }) satisfies PlannedStep;
const life = (...steps: PlannedStep[]): IsolationLife => ({
  number: "S-1",
  state: "isolating",
  steps: steps.map(open),
});
const facts = walkFacts({ waitOf: () => ({ least_s: WAIT_s, because: null }) });
const by = { by: PIA, competences: ["process", "electrical"] as const, roles: ["isolator"] as const };
const begin = (at_ms: number, id = "p"): IsolationCommand => ({ ...by, type: "begin step", step: id, at_ms });
const finish = (at_ms: number, id = "p", more = {}): IsolationCommand => ({
  ...by,
  type: "do step",
  step: id,
  at_ms,
  ...more,
});
const code = (from: IsolationLife, command: IsolationCommand) => {
  const decided = decideIsolation(from, command, facts);
  return decided.ok ? "done" : decided.refusal.code;
};
const after = (from: IsolationLife, command: IsolationCommand) => {
  const decided = decideIsolation(from, command, facts);
  if (!decided.ok) throw new Error(decided.refusal.code);
  return decided.value;
};

describe("a step that runs for a time", () => {
  test.each(["purge", "inert"] as const)("%s is begun, and done no earlier than its time is over", (kind) => {
    const still = life(step("p", kind));
    expect(code(still, finish(WAIT_s * 1000))).toBe("not begun");
    const runs = after(still, begin(1000));
    expect(code(runs, finish(1000 + WAIT_s * 1000 - 1))).toBe("wait not over");
    expect(code(runs, finish(1000 + WAIT_s * 1000))).toBe("done");
    // It stopped and was begun anew: from then.
    expect(code(after(runs, begin(5000)), finish(1000 + WAIT_s * 1000))).toBe("wait not over");
  });
  test("it is begun in its order, by who may do it, and while it is not done", () => {
    const two = life(step("l", "lock"), step("p", "purge", ["l"]));
    expect(code(two, begin(0))).toBe("out of order");
    expect(code(life(step("p", "purge")), { ...begin(0), competences: ["mechanical"] } as IsolationCommand)).toBe(
      "not competent",
    );
    expect(code(life(step("v", "verify")), begin(0, "v"))).toBe("unknown");
    const done = after(after(life(step("p", "purge"), step("q", "verify")), begin(0)), finish(WAIT_s * 1000));
    expect(code(done, begin(WAIT_s * 2000))).toBe("already done");
  });
  test("a capacitor's time runs from the last lock on its conductors", () => {
    const steps = life(
      step("l1", "lock", [], "electrical"),
      step("l2", "lock", [], "electrical"),
      step("v", "lock", [], "process"),
      step("d", "discharge", ["l1", "l2"], "electrical"),
    );
    let now = steps;
    for (const [id, at_ms] of [
      ["l1", 0],
      ["l2", 60_000],
      ["v", 90_000],
    ] as const) {
      now = after(now, finish(at_ms, id, { lock: id }));
    }
    expect(code(now, finish(59_999 + WAIT_s * 1000, "d"))).toBe("wait not over");
    expect(code(now, finish(60_000 + WAIT_s * 1000, "d"))).toBe("done");
  });
  test("whatever is begun and tried when, it is done only a whole wait after it was last begun", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.boolean(), fc.integer({ min: 0, max: 3 * WAIT_s })), { maxLength: 12 }),
        (acts) => {
          let now = life(step("p", "purge"), step("q", "verify"));
          let begun: number | null = null;
          let clock = 0;
          for (const [begins, wait_s] of acts) {
            clock += wait_s * 1000;
            const decided = decideIsolation(now, begins ? begin(clock) : finish(clock), facts);
            if (!decided.ok) continue;
            now = decided.value;
            if (begins) begun = clock;
            else expect(clock - begun!).toBeGreaterThanOrEqual(WAIT_s * 1000);
          }
        },
      ),
    );
  });
});

test("cooled means measured, and not cool yet is no proof that failed", () => {
  const hot = life(step("c", "cool"));
  expect(code(hot, finish(0, "c"))).toBe("reading missing");
  const warm = finish(0, "c", { reading: 60, instrument: "TH-02" });
  expect(code(hot, warm)).toBe("reading not safe");
  expect(code(hot, finish(0, "c", { reading: 40, instrument: "TH-02" }))).toBe("done");
});
