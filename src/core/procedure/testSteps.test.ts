import { HARMFUL, SmallPlant } from "../../../tests/support/smallPlant";
import { soundReport } from "../isolation/soundReport";
import { checkIsolation, decideIsolation } from "../isolation/isolationLife";
import { open, type IsolationLife, type WalkStep } from "../isolation/isolation";
import { lockedPoints } from "../isolation/lockedPoints";
import type { PersonId } from "../people/roles";
import { mergeSteps } from "../isolation/mergeSteps";
import { stepsOf } from "./sequence";
import { facesBehind } from "./testSteps";
import { walkFacts } from "../../../tests/support/walkFacts";

const [ANN, BEN] = ["ann", "ben"] as [PersonId, PersonId];
const plant = new SmallPlant()
  .source("S", "fluid", HARMFUL)
  .device("V-1", "fluid")
  .device("V-2", "fluid")
  .device("V-3", "fluid")
  .item("SP", "pipe")
  .item("P", "pump")
  .source("NET", "power")
  .device("Q", "power", { kind: "isolator" })
  .item("M", "motor", { voltage_V: 400, system: "3-phase" })
  .line("fluid", "S", "V-3", "V-1", "SP", "V-2", "P")
  .line("power", "NET", "Q", "M")
  .line("shaft", "M", "P")
  .bleed("BL", "SP")
  .bleed("BW", "P");
const faces = [
  { place: "P", how: ["open" as const, "touch" as const] },
  { place: "M", how: ["touch" as const] },
];
const plan = plant.plan(faces);
const fresh: IsolationLife = {
  number: "S-1",
  state: "isolating",
  steps: stepsOf(plan, plant.graph, faces).map(open),
};

/** Does every step of the phases that may be done now, Ann hanging locks and Ben looking and proving. */
function walk(start: IsolationLife, until: (life: IsolationLife, step: WalkStep) => boolean = () => false) {
  let life = start;
  // A number that hangs nowhere yet.
  let lock = Math.max(0, ...life.steps.map((step) => Number(step.done?.lock?.slice(2) ?? 0)));
  for (;;) {
    const done = new Set(life.steps.filter((step) => step.done).map(({ id }) => id));
    const phase = { isolating: "isolate", testing: "test", restoring: "restore" }[life.state as "isolating"];
    const step = life.steps.find((one) => one.phase === phase && !one.done && one.after.every((id) => done.has(id)));
    if (step === undefined || until(life, step)) return life;
    const second = step.kind === "prove" || step.kind === "verify";
    const decided = decideIsolation(
      life,
      {
        type: "do step",
        step: step.id,
        by: second ? BEN : ANN,
        competences: ["electrical", "high-voltage", "mechanical", "process"],
        roles: ["operator"],
        at_ms: 1,
        ...soundReport(step, { lock: `L-${++lock}`, people: 2 }),
      },
      walkFacts(),
    );
    if (!decided.ok) throw new Error(`${step.kind} ${step.subject}: ${decided.refusal.code}`);
    life = decided.value;
    checkIsolation(life);
  }
}
const proven = walk(fresh);
const start = (lift: string[], facts = walkFacts(), life = proven) =>
  decideIsolation(
    life,
    { type: "start test", by: ANN, at_ms: 2, lift, proveAgain: facesBehind(plan.routes, plan.points, lift) },
    facts,
  );

