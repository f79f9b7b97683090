import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { OnNewPlant } from "../../core/plan/onNewPlant";
import type { Standing } from "../../workers/judgeStanding";
import { database } from "../db/database";
import { plantKey } from "../plant/plantStore";
import { heavy } from "../runtime/workers";
import type { JobView } from "./jobView";

/** What changed around an isolation that stands, for its page: what it decides is written down, see isolation/verdicts. */

const KEPT = 60;
/** By what they stand on and what is asked: none of it changes. */
const holder = globalThis as { heavyLanternStanding?: Map<string, OnNewPlant> };
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
  if (known) return known;
  const [found] = await heavy("judge standing", [standing]);
  keep(nameOf(standing), found!);
  return found!;
}

function keep(name: string, value: OnNewPlant): void {
  kept().set(name, value);
  if (kept().size > KEPT) kept().delete(kept().keys().next().value!);
}
