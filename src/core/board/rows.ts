import type { DueItem } from "./dueList";

/** What the server sends to the board and the board shows. */

/** Something to see to, with where it is and whose it is. Words are made by the screen. */
export type DueRow = Omit<DueItem, "people" | "roles"> &
  Readonly<{
    key: string;
    href: string;
    area: string;
    /** Of a job: its next act. Of a conflict: the sentence. */
    words: string;
    title: string;
    who: readonly string[];
    /** Named for it, or of a role that may do it. */
    isMine: boolean;
    isOfMyCraft: boolean;
  }>;

/** A conflict as a screen says it. */
export type ConflictRow = Readonly<{
  id: string;
  of: string;
  with: string;
  words: string;
  rule: string;
  /** Somebody or something is planned for both; nothing reaches anybody. */
  isOfHands: boolean;
  from_ms: number;
  to_ms: number;
  decided: Readonly<{ by: string; at_ms: number; reason: string }> | null;
}>;

/** A planned job with its window tried elsewhere. */
export type Tried = Readonly<{
  /** What the job would touch with its window moved so. */
  conflicts: readonly ConflictRow[];
  /** By how much more it would have to begin later to touch nobody; 0 where it touches nobody, null where nothing within six weeks will do. */
  freeBy_ms: number | null;
}>;
