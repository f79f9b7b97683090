import { EVERY_ASK } from "./every";
import { ENTRY_ASKS } from "./entry";
import { HOT_WORK_ASKS } from "./hotWork";
import { AIR_ASKS } from "./air";
import { OTHER_ASKS } from "./others";
import { otherPermits } from "./otherPermits";
import type { Ask, AskContext, AskMaker } from "./ask";
import { inside } from "../people/entries";
import { kindRule, type PermitKind } from "../kinds/kinds";

/** What a kind's own words mean, before those that every kind shares. */
const BY_KIND: Readonly<Partial<Record<PermitKind, Readonly<Record<string, AskMaker>>>>> = {
  "hot work": HOT_WORK_ASKS,
  "confined space entry": ENTRY_ASKS,
};

const EVERY_ASKS: Readonly<Record<string, AskMaker>> = { ...EVERY_ASK, "other permits": otherPermits };

/** Everything that is asked of a permit, with what is missing at this moment, in the order of its kind. */
export function asksOf(context: AskContext): Ask[] {
  const { kind } = context.permit.details;
  return kindRule(kind).asks.flatMap((id) => {
    const make = BY_KIND[kind]?.[id] ?? AIR_ASKS[id] ?? OTHER_ASKS[id] ?? EVERY_ASKS[id];
    if (make === undefined) throw new Error(`nobody knows what ${id} asks of ${kind}`);
    return make(context) ?? [];
  });
}

/** What is missing for an act: to issue, or to start (which also asks everything of issuing). */
export function missingFor(act: "issue" | "accept", context: AskContext): Ask[] {
  return asksOf({ ...context, begins: act === "accept" }).filter(
    (ask) => ask.unmet !== null && (act === "accept" || ask.before === "issue"),
  );
}

/** What a live permit lacks now; with any of it, it is live no more. */
export function missingWhileLive(context: AskContext): Ask[] {
  const isOccupied = inside(context.permit.log).length > 0;
  return asksOf(context).filter(
    (ask) => ask.unmet !== null && (ask.holds === "always" || (ask.holds === "inside" && isOccupied)),
  );
}
