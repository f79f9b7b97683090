import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import type { PersonId, Role } from "../people/roles";
import {
  ATTEMPTS_ASKED,
  checkRemoval,
  decideRemoval,
  removalState,
  type ForcedRemoval,
  type RemovalCommand,
  type RemovalState,
} from "./forcedRemoval";

const person = (name: string) => name as PersonId;
const [owner, asker, manager, cutter] = ["owner", "asker", "manager", "cutter"].map(person) as [
  PersonId,
  PersonId,
  PersonId,
  PersonId,
];
const ROLES: Readonly<Record<string, readonly Role[]>> = {
  manager: ["approver"],
  asker: ["coordinator"],
  cutter: ["isolator"],
};

const opened = (by = asker): ForcedRemoval => ({
  permit: "P-1",
  lock: "L-9",
  owner,
  reason: "left on after the shift",
  opened: { by, at_ms: 0, words: "left on after the shift" },
  lookedFor: null,
  attempts: [],
  authorised: null,
  cut: null,
  read: null,
  calledOff: null,
});
const facts = { isOn: true, nameOf: (id: PersonId) => String(id) };

function run(start: ForcedRemoval, ...commands: readonly (readonly [RemovalCommand["type"], PersonId, string?])[]) {
  let removal = start;
  let refusal: string | null = null;
  commands.forEach(([type, by, words = "said"], i) => {
    const decided = decideRemoval(removal, { type, by, roles: ROLES[by] ?? [], at_ms: i + 1, words }, facts);
    if (decided.ok) removal = decided.value;
    else refusal = decided.refusal.code;
    checkRemoval(removal);
  });
  return { removal, state: removalState(removal), refusal };
}

const UNTIL_CUT = [
  ["looked for", asker],
  ["tried to reach", asker],
  ["tried to reach", cutter],
  ["authorise", manager],
  ["cut", cutter],
] as const;

describe("cutting a lock", () => {
  test("goes by search, attempts, a manager, a cutter, and the owner reads it", () => {
    expect(run(opened(), ...UNTIL_CUT).state).toBe("cut");
    expect(run(opened(), ...UNTIL_CUT, ["read", owner]).state).toBe("told");
  });
  test("is not authorised before the search and both attempts, nor by anybody but an approver", () => {
    expect(run(opened(), ["authorise", manager]).refusal).toBe("wrong state");
    expect(run(opened(), ["looked for", asker], ["tried to reach", asker], ["authorise", manager]).refusal).toBe(
      "out of order",
    );
    expect(run(opened(), ...UNTIL_CUT.slice(0, 3), ["authorise", asker]).refusal).toBe("not yours to do");
  });
  test("is not authorised by who asked for it, nor cut by who authorised it", () => {
    expect(run(opened(manager), ...UNTIL_CUT.slice(0, 3), ["authorise", manager]).refusal).toBe("second person needed");
    expect(run(opened(), ...UNTIL_CUT.slice(0, 4), ["cut", manager]).refusal).toBe("second person needed");
  });
  test("is not the owner's to search for, authorise or cut, and nobody else's to read", () => {
    expect(run(opened(), ["looked for", owner]).refusal).toBe("own lock");
    expect(run(opened(), ...UNTIL_CUT.slice(0, 4), ["cut", owner]).refusal).toBe("own lock");
    expect(run(opened(), ...UNTIL_CUT, ["read", asker]).refusal).toBe("not the holder");
  });
  test("asks for words: an empty search or attempt is none", () => {
    expect(run(opened(), ["looked for", asker, "  "]).refusal).toBe("reading missing");
  });
  test("stops when the owner comes, and when the lock is gone", () => {
    expect(run(opened(), ...UNTIL_CUT.slice(0, 4), ["call off", asker], ["cut", cutter]).state).toBe("called off");
    const gone = decideRemoval(
      opened(),
      { type: "looked for", by: asker, roles: [], at_ms: 1, words: "x" },
      { ...facts, isOn: false },
    );
    expect(!gone.ok && gone.refusal.code).toBe("already done");
  });
  test("keeps its invariants whatever anybody does in whatever order, and reaches every state", () => {
    const reached = new Set<RemovalState>();
    const command = fc.record({
      // Calling it off ends everything, so it is rare: else the later states are hardly met.
      type: fc.oneof(
        {
          weight: 40,
          arbitrary: fc.constantFrom<RemovalCommand["type"]>(
            "looked for",
            "tried to reach",
            "authorise",
            "cut",
            "read",
          ),
        },
        { weight: 1, arbitrary: fc.constant<RemovalCommand["type"]>("call off") },
      ),
      by: fc.constantFrom(owner, asker, manager, cutter),
      words: fc.constantFrom("said", "said", "said", ""),
      roles: fc.subarray<Role>(["approver", "coordinator", "isolator"]),
    });
    fc.assert(
      fc.property(
        fc.constantFrom(asker, manager),
        fc.array(command, { minLength: 30, maxLength: 60 }),
        (by, commands) => {
          let removal = opened(by);
          commands.forEach((one, i) => {
            const decided = decideRemoval(removal, { ...one, at_ms: i + 1 }, facts);
            if (decided.ok) removal = decided.value;
            checkRemoval(removal);
            reached.add(removalState(removal));
          });
          if (removal.cut) expect(removal.attempts.length).toBeGreaterThanOrEqual(ATTEMPTS_ASKED);
        },
      ),
      propertyRuns(200),
    );
    expect([...reached].sort()).toEqual(["authorised", "called off", "cut", "missing", "opened", "told"]);
  });
});
