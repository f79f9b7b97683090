import type { PersonId, Role } from "../people/roles";
import type { Refusal } from "../refusal";
import { accept, refuse, type Result } from "../result";

/**
 * The life of a permit to work.
 *
 *   draft ──issue──▶ issued ──accept──▶ live ──hand back──▶ handed back ──close──▶ closed
 *     └──cancel──▶ cancelled ◀──cancel──┘
 *
 * A permit runs out by itself when its time ends: it stays in its state, but nobody signs on to it any more.
 *
 * Invariants, asserted by checkPermit:
 *   1. Nobody is signed on unless it is live.
 *   2. It was issued by someone who is not its holder.
 *   3. A person is signed on at most once, each with a lock of their own.
 *   4. Closed means handed back with nobody on, and closed by someone who is not its holder.
 *   5. Where the rules put the lead first: somebody is on only while the holder is.
 */
export type PermitLife = Readonly<{
  number: string;
  state: "draft" | "issued" | "live" | "handed back" | "closed" | "cancelled";
  holder: PersonId;
  issuer: PersonId | null;
  closedBy: PersonId | null;
  validFrom_ms: number;
  validTo_ms: number;
  signOns: readonly SignOn[];
}>;

export type SignOn = Readonly<{
  person: PersonId;
  /** The lock on the box, or the first of those on the points. */
  lock: string;
  /** Under the school of a lock on every point: which lock hangs on which point. */
  points: Readonly<Record<string, string>>;
  on_ms: number;
  off_ms: number | null;
}>;

/** One person comes on in the place of another: the new lock is on before the old one is off. */
export type HandOver = Readonly<{
  from: PersonId;
  to: PersonId;
  lock: string;
  points?: Readonly<Record<string, string>>;
}>;

type By = Readonly<{ by: PersonId; roles: readonly Role[]; at_ms: number }>;
export type PermitCommand = By &
  (
    | Readonly<{ type: "issue" }>
    | Readonly<{ type: "accept" }>
    | Readonly<{ type: "sign on"; lock: string; points?: Readonly<Record<string, string>> }>
    /** Many at once at shift change, or one. */
    | Readonly<{ type: "hand over"; pairs: readonly HandOver[] }>
    | Readonly<{ type: "sign off" }>
    /** By a forced removal only: the lock of somebody who is not there is off. */
    | Readonly<{ type: "lock cut"; of: PersonId }>
    | Readonly<{ type: "hand back" }>
    | Readonly<{ type: "close" }>
    | Readonly<{ type: "cancel" }>
  );

/** What the server measured, and no browser may send. */
export type PermitFacts = Readonly<{
  isolations: readonly Readonly<{ number: string; state: string; openSteps: number }>[];
  lockHangs: (lock: string) => string | undefined;
  /** Why this person may not hang this lock as their own; null when they may. */
  personalLock: (person: PersonId, lock: string) => Refusal | null;
  /** Whose lock goes on before any other, by the rules. */
  firstOn: readonly ("coordinator" | "lead")[];
  /** A coordinator's or department's lock hangs on every box of it. */
  standingHangs: boolean;
  /** Proofs that must be done again before anybody goes on, and why. */
  stale: readonly string[];
  /** An isolation under test that may light this work now. */
  litBy: string | null;
  /** The firm whose procedures were not exchanged with ours yet; null when there is nothing to exchange. */
  exchangeMissing: (person: PersonId) => string | null;
  /** Points that each person locks themselves; empty where locks hang on the box. */
  pointsToLock: readonly string[];
  /** Null when the person may work under it. */
  crewFault: (person: PersonId) => Refusal | null;
  rolesOf: (person: PersonId) => readonly Role[];
  nameOf: (person: PersonId) => string;
  timeOf: (at_ms: number) => string;
}>;

/** A general permit covers one shift; site rules may shorten it. Common practice. */
export const LONGEST_VALIDITY_MS = 12 * 3_600_000;

export function isRunOut(permit: Pick<PermitLife, "validTo_ms">, now_ms: number): boolean {
  return now_ms >= permit.validTo_ms;
}

export function peopleOn(permit: Pick<PermitLife, "signOns">): SignOn[] {
  return permit.signOns.filter((signOn) => signOn.off_ms === null);
}

