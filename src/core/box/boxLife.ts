import type { PersonId } from "../people/roles";
import type { Refusal } from "../refusal/refusal";
import { accept, refuse, type Result } from "../refusal/result";
import { siteLockFault, personalLockFault, type Gear } from "../gear/gear";

/**
 * The life of a lock box: the keys of an isolation's locks go in, the box is closed, and everybody's own lock hangs on it.
 *
 *   open ──close──▶ closed ──open (nothing hangs on it)──▶ open ──return──▶ returned
 *
 * Invariants, asserted by checkBox:
 *   1. A key is in a hand, in the box, or gone with its lifted lock: never in two of them.
 *   2. While it is closed every key of a lock that hangs is inside.
 *   3. Standing locks hang only on a closed box, and no lock hangs twice.
 */
export type BoxLife = Readonly<{
  number: string;
  state: "open" | "closed" | "returned";
  keys: readonly Key[];
  standing: readonly StandingLock[];
}>;

/** The key of an isolation lock, by the number of its lock. */
export type Key = Readonly<{ lock: string; point: string; at: "hand" | "box" | "gone"; by: PersonId }>;

/** Whose lock stays on the box over everybody else's. */
export type StandingLock = Readonly<{
  role: "coordinator" | "department";
  /** Who answers for it: the coordinator, or the name on the department's lock. */
  person: PersonId;
  lock: string;
  on_ms: number;
  off_ms: number | null;
}>;

type By = Readonly<{ by: PersonId; at_ms: number }>;
export type BoxCommand =
  | (By & Readonly<{ type: "take key"; lock: string; point: string }>)
  | (By & Readonly<{ type: "give key back"; lock: string }>)
  | (By & Readonly<{ type: "close" }>)
  | (By & Readonly<{ type: "open" }>)
  | (By & Readonly<{ type: "return" }>)
  | (By & Readonly<{ type: "hang"; role: StandingLock["role"]; person: PersonId; lock: string }>)
  | (By & Readonly<{ type: "take off"; lock: string }>);

export type BoxFacts = Readonly<{
  /** Names of the people whose own locks hang on it. */
  peopleOn: readonly string[];
  /** Permits that let people on to it and are not over. */
  livePermits: readonly string[];
  lockHangs: (lock: string) => string | undefined;
  gear: (kind: "lock", number: string) => Gear | undefined;
  nameOf: (person: PersonId) => string;
}>;

export function standingOn(box: Pick<BoxLife, "standing">): StandingLock[] {
  return box.standing.filter((lock) => lock.off_ms === null);
}

/** The only way a box changes. */
export function decideBox(box: BoxLife, command: BoxCommand, facts: BoxFacts): Result<BoxLife> {
  const needs = (...states: BoxLife["state"][]): Refusal | null =>
    states.includes(box.state)
      ? null
      : { code: "wrong state", what: `Box ${box.number}`, state: box.state, needs: states.join(" or ") };
  const no = (refusal: Refusal | null) => (refusal ? refuse(refusal) : null);
  const standing = standingOn(box);
  const move = (at: Key["at"], which: (key: Key) => boolean) =>
    box.keys.map((key) => (key.at !== "gone" && which(key) ? { ...key, at, by: command.by } : key));

  switch (command.type) {
    case "take key": {
      if (box.keys.some((key) => key.lock === command.lock && key.at !== "gone")) {
        return refuse({ code: "already done", what: `Taking the key of ${command.lock}` });
      }
      // A lock hung while the box is closed, in place of another: its key goes in by the slot.
      const at = box.state === "closed" ? "box" : "hand";
      const key: Key = { lock: command.lock, point: command.point, at, by: command.by };
      return no(needs("open", "closed")) ?? accept({ ...box, keys: [...box.keys, key] });
    }
    case "give key back":
      return accept({ ...box, keys: move("gone", (key) => key.lock === command.lock) });
    case "close":
      return no(needs("open")) ?? accept({ ...box, state: "closed", keys: move("box", () => true) });
    case "open":
    case "return": {
      const hangs =
        facts.peopleOn.length > 0
          ? refuse({ code: "people on", people: facts.peopleOn })
          : standing.length > 0
            ? refuse({ code: "box locked", people: standing.map((lock) => facts.nameOf(lock.person)) })
            : null;
      if (hangs) return hangs;
      if (command.type === "return") return accept({ ...box, state: "returned", keys: move("gone", () => true) });
      return no(needs("open", "closed")) ?? accept({ ...box, state: "open", keys: move("hand", () => true) });
    }
    case "hang": {
      const lock = command.lock.trim();
      if (lock === "") return refuse({ code: "lock missing", step: `Lock of the ${command.role}` });
      const where = facts.lockHangs(lock);
      const known = facts.gear("lock", lock);
      const fault =
        needs("closed") ??
        (command.role === "coordinator"
          ? personalLockFault(known, command.person, lock, facts.nameOf)
          : siteLockFault(known, lock, facts.nameOf)) ??
        (where === undefined ? null : ({ code: "lock in use", lock, where } as const));
      const hung: StandingLock = {
        role: command.role,
        person: command.person,
        lock,
        on_ms: command.at_ms,
        off_ms: null,
      };
      return no(fault) ?? accept({ ...box, standing: [...box.standing, hung] });
    }
    case "take off": {
      const hung = standing.find((lock) => lock.lock === command.lock);
      if (hung === undefined) return refuse({ code: "unknown", what: `lock on box ${box.number}`, name: command.lock });
      // A coordinator takes off their own; the department's any coordinator may, for a name on it is not an owner.
      if (hung.role === "coordinator" && hung.person !== command.by) {
        return refuse({ code: "lock of another", lock: hung.lock, owner: facts.nameOf(hung.person) });
      }
      if (standing.length === 1) {
        if (facts.peopleOn.length > 0) return refuse({ code: "last off", people: facts.peopleOn });
        if (facts.livePermits.length > 0) return refuse({ code: "permits open", permits: facts.livePermits });
      }
      const off = box.standing.map((lock) => (lock === hung ? { ...lock, off_ms: command.at_ms } : lock));
      return accept({ ...box, standing: off });
    }
  }
}

/** Throws when an invariant is broken; run after every step in tests. */
export function checkBox(box: BoxLife): void {
  const broken = (rule: number) => {
    throw new Error(`invariant ${rule} of box ${box.number} is broken`);
  };
  const here = box.keys.filter((key) => key.at !== "gone");
  if (new Set(here.map((key) => key.lock)).size < here.length) broken(1);
  if (box.state === "closed" && here.some((key) => key.at === "hand")) broken(2);
  if (box.state === "returned" && here.length > 0) broken(1);
  const hung = standingOn(box);
  if (hung.length > 0 && box.state !== "closed") broken(3);
  if (new Set(hung.map((lock) => lock.lock)).size < hung.length) broken(3);
}