describe("a temporary de-isolation", () => {
  test("is started only over nobody, and lifts only what is locked", () => {
    expect(proven.state).toBe("proven");
    expect(start(["Q"], walkFacts({ peopleOn: ["Nell"] }))).toMatchObject({ refusal: { code: "people on" } });
    expect(start(["V-9"])).toMatchObject({ refusal: { code: "unknown" } });
    expect(start([])).toMatchObject({ refusal: { code: "unknown" } });
    expect(start(["Q"], walkFacts(), fresh)).toMatchObject({ refusal: { code: "wrong state" } });
  });
  test("lifts, tests, locks again and proves again, and is proven only then", () => {
    const started = start(["Q"]);
    if (!started.ok) throw new Error(started.refusal.code);
    expect(started.value.state).toBe("testing");
    const lifted = walk(started.value, (_, step) => step.kind === "test run");
    expect(lockedPoints(lifted).map(({ subject }) => subject)).not.toContain("Q");
    expect(lockedPoints(lifted)).toHaveLength(lockedPoints(proven).length - 1);
    const again = walk(lifted);
    expect(again.state).toBe("proven");
    expect(
      lockedPoints(again)
        .map(({ subject }) => subject)
        .sort(),
    ).toEqual(
      lockedPoints(proven)
        .map(({ subject }) => subject)
        .sort(),
    );
    const order = again.steps.filter((step) => step.phase === "test").map((step) => step.kind);
    const at = (kind: string) => order.indexOf(kind as never);
    expect([at("open box"), at("unlock"), at("test run"), at("stop"), at("lock"), at("prove")]).toEqual(
      [at("open box"), at("unlock"), at("test run"), at("stop"), at("lock"), at("prove")].sort((a, b) => a - b),
    );
    expect(order.at(-1)).toBe("close box");
    // Proved by somebody who hung no lock of it, at every face the point held.
    const proved = again.steps.filter((step) => step.phase === "test" && step.kind === "prove");
    expect(new Set(proved.map(({ subject }) => subject))).toEqual(new Set(["M", "P"]));
    expect(proved.every((step) => step.done?.by === BEN)).toBe(true);
  });
  test("shuts the bleeds before a flow is let in, and opens them again", () => {
    const started = start(["V-2"]);
    if (!started.ok) throw new Error(started.refusal.code);
    const kinds = started.value.steps
      .filter((step) => step.phase === "test")
      .map((step) => `${step.kind} ${step.subject}`);
    expect(kinds.indexOf("close bleed BW")).toBeLessThan(kinds.indexOf("unlock V-2"));
    expect(kinds.indexOf("bleed BW")).toBeGreaterThan(kinds.indexOf("lock V-2"));
    expect(kinds.some((kind) => kind.startsWith("remove earth"))).toBe(false);
  });
  test("is refused over a person at every step that could light something", () => {
    const started = start(["Q"]);
    if (!started.ok) throw new Error(started.refusal.code);
    for (const step of started.value.steps.filter((one) => one.phase === "test" && one.after.length === 0)) {
      const tried = decideIsolation(
        started.value,
        { type: "do step", step: step.id, by: ANN, competences: [], roles: [], at_ms: 3, ...soundReport(step) },
        walkFacts({ peopleOn: ["Nell"] }),
      );
      expect(tried).toMatchObject({ ok: false, refusal: { code: "people on" } });
    }
  });
  test("may be done twice, and the return then lifts every point once", () => {
    let life = proven;
    for (const lift of [["Q"], ["Q", "V-2"]]) {
      const started = start(lift, walkFacts(), life);
      if (!started.ok) throw new Error(started.refusal.code);
      life = walk(started.value);
    }
    expect(new Set(life.steps.map(({ id }) => id)).size).toBe(life.steps.length);
    const back = decideIsolation(
      life,
      { type: "start return", roles: ["coordinator"], by: ANN, at_ms: 4 },
      walkFacts(),
    );
    if (!back.ok) throw new Error(back.refusal.code);
    const over = walk(back.value);
    expect(over.state).toBe("restored");
    expect(lockedPoints(over)).toEqual([]);
  });
});

describe("planning again in the middle of a walk", () => {
  const half = walk(fresh, (_, step) => step.kind === "bleed");
  const stuckAt = (life: IsolationLife, kind: string) => life.steps.find((step) => step.kind === kind && !step.done)!;
  test("a stuck step is not done, nor skipped, until it is freed or planned again", () => {
    const step = stuckAt(half, "bleed");
    const stuck = decideIsolation(
      half,
      { type: "cannot", step: step.id, why: "broken", words: "handle is gone", by: ANN, at_ms: 3 },
      walkFacts(),
    );
    if (!stuck.ok) throw new Error(stuck.refusal.code);
    checkIsolation(stuck.value);
    const tried = decideIsolation(
      stuck.value,
      { type: "do step", step: step.id, by: ANN, competences: ["process"], roles: [], at_ms: 3, ...soundReport(step) },
      walkFacts(),
    );
    expect(tried).toMatchObject({ ok: false, refusal: { code: "stuck", why: "broken" } });
    const freed = decideIsolation(
      stuck.value,
      { type: "can", step: step.id, words: "another handle", by: BEN, at_ms: 4 },
      walkFacts(),
    );
    expect(freed.ok && walk(freed.value).state).toBe("proven");
  });
  test("what hangs stays hung, and comes off on the way back though the new plan does not want it", () => {
    const next = plant.plan(faces, { struck: ["V-1"] });
    const held = lockedPoints(half).map(({ subject }) => subject);
    const merged = mergeSteps(half.steps, stepsOf(next, plant.graph, faces));
    const life: IsolationLife = { ...half, steps: merged };
    checkIsolation(life);
    for (const tag of held) expect(lockedPoints(life).map(({ subject }) => subject)).toContain(tag);
    const over = walk(life);
    expect(over.state).toBe("proven");
    const back = decideIsolation(
      over,
      { type: "start return", roles: ["coordinator"], by: ANN, at_ms: 9 },
      walkFacts(),
    );
    if (!back.ok) throw new Error(back.refusal.code);
    const restored = walk(back.value);
    expect(restored.state).toBe("restored");
    expect(lockedPoints(restored)).toEqual([]);
  });
  test("a proof that came before a new lock is done again", () => {
    const late = walk(fresh, (life, step) => step.kind === "close box");
    const next = plant.plan(faces, { struck: ["V-1"] });
    const merged = mergeSteps(late.steps, stepsOf(next, plant.graph, faces));
    const added = merged.find((step) => step.kind === "lock" && !step.done);
    expect(added).toBeDefined();
    expect(merged.filter((step) => step.kind === "prove" && step.done)).toEqual([]);
    checkIsolation({ ...late, steps: merged });
  });
});
