import type { PersonId, Role } from "../../people/roles";
import { command, draftOf, HOUR, isolationNow, wellFacts, CREW } from "../../../../tests/support/permits";
import { LIFE } from "./lifeTable";
import { decidePermit, isRunOut } from "./permitLife";
import { peopleOn, type PermitAct, type PermitCommand, type PermitFacts, type PermitLife } from "../record/permitTypes";

const [ISA, HAL, WIM] = ["isa", "hal", "wim"] as [PersonId, PersonId, PersonId];
const draft = draftOf({ kind: "general" });
const facts: PermitFacts = wellFacts();
const by = (person: string, type: PermitAct["type"], at_ms = HOUR, lock = "L-1"): PermitCommand =>
  command(person, at_ms, {
    type,
    ...(type === "sign on" ? { lock, answer: "P-7" } : {}),
    ...(type === "issue" ? { copies: ["at the work"] } : {}),
    ...(type === "return copy" ? { copy: 1 } : {}),
    ...(type === "inspect" ? { words: "clean" } : {}),
  } as PermitAct);
const after = (...commands: PermitCommand[]): PermitLife =>
  commands.reduce((permit, one) => {
    const decided = decidePermit(permit, one, facts);
    if (!decided.ok) throw new Error(decided.refusal.code);
    return decided.value;
  }, draft);
const codeOf = (permit: PermitLife, one: PermitCommand, known = facts) => {
  const decided = decidePermit(permit, one, known);
  return decided.ok ? "accepted" : decided.refusal.code;
};
const authorised = () => after(by("cora", "check"), by(ISA, "authorise"));
const issued = () => after(by("cora", "check"), by(ISA, "authorise"), by(ISA, "issue"));
const live = (...more: PermitCommand[]) =>
  after(by("cora", "check"), by(ISA, "authorise"), by(ISA, "issue"), by(HAL, "accept"), ...more);

