import type { PersonId } from "../../people/roles";
import type { Post } from "../kinds/kinds";
import { entriesOf, type LogEntry } from "../record/permitLog";

export type Watch = Readonly<{ post: Post; person: PersonId; from_ms: number; to_ms: number | null }>;

/** Who stood at a post from when to when, in the order they came. */
export function watchesOf(log: readonly LogEntry[]): Watch[] {
  const watches: Watch[] = [];
  for (const entry of entriesOf(log, "post taken", "post left")) {
    if (entry.type === "post taken") {
      watches.push({ post: entry.post, person: entry.person, from_ms: entry.at_ms, to_ms: null });
    } else {
      const at = watches.findLastIndex((watch) => watch.person === entry.person && watch.to_ms === null);
      if (at >= 0) watches[at] = { ...watches[at]!, to_ms: entry.at_ms };
    }
  }
  return watches;
}

export function onPost(log: readonly LogEntry[]): Watch[] {
  return watchesOf(log).filter((watch) => watch.to_ms === null);
}

/** The first moment between two times when nobody stood there; null when the watch had no gap. Bounds included. */
export function gapIn(watches: readonly Watch[], from_ms: number, to_ms: number): number | null {
  let covered = from_ms;
  for (const watch of [...watches].sort((a, b) => a.from_ms - b.from_ms)) {
    if (watch.from_ms > covered) break;
    covered = Math.max(covered, watch.to_ms ?? Infinity);
    if (covered >= to_ms) return null;
  }
  return covered >= to_ms ? null : covered;
}
