import type { PersonId } from "../../people/roles";
import { accept, refuse, type Result } from "../../refusal/result";
import { inside } from "./entries";
import { inductionFault } from "./inducted";
import { onPost } from "./posts";
import { peopleOn, type CommandOf, type PermitFacts, type PermitLife, type SignOn } from "../record/permitTypes";

/** Somebody comes on, with a lock of their own, after saying where the work is. */
export function signOn(permit: PermitLife, command: CommandOf<"sign on">, facts: PermitFacts): Result<PermitLife> {
  const person = command.by!;
  const leadFirst =
    facts.firstOn.includes("lead") &&
    person !== permit.holder &&
    !peopleOn(permit).some((signOn) => signOn.person === permit.holder);
  const no =
    safeToComeOn(facts) ??
    mayComeOn(permit, person, [], facts, command.also) ??
    (leadFirst ? refuse({ code: "lead first", lead: facts.nameOf(permit.holder) }) : null) ??
    (knowsPlace(command.answer, facts) ? null : refuse({ code: "wrong answer", permit: permit.number }));
  if (no) return no;
  const hung = locksToHang({ person, lock: command.lock, points: command.points }, [], facts);
  if (!hung.ok) return hung;
  const signOn: SignOn = { person, ...hung.value, on_ms: command.at_ms, off_ms: null };
  return accept({ ...permit, signOns: [...permit.signOns, signOn] });
}

/** By the short route: the one who works alone is on behind the lock that they hung on its one point. */
export function comeOnAlone(
  permit: PermitLife,
  command: CommandOf<"begin alone">,
  facts: PermitFacts,
): Result<PermitLife> {
  const person = command.by!;
  const lock = facts.minor?.lock ?? null;
  if (lock === null) return refuse({ code: "lock missing", step: "Begin" });
  if (lock.by !== person) return refuse({ code: "lock of another", lock: lock.number, owner: facts.nameOf(lock.by) });
  const no = mayComeOn(permit, person, [], facts, command.also);
  if (no) return no;
  const signOn: SignOn = { person, lock: lock.number, points: {}, on_ms: command.at_ms, off_ms: null };
  return accept({ ...permit, signOns: [...permit.signOns, signOn] });
}

function knowsPlace(answer: string, facts: PermitFacts): boolean {
  return facts.places.includes(answer.trim());
}

/** The proofs stand, no test may light the work, and the first locks hang. */
export function safeToComeOn(facts: PermitFacts) {
  if (facts.litBy !== null) return refuse({ code: "under test", isolation: facts.litBy });
  if (facts.stale.length > 0) return refuse({ code: "prove again", proofs: facts.stale });
  return facts.firstOn.includes("coordinator") && !facts.standingHangs ? refuse({ code: "coordinator first" }) : null;
}

/** Pairs of who comes for whom: every new lock is on before an old one is off, all of it or nothing. */
export function handOver(permit: PermitLife, command: CommandOf<"hand over">, facts: PermitFacts): Result<PermitLife> {
  const unsafe = safeToComeOn(facts);
  if (unsafe) return unsafe;
  if (command.pairs.length === 0) return refuse({ code: "nobody to hand over", permit: permit.number });
  const on = peopleOn(permit);
  const signOns: SignOn[] = [];
  for (const { from, to, lock, points } of command.pairs) {
    if (!on.some((signOn) => signOn.person === from)) {
      return refuse({ code: "not on", who: facts.nameOf(from), permit: permit.number });
    }
    if (command.pairs.filter((pair) => pair.from === from || pair.to === to).length > 1) {
      return refuse({ code: "handed over twice", who: facts.nameOf(from) });
    }
    if (isInside(permit, from)) return refuse({ code: "still inside", people: [facts.nameOf(from)] });
    const fault = mayComeOn(permit, to, signOns, facts);
    if (fault) return fault;
    if (from === permit.holder && !facts.rolesOf(to).includes("holder")) {
      return refuse({ code: "not a lead", who: facts.nameOf(to) });
    }
    if (from === permit.holder && to === permit.issuer) return refuse({ code: "lead issued it" });
    const hung = locksToHang({ person: to, lock, points }, signOns, facts);
    if (!hung.ok) return hung;
    signOns.push({ person: to, ...hung.value, on_ms: command.at_ms, off_ms: null });
  }
  const leaving = new Set(command.pairs.map(({ from }) => from));
  const lead = command.pairs.find(({ from }) => from === permit.holder);
  const stayed = permit.signOns.map((signOn) =>
    signOn.off_ms === null && leaving.has(signOn.person) ? { ...signOn, off_ms: command.at_ms } : signOn,
  );
  return accept({ ...permit, holder: lead ? lead.to : permit.holder, signOns: [...stayed, ...signOns] });
}

