import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import type { PersonId } from "../people/roles";
import { checkIsolation, decideIsolation } from "./isolationLife";
import { mergeSteps } from "./mergeSteps";
import {
  type IsolationCommand,
  type IsolationFacts,
  type StepCommand,
  type IsolationLife,
  type WalkStep,
} from "./isolation";
import type { Gear } from "../gear/gear";
import { lockedPoints } from "./lockedPoints";

const ANN = "ann" as PersonId;
const BEN = "ben" as PersonId;
const CAS = "cas" as PersonId;
const step = (
  id: string,
  kind: WalkStep["kind"],
  subject: string,
  after: string[],
  more: Partial<WalkStep> = {},
): WalkStep => ({
  id,
  phase: id.startsWith("r") ? "restore" : "isolate",
  kind,
  subject,
  plate: kind === "lock" || kind === "unlock" ? subject : null,
  words: "",
  competence: kind === "lock" ? "process" : null,
  after,
  carrier: null,
  limit: null,
  secondPerson: false,
  done: null,
  stuck: null,
  ...more,
});
const fresh: IsolationLife = {
  number: "S-1",
  state: "isolating",
  steps: [
    step("i1", "tell", "P-1", []),
    step("i2", "lock", "V-1", ["i1"]),
    step("i3", "lock", "V-2", ["i1"]),
    step("i4", "prove", "P-1", ["i2", "i3"], {
      limit: { most: 5, unit: "V" },
      pairs: ["L1–L2"],
      secondPerson: true,
    }),
    step("r1", "clear", "P-1", []),
    step("r2", "unlock", "V-1", ["r1"]),
    step("r3", "unlock", "V-2", ["r1", "r2"]),
  ],
};
const thing = (number: string): Gear => ({
  kind: "voltage tester",
  number,
  owner: null,
  key: null,
  inDateUntil_ms: 1e15,
  rating_V: 1000,
  error: null,
  withdrawn: false,
  withdrawnBy: null,
  bumpedAt_ms: null,
  zeroedAt_ms: null,
  sheet: null,
  withJob: null,
});
const quiet: IsolationFacts = {
  lockHangs: () => undefined,
  peopleOn: [],
  standingOn: [],
  openPermits: [],
  workLeft: [],
  heldByOthers: () => [],
  approvedAt_ms: 0,
  timeOf: (at_ms) => String(at_ms),
  waitOf: () => ({ least_s: 0, because: null, isAssumed: false }),
  watches: () => null,
  planFell: false,
  alone: null,
  nameOf: (id) => id,
  gear: (kind, number) => (kind === "lock" ? undefined : thing(number)),
  earthStands: () => undefined,
  job: "J-1",
  earthsAt: () => [],
  crewSize: 2,
  leakTest_min: 10,
};
const doIt = (id: string, more: object = {}): StepCommand => ({
  type: "do step",
  step: id,
  by: ANN,
  competences: ["process"],
  roles: ["isolator"],
  at_ms: 1,
  plate: id.endsWith("2") ? "V-1" : "V-2",
  lock: `L-${id}`,
  readings: { "L1–L2": "reading" in more && typeof more.reading === "number" ? more.reading : 0 },
  tester: "VT-1",
  provingUnit: "PU-1",
  provedBefore: true,
  provedAfter: true,
  locksCounted: 0,
  words: "the shift",
  ...more,
});
const after = (...commands: IsolationCommand[]): IsolationLife =>
  commands.reduce((life, command) => {
    const decided = decideIsolation(life, command, quiet);
    if (!decided.ok) throw new Error(decided.refusal.code);
    return decided.value;
  }, fresh);
const codeOf = (life: IsolationLife, command: IsolationCommand, facts = quiet) => {
  const decided = decideIsolation(life, command, facts);
  return decided.ok ? "accepted" : decided.refusal.code;
};
const proven = () => after(doIt("i1"), doIt("i2"), doIt("i3"), doIt("i4", { by: BEN }));

