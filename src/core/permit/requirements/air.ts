import { airState, unexplained, unwatched, withoutCause, type AirState } from "../air/airTests";
import { keeps } from "../air/airRules";
import { kindRule } from "../kinds/kinds";
import { entriesOf } from "../record/permitLog";
import { known, type AskContext, type AskMaker } from "./ask";

const isEntryOf = ({ permit }: AskContext) => kindRule(permit.details.kind).entryLog;

/** The air where it is read from outside; in a space without its corners and ducts. */
export function airOutside(context: AskContext): AirState {
  return airOf(context, (point) => !context.facts.insidePoints.includes(point));
}

/** Corners and ducts, which the first who goes in reads. */
export function airInside(context: AskContext): AirState {
  return airOf(context, (point) => context.facts.insidePoints.includes(point));
}

function airOf(context: AskContext, only: (point: string) => boolean): AirState {
  const { permit, facts, now_ms, begins } = context;
  return airState(facts, permit.log, {
    every_min: facts.profile.airRetest_min,
    now_ms,
    entry: isEntryOf(context),
    ...(begins ? { begins } : {}),
    only: keeps("first entrant") ? only : (point) => only(point) || facts.insidePoints.includes(point),
  });
}

/** Until when the air stands where people work now, in ms; null while something is missing. */
export function airUntil_ms(context: AskContext, within: number): number | null {
  const outside = airOutside(context).until_ms;
  const { insidePoints } = context.facts;
  if (insidePoints.length === 0 || within < 2) return outside;
  const inside = airInside(context).until_ms;
  return outside === null || inside === null ? outside : Math.min(outside, inside);
}

/** What is asked of the air besides that it is read and fit. */
export const AIR_ASKS: Readonly<Record<string, AskMaker>> = {
  "gases seen": ({ permit, facts }) => {
    const replaced = new Set(entriesOf(permit.log, "reading replaced").map(({ gas }) => gas));
    const blind = facts.gases.filter(({ gas, seen }) => !seen && !replaced.has(gas));
    const unmet =
      blind.length === 0 || !keeps("not seen")
        ? null
        : `no instrument here sees ${blind.map(({ gas, why }) => `${gas} (${why})`).join(", ")}: an approver says what is done instead`;
    return known("gases seen", "Every gas that may be there is read, or replaced by a measure", unmet);
  },

  explained: (context) => {
    const { permit, facts } = context;
    const odd = keeps("explained") ? unexplained(facts, permit.log, isEntryOf(context)) : [];
    return known(
      "explained",
      "What is not as outside air is explained",
      odd.length > 0 ? odd.map(({ words }) => words).join("; ") : null,
      {
        before: "accept",
        holds: isEntryOf(context) ? "inside" : "always",
        cause: "gas",
      },
    );
  },

  cause: ({ permit, facts }) => {
    const open = keeps("cause") ? withoutCause(permit.log) : [];
    const bare = unwatched(facts, permit.log);
    const unmet =
      open.length > 0
        ? `none for ${open.join(", ")}`
        : bare.length > 0
          ? `no cause was found at ${bare.join(", ")}: a gas detector that sees all that is asked stands there`
          : null;
    return known("cause", "Every bad reading has its cause", unmet, { before: "accept", cause: "gas" });
  },
};
