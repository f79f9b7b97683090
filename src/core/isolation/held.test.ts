import fc from "fast-check";
import type { Trade, PersonId } from "../people/roles";
import type { PlannedStep, StepKind } from "../procedure/steps";
import { decideIsolation } from "./isolationLife";
import { open, type IsolationCommand, type IsolationLife } from "./isolation";
import { walkFacts } from "../../../tests/support/walkFacts";

const PIA = "pia" as PersonId;
const WAIT_s = 7080;
const step = (id: string, kind: StepKind, after: readonly string[] = [], competence: Trade = "process") =>
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
const facts = walkFacts({ waitOf: () => ({ least_s: WAIT_s, because: null, isAssumed: false }) });
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

describe("a vessel is emptied under somebody's eyes", () => {
  const WIM = "wim" as PersonId;
  const full = life(step("p", "empty"), step("c", "clean", ["p"]), {
    ...step("d", "certify", ["c"]),
    secondPerson: true,
  });
  const run = (at_ms: number, more: object = {}): IsolationCommand =>
    ({ ...begin(at_ms), watcher: WIM, how: "drained", ...more }) as IsolationCommand;
  const dry = (at_ms: number, more: object = {}) =>
    finish(at_ms, "p", { reading: 0, words: "slop tank; the panel", ...more });

  test("nobody begins it without a watcher who does nothing else, or without saying how it leaves", () => {
    expect(code(full, begin(0))).toBe("reading missing");
    expect(code(full, run(0, { how: null }))).toBe("reading missing");
    expect(code(full, run(0))).toBe("done");
    const busy = decideIsolation(full, run(0), { ...facts, watches: () => "permit P-3" });
    expect(busy).toMatchObject({ ok: false, refusal: { code: "other duty", where: "permit P-3" } });
    // Begun anew by the same watcher: they are not busy with themselves.
    const again = decideIsolation(after(full, run(0)), run(1), { ...facts, watches: () => "this very one" });
    expect(again.ok).toBe(true);
  });
  test("drained it takes its time; pumped, or by figures that are only assumed, its level says when it is over", () => {
    const runs = after(full, run(0));
    expect(code(runs, dry(1000))).toBe("wait not over");
    expect(code(runs, dry(WAIT_s * 1000))).toBe("done");
    expect(code(after(full, run(0, { how: "pumped" })), dry(1000))).toBe("done");
    const guess = { ...facts, waitOf: () => ({ least_s: WAIT_s, because: null, isAssumed: true }) };
    expect(decideIsolation(runs, dry(1000), guess).ok).toBe(true);
  });
  test("it is over when nothing is left and somebody agreed to where it went; not yet is no proof that failed", () => {
    const runs = after(full, run(0));
    expect(code(runs, dry(WAIT_s * 1000, { reading: undefined }))).toBe("reading missing");
    expect(code(runs, dry(WAIT_s * 1000, { words: " " }))).toBe("reading missing");
    expect(code(runs, dry(WAIT_s * 1000, { reading: 40 }))).toBe("reading not safe");
  });
  test("the watcher called away stops it: what ran counts for nothing", () => {
    const stop = { ...by, type: "stop step", step: "p", at_ms: 5000, words: "fire alarm" } as IsolationCommand;
    const stopped = after(after(full, run(0)), stop);
    expect(code(stopped, dry(WAIT_s * 1000))).toBe("not begun");
    expect(code(after(stopped, run(6000)), dry(WAIT_s * 1000))).toBe("wait not over");
    expect(code(full, stop)).toBe("not begun");
    expect(code(after(after(full, run(0)), dry(WAIT_s * 1000)), { ...stop, at_ms: WAIT_s * 1000 })).toBe("not begun");
  });
  test("the certificate is not written by whoever cleaned it", () => {
    const empty = after(after(full, run(0)), dry(WAIT_s * 1000));
    const late = WAIT_s * 1000;
    const clean = after(empty, finish(late, "c", { words: "hot water, an hour" }));
    const certify = finish(late, "d", { words: "DC-14, the laboratory" });
    expect(code(clean, certify)).toBe("second person needed");
    expect(code(clean, { ...certify, by: WIM } as IsolationCommand)).toBe("done");
  });
});
