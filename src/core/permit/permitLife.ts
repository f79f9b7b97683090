import type { PersonId, Role } from "../people/roles";
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

export type SignOn = Readonly<{ person: PersonId; lock: string; on_ms: number; off_ms: number | null }>;

type By = Readonly<{ by: PersonId; roles: readonly Role[]; at_ms: number }>;
export type PermitCommand = By &
  (
    | Readonly<{ type: "issue" }>
    | Readonly<{ type: "accept" }>
    | Readonly<{ type: "sign on"; lock: string }>
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
  const on = peopleOn(permit);

  switch (command.type) {
    case "issue": {
      const no =
        role("issue a permit", "issuer") ??
        needs("draft") ??
        (command.by === permit.holder ? refuse({ code: "issuing to oneself" }) : null) ??
        isolated() ??
        validityFault(permit, command.at_ms) ??
        inTime();
      return no ?? accept({ ...permit, state: "issued", issuer: command.by });
    }
    case "accept": {
      const no = onlyHolder() ?? needs("issued") ?? isolated() ?? inTime();
      return no ?? accept({ ...permit, state: "live" });
    }
    case "sign on": {
      const lock = command.lock.trim();
      const already = on.some((signOn) => signOn.person === command.by);
      const where = facts.lockHangs(lock);
      const no =
        needs("live") ??
        inTime() ??
        isolated() ??
        (already ? refuse({ code: "already signed on", permit: permit.number }) : null) ??
        (lock === "" ? refuse({ code: "lock missing", step: "Sign on" }) : null) ??
        (where === undefined ? null : refuse({ code: "lock in use", lock, where }));
      const signOn: SignOn = { person: command.by, lock, on_ms: command.at_ms, off_ms: null };
      return no ?? accept({ ...permit, signOns: [...permit.signOns, signOn] });
    }
    case "sign off":
    case "lock cut": {
      const whose = command.type === "sign off" ? command.by : command.of;
      if (!on.some((signOn) => signOn.person === whose)) {
        return refuse({ code: "not signed on", permit: permit.number });
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

function validityFault(permit: PermitLife, now_ms: number) {
  const length_ms = permit.validTo_ms - permit.validFrom_ms;
  if (length_ms <= 0) return refuse({ code: "validity", reason: "it ends before it begins" });
  if (length_ms > LONGEST_VALIDITY_MS) {
    return refuse({ code: "validity", reason: "it is longer than 12 hours, so write a permit for each shift" });
  }
  if (permit.validFrom_ms > now_ms) return refuse({ code: "validity", reason: "it has not begun yet" });
  return null;
}

/** Throws when an invariant is broken; run after every step in tests. */
export function checkPermit(permit: PermitLife): void {
  const broken = (rule: number) => {
    throw new Error(`invariant ${rule} of permit ${permit.number} is broken`);
  };
  const on = peopleOn(permit);
  if (on.length > 0 && permit.state !== "live") broken(1);
  if (permit.issuer === permit.holder) broken(2);
  if (["issued", "live", "handed back", "closed"].includes(permit.state) && permit.issuer === null) broken(2);
  if (new Set(on.map((s) => s.person)).size < on.length || new Set(on.map((s) => s.lock)).size < on.length) broken(3);
  if (permit.state === "closed" && (permit.closedBy === null || permit.closedBy === permit.holder)) broken(4);
}
