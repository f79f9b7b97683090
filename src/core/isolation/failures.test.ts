import type { PersonId } from "../people/roles";
import type { Done, WalkStep } from "./isolation";
import { shownOf } from "./failures";

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