describe("the life of an isolation", () => {
  test("a step waits for the steps before it", () => {
    expect(codeOf(fresh, doIt("i2"))).toBe("out of order");
    expect(codeOf(after(doIt("i1")), doIt("i2"))).toBe("accepted");
  });

  test("a point is locked only with competence, the right plate, and a lock that hangs nowhere", () => {
    const told = after(doIt("i1"));
    expect(codeOf(told, doIt("i2", { competences: ["electrical"] }))).toBe("not competent");
    expect(codeOf(told, doIt("i2", { plate: "V-2" }))).toBe("wrong plate");
    expect(codeOf(told, doIt("i2", { plate: null }))).toBe("wrong plate");
    expect(codeOf(told, doIt("i2", { plate: "v 1" }))).toBe("accepted");
    expect(codeOf(told, doIt("i2", { lock: " " }))).toBe("lock missing");
    expect(codeOf(told, doIt("i2"), { ...quiet, lockHangs: () => "on V-9" })).toBe("lock in use");
  });

  test("what else stops is signed by an operator, nobody else", () => {
    const losses = { ...fresh, steps: [step("i1", "accept losses", "P-1", [], { role: "operator" })] };
    expect(codeOf(losses, doIt("i1", { competences: ["electrical", "mechanical", "process"] }))).toBe(
      "not yours to do",
    );
    expect(codeOf(losses, doIt("i1", { roles: ["operator"], words: " " }))).toBe("reading missing");
    expect(codeOf(losses, doIt("i1", { roles: ["worker", "operator"] }))).toBe("accepted");
  });
  test("a list of losses signed before counts after a new plan only where it says the same", () => {
    const list = (words: string) => step("i1", "accept losses", "P-1", [], { role: "operator", words });
    const signed: WalkStep = { ...list("P-2 runs dry"), done: { ...after(doIt("i1")).steps[0]!.done! } };
    const merged = (words: string) => mergeSteps([signed], [list(words)])[0]!.done;
    expect(merged("P-2 runs dry")).not.toBeNull();
    expect(merged("P-2 runs dry; P-3 runs dry")).toBeNull();
  });

  test("a missing, unsafe or unproved reading blocks, and so does proving one's own locks", () => {
    const locked = after(doIt("i1"), doIt("i2"), doIt("i3"));
    expect(codeOf(locked, doIt("i4", { by: BEN, readings: {} }))).toBe("reading missing");
    expect(codeOf(locked, doIt("i4", { by: BEN, provedAfter: false }))).toBe("tester not proved");
    expect(codeOf(locked, doIt("i4"))).toBe("second person needed");
    expect(proven().state).toBe("proven");
  });

  describe("a proof that fails", () => {
    const locked = after(doIt("i1"), doIt("i2"), doIt("i3"));
    const dead = (more: object = {}) => doIt("i4", { by: BEN, ...more });
    const then = (life: IsolationLife, ...commands: IsolationCommand[]) =>
      commands.reduce((now, command) => {
        const decided = decideIsolation(now, command, quiet);
        if (!decided.ok) throw new Error(decided.refusal.code);
        checkIsolation(decided.value);
        return decided.value;
      }, life);
    const said = (type: "find cause" | "entered in error", by: PersonId): IsolationCommand => ({
      type,
      step: "i4",
      by,
      at_ms: 5,
      words: "fed back by the neighbour's interlock",
    });
    const failing = then(locked, dead({ reading: 230, at_ms: 4 }));

    test("stays in the record with what was seen, and nothing is proved by it", () => {
      for (const reading of [230, -230]) {
        const { steps, state } = then(locked, dead({ reading, at_ms: 4 }));
        expect(state).toBe("isolating");
        expect(steps[3]).toMatchObject({
          done: null,
          failures: [{ what: "not safe", reading: 230, unit: "V", instrument: "VT-1", by: BEN, at_ms: 4, cause: null }],
        });
      }
    });
    test("is not made good by the same person typing nought", () => {
      expect(codeOf(failing, dead())).toBe("cause first");
      const known = then(failing, said("find cause", ANN));
      expect(codeOf(known, dead())).toBe("same hands");
      expect(codeOf(known, dead({ tester: "vt-1" }))).toBe("same hands");
      expect(then(known, dead({ tester: "VT-2" })).state).toBe("proven");
      const other = then(known, doIt("i4", { by: CAS }));
      expect(other.state).toBe("proven");
      expect(other.steps[3]!.failures).toMatchObject([{ cause: { by: ANN }, settled_ms: 5 }]);
    });
    test("fails again as often as it does, each with a cause of its own", () => {
      const twice = then(failing, said("find cause", ANN), doIt("i4", { by: CAS, reading: 12, at_ms: 6 }));
      expect(twice.steps[3]!.failures).toHaveLength(2);
      expect(codeOf(twice, dead({ tester: "VT-3" }))).toBe("cause first");
      expect(codeOf(then(twice, said("find cause", ANN)), dead())).toBe("accepted");
    });
    test("was entered in error only where another person who looked says so; the entry stays", () => {
      expect(codeOf(failing, said("entered in error", BEN))).toBe("another takes it back");
      const back = then(failing, said("entered in error", ANN));
      expect(back.steps[3]!.failures).toMatchObject([{ reading: 230, inError: { by: ANN } }]);
      expect(then(back, dead()).state).toBe("proven");
      expect(codeOf(back, said("find cause", ANN))).toBe("nothing failed");
    });
    test("after it was proved before takes the proof away, and gives it back where it was entered in error", () => {
      const again: IsolationCommand = { ...dead({ reading: 230, at_ms: 4 }), type: "prove again" };
      const fallen = then(proven(), again);
      expect(fallen.state).toBe("isolating");
      expect(then(fallen, said("entered in error", CAS)).state).toBe("proven");
      expect(codeOf(fallen, dead())).toBe("cause first");
      expect(then(fallen, said("find cause", CAS), doIt("i4", { by: CAS })).state).toBe("proven");
    });
    test("is carried over to a new plan, and answered there", () => {
      const planned = fresh.steps.map(({ done: _, stuck: __, ...one }) => one);
      const anew = then(failing, { type: "re-plan", by: ANN, at_ms: 6, steps: planned });
      const proof = anew.steps.find(({ kind }) => kind === "prove")!;
      expect(proof.failures).toHaveLength(1);
      expect(codeOf(anew, { ...dead(), step: proof.id })).toBe("cause first");
    });
    test("of a start that starts likewise", () => {
      const tries: IsolationLife = {
        ...fresh,
        steps: [step("i1", "try start", "P-1", [], { ways: ["at the machine"] })],
      };
      const started = then(tries, doIt("i1", { tried: ["at the machine"], started: true }));
      expect(started).toMatchObject({
        state: "isolating",
        steps: [{ failures: [{ what: "started", instrument: "VT-1" }] }],
      });
      expect(codeOf(tries, doIt("i1", { tried: ["at the machine"] }))).toBe("accepted");
    });
  });

  test("what cannot be done is freed by another person, and never where the plant does not do what the plan says", () => {
    const stuck = (why: "broken" | "blocked" | "passes" | "creeps") =>
      after(doIt("i1"), { type: "cannot", step: "i2", why, words: "see there", by: ANN, at_ms: 2 });
    const free = (by: PersonId): IsolationCommand => ({ type: "can", step: "i2", words: "mended", by, at_ms: 3 });
    expect(codeOf(stuck("broken"), free(ANN))).toBe("another frees it");
    expect(codeOf(stuck("broken"), free(BEN))).toBe("accepted");
    for (const why of ["blocked", "passes", "creeps"] as const) {
      expect(codeOf(stuck(why), free(BEN))).toBe("needs another plan");
    }
  });

  test("a plan that fell under a proven isolation is planned anew once everybody is off", () => {
    const steps = [...fresh.steps, step("i5", "lock", "V-9", ["i1"]), step("r9", "unlock", "V-9", ["r1"])].map(
      ({ done: _, stuck: __, ...one }) => one,
    );
    const anew: IsolationCommand = { type: "re-plan", by: ANN, at_ms: 3, steps };
    expect(codeOf(proven(), anew)).toBe("wrong state");
    expect(codeOf(proven(), anew, { ...quiet, planFell: true, peopleOn: ["Ben"] })).toBe("people on");
    const decided = decideIsolation(proven(), anew, { ...quiet, planFell: true });
    if (!decided.ok) throw new Error("refused");
    checkIsolation(decided.value);
    expect(decided.value.state).toBe("isolating");
    // Where the new plan wants nothing more it stands at once.
    const same: IsolationCommand = { ...anew, steps: steps.slice(0, -2) };
    expect(decideIsolation(proven(), same, { ...quiet, planFell: true })).toMatchObject({ value: { state: "proven" } });
  });

  test("a point that another isolation holds is not lifted for a test, and nothing behind it is started", () => {
    const shared = { ...quiet, heldByOthers: (point: string) => (point === "V-1" ? ["S-2"] : []) };
    const test = (lift: string[]): IsolationCommand => ({
      type: "start test",
      by: ANN,
      at_ms: 3,
      lift,
      proveAgain: [],
    });
    expect(codeOf(proven(), test(["V-1"]), shared)).toBe("held by others");
    expect(codeOf(proven(), test(["V-2"]), shared)).toBe("accepted");
    const steps = [...fresh.steps, step("r4", "start", "P-1", ["r3"])];
    const back = after(doIt("i1"), doIt("i2"), doIt("i3"), doIt("i4", { by: BEN }), {
      type: "start return",
      roles: ["coordinator"],
      by: ANN,
      at_ms: 2,
    });
    const all = [doIt("r1"), doIt("r2"), doIt("r3")].reduce<IsolationLife>(
      (life, command) => {
        const decided = decideIsolation(life, command, shared);
        if (!decided.ok) throw new Error(decided.refusal.code);
        return decided.value;
      },
      { ...back, steps: [...back.steps, steps.at(-1)!] },
    );
    expect(all.steps.find(({ id }) => id === "r2")!.done!.evidence).toEqual({ stays: ["S-2"] });
    expect(all.steps.find(({ id }) => id === "r3")!.done!.evidence).toBeNull();
    expect(codeOf(all, doIt("r4"), shared)).toBe("held by others");
    expect(codeOf(all, doIt("r4"))).toBe("accepted");
  });

  test("nothing is lifted while anyone is on, a permit is open, or the count of locks differs", () => {
    const start: IsolationCommand = { type: "start return", roles: ["coordinator"], by: ANN, at_ms: 2 };
    expect(codeOf(proven(), start, { ...quiet, peopleOn: ["Ben"] })).toBe("people on");
    expect(codeOf(proven(), start, { ...quiet, openPermits: ["P-1"] })).toBe("permits open");
    expect(codeOf(proven(), doIt("r2"))).toBe("wrong state");
    const clear = after(doIt("i1"), doIt("i2"), doIt("i3"), doIt("i4", { by: BEN }), start, doIt("r1"));
    expect(codeOf(clear, doIt("r2"), { ...quiet, peopleOn: ["Ben"] })).toBe("people on");
    expect(codeOf(clear, doIt("r2", { locksCounted: 1 }))).toBe("count differs");
    expect(codeOf(clear, doIt("r2", { locksCounted: null }))).toBe("reading missing");
    expect(codeOf(clear, doIt("r3"))).toBe("out of order");
    expect(codeOf(clear, doIt("r2"))).toBe("accepted");
  });

  test("a job given up halfway returns only what was locked", () => {
    const given = after(doIt("i1"), doIt("i2"), { type: "start return", roles: ["coordinator"], by: ANN, at_ms: 2 });
    expect(given.steps.find(({ id }) => id === "r3")?.done).toMatchObject({ skipped: true });
    expect(lockedPoints(given).map(({ subject }) => subject)).toEqual(["V-1"]);
  });

  test("over any sequence of acts its invariants hold, and both ends are reached", () => {
    const states = new Set<string>();
    const anyCommand = fc.oneof(
      {
        weight: 60,
        arbitrary: fc
          .record({
            step: fc.constantFrom(...fresh.steps.map(({ id }) => id)),
            by: fc.constantFrom(ANN, ANN, BEN, CAS),
            lock: fc.constantFrom("L-1", "L-2", "L-3", ""),
            plate: fc.constantFrom("V-1", "V-2", "V-2", null),
            reading: fc.constantFrom(0, 0, 0, 230),
            locksCounted: fc.constantFrom(0, 0, 1, null),
          })
          .map((pick): IsolationCommand => doIt(pick.step, pick)),
      },
      {
        weight: 20,
        arbitrary: fc
          .record({
            type: fc.constantFrom("find cause" as const, "entered in error" as const),
            step: fc.constantFrom(...fresh.steps.map(({ id }) => id)),
            by: fc.constantFrom(ANN, BEN, CAS),
          })
          .map((pick): IsolationCommand => ({ ...pick, at_ms: 2, words: "a lead left on" })),
      },
      {
        weight: 1,
        arbitrary: fc.constant<IsolationCommand>({ type: "start return", roles: ["coordinator"], by: ANN, at_ms: 3 }),
      },
    );
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            anyCommand,
            fc.nat(9).map((n) => n < 2),
          ),
          { minLength: 60, maxLength: 240 },
        ),
        (commands) => {
          let life = fresh;
          for (const [command, somebodyOn] of commands) {
            const hung = new Set(lockedPoints(life).map(({ done }) => done?.lock));
            const peopleOn = somebodyOn ? ["Ben"] : [];
            const facts = {
              ...quiet,
              peopleOn,
              lockHangs: (lock: string) => (hung.has(lock) ? "on a point" : undefined),
            };
            const decided = decideIsolation(life, command, facts);
            if (!decided.ok) continue;
            if (somebodyOn)
              expect(lockedPoints(decided.value).length).toBeGreaterThanOrEqual(lockedPoints(life).length);
            life = decided.value;
            checkIsolation(life);
            states.add(life.state);
          }
        },
      ),
      propertyRuns(200),
    );
    expect([...states].sort()).toEqual(["isolating", "proven", "restored", "restoring"]);
  });
});
