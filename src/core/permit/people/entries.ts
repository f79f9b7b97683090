import type { PersonId } from "../../people/roles";
import { entriesOf, lastOf, type LogEntry } from "../record/permitLog";

export type Stay = Readonly<{ person: PersonId; in_ms: number; out_ms: number | null }>;

/** Everybody who went in, with when they came out. */
export function staysOf(log: readonly LogEntry[]): Stay[] {
  const stays: Stay[] = [];
  for (const entry of entriesOf(log, "went in", "came out")) {
    if (entry.type === "went in") stays.push({ person: entry.person, in_ms: entry.at_ms, out_ms: null });
    else {
      const at = stays.findLastIndex((stay) => stay.person === entry.person && stay.out_ms === null);
      if (at >= 0) stays[at] = { ...stays[at]!, out_ms: entry.at_ms };
    }
  }
  return stays;
}

export function inside(log: readonly LogEntry[]): Stay[] {
  return staysOf(log).filter((stay) => stay.out_ms === null);
}

/**
 * When the space was last left empty after somebody had been in it, or an evacuation was called: before anybody goes in
 * again it is purged and tested. Null when neither was.
 */
export function leftEmpty_ms(log: readonly LogEntry[]): number | null {
  let within = 0;
  let empty: number | null = null;
  for (const entry of entriesOf(log, "went in", "came out", "stopped")) {
    if (entry.type === "went in") within++;
    else if (entry.type === "stopped") empty = entry.evacuate ? entry.at_ms : empty;
    else if (--within === 0) empty = entry.at_ms;
  }
  return empty;
}

/** Until when the people inside must have been spoken to; null while nobody is inside. */
export function talkDue_ms(log: readonly LogEntry[], every_min: number): number | null {
  const within = inside(log);
  if (within.length === 0) return null;
  const firstIn = Math.min(...within.map((stay) => stay.in_ms));
  return Math.max(firstIn, lastOf(log, "talked")?.at_ms ?? 0) + every_min * 60_000;
}
