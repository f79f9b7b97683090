import { cited } from "../../requirement/cited";
import { notHeldClause } from "../../words/en/notHeld";
import { needsApprover } from "../../fire/hotWork";
import { undecided } from "./clashDecisions";
import { kindRule } from "../kinds/kinds";
import { copiesOf, entriesOf, signedBy } from "../record/permitLog";
import { known, looked, type AskContext, type AskMaker } from "./ask";

const MINUTE_MS = 60_000;

/** Why somebody who answers for safety has to approve; empty where nobody has to. Common practice, no source. */
export function approvalReasons({ permit, facts }: Pick<AskContext, "permit" | "facts">): string[] {
  const { details } = permit;
  const reasons: string[] = [];
  if (details.kind === "hot work") {
    if (needsApprover(details.welders, 1)) reasons.push(`${details.welders} people with a flame on one permit`);
    const near = facts.zone.filter(({ what }) => what === "holds what burns" || what === "under the flame");
    if (near.length > 0) {
      reasons.push(`${near.map(({ tag }) => tag).join(", ")} may hold what burns within reach of the flame`);
    }
  }
  if (details.kind === "electrical work" && details.live) reasons.push("work on live conductors");
  if (details.kind === "pressure test" && details.medium === "gas") reasons.push("a pressure test with gas");
  if (details.kind === "safeguard bypass") reasons.push("a safeguard that does not work for a while");
  return reasons;
}

export function needsApproval(context: Pick<AskContext, "permit" | "facts">): boolean {
  return approvalReasons(context).length > 0;
}

/**
 * The last shift change that asked for a revalidation which nobody signed, and until when it may still be signed; null
 * when none is owed.
 */
export function revalidationDue({ permit, facts, now_ms }: AskContext): Readonly<{
  change_ms: number;
  until_ms: number;
}> | null {
  const began = signedBy(permit.log, "accept");
  if (began === undefined) return null;
  const within_ms = facts.profile.revalidateWithin_min * MINUTE_MS;
  const change_ms = facts.shiftChanges_ms(began.at_ms, now_ms).at(-1);
  if (change_ms === undefined) return null;
  const signed = entriesOf(permit.log, "signed").some(
    ({ act, at_ms }) =>
      (act === "revalidate" && at_ms >= change_ms - within_ms) || (act === "resume" && at_ms >= change_ms),
  );
  return signed ? null : { change_ms, until_ms: change_ms + within_ms };
}

