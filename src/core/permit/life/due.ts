import { afterWatchOf } from "../afterwatch/afterWatchOf";
import type { AskContext } from "../requirements/ask";
import { revalidationDue } from "../requirements/every";
import { airUntil_ms } from "../requirements/air";
import { inside, talkDue_ms } from "../people/entries";
import { kindRule } from "../kinds/kinds";
import type { PermitState } from "../record/permitTypes";

/** Something that somebody has to do by a time, or a time at which something ends. */
export type Due = Readonly<{ at_ms: number; what: "ends" | "retest" | "revalidate" | "look" | "watch ends" | "call" }>;

/** States in which somebody may still be inside. */
const OUT: readonly PermitState[] = ["live", "suspended", "run out"];

/** What falls due under a permit from now on, soonest first. */
export function dueUnder(context: AskContext): Due[] {
  return owedUnder(context).filter(({ at_ms }) => at_ms >= context.now_ms);
}

/** The same with what is overdue: what should have been done by a time that is past, and was not. Soonest first. */
export function owedUnder(context: AskContext): Due[] {
  const { permit, facts, now_ms } = context;
  const { details, state } = permit;
  const due: Due[] = [];
  const isRunning = state === "live" || state === "suspended" || state === "issued";
  if (isRunning) due.push({ at_ms: permit.validTo_ms, what: "ends" });
  if (state === "live") {
    const rule = kindRule(details.kind);
    const isEntry = rule.entryLog;
    const within = inside(permit.log).length;
    if (rule.air && (!isEntry || within > 0)) {
      const until_ms = airUntil_ms(context, within);
      if (until_ms !== null && Number.isFinite(until_ms)) due.push({ at_ms: until_ms, what: "retest" });
    }
    const owed = revalidationDue(context);
    if (owed !== null) due.push({ at_ms: owed.until_ms, what: "revalidate" });
  }
  // Whoever is inside is spoken to, whatever has become of the permit.
  if (details.kind === "confined space entry" && OUT.includes(state)) {
    const talk = talkDue_ms(permit.log, details.talk_min);
    if (talk !== null) due.push({ at_ms: talk, what: "call" });
  }
  if (state === "watching") {
    const watch = afterWatchOf(permit, facts, now_ms);
    for (const look of watch?.checks ?? []) {
      if (look.done === null && !look.missed) due.push({ at_ms: look.due_ms, what: "look" });
    }
    if (watch) due.push({ at_ms: watch.continuousUntil_ms, what: "watch ends" });
  }
  return due.sort((a, b) => a.at_ms - b.at_ms);
}
