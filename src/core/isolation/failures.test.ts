import type { PersonId } from "../people/roles";
import type { Done, WalkStep } from "./isolation";
import type { NotHeld } from "../refusal/notHeld";
import { shownNow, shownOf } from "./failures";

const done: Done = { by: "p1" as PersonId, at_ms: 1, lock: null, reading: 0, skipped: false, evidence: null };
const proof = (subject: string, carrier: WalkStep["carrier"], more: Partial<WalkStep> = {}): WalkStep => ({
  id: `${subject} ${carrier}`,
  phase: "isolate",
  kind: "prove",
  subject,
  plate: null,
  words: "prove",
  competence: null,
  after: [],
  carrier,
  limit: null,
  secondPerson: false,
  done,
  stuck: null,
  ...more,
});

test("a work location is shown as proven only where each of its proofs is done, stands, and counts still", () => {
  const steps = [proof("P", "fluid"), proof("P", "power"), proof("T", "fluid")];
  expect(shownOf(steps, [])).toEqual({ proven: ["P", "T"], notProved: [] });
  expect(shownOf(steps, ["prove P (power), older than 12 h"])).toEqual({ proven: ["T"], notProved: [] });
  expect(shownOf([...steps, proof("T", "heat", { done: null })], [])).toEqual({ proven: ["P"], notProved: [] });
});

const STEPS = [proof("P", "fluid"), proof("T", "fluid")];
const fell = (more: Partial<Extract<NotHeld, { code: "plan fell" }>>): NotHeld => ({
  code: "plan fell",
  isolation: "S-1",
  revision: 2,
  missingFaces: [],
  lostPoints: [],
  short: [],
  ...more,
});

test.each<[string, NotHeld | null, string[]]>([
  ["nothing is against it", null, ["P", "T"]],
  ["other steps are open", { code: "not proven", isolation: "S-1", state: "isolating", openSteps: 2 }, ["P", "T"]],
  ["nobody judged it on today's register", { code: "not judged", isolation: "S-1", revision: 2 }, []],
  ["a lock was not found", { code: "locks not found", isolation: "S-1", points: ["V-1"] }, []],
  ["a point is gone from the register", fell({ lostPoints: ["V-1"] }), []],
  ["a path to one of them is open", fell({ short: [{ source: "S", face: "P", depth: 0 }] }), ["T"]],
  ["one of them is gone", fell({ missingFaces: ["T"] }), ["P"]],
])("where %s, only what counts is said to be proved", (_, fault, proven) => {
  const shown = shownNow(STEPS, fault, []);
  expect(shown.proven).toEqual(proven);
  expect([...shown.proven, ...shown.notProved].sort()).toEqual(["P", "T"]);
});
