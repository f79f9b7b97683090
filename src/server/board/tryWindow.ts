import type { Tried } from "../../core/board/rows";
import { conflictsOf } from "../../core/conflict/search";
import { firstFree_ms, shifted } from "../../core/conflict/waysOut";
import { database } from "../db/database";
import { namesOf, type Person } from "../people/signIn";
import { conflictRow } from "./conflictRow";
import { openWorks } from "./works";

/** What would be if a job that is not under way began earlier or later. Null where there is none. Nothing is changed. */
export function tryWindow(person: Person, job: string, by_ms: number, now_ms: number): Tried | null {
  const db = database();
  const { works } = openWorks(db, now_ms);
  const work = works.find((one) => one.job === job && !one.isUnderWay);
  if (work === undefined) return null;
  const others = works.filter((one) => one.job !== job);
  const moved = shifted(work, by_ms);
  const nameOf = namesOf(db);
  return {
    conflicts: conflictsOf(moved, others).map((conflict) =>
      conflictRow({ conflict, decision: null }, nameOf, person.units),
    ),
    freeBy_ms: firstFree_ms(moved, others),
  };
}