describe("the life of a permit", () => {
  test("it is issued by an issuer who is not its holder, on a proven isolation", () => {
    expect(codeOf(draft, by(ISA, "issue"))).toBe("wrong state");
    expect(codeOf(authorised(), by(WIM, "issue"))).toBe("not yours to do");
    expect(codeOf({ ...authorised(), holder: "hob" as PersonId }, by("hob", "issue"))).toBe("issuing to oneself");
    expect(codeOf(authorised(), by(ISA, "issue"), { ...facts, isolations: [] })).toBe("no isolation");
    const walking = [isolationNow({ code: "not proven", isolation: "S-1", state: "isolating", openSteps: 3 })];
    expect(codeOf(authorised(), by(ISA, "issue"), { ...facts, isolations: walking })).toBe("isolation not proven");
    expect(codeOf(authorised(), by(ISA, "issue"))).toBe("accepted");
  });

  test("whoever checks it does not authorise it, and its holder does neither", () => {
    const own = { ...draft, holder: "hob" as PersonId };
    expect(codeOf(own, by("hob", "check"))).toBe("one's own permit");
    expect(codeOf(after(by(ISA, "check")), by(ISA, "authorise"))).toBe("checked by oneself");
    expect(codeOf(after(by(ISA, "check")), by("hob", "authorise"))).toBe("accepted");
    expect(codeOf(after(by("cora", "check")), by("cora", "authorise"))).toBe("not yours to do");
  });

  test("it is not issued for longer than a shift, nor before it begins, nor after it ended", () => {
    expect(codeOf({ ...authorised(), validTo_ms: 13 * HOUR }, by(ISA, "issue"))).toBe("validity");
    expect(codeOf({ ...authorised(), validFrom_ms: 2 * HOUR }, by(ISA, "issue"))).toBe("validity");
    expect(codeOf(authorised(), by(ISA, "issue", 8 * HOUR))).toBe("run out");
  });

  test("only its holder accepts it and hands it back, and not while anyone is on", () => {
    expect(codeOf(issued(), by(WIM, "accept"))).toBe("not the holder");
    const on = live(by(WIM, "sign on"));
    expect(codeOf(on, by(HAL, "hand back"))).toBe("people on");
    expect(codeOf(live(), by(HAL, "hand back"))).toBe("accepted");
  });

  test("an expired permit takes no sign-on, to the millisecond, but lets people off", () => {
    expect(isRunOut(draft, 8 * HOUR - 1)).toBe(false);
    expect(codeOf(live(), by(WIM, "sign on", 8 * HOUR - 1))).toBe("accepted");
    expect(codeOf(live(), by(WIM, "sign on", 8 * HOUR))).toBe("run out");
    const on = live(by(WIM, "sign on"));
    expect(codeOf(on, by(WIM, "sign off", 9 * HOUR))).toBe("accepted");
  });

  test("a person signs on once, with a lock that hangs nowhere", () => {
    const on = live(by(WIM, "sign on"));
    expect(codeOf(on, by(WIM, "sign on", HOUR, "L-2"))).toBe("already signed on");
    expect(codeOf(live(), by(WIM, "sign on", HOUR, " "))).toBe("lock missing");
    expect(codeOf(live(), by(WIM, "sign on"), { ...facts, lockHangs: () => "on box B-1" })).toBe("lock in use");
    expect(codeOf(live(), by(WIM, "sign off"))).toBe("not signed on");
  });

  test("somebody other than the holder inspects and closes it", () => {
    expect(codeOf(live(by(HAL, "hand back")), by(ISA, "close"))).toBe("not back");
    const back = live(by(HAL, "hand back"), by(HAL, "return copy"));
    expect(codeOf({ ...back, holder: "hob" as PersonId }, by("hob", "close"))).toBe("closing one's own permit");
    expect(codeOf(back, by(ISA, "close"))).toBe("not inspected");
    expect(codeOf(back, by(HAL, "inspect"))).toBe("not yours to do");
    expect(codeOf(live(by(HAL, "hand back"), by(ISA, "inspect"), by(HAL, "return copy")), by(ISA, "close"))).toBe(
      "accepted",
    );
  });

  const crewed = { ...facts, firstOn: ["coordinator", "lead"] as const };
  const handOver = (...pairs: [PersonId, PersonId, string][]): PermitCommand => ({
    by: HAL,
    roles: CREW.hal!,
    at_ms: 2 * HOUR,
    type: "hand over",
    pairs: pairs.map(([from, to, lock]) => ({ from, to, lock })),
  });

  test("the coordinator's lock is on before any other, then the lead's, and the lead's comes off last", () => {
    expect(codeOf(live(), by(HAL, "sign on"), { ...crewed, standingHangs: false })).toBe("coordinator first");
    expect(codeOf(live(), by(WIM, "sign on"), crewed)).toBe("lead first");
    const both = live(by(HAL, "sign on"), by(WIM, "sign on", HOUR, "L-2"));
    expect(codeOf(both, by(HAL, "sign off"), crewed)).toBe("last off");
    expect(codeOf(both, by(WIM, "sign off"), crewed)).toBe("accepted");
  });
  test("nobody goes on while a proof is stale, a test may light the work, or a contractor exchanged nothing", () => {
    expect(codeOf(live(), by(WIM, "sign on"), { ...facts, stale: ["prove P (power)"] })).toBe("prove again");
    expect(codeOf(authorised(), by(ISA, "issue"), { ...facts, stale: ["prove P (power)"] })).toBe("prove again");
    expect(codeOf(live(), by(WIM, "sign on"), { ...facts, litBy: "S-2" })).toBe("under test");
    const foreign = { ...facts, exchangeMissing: () => "Skerry Rope and Rig" };
    expect(codeOf(live(), by(WIM, "sign on"), foreign)).toBe("no exchange");
    const unshown = { ...facts, notInducted: () => ({ firm: "Skerry Rope and Rig", since_ms: null }) };
    expect(codeOf(live(), by(WIM, "sign on"), unshown)).toBe("not inducted");
    const lost = command(WIM, HOUR, { type: "sign on", lock: "L-1", answer: "P-8" });
    expect(codeOf(live(), lost)).toBe("wrong answer");
    const stranger = { ...facts, crewFault: () => ({ code: "not in the crew", job: "J-1" }) as const };
    expect(codeOf(live(), by(WIM, "sign on"), stranger)).toBe("not in the crew");
  });
  test("what only issuers and approvers sign they sign where they are appointed; anybody stops, everywhere", () => {
    const outside = { ...facts, notAppointed: () => ({ far: "area", area: "Yard", areas: ["Hall"] }) as const };
    expect(codeOf(authorised(), by(ISA, "issue"), facts)).toBe("accepted");
    expect(codeOf(authorised(), by(ISA, "issue"), outside)).toBe("not appointed");
    expect(codeOf(live(), command(ISA, HOUR, { type: "stop", reason: "Smoke.", cause: "stop-work" }), outside)).toBe(
      "accepted",
    );
    // Whatever state it is in, and whatever else is asked: the appointment comes before it.
    const states = [draft, after(by("cora", "check")), authorised(), live(), live(by(HAL, "hand back"))];
    const theirs = Object.entries(LIFE).filter(([, { who }]) => who.every((role) => /^(issuer|approver)$/.test(role)));
    expect(theirs.length).toBeGreaterThan(8);
    for (const [type] of theirs) {
      const one = { ...by(ISA, type as PermitAct["type"]), roles: ["issuer", "approver"] } as PermitCommand;
      const said = states.map((permit) => codeOf(permit, one, outside));
      expect([type, said.filter((code) => code !== "wrong state" && code !== "not appointed")]).toEqual([type, []]);
    }
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
    const both = live(by(HAL, "sign on"), by(WIM, "sign on", HOUR, "L-2"));
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
});
