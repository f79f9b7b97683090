import { z } from "zod";
import { personIdSchema } from "../people/personIdSchema";
import type { Competence, PersonId } from "../people/roles";
import { competenceMissing } from "../procedure/competent";
import { siteLockFault } from "../gear/gear";
import { gearNumber } from "../gear/gearNumber";
import { accept, refuse, type Result } from "../refusal/result";
import type { IsolationFacts, IsolationLife } from "./isolation";
import { lockedPoints } from "./lockedPoints";

/**
 * Isolations that stand for days: somebody goes round and reads the lock on every point. What they read is written down as
 * they read it and never corrected by trying again: a lock that was not found there breaks the isolation from that moment,
 * until somebody else finds the right one, and what was proved before counts no more. Common practice, no source.
 */
export const lockCheckSchema = z.object({
  /** When every lock was last read, or hung. */
  checked_ms: z.number(),
  /** Points at which it was not found, and by whom it was last said. */
  faults: z.array(z.object({ point: z.string(), by: personIdSchema }).readonly()).readonly(),
  /** When a lock that had not been found was last found again; null where none ever was missing. */
  right_ms: z.number().nullable(),
  /** People of the crew who read every lock at its point themselves, and found each as it was hung. */
  crew: z
    .array(z.object({ person: personIdSchema, at_ms: z.number() }).readonly())
    .readonly()
    .default([]),
});
export type LockCheck = Readonly<z.output<typeof lockCheckSchema>>;

/** A point and the number on the lock there; empty where none hangs. */
export type FoundLock = Readonly<{ point: string; lock: string }>;

export type LockFacts = Readonly<{
  /** Locks of this isolation that hang on a point by the record. */
  hangs: (point: string) => readonly string[];
}>;

/** When the locks are next read, in ms; null where nobody counts on them. */
export function lockCheckDue_ms(
  isolation: Readonly<{ state: IsolationLife["state"]; approved_ms: number; check: LockCheck | null }>,
  every_h: number,
): number | null {
  if (isolation.state !== "proven") return null;
  return (isolation.check?.checked_ms ?? isolation.approved_ms) + every_h * 3_600_000;
}

/** One round over all points. Cost: linear. */
export function decideLockCheck(
  life: IsolationLife,
  before: LockCheck | null,
  {
    by,
    at_ms,
    found,
    ofCrew = false,
  }: Readonly<{
    by: PersonId;
    at_ms: number;
    found: readonly FoundLock[];
    /** They work behind these points. */
    ofCrew?: boolean;
  }>,
  facts: LockFacts,
): Result<LockCheck> {
  const points = lockedPoints(life).map(({ subject }) => subject);
  if (points.length === 0) {
    return refuse({ code: "wrong state", what: `Isolation ${life.number}`, state: life.state, needs: "locked" });
  }
  const strange = found.find(({ point }) => !points.includes(point));
  if (strange) return refuse({ code: "unknown", what: `locked point of ${life.number}`, name: strange.point });
  const read = new Map(found.map(({ point, lock }) => [point, gearNumber(lock)]));
  const unread = points.filter((point) => !read.has(point));
  if (unread.length > 0) return refuse({ code: "points not read", points: unread });
  const known = new Map(before?.faults.map((fault) => [fault.point, fault.by]));
  const faults = points.flatMap((point) => {
    if (!facts.hangs(point).some((lock) => gearNumber(lock) === read.get(point))) return [{ point, by }];
    const saidBy = known.get(point);
    // Who missed it does not find it: another pair of eyes does.
    return saidBy === by ? [{ point, by }] : [];
  });
  const wasFound = [...known.keys()].some((point) => !faults.some((fault) => fault.point === point));
  const seen = before?.crew ?? [];
  const crew = ofCrew && faults.length === 0 ? [...seen, { person: by, at_ms }] : seen;
  return accept({ checked_ms: at_ms, faults, right_ms: wasFound ? at_ms : (before?.right_ms ?? null), crew });
}

/** Another lock on a point where the one on record was not found. It counts once somebody else has read it there. */
export function decideRehang(
  life: IsolationLife,
  before: LockCheck | null,
  {
    by,
    point,
    lock,
    competences,
  }: Readonly<{
    by: PersonId;
    point: string;
    lock: string;
    competences: readonly Competence[];
  }>,
  facts: Pick<IsolationFacts, "gear" | "lockHangs" | "nameOf">,
): Result<Readonly<{ life: IsolationLife; check: LockCheck }>> {
  if (!before?.faults.some((fault) => fault.point === point)) {
    return refuse({ code: "unknown", what: `point of ${life.number} without its lock`, name: point });
  }
  const hung = lockedPoints(life).find(({ subject }) => subject === point);
  if (hung?.done == null) return refuse({ code: "unknown", what: `locked point of ${life.number}`, name: point });
  // Without its lock it may have been moved: whoever hangs another sees that it stands as it should.
  const missing = competenceMissing(hung, competences);
  if (missing !== null) return refuse({ code: "not competent", step: `lock ${point}`, needs: missing });
  const fault = siteLockFault(facts.gear("lock", lock), lock, facts.nameOf);
  if (fault) return refuse(fault);
  const where = facts.lockHangs(lock);
  if (where !== undefined) return refuse({ code: "lock in use", lock, where });
  const done = { ...hung.done, lock };
  return accept({
    life: { ...life, steps: life.steps.map((step) => (step === hung ? { ...step, done } : step)) },
    check: { ...before, faults: before.faults.map((one) => (one.point === point ? { point, by } : one)) },
  });
}
