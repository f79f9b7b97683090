import { inside } from "../permit/people/entries";
import { onPost } from "../permit/people/posts";
import { peopleOn, type PermitLife } from "../permit/record/permitTypes";
import type { PersonId } from "../people/roles";

/** Somebody under a permit, and since when. */
export type Presence = Readonly<{
  person: PersonId;
  permit: string;
  title: string;
  area: string;
  what: "inside" | "fire watch" | "attendant" | "on";
  since_ms: number;
  lock: string;
}>;

/** So long at a stretch somebody should not work. Common practice, no source. */
export const LONG_MS = 12 * 3_600_000;

type Under = Readonly<{ life: PermitLife; title: string; area: string }>;
const ORDER: readonly Presence["what"][] = ["inside", "attendant", "fire watch", "on"];

/**
 * Everybody who is inside, on post or on now. Whoever is inside is not listed as on as well: where they are counts. By area, then
 * those inside first, then by how long. Cost: linear in the logs.
 */
export function whoIsWhere(permits: readonly Under[]): Presence[] {
  const found = permits.flatMap(({ life, title, area }): Presence[] => {
    const usual = { permit: life.number, title, area };
    const on = peopleOn(life);
    const lockOf = new Map(on.map(({ person, lock }) => [person, lock]));
    const within = inside(life.log);
    const isWithin = new Set(within.map(({ person }) => person));
    return [
      ...within.map(({ person, in_ms }) => ({
        ...usual,
        person,
        what: "inside" as const,
        since_ms: in_ms,
        lock: lockOf.get(person) ?? "",
      })),
      ...onPost(life.log).map(({ person, post, from_ms }) => ({
        ...usual,
        person,
        what: post,
        since_ms: from_ms,
        lock: "",
      })),
      ...on
        .filter(({ person }) => !isWithin.has(person))
        .map(({ person, lock, on_ms }) => ({ ...usual, person, what: "on" as const, since_ms: on_ms, lock })),
    ];
  });
  return found.sort(
    (a, b) => a.area.localeCompare(b.area) || ORDER.indexOf(a.what) - ORDER.indexOf(b.what) || a.since_ms - b.since_ms,
  );
}