export const EVERY_ASK: Readonly<Record<string, AskMaker>> = {
  isolation: ({ permit, facts }) => {
    if (!kindRule(permit.details.kind).isolation) return null;
    const broken = facts.isolations.flatMap(({ notHeld }) => notHeld ?? []);
    const unmet =
      facts.isolations.length === 0
        ? "no isolation stands for it"
        : broken.length > 0
          ? broken.map(notHeldClause).join("; ")
          : null;
    return known("isolation", "Its isolation is proven and holds", unmet, {
      source: cited(facts.profile, "energy control", "(d)(6)"),
      cause: "isolation",
    });
  },

  muster: ({ facts }) =>
    facts.muster === null
      ? null
      : known(
          "muster",
          "No muster is open here",
          `${facts.muster} is, and all work stands still until everybody was seen`,
          {
            before: "accept",
            cause: "area alarm",
          },
        ),

  accepted: ({ facts, now_ms }) => {
    const { acceptedUntil_ms: until_ms } = facts;
    if (until_ms === null) return null;
    const unmet =
      now_ms < until_ms ? null : `it was accepted until ${facts.timeOf(until_ms)}; an approver looks at it again`;
    return known("accepted", "What was accepted below the rules is accepted still", unmet, { cause: "isolation" });
  },

  "stand-ins": (context) =>
    context.facts.standIns.map(({ measure, words, face, sources }) =>
      looked(context, `stand-in ${measure} ${face}`, `${words}, against ${sources.join(", ")} at ${face}`, {
        source: "what was accepted below the rules",
        before: "accept",
      }),
    ),

  minor: ({ permit, facts }) => {
    const more = facts.minor?.crew.filter((one) => one !== permit.holder).map(facts.nameOf) ?? [];
    const required = facts.required?.filter(({ kind }) => kind !== "general").map(({ kind }) => kind) ?? [];
    const against = [
      ...(facts.minor === null
        ? ["nobody knows what hangs for it"]
        : facts.minor.failed.map((step) => `${step} failed`)),
      ...(facts.minor?.lock === null ? ["no lock hangs on its point"] : []),
      ...(more.length > 0 ? [`the crew has others: ${more.join(", ")}`] : []),
      ...(required.length > 0 ? [`its hazards require a permit of a kind: ${required.join(", ")}`] : []),
      ...(facts.ofJob.some(({ state }) => state !== "closed" && state !== "cancelled")
        ? ["another permit of its job is open"]
        : []),
    ];
    return known("minor", "It still is a minor isolation", against.length > 0 ? against.join("; ") : null, {
      source: cited(facts.profile, "energy control", "(c)(4)(i)"),
    });
  },

  hazards: ({ facts }) => {
    const open = facts.hazardsOpen;
    const unmet =
      open === null
        ? "nobody has gone through the job's hazards"
        : open.length > 0
          ? `${open.length} to decide: ${open.slice(0, 3).join("; ")}`
          : null;
    return known("hazards", "The job's hazards are decided", unmet);
  },

  "planned for": ({ permit, facts }) => {
    const { details } = permit;
    const how = details.kind === "hot work" && details.inEquipment ? "hot" : kindRule(details.kind).plannedFor;
    if (how === null) return null;
    const unmet = facts.plannedFor.includes(how)
      ? null
      : `the isolation was planned for people who ${facts.plannedFor.join(" or ") || "do nothing here"}, not ${how}`;
    return known("planned for", `The isolation was planned for this: ${how}`, unmet);
  },

  approval: (context) => {
    const reasons = approvalReasons(context);
    if (reasons.length === 0) return null;
    const approved = signedBy(context.permit.log, "approve");
    const unmet = approved ? null : `a safety approver decides: ${reasons.join("; ")}`;
    return known("approval", "Approved by safety", unmet);
  },

  /** At the work, on paper; or on a screen there, where the site's rules count that. */
  copies: (context) => {
    const { permit, facts } = context;
    const more = {
      source: cited(facts.profile, "confined spaces", "(e)(3)"),
      before: "accept",
      holds: "beginning",
    } as const;
    const words = "A copy is displayed at the work";
    if (copiesOf(permit.log).some(({ returned_ms }) => returned_ms === null)) return known("copies", words, null, more);
    return facts.profile.displayed === "paper or screen"
      ? looked(context, "copies", `${words}: none hangs, a screen there shows it`, more)
      : known("copies", words, "none hangs: print it and say where", more);
  },

  revalidation: (context) => {
    const due = revalidationDue(context);
    const unmet =
      due !== null && context.now_ms >= due.until_ms
        ? `nobody revalidated it at the shift change of ${context.facts.timeOf(due.change_ms)}`
        : null;
    return known("revalidation", "Revalidated at each shift change", unmet, { before: "accept" });
  },

  clashes: ({ permit, facts }) => {
    const isRunning = permit.state === "live" || permit.state === "suspended";
    const left = undecided(facts.clashes, [...permit.log, ...facts.decidedElsewhere]).filter(
      // One person on two permits goes from one to the other: somebody decides that before, but nobody else has to stop.
      ({ kind }) => !isRunning || kind !== "same person",
    );
    const unmet = left.length > 0 ? left.map(({ words }) => words).join(" ") : null;
    return known("clashes", "Where it touches other permits is decided", unmet, { cause: "clash" });
  },
};
