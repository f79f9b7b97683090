import type { NotHeld } from "../refusal/notHeld";
import { shownNow } from "./shownNow";
import type { PersonId } from "../people/roles";
import type { Done, WalkStep } from "./isolation";

const done: Done = { by: "p1" as PersonId, at_ms: 1, lock: null, reading: 0, skipped: false, evidence: null };
const proof = (subject: string): WalkStep => ({
  id: subject,
  phase: "isolate",
  kind: "prove",
  subject,
  plate: null,
  words: "prove",
  competence: null,
  after: [],
  carrier: "fluid",
  limit: null,
  secondPerson: false,
  done,
  stuck: null,
});
const STEPS = [proof("P"), proof("T")];
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
