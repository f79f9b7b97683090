import { walkFacts } from "../../../tests/support/walkFacts";
import type { PersonId } from "../people/roles";
import type { IsolationCommand, IsolationFacts, IsolationLife, StepCommand, WalkStep } from "./isolation";
import { decideIsolation } from "./isolationLife";

const ANN = "ann" as PersonId;
const BEN = "ben" as PersonId;
const step = (id: string, phase: WalkStep["phase"], kind: WalkStep["kind"]): WalkStep => ({
  id,
  phase,
  kind,
  subject: "DR",
  plate: null,
  words: "",
  competence: null,
  after: [],
  carrier: null,
  limit: null,
  secondPerson: false,
  done: null,
  stuck: null,
});
const plain: IsolationLife = {
  number: "S-1",
  state: "isolating",
  steps: [step("i1", "isolate", "tell"), step("r1", "restore", "clear")],
};
const TELL: StepCommand = {
  type: "do step",
  step: "i1",
  by: ANN,
  competences: [],
  roles: ["isolator"],
  at_ms: 1,
  words: "Control room",
};

test("of a minor isolation only who works alone does a step, begins restoring and says what cannot be done", () => {
  const alone = walkFacts({ alone: ANN });
  const life = { ...plain, steps: plain.steps.map((step) => ({ ...step, alone: true as const })) };
  const code = (command: IsolationCommand, facts: IsolationFacts = alone) => {
    const decided = decideIsolation(life, command, facts);
    return decided.ok ? "ok" : decided.refusal.code;
  };
  expect(code(TELL)).toBe("ok");
  expect(code({ ...TELL, by: BEN })).toBe("works alone");
  // Their lock was taken off without them: others put it back.
  expect(code({ ...TELL, by: BEN }, walkFacts())).toBe("ok");
  const back = { type: "start return", at_ms: 2 } as const;
  expect(code({ ...back, by: ANN, roles: ["isolator"] })).toBe("ok");
  expect(code({ ...back, by: BEN, roles: ["isolator"] })).toBe("not yours to do");
  expect(code({ ...back, by: BEN, roles: ["coordinator"] })).toBe("ok");
  expect(code({ type: "re-plan", by: ANN, at_ms: 2, steps: [] })).toBe("short route");
  expect(code({ type: "cannot", step: "i1", why: "broken", words: "bent", by: BEN, at_ms: 2 })).toBe("works alone");
  // Of any other isolation an isolator begins no restoring.
  const decided = decideIsolation(plain, { ...back, by: ANN, roles: ["isolator"] }, walkFacts());
  expect(decided.ok ? "ok" : decided.refusal.code).toBe("not yours to do");
});