/** Somebody goes off, or the lock of somebody who is not there was cut. */
export function goOff(
  permit: PermitLife,
  command: CommandOf<"sign off"> | CommandOf<"lock cut">,
  facts: PermitFacts,
): Result<PermitLife> {
  const whose = command.type === "lock cut" ? command.of : command.by!;
  const on = peopleOn(permit);
  if (!on.some((signOn) => signOn.person === whose)) return refuse({ code: "not signed on", permit: permit.number });
  if (command.type === "sign off" && isInside(permit, whose)) {
    return refuse({ code: "still inside", people: [facts.nameOf(whose)] });
  }
  const others = on.filter((signOn) => signOn.person !== whose).map((signOn) => facts.nameOf(signOn.person));
  const isLead = facts.firstOn.includes("lead") && whose === permit.holder;
  if (command.type === "sign off" && isLead && others.length > 0) return refuse({ code: "last off", people: others });
  const signOns = permit.signOns.map((signOn) =>
    signOn.person === whose && signOn.off_ms === null ? { ...signOn, off_ms: command.at_ms } : signOn,
  );
  return accept({ ...permit, signOns });
}

function isInside(permit: PermitLife, person: PersonId): boolean {
  return inside(permit.log).some((stay) => stay.person === person);
}

/** Not on already, in the crew, on no post, and of a firm that has exchanged procedures with ours and was shown the site. */
function mayComeOn(
  permit: PermitLife,
  person: PersonId,
  coming: readonly SignOn[],
  facts: PermitFacts,
  also: string | null = null,
) {
  const crew = facts.crewFault(person);
  if (crew) return refuse(crew);
  const firm = facts.exchangeMissing(person);
  if (firm !== null) return refuse({ code: "no exchange", firm });
  const stranger = inductionFault(person, facts);
  if (stranger !== null) return stranger;
  if (onPost(permit.log).some((watch) => watch.person === person)) {
    return refuse({ code: "other duty", who: facts.nameOf(person), where: permit.number });
  }
  const other = facts.atOtherWork(person);
  // Nobody is in two places: who goes from one work to another and back says so, and by which permit.
  if (other !== null && other !== also)
    return refuse({ code: "at other work", who: facts.nameOf(person), permit: other });
  return [...peopleOn(permit), ...coming].some((signOn) => signOn.person === person)
    ? refuse({ code: "already signed on", permit: permit.number })
    : null;
}

/** The locks a person hangs: one on the box, or one on every point; each their own and free. */
function locksToHang(
  asked: Readonly<{ person: PersonId; lock: string; points?: Readonly<Record<string, string>> }>,
  coming: readonly SignOn[],
  facts: PermitFacts,
): Result<Pick<SignOn, "lock" | "points">> {
  const points: Record<string, string> = {};
  for (const tag of facts.pointsToLock) {
    const lock = asked.points?.[tag]?.trim() ?? "";
    if (lock === "") return refuse({ code: "lock missing", step: `Sign on at ${tag}` });
    points[tag] = lock;
  }
  const lock = facts.pointsToLock.length > 0 ? Object.values(points)[0]! : asked.lock.trim();
  if (lock === "") return refuse({ code: "lock missing", step: "Sign on" });
  const all = facts.pointsToLock.length > 0 ? Object.values(points) : [lock];
  const twice = all.find((one, i) => all.indexOf(one) < i);
  if (twice !== undefined) return refuse({ code: "lock in use", lock: twice, where: "on another point of yours" });
  for (const one of all) {
    const fault = facts.personalLock(asked.person, one);
    if (fault) return refuse(fault);
    const where = facts.lockHangs(one);
    if (where !== undefined) return refuse({ code: "lock in use", lock: one, where });
    const other = coming.find((signOn) => signOn.lock === one || Object.values(signOn.points).includes(one));
    if (other) return refuse({ code: "lock in use", lock: one, where: `by ${facts.nameOf(other.person)}` });
  }
  return accept({ lock, points });
}
