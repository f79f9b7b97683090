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
  planFell: false,
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
    expect(codeOf(locked, doIt("i4", { by: BEN, reading: 230 }))).toBe("reading not safe");
    expect(codeOf(locked, doIt("i4", { by: BEN, reading: -230 }))).toBe("reading not safe");
    expect(codeOf(locked, doIt("i4", { by: BEN, provedAfter: false }))).toBe("tester not proved");
    expect(codeOf(locked, doIt("i4"))).toBe("second person needed");
    expect(proven().state).toBe("proven");
  });

  test("nothing is lifted while anyone is on, a permit is open, or the count of locks differs", () => {
    const start: IsolationCommand = { type: "start return", by: ANN, at_ms: 2 };
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
    const given = after(doIt("i1"), doIt("i2"), { type: "start return", by: ANN, at_ms: 2 });
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
      { weight: 1, arbitrary: fc.constant<IsolationCommand>({ type: "start return", by: ANN, at_ms: 3 }) },
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
