import type { PlannedStep } from "../procedure/steps";
import type { IsolationLife, WalkStep } from "../isolation/isolation";
import type { PersonId } from "../people/roles";
import type { PermitLife } from "../permit/record/permitTypes";
import { nextAct } from "./nextAct";

const person = "p" as PersonId;
const planned = (id: string, kind: PlannedStep["kind"], after: string[] = []): PlannedStep => ({
  id,
  phase: kind === "unlock" || kind === "hand over" ? "restore" : "isolate",
  kind,
  subject: kind === "tell" ? "P" : "V-1",
  plate: null,
  words: "",
  competence: kind === "lock" ? "process" : null,
  after,
  carrier: null,
  limit: null,
  secondPerson: false,
});
const doneStep = (step: PlannedStep): WalkStep => ({
  ...step,
  done: { by: person, at_ms: 0, lock: null, reading: null, skipped: false, evidence: null },
  stuck: null,
});
const openStep = (step: PlannedStep): WalkStep => ({ ...step, done: null, stuck: null });
const isolation = (state: IsolationLife["state"], steps: WalkStep[] = []): IsolationLife => ({
  number: "S-1",
  state,
  steps,
});
const permit = (state: PermitLife["state"], rest: Partial<PermitLife> = {}): PermitLife => ({
  number: "P-1",
  details: { kind: "general" },
  log: [],
  state,
  holder: person,
  issuer: null,
  closedBy: null,
  validFrom_ms: 0,
  validTo_ms: 1000,
  signOns: [],
  ...rest,
});
const open = { state: "open" } as const;

describe("the one next act", () => {
  test("of a closed job is none", () => {
    expect(nextAct({ state: "closed" }, null, [], 0)).toBeNull();
  });
  test("of a job without an isolation is to approve one", () => {
    expect(nextAct(open, null, [], 0)).toMatchObject({ stage: "points", who: ["coordinator"], urgent: false });
  });
  test("of a walk is its first step that may be done, with how many are left", () => {
    const steps = [
      doneStep(planned("a", "tell")),
      openStep(planned("b", "lock", ["a"])),
      openStep(planned("c", "close box", ["b"])),
    ];
    expect(nextAct(open, isolation("isolating", steps), [], 0)).toMatchObject({
      stage: "walk",
      words: "Lock V-1 (2 steps left)",
      who: ["isolator"],
    });
  });
  test("of a return is said as the last step when it is", () => {
    const steps = [openStep(planned("a", "hand over"))];
    expect(nextAct(open, isolation("restoring", steps), [], 0)).toMatchObject({
      stage: "return",
      words: "Hand over V-1 (last step)",
    });
  });
  test.each([
    ["draft", "Check permit P-1", ["coordinator", "issuer"]],
    ["checked", "Authorise permit P-1", ["issuer"]],
    ["authorised", "Issue permit P-1", ["issuer"]],
    ["issued", "Accept permit P-1", ["holder"]],
    ["live", "Sign on, or hand back", ["worker", "holder"]],
    ["suspended", "Permit P-1 is stopped: look, then let it go on or end it", ["issuer", "holder"]],
    ["watching", "Watch after hot work under permit P-1", ["fire watch"]],
    ["work done", "Inspect and close permit P-1", ["issuer"]],
  ] as const)("of a permit that is %s", (state, words, who) => {
    expect(nextAct(open, isolation("proven"), [permit(state)], 0)).toMatchObject({ words, who, stage: "permits" });
  });
  test("a live permit that has run out comes before everything, and is urgent", () => {
    const on = [{ person, lock: "L", points: {}, on_ms: 0, off_ms: null }];
    expect(nextAct(open, isolation("proven"), [permit("draft"), permit("live", { signOns: on })], 1000)).toMatchObject({
      urgent: true,
      words: "Permit P-1 has run out: stop work, sign off",
    });
  });
  test("with every permit closed the return may start; once restored the job is closed", () => {
    expect(nextAct(open, isolation("proven"), [permit("closed")], 0)?.stage).toBe("return");
    expect(nextAct(open, isolation("restored"), [permit("closed")], 0)?.words).toBe("Close the job");
    expect(nextAct(open, isolation("proven"), [permit("cancelled")], 0)?.words).toBe("Write the permit");
  });
});

test("an isolation that stands past its review is urgent, after a permit that has run out", () => {
  const standing = isolation("proven");
  expect(nextAct(open, standing, [], 99, 100)?.urgent).toBe(false);
  expect(nextAct(open, standing, [], 100, 100)).toMatchObject({ stage: "walk", who: ["coordinator"], urgent: true });
  const overrun = permit("live", { signOns: [] });
  expect(nextAct(open, standing, [overrun], 1000, 100)?.words).toContain("has run out");
});
