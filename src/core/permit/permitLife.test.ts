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

const [ISA, HAL, WIM, TED] = ["isa", "hal", "wim", "ted"] as [PersonId, PersonId, PersonId, PersonId];
const ROLES: Readonly<Record<string, readonly Role[]>> = {
  isa: ["issuer"],
  hal: ["holder", "issuer"],
  wim: ["worker"],
  ted: ["holder", "issuer"],
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
  personalLock: () => null,
  firstOn: [],
  standingHangs: true,
  stale: [],
  litBy: null,
  exchangeMissing: () => null,
  pointsToLock: [],
  crewFault: () => null,
  rolesOf: (id) => ROLES[id] ?? [],
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

  const crewed = { ...facts, firstOn: ["coordinator", "lead"] as const };
  const handOver = (...pairs: [PersonId, PersonId, string][]): PermitCommand => ({
    by: HAL,
    roles: ROLES.hal!,
    at_ms: 2 * HOUR,
    type: "hand over",
    pairs: pairs.map(([from, to, lock]) => ({ from, to, lock })),
  });

  test("the coordinator's lock is on before any other, then the lead's, and the lead's comes off last", () => {
    expect(codeOf(live(), by(HAL, "sign on"), { ...crewed, standingHangs: false })).toBe("coordinator first");
    expect(codeOf(live(), by(WIM, "sign on"), crewed)).toBe("lead first");
    const both = after(by(ISA, "issue"), by(HAL, "accept"), by(HAL, "sign on"), by(WIM, "sign on", HOUR, "L-2"));
    expect(codeOf(both, by(HAL, "sign off"), crewed)).toBe("last off");
    expect(codeOf(both, by(WIM, "sign off"), crewed)).toBe("accepted");
  });
  test("nobody goes on while a proof is stale, a test may light the work, or a contractor exchanged nothing", () => {
    expect(codeOf(live(), by(WIM, "sign on"), { ...facts, stale: ["prove P (power)"] })).toBe("prove again");
    expect(codeOf(draft, by(ISA, "issue"), { ...facts, stale: ["prove P (power)"] })).toBe("prove again");
    expect(codeOf(live(), by(WIM, "sign on"), { ...facts, litBy: "S-2" })).toBe("under test");
    const foreign = { ...facts, exchangeMissing: () => "Skerry Rope and Rig" };
    expect(codeOf(live(), by(WIM, "sign on"), foreign)).toBe("no exchange");
    const stranger = { ...facts, crewFault: () => ({ code: "not in the crew", job: "J-1" }) as const };
    expect(codeOf(live(), by(WIM, "sign on"), stranger)).toBe("not in the crew");
  });
  test("under the school of a lock on every point each point gets one, all different", () => {
    const points = { ...facts, pointsToLock: ["Q-1", "V-1"] };
    const on = (locks: Record<string, string>): PermitCommand => ({
      ...(by(WIM, "sign on") as Extract<PermitCommand, { type: "sign on" }>),
      points: locks,
    });
    expect(codeOf(live(), on({ "Q-1": "L-1" }), points)).toBe("lock missing");
    expect(codeOf(live(), on({ "Q-1": "L-1", "V-1": "L-1" }), points)).toBe("lock in use");
    expect(codeOf(live(), on({ "Q-1": "L-1", "V-1": "L-2" }), points)).toBe("accepted");
    const decided = decidePermit(live(), on({ "Q-1": "L-1", "V-1": "L-2" }), points);
    expect(decided).toMatchObject({ ok: true, value: { signOns: [{ points: { "Q-1": "L-1", "V-1": "L-2" } }] } });
  });
  test("at shift change the incoming is on before the outgoing is off, all pairs or none, and the lead goes to a lead", () => {
    const [NEW, TIM] = ["new", "tim"] as [PersonId, PersonId];
    const roles = { ...facts, rolesOf: (id: PersonId): readonly Role[] => (id === NEW ? ["holder"] : ["worker"]) };
    const both = after(by(ISA, "issue"), by(HAL, "accept"), by(HAL, "sign on"), by(WIM, "sign on", HOUR, "L-2"));
    const decided = decidePermit(both, handOver([HAL, NEW, "L-3"], [WIM, TIM, "L-4"]), roles);
    if (!decided.ok) throw new Error(decided.refusal.code);
    expect(decided.value.holder).toBe(NEW);
    expect(peopleOn(decided.value).map(({ person }) => person)).toEqual([NEW, TIM]);
    for (const { person, off_ms, on_ms } of decided.value.signOns)
      expect(person === HAL || person === WIM ? off_ms : on_ms).toBe(2 * HOUR);
    expect(codeOf(both, handOver([HAL, TIM, "L-3"]), roles)).toBe("not a lead");
    expect(codeOf(both, handOver([ISA, TIM, "L-3"]), roles)).toBe("not on");
    expect(codeOf(both, handOver([WIM, HAL, "L-3"]), roles)).toBe("already signed on");
    expect(codeOf(both, handOver([WIM, TIM, "L-3"], [HAL, NEW, "L-3"]), roles)).toBe("lock in use");
    expect(codeOf(both, handOver([WIM, TIM, "L-3"], [WIM, NEW, "L-4"]), roles)).toBe("handed over twice");
    expect(codeOf(both, handOver([WIM, TIM, "L-3"], [HAL, TIM, "L-4"]), roles)).toBe("handed over twice");
    expect(codeOf(both, handOver(), roles)).toBe("nobody to hand over");
  });

  test("over any sequence of acts its invariants hold, and every state is reached", () => {
    const states = new Set<string>();
    let handed = 0;
    const busy = after(by(ISA, "issue"), by(HAL, "accept"), by(HAL, "sign on"), by(WIM, "sign on", HOUR, "L-2"));
    const IN_PLACE_OF: Readonly<Record<string, PersonId>> = { hal: TED, ted: HAL, wim: ISA, isa: WIM };
    const anyCommand = fc
      .tuple(
        fc.constantFrom(ISA, HAL, WIM, TED),
        fc.constantFrom<PermitCommand["type"]>(
          ...([
            "hand over",
            "sign on",
            "issue",
            "accept",
            "sign on",
            "sign off",
            "sign off",
            "hand back",
            "close",
            "close",
          ] as const),
          ...(["issue", "accept", "sign off", "hand back", "close", "accept", "issue", "cancel"] as const),
        ),
        fc.nat(20 * HOUR),
        fc.constantFrom("L-1", "L-2", "L-3"),
      )
      .map(([person, type, at, lock]) =>
        type === "hand over"
          ? { ...handOver([person, IN_PLACE_OF[person]!, lock]), at_ms: at % (9 * HOUR) }
          : by(person, type, at % (9 * HOUR), lock),
      );
    fc.assert(
      fc.property(fc.boolean(), fc.array(anyCommand, { minLength: 30, maxLength: 120 }), (atWork, commands) => {
        let permit = atWork ? busy : draft;
        for (const command of commands) {
          const hung = new Set(peopleOn(permit).map(({ lock }) => lock));
          const lockHangs = (lock: string) => (hung.has(lock) ? "on the box" : undefined);
          const decided = decidePermit(permit, command, { ...crewed, lockHangs });
          if (!decided.ok) continue;
          // Handing over never leaves fewer people on than before.
          if (command.type === "hand over") {
            handed++;
            expect(peopleOn(decided.value)).toHaveLength(peopleOn(permit).length);
          }
          permit = decided.value;
          checkPermit(permit, true);
          states.add(permit.state);
        }
      }),
      propertyRuns(300),
    );
    expect(handed).toBeGreaterThan(20);
    expect([...states].sort()).toEqual(["cancelled", "closed", "handed back", "issued", "live"]);
  });
});