/** The only way a permit changes. */
export function decidePermit(permit: PermitLife, command: PermitCommand, facts: PermitFacts): Result<PermitLife> {
  const what = `Permit ${permit.number}`;
  const needs = (...states: PermitLife["state"][]) =>
    states.includes(permit.state)
      ? null
      : refuse({ code: "wrong state", what, state: permit.state, needs: states.join(" or ") });
  const role = (act: string, wanted: Role) =>
    command.roles.includes(wanted) ? null : refuse({ code: "not yours to do", act, needs: [wanted] });
  const onlyHolder = () =>
    command.by === permit.holder ? null : refuse({ code: "not the holder", holder: facts.nameOf(permit.holder) });
  const inTime = () =>
    isRunOut(permit, command.at_ms)
      ? refuse({ code: "run out", permit: permit.number, at: facts.timeOf(permit.validTo_ms) })
      : null;
  const isolated = () => {
    if (facts.isolations.length === 0) return refuse({ code: "no isolation" });
    const open = facts.isolations.find((isolation) => isolation.state !== "proven");
    return open ? refuse({ code: "isolation not proven", isolation: open.number, open: open.openSteps }) : null;
  };
  const safeToIssue = () => {
    if (facts.litBy !== null) return refuse({ code: "under test", isolation: facts.litBy });
    return facts.stale.length > 0 ? refuse({ code: "prove again", proofs: facts.stale }) : null;
  };
  const safe = () => {
    const no = safeToIssue();
    if (no) return no;
    return facts.firstOn.includes("coordinator") && !facts.standingHangs ? refuse({ code: "coordinator first" }) : null;
  };
  const on = peopleOn(permit);

  switch (command.type) {
    case "issue": {
      const no =
        role("issue a permit", "issuer") ??
        needs("draft") ??
        (command.by === permit.holder ? refuse({ code: "issuing to oneself" }) : null) ??
        isolated() ??
        safeToIssue() ??
        validityFault(permit, command.at_ms) ??
        inTime();
      return no ?? accept({ ...permit, state: "issued", issuer: command.by });
    }
    case "accept": {
      const no = onlyHolder() ?? needs("issued") ?? isolated() ?? inTime();
      return no ?? accept({ ...permit, state: "live" });
    }
    case "sign on": {
      const leadFirst =
        facts.firstOn.includes("lead") &&
        command.by !== permit.holder &&
        !on.some((signOn) => signOn.person === permit.holder);
      const no =
        needs("live") ??
        inTime() ??
        isolated() ??
        safe() ??
        mayComeOn(permit, command.by, [], facts) ??
        (leadFirst ? refuse({ code: "lead first", lead: facts.nameOf(permit.holder) }) : null);
      if (no) return no;
      const hung = locksToHang({ person: command.by, lock: command.lock, points: command.points }, [], facts);
      if (!hung.ok) return hung;
      const signOn: SignOn = { person: command.by, ...hung.value, on_ms: command.at_ms, off_ms: null };
      return accept({ ...permit, signOns: [...permit.signOns, signOn] });
    }
    case "hand over": {
      const no = needs("live") ?? inTime() ?? isolated() ?? safe();
      if (no) return no;
      if (command.pairs.length === 0) return refuse({ code: "nobody to hand over", permit: permit.number });
      const signOns: SignOn[] = [];
      for (const { from, to, lock, points } of command.pairs) {
        if (!on.some((signOn) => signOn.person === from)) {
          return refuse({ code: "not on", who: facts.nameOf(from), permit: permit.number });
        }
        if (command.pairs.filter((pair) => pair.from === from || pair.to === to).length > 1) {
          return refuse({ code: "handed over twice", who: facts.nameOf(from) });
        }
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
    case "sign off":
    case "lock cut": {
      const whose = command.type === "sign off" ? command.by : command.of;
      if (!on.some((signOn) => signOn.person === whose)) {
        return refuse({ code: "not signed on", permit: permit.number });
      }
      const others = on.filter((signOn) => signOn.person !== whose).map((signOn) => facts.nameOf(signOn.person));
      if (
        command.type === "sign off" &&
        facts.firstOn.includes("lead") &&
        whose === permit.holder &&
        others.length > 0
      ) {
        return refuse({ code: "last off", people: others });
      }
      const signOns = permit.signOns.map((signOn) =>
        signOn.person === whose && signOn.off_ms === null ? { ...signOn, off_ms: command.at_ms } : signOn,
      );
      return accept({ ...permit, signOns });
    }
    case "hand back": {
      const still = on.map((signOn) => facts.nameOf(signOn.person));
      const no =
        onlyHolder() ?? needs("live") ?? (still.length > 0 ? refuse({ code: "people on", people: still }) : null);
      return no ?? accept({ ...permit, state: "handed back" });
    }
    case "close": {
      const no =
        role("close a permit", "issuer") ??
        needs("handed back") ??
        (command.by === permit.holder ? refuse({ code: "closing one's own permit" }) : null);
      return no ?? accept({ ...permit, state: "closed", closedBy: command.by });
    }
    case "cancel": {
      const no = role("cancel a permit", "issuer") ?? needs("draft", "issued");
      return no ?? accept({ ...permit, state: "cancelled" });
    }
  }
}

/** Not on already, in the crew, and of a firm that has exchanged procedures with ours. */
function mayComeOn(permit: PermitLife, person: PersonId, coming: readonly SignOn[], facts: PermitFacts) {
  const crew = facts.crewFault(person);
  if (crew) return refuse(crew);
  const firm = facts.exchangeMissing(person);
  if (firm !== null) return refuse({ code: "no exchange", firm });
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

function validityFault(permit: PermitLife, now_ms: number) {
  const length_ms = permit.validTo_ms - permit.validFrom_ms;
  if (length_ms <= 0) return refuse({ code: "validity", reason: "it ends before it begins" });
  if (length_ms > LONGEST_VALIDITY_MS) {
    return refuse({ code: "validity", reason: "it is longer than 12 hours, so write a permit for each shift" });
  }
  if (permit.validFrom_ms > now_ms) return refuse({ code: "validity", reason: "it has not begun yet" });
  return null;
}

/** Throws when an invariant is broken; run after every step in tests. A lock that was cut may break the last. */
export function checkPermit(permit: PermitLife, leadFirst = false): void {
  const broken = (rule: number) => {
    throw new Error(`invariant ${rule} of permit ${permit.number} is broken`);
  };
  const on = peopleOn(permit);
  if (on.length > 0 && permit.state !== "live") broken(1);
  if (permit.issuer === permit.holder) broken(2);
  if (["issued", "live", "handed back", "closed"].includes(permit.state) && permit.issuer === null) broken(2);
  if (new Set(on.map((s) => s.person)).size < on.length || new Set(on.map((s) => s.lock)).size < on.length) broken(3);
  if (leadFirst && on.length > 0 && !on.some((signOn) => signOn.person === permit.holder)) broken(5);
  if (permit.state === "closed" && (permit.closedBy === null || permit.closedBy === permit.holder)) broken(4);
}
