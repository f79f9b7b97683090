import type { Refusal } from "../../refusal/refusal";
import { refuse } from "../../refusal/result";
import { kindRule } from "../kinds/kinds";
import { copiesOf, entriesOf, type LogEntry } from "../record/permitLog";
import { peopleOn, type Extension, type PermitFacts, type PermitLife } from "../record/permitTypes";
import { airIsFresh } from "../requirements/freshAir";

/**
 * A permit that goes on past its first end: once, decided before that end, and by somebody who asked everybody who is on.
 * Common practice, no source. Past a shift change it still asks to be revalidated.
 */

const HOUR_MS = 3_600_000;
/** From the first issue to the last end at the most, unless one permit of its kind may be longer than that. */
const WHOLE_h = 24;

/** The latest end that an extension may give, in ms; null where it may not be extended at all, with why. */
export function extensionLimit(
  permit: PermitLife,
  facts: Pick<PermitFacts, "profile">,
): Readonly<{ until_ms: number }> | Readonly<{ why: string }> {
  if (facts.profile.extension === "never") return { why: `the rules here (${facts.profile.name}) extend none` };
  if (wasExtended(permit.log)) return { why: "it was extended once, and that is all" };
  const issued = firstIssued(permit.log);
  if (issued === undefined) return { why: "nobody has issued it" };
  const { longest_h } = kindRule(permit.details.kind);
  const until_ms = issued + Math.max(WHOLE_h, longest_h) * HOUR_MS;
  return until_ms > permit.validTo_ms
    ? { until_ms: Math.min(until_ms, permit.validTo_ms + longest_h * HOUR_MS) }
    : { why: `with ${Math.max(WHOLE_h, longest_h)} hours from its first issue it has had its time` };
}

function firstIssued(log: readonly LogEntry[]): number | undefined {
  return entriesOf(log, "signed").find(({ act }) => act === "issue")?.at_ms;
}

export function wasExtended(log: readonly LogEntry[]): boolean {
  return log.some(({ type }) => type === "extended");
}

/** Why it may not be extended so; null when it may. Who may is the table's to say. */
export function extensionFault(
  permit: PermitLife,
  { until_ms, stillOn, marked }: Extension,
  facts: PermitFacts,
  now_ms: number,
): Readonly<{ ok: false; refusal: Refusal }> | null {
  const limit = extensionLimit(permit, facts);
  if ("why" in limit) return refuse({ code: "not extended", permit: permit.number, why: limit.why });
  if (until_ms <= permit.validTo_ms) {
    return refuse({ code: "validity", reason: `the new end is not later than ${facts.timeOf(permit.validTo_ms)}` });
  }
  if (until_ms > limit.until_ms) {
    return refuse({
      code: "validity",
      reason: `it may be extended to ${facts.timeOf(limit.until_ms)} at the latest; after that another permit is written`,
    });
  }
  const on = peopleOn(permit).map(({ person }) => person);
  const notAsked = on.filter((person) => !stillOn.includes(person));
  const notOn = stillOn.filter((person) => !on.includes(person));
  if (notAsked.length > 0 || notOn.length > 0) {
    return refuse({
      code: "not all asked",
      permit: permit.number,
      notAsked: notAsked.map(facts.nameOf),
      notOn: notOn.map(facts.nameOf),
    });
  }
  const unmarked = copiesOf(permit.log).filter(
    ({ copy, returned_ms }) => returned_ms === null && !marked.includes(copy),
  );
  if (unmarked.length > 0) {
    return refuse({
      code: "copy says otherwise",
      permit: permit.number,
      copies: unmarked.map(({ copy, where }) => `copy ${copy} ${where}`),
    });
  }
  return airIsFresh({ permit, facts, now_ms }) ? null : refuse({ code: "air not fresh", permit: permit.number });
}
