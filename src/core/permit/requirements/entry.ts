import { cited } from "../../requirement/cited";
import { sweepTarget } from "../../atmosphere/gasesOf";
import { manholePurge } from "../../atmosphere/manholePurge";
import { isVentilated, purgeState } from "../air/airTests";
import { keeps } from "../air/airRules";
import { blowerFault } from "../air/blower";
import { entriesOf } from "../record/permitLog";
import type { PermitFacts } from "../record/permitTypes";
import { airInside, airOutside } from "./air";
import type { DetailsOf } from "../kinds/details";
import { inside, talkDue_ms } from "../people/entries";
import { onPost } from "../people/posts";
import { known, looked, type AskContext, type AskMaker } from "./ask";
import { detectorCause, detectorFaults, hasGasDetector } from "./hotWork";

/** What the profile cites of confined spaces; the paragraph is that of 29 CFR 1910.146. */
const law = ({ facts }: Pick<AskContext, "facts">, paragraph: string) =>
  cited(facts.profile, "confined spaces", paragraph);
const DAY_MS = 86_400_000;

function entry({ permit }: Pick<AskContext, "permit">): DetailsOf<"confined space entry"> {
  if (permit.details.kind !== "confined space entry") throw new Error(`permit ${permit.number} is not for an entry`);
  return permit.details;
}

/**
 * How long the space is blown out before anybody goes in, down to what may be breathed and does not burn of the gases that
 * may be there; null where this blower never gets there. The bench and the timeline ask the same sum.
 */
export function purgeNeed_s(details: DetailsOf<"confined space entry">, gases: PermitFacts["gases"]): number | null {
  const { chimneys, volume_m3, blower_m3_s, bends } = details;
  const c = sweepTarget(gases.map(({ gas }) => gas))?.fraction;
  const end = c === undefined ? {} : { c };
  return manholePurge({ chimneys, volume_m3, rated_m3_s: blower_m3_s, bends, ...end }).time_s;
}

/** Bends at most when the space is blown out, and when it is ventilated. Common practice, no source. */
export const MOST_BENDS = { purge: 1, ventilate: 2 } as const;

export const ENTRY_ASKS: Readonly<Record<string, AskMaker>> = {
  positive: ({ facts }) => {
    const unmet = facts.shortfalls.length > 0 ? `held worse than asked: ${facts.shortfalls.join("; ")}` : null;
    return known("positive", "Every way in is shut off as entry asks", unmet, {
      source: law({ facts }, "(b), isolation"),
    });
  },

  cleaned: (context) => looked(context, "cleaned", "Emptied and cleaned; deposits and what sleeps in them looked for"),
  cooled: (context) => looked(context, "cooled", "Cool enough to stay in, and nothing inside heats itself"),

  purge: ({ permit, facts }) => {
    const need_s = purgeNeed_s(entry({ permit }), facts.gases);
    const state = purgeState(permit.log);
    const words =
      need_s === null ? "Blown out" : `Blown out for ${Math.ceil(need_s / 60)} min since anybody was last inside`;
    const unmet =
      need_s === null
        ? "this blower never gets there: take a larger one"
        : state.running
          ? `running until ${facts.timeOf(state.ready_ms!)}`
          : state.done
            ? null
            : "not done";
    return known("purge", words, unmet, { before: "accept", holds: "inside", source: law({ facts }, "(d)(3)(iv)") });
  },

  rescue: ({ permit, facts, now_ms }) => {
    const { rehearsed_ms } = entry({ permit });
    const days = Math.floor((now_ms - rehearsed_ms) / DAY_MS);
    const most = facts.profile.rehearsedWithin_days;
    const unmet =
      days < 0
        ? "the date of its rehearsal is in the future"
        : days > most
          ? `last rehearsed ${days} days ago, more than ${most}`
          : null;
    return known("rescue", "The rescue was rehearsed", unmet, { source: law({ facts }, "(k)(2)(iv)") });
  },

  "rescue kit": (context) =>
    looked(context, "rescue kit", "Rescue kit on the spot: line and winch where the space allows, harness, radio", {
      source: law(context, "(k)(3)"),
    }),
  cover: (context) =>
    looked(
      context,
      "cover",
      "The cover is lifted by gear, or by enough people for what it weighs (25 kg each at most); tested under its edge before it comes off; the hole is guarded",
    ),
  lights: (context) => looked(context, "lights", "Low-voltage lights only, and tools on safe supplies"),
  ladder: (context) =>
    looked(context, "ladder", "Ladder looked at, and the way out free", { source: law(context, "(d)(4)(vii)") }),
  "no cylinders": (context) => looked(context, "no cylinders", "No gas cylinder inside"),
  intake: (context) => looked(context, "intake", "The blower draws clean air, away from exhausts"),

  watch: ({ permit, facts }) => {
    const there = onPost(permit.log).some(({ post }) => post === "attendant");
    return known("watch", "An attendant is on duty, with no other", there ? null : "nobody is", {
      before: "accept",
      holds: "inside",
      cause: "watch missing",
      source: law({ facts }, "(d)(6)"),
    });
  },

  talk: ({ permit, facts, now_ms }) => {
    const { talk_min } = entry({ permit });
    const due = talkDue_ms(permit.log, talk_min);
    const unmet = due !== null && now_ms > due ? `they were to be spoken to by ${facts.timeOf(due)}` : null;
    return known("talk", `The people inside are spoken to every ${talk_min} min`, unmet, {
      before: "accept",
      holds: "inside",
      cause: "watch missing",
    });
  },

  detector: (context) => {
    const words = "Air is read all the time, at head height";
    if (!hasGasDetector(context)) return looked(context, "detector", words, { before: "accept" });
    return known("detector", words, detectorFaults(context), { before: "accept", cause: detectorCause(context) });
  },

  "first test": ({ permit, facts: { coverPoint } }) => {
    if (coverPoint === null || !keeps("cover")) return null;
    const isRead = entriesOf(permit.log, "air").some(({ point }) => point === coverPoint);
    return known(
      "first test",
      "The first test was taken before the cover came off",
      isRead ? null : `${coverPoint}: not read`,
      {
        before: "accept",
      },
    );
  },

  ventilated: (context) => {
    if (!keeps("ventilated")) return null;
    const { permit, facts } = context;
    const unmet = blowerFault(facts) ?? (isVentilated(permit.log) ? null : "the blower does not run for them");
    return known("ventilated", "The space is ventilated while people are inside", unmet, {
      before: "accept",
      holds: "inside",
      cause: "ventilation",
    });
  },

  corners: (context) => {
    const { facts, permit } = context;
    if (facts.insidePoints.length === 0) return null;
    const air = airInside(context);
    // The first reads them; while one is alone inside they are on their way.
    const unmet = inside(permit.log).length > 1 && !air.fit ? air.wants.join("; ") : null;
    return known("corners", "Corners and duct mouths are read from inside before a second goes in", unmet, {
      before: "accept",
      holds: "inside",
      cause: "gas",
    });
  },

  air: (context) => {
    const air = airOutside(context);
    return known("air", "The air is tested at every point and fit", air.fit ? null : air.wants.join("; "), {
      before: "accept",
      holds: "inside",
      cause: "gas",
      source: law(context, "(d)(5)"),
    });
  },
};
