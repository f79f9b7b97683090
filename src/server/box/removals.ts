import { eq } from "drizzle-orm";
import {
  removalNext,
  removalState,
  type ForcedRemoval,
  type Noted,
  type RemovalState,
} from "../../core/removal/forcedRemoval";
import { database } from "../db/database";
import { permits } from "../db/schema";
import { namesOf } from "../people/signIn";
import { removalsOn, unreadRemoval, type StoredRemoval } from "./removalStore";

export type RemovalView = Readonly<{
  id: string;
  permit: string;
  lock: string;
  owner: string;
  ownerId: string;
  state: RemovalState;
  next: string;
  /** What was done so far, in its order. */
  story: readonly Readonly<{ did: string; by: string; at_ms: number; words: string }>[];
}>;

/** The forced removals of a permit's locks, the newest first. */
export function removalsOf(permit: string): RemovalView[] {
  const db = database();
  const row = db.select({ id: permits.id }).from(permits).where(eq(permits.number, permit)).get();
  return row ? removalsOn(db, row.id).map(viewOf) : [];
}

/** The removal that this person has not read of yet; nothing else is shown to them before. */
export function unreadFor(personId: string): RemovalView | null {
  const stored = unreadRemoval(database(), personId);
  return stored ? viewOf(stored) : null;
}

function viewOf({ id, removal }: StoredRemoval): RemovalView {
  const nameOf = namesOf(database());
  const told = (did: string, noted: Noted | null) =>
    noted ? [{ did, by: nameOf(noted.by), at_ms: noted.at_ms, words: noted.words }] : [];
  return {
    id,
    permit: removal.permit,
    lock: removal.lock,
    owner: nameOf(removal.owner),
    ownerId: removal.owner,
    state: removalState(removal),
    next: removalNext(removal),
    story: storyOf(removal, told),
  };
}

function storyOf<T>(removal: ForcedRemoval, told: (did: string, noted: Noted | null) => T[]): T[] {
  return [
    ...told("asked for it", removal.opened),
    ...told("searched: not on site", removal.lookedFor),
    ...removal.attempts.flatMap((attempt) => told("tried to reach them", attempt)),
    ...told("authorised it", removal.authorised),
    ...told("cut the lock", removal.cut),
    ...told("read this", removal.read),
  ];
}
