import type { PersonId } from "../../people/roles";
import { entriesOf } from "../record/permitLog";
import { peopleOn, type PermitLife } from "../record/permitTypes";
import { inside } from "./entries";
import { onPost } from "./posts";

/** Everybody who is there by the record: on, on duty or inside, each once. */
export function rollOf(permit: Pick<PermitLife, "signOns" | "log">): PersonId[] {
  const people = [...peopleOn(permit), ...onPost(permit.log), ...inside(permit.log)].map(({ person }) => person);
  return [...new Set(people)];
}

/** Who did not answer when the roll was called last, and is still there by the record; and when. Null where nobody is missing. */
export function missingNow(
  permit: Pick<PermitLife, "signOns" | "log">,
): Readonly<{ at_ms: number; people: readonly PersonId[] }> | null {
  const last = entriesOf(permit.log, "roll called").at(-1);
  if (last === undefined) return null;
  const there = new Set(rollOf(permit));
  // Who came on again since was seen at it.
  const cameSince = new Set(peopleOn(permit).flatMap(({ person, on_ms }) => (on_ms > last.at_ms ? [person] : [])));
  const people = last.missing.filter((person) => there.has(person) && !cameSince.has(person));
  return people.length === 0 ? null : { at_ms: last.at_ms, people };
}
