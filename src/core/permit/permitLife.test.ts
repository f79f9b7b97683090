import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import type { PersonId, Role } from "../people/roles";
import {
  checkPermit,
  decidePermit,
  isRunOut,
  peopleOn,
  type PermitCommand,
  type PermitFacts,
  type PermitLife,
} from "./permitLife";

const [ISA, HAL, WIM] = ["isa", "hal", "wim"] as [PersonId, PersonId, PersonId];
const ROLES: Readonly<Record<string, readonly Role[]>> = {
  isa: ["issuer"],
  hal: ["holder", "issuer"],
  wim: ["worker"],
};
const HOUR = 3_600_000;
const draft: PermitLife = {
  number: "P-1",
  state: "draft",
  holder: HAL,
  issuer: null,
  closedBy: null,
  validFrom_ms: 0,
  validTo_ms: 8 * HOUR,
  signOns: [],
};
const facts: PermitFacts = {
  isolations: [{ number: "S-1", state: "proven", openSteps: 0 }],
  lockHangs: () => undefined,
  nameOf: (id) => id,
  timeOf: (at) => String(at),
};
const by = (person: PersonId, type: PermitCommand["type"], at_ms = HOUR, lock = "L-1"): PermitCommand =>
  ({ by: person, roles: ROLES[person]!, at_ms, type, ...(type === "sign on" ? { lock } : {}) }) as PermitCommand;
const after = (...commands: PermitCommand[]): PermitLife =>
  commands.reduce((permit, command) => {
    const decided = decidePermit(permit, command, facts);
    if (!decided.ok) throw new Error(decided.refusal.code);
    return decided.value;
  }, draft);
const codeOf = (permit: PermitLife, command: PermitCommand, known = facts) => {
  const decided = decidePermit(permit, command, known);
  return decided.ok ? "accepted" : decided.refusal.code;
};
const live = () => after(by(ISA, "issue"), by(HAL, "accept"));

describe("the life of a permit", () => {
  test("it is issued by an issuer who is not its holder, on a proven isolation", () => {
    expect(codeOf(draft, by(WIM, "issue"))).toBe("not yours to do");
    expect(codeOf(draft, by(HAL, "issue"))).toBe("issuing to oneself");
    expect(codeOf(draft, by(ISA, "issue"), { ...facts, isolations: [] })).toBe("no isolation");
    const walking = [{ number: "S-1", state: "isolating", openSteps: 3 }];
    expect(codeOf(draft, by(ISA, "issue"), { ...facts, isolations: walking })).toBe("isolation not proven");
    expect(codeOf(draft, by(ISA, "issue"))).toBe("accepted");
  });

  test("it is not issued for longer than a shift, nor before it begins, nor after it ended", () => {
    expect(codeOf({ ...draft, validTo_ms: 13 * HOUR }, by(ISA, "issue"))).toBe("validity");
    expect(codeOf({ ...draft, validFrom_ms: 2 * HOUR }, by(ISA, "issue"))).toBe("validity");
    expect(codeOf(draft, by(ISA, "issue", 8 * HOUR))).toBe("run out");
  });

  test("only its holder accepts it and hands it back, and not while anyone is on", () => {
    expect(codeOf(after(by(ISA, "issue")), by(WIM, "accept"))).toBe("not the holder");
    const on = after(by(ISA, "issue"), by(HAL, "accept"), by(WIM, "sign on"));
    expect(codeOf(on, by(HAL, "hand back"))).toBe("people on");
    expect(codeOf(live(), by(HAL, "hand back"))).toBe("accepted");
  });

  test("an expired permit takes no sign-on, to the millisecond, but lets people off", () => {
    expect(isRunOut(draft, 8 * HOUR - 1)).toBe(false);
    expect(codeOf(live(), by(WIM, "sign on", 8 * HOUR - 1))).toBe("accepted");
    expect(codeOf(live(), by(WIM, "sign on", 8 * HOUR))).toBe("run out");
    const on = after(by(ISA, "issue"), by(HAL, "accept"), by(WIM, "sign on"));
    expect(codeOf(on, by(WIM, "sign off", 9 * HOUR))).toBe("accepted");
  });

  test("a person signs on once, with a lock that hangs nowhere", () => {
    const on = after(by(ISA, "issue"), by(HAL, "accept"), by(WIM, "sign on"));
    expect(codeOf(on, by(WIM, "sign on", HOUR, "L-2"))).toBe("already signed on");
    expect(codeOf(live(), by(WIM, "sign on", HOUR, " "))).toBe("lock missing");
    expect(codeOf(live(), by(WIM, "sign on"), { ...facts, lockHangs: () => "on box B-1" })).toBe("lock in use");
    expect(codeOf(live(), by(WIM, "sign off"))).toBe("not signed on");
  });

  test("somebody other than the holder inspects and closes it", () => {
    const back = after(by(ISA, "issue"), by(HAL, "accept"), by(HAL, "hand back"));
    expect(codeOf(back, by(HAL, "close"))).toBe("closing one's own permit");
    expect(codeOf(back, by(ISA, "close"))).toBe("accepted");
  });

  test("over any sequence of acts its invariants hold, and every state is reached", () => {
    const states = new Set<string>();
    const anyCommand = fc
      .tuple(
        fc.constantFrom(ISA, HAL, WIM),
        fc.constantFrom<PermitCommand["type"]>(
          ...(["issue", "accept", "sign on", "sign off", "sign off", "hand back", "close", "close"] as const),
          ...(["issue", "accept", "sign off", "hand back", "close", "accept", "issue", "cancel"] as const),
        ),
        fc.nat(20 * HOUR),
        fc.constantFrom("L-1", "L-2"),
      )
      .map(([person, type, at, lock]) => by(person, type, at % (9 * HOUR), lock));
    fc.assert(
      fc.property(fc.array(anyCommand, { minLength: 30, maxLength: 120 }), (commands) => {
        let permit = draft;
        for (const command of commands) {
          const hung = new Set(peopleOn(permit).map(({ lock }) => lock));
          const lockHangs = (lock: string) => (hung.has(lock) ? "on the box" : undefined);
          const decided = decidePermit(permit, command, { ...facts, lockHangs });
          if (!decided.ok) continue;
          permit = decided.value;
          checkPermit(permit);
          states.add(permit.state);
        }
      }),
      propertyRuns(300),
    );
    expect([...states].sort()).toEqual(["cancelled", "closed", "handed back", "issued", "live"]);
  });
});
