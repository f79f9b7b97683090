import { DETAILS, draftOf, HOUR, wellFacts } from "../../../tests/support/permits";
import type { PermitDetails } from "../permit/kinds/details";
import { PERMIT_KINDS } from "../permit/kinds/kinds";
import { authorisedApart } from "./authorisedApart";

const apart = (details: PermitDetails, facts: Parameters<typeof wellFacts>[0] = {}) =>
  authorisedApart({ permit: draftOf(details), facts: wellFacts(facts) });

test("one signature on the spot is enough for plain work only", () => {
  expect(PERMIT_KINDS.filter((kind) => apart(DETAILS[kind]) === null)).toEqual([
    "general",
    "electrical work",
    "work at height",
  ]);
});

test("live conductors, earths off for a test and high voltage are looked at apart", () => {
  const electrical = DETAILS["electrical work"];
  expect(apart({ ...electrical, live: true, liveReason: "fault-finding" })).toContain("live");
  expect(apart({ ...electrical, sanction: true })).toContain("earths off");
  expect(apart({ ...electrical, voltage_V: 999 })).toBeNull();
  expect(apart({ ...electrical, voltage_V: 1000 })).toContain("high voltage");
});

test("so is what was accepted below the rules, and what touches another permit", () => {
  const clash = { permit: "P-2", kind: "same person", words: "One person on both." } as never;
  expect(apart(DETAILS.general, { clashes: [clash] })).toContain("other permits");
  expect(apart(DETAILS.general, { acceptedUntil_ms: HOUR })).toContain("below the rules");
  const standIn = { measure: "watcher", words: "Somebody at the gauge", face: "P", sources: ["S"] } as never;
  expect(apart(DETAILS.general, { standIns: [standIn] })).toContain("below the rules");
});
