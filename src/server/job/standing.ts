import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { OnNewPlant } from "../../core/plan/onNewPlant";
import type { Standing } from "../../workers/judgeStanding";
import { database } from "../db/database";
import { plantKey } from "../plant/plantStore";
import { announce } from "../runtime/events";
import { heavy } from "../runtime/workers";
import type { JobView } from "./jobView";

/** How isolations that stand fare on today's register, where it is not the one that they were planned on. */

const KEPT = 2000;
/** By what they stand on and what is asked: none of it changes. Kept for all pages together. */
const holder = globalThis as { heavyLanternStanding?: Map<string, OnNewPlant | "asked"> };
const kept = () => (holder.heavyLanternStanding ??= new Map());

/** Locks hang that people count on, and the register has changed since it was planned. */
function isOnOtherPlant({ isolation, held, plantRevision, plantRevisionNow }: JobView): boolean {
  const isCountedOn = isolation !== null && isolation.state !== "restoring" && isolation.state !== "restored";
  return isCountedOn && held.length > 0 && plantRevision !== plantRevisionNow;
}

function standingOf(view: JobView): Standing {
  const db = database();
  const file = db.$client.name;
  const { number, state } = view.isolation!;
  return {
    isolation: number,
    job: view.job,
    before: plantKey(db, file, view.plantRevision),
    after: plantKey(db, file, view.plantRevisionNow),
    // What is lifted for a test goes back on: judged is what will stand again.
    held: state === "proven" ? view.held : null,
  };
}

const nameOf = ({ before, after, ...standing }: Standing) =>
  canonicalJson(JSON.parse(JSON.stringify({ ...standing, before: before.hash, after: after.hash })));

/** One of them; null where it stands on today's register, or does not stand. */
export async function standingOnToday(view: JobView): Promise<OnNewPlant | null> {
  if (!isOnOtherPlant(view)) return null;
  const standing = standingOf(view);
  const known = kept().get(nameOf(standing));
  if (known && known !== "asked") return known;
  const [found] = await heavy("judge standing", [standing]);
  keep(nameOf(standing), found!);
  return found!;
}

/**
 * What is known of many of them at this moment; "asked" while it is being worked out in another thread, which this begins.
 * Whoever shows it says so: until it is known nobody may count on them.
 */
export function standingOfMany(views: readonly JobView[]): ReadonlyMap<string, OnNewPlant | "asked"> {
  const found = new Map<string, OnNewPlant | "asked">();
  const missing: Standing[] = [];
  for (const view of views.filter(isOnOtherPlant)) {
    const standing = standingOf(view);
    const known = kept().get(nameOf(standing));
    if (known === undefined) missing.push(standing);
    found.set(view.number, known ?? "asked");
  }
  if (missing.length > 0) void judge(missing);
  return found;
}

/** In one task: what is known first shows first, and none outlasts its time. */
const AT_ONCE = 16;

async function judge(missing: readonly Standing[]): Promise<void> {
  for (const one of missing) keep(nameOf(one), "asked");
  for (let from = 0; from < missing.length; from += AT_ONCE) {
    const some = missing.slice(from, from + AT_ONCE);
    try {
      const judged = await heavy("judge standing", some);
      some.forEach((one, i) => keep(nameOf(one), judged[i]!));
      announce({ kind: "act", subject: "", about: some.map(({ isolation }) => isolation) });
    } catch (error) {
      console.error("judging isolations on the new register failed", error);
      // Asked again at the next look.
      for (const one of some) kept().delete(nameOf(one));
    }
  }
}

function keep(name: string, value: OnNewPlant | "asked"): void {
  kept().set(name, value);
  if (kept().size > KEPT) kept().delete(kept().keys().next().value!);
}
