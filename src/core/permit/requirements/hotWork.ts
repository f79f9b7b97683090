import { cited } from "../../requirement/cited";
import { AFTER_WATCHES, HOT_WORK, type AfterWatch } from "../../fire/hotWork";
import type { DetailsOf } from "../kinds/details";
import { onPost } from "../people/posts";
import { entriesOf, sinceEvacuated } from "../record/permitLog";
import { airOutside } from "./air";
import { known, looked, type AskContext, type AskMaker } from "./ask";

const fireLaw = ({ facts }: AskContext) => cited(facts.profile, "hot work");
const watchLaw = ({ facts }: AskContext) => cited(facts.profile, "fire watch");

function hotWork({ permit }: AskContext): DetailsOf<"hot work"> {
  if (permit.details.kind !== "hot work") throw new Error(`permit ${permit.number} is not for hot work`);
  return permit.details;
}

/** One watcher for each level that sparks reach, and one more where a part of it is out of sight. Common practice. */
export function watchersNeeded(details: Pick<DetailsOf<"hot work">, "levels" | "outOfSight">): number {
  return details.levels + (details.outOfSight ? 1 : 0);
}

export function afterWatchRule(id: string): AfterWatch {
  const found = AFTER_WATCHES.find((one) => one.id === id);
  if (found === undefined) throw new Error(`there is no watch ${id}`);
  return found;
}

/** Is one watch at least as long in every part as another? */
export function watchCovers(one: AfterWatch, other: AfterWatch): boolean {
  return (
    one.continuous_s >= other.continuous_s &&
    one.continuous_s + one.checks_s >= other.continuous_s + other.checks_s &&
    (one.finalCheck || !other.finalCheck)
  );
}

export const HOT_WORK_ASKS: Readonly<Record<string, AskMaker>> = {
  zone: (context) =>
    context.facts.zone.map((item) => {
      const what = item.words.startsWith(item.tag) ? item.words : `${item.tag}, ${item.words}`;
      const words = `${what}: ${item.demand.charAt(0).toLowerCase()}${item.demand.slice(1)}`;
      return looked(context, item.id, words, { source: fireLaw(context) });
    }),

  floor: (context) =>
    looked(context, "floor", `Floor swept or wet for ${Math.ceil(HOT_WORK.clear_m)} m around`, {
      source: fireLaw(context),
    }),

  screens: (context) => looked(context, "screens", "Screens or covers hold the sparks", { source: fireLaw(context) }),

  cylinders: (context) => {
    const { noCylinders, cylinders_m } = hotWork(context);
    if (noCylinders) return null;
    const unmet =
      cylinders_m < HOT_WORK.cylinders_m
        ? `they stand ${cylinders_m} m away, less than ${HOT_WORK.cylinders_m} m`
        : null;
    return known("cylinders", `Cylinders ${HOT_WORK.cylinders_m} m from the work`, unmet);
  },

  extinguisher: (context) =>
    looked(context, "extinguisher", "Extinguisher in date or charged hose at hand, its use known", {
      source: fireLaw(context),
    }),

  "after-watch class": (context) => {
    const { facts } = context;
    const chosen = afterWatchRule(hotWork(context).afterWatch);
    const least = [afterWatchRule(facts.profile.afterWatch), afterWatchRule(facts.watchClass ?? "class 3")];
    const short = least.find((one) => !watchCovers(chosen, one));
    const why = facts.watchClass === null ? " (nobody wrote down the class of this area)" : "";
    const unmet = short ? `${chosen.words} is less than ${short.words}, which is asked here${why}` : null;
    return known("after-watch class", "The watch afterwards is long enough for this place", unmet, {
      source: watchLaw(context),
    });
  },

  watch: (context) => {
    const needs = watchersNeeded(hotWork(context));
    const there = onPost(context.permit.log).filter(({ post }) => post === "fire watch").length;
    const unmet = there < needs ? `${there} of ${needs} on duty` : null;
    const words = needs === 1 ? "A fire watch is on duty" : `${needs} fire watches are on duty`;
    return known("watch", words, unmet, { before: "accept", source: watchLaw(context), cause: "watch missing" });
  },

  /** Each who watches says it of themselves, since they came: what one had in hand the next may not. */
  "watch ready": (context) => {
    const { permit, facts } = context;
    const there = onPost(permit.log).filter(({ post }) => post === "fire watch");
    const said = entriesOf(sinceEvacuated(permit.log), "ticked").filter(({ ask }) => ask === "watch ready");
    const silent = there.filter(
      ({ person, from_ms }) => !said.some(({ by, at_ms }) => by === person && at_ms >= from_ms),
    );
    const unmet =
      there.length === 0
        ? "nobody is on duty who could say so"
        : silent.length > 0
          ? `not said yet by ${silent.map(({ person }) => facts.nameOf(person)).join(", ")}`
          : null;
    const words = "Whoever watches has a radio that was answered, a horn or whistle, and two ways out";
    return {
      ...looked(context, "watch ready", words, { source: watchLaw(context), before: "accept", holds: "beginning" }),
      only: "fire watch",
      unmet,
    };
  },

  "edge detector": (context) => {
    const words = "A gas detector stands at the edge of the zone, not beside the flame";
    if (!hasGasDetector(context)) return looked(context, "edge detector", words, { before: "accept" });
    return known("edge detector", words, detectorFaults(context), {
      before: "accept",
      cause: detectorCause(context),
    });
  },

  air: (context) => {
    const air = airOutside(context);
    return known("air", "The air is tested and fit", air.fit ? null : air.wants.join("; "), {
      before: "accept",
      cause: "gas",
    });
  },
};

/** A blower or a gauge that sends reads no air. */
export function hasGasDetector({ facts }: Pick<AskContext, "facts">): boolean {
  return facts.detectors.some(({ kind }) => kind === "gas");
}

/** What kind of stop it is when a detector that stands there is against it. */
export function detectorCause({ facts }: Pick<AskContext, "facts">): "silent detector" | "gas" {
  return facts.detectors.some(({ silent }) => silent) ? "silent detector" : "gas";
}

/** What is against the detectors that stand there; null while each sends and reads well. */
export function detectorFaults({ facts }: Pick<AskContext, "facts">): string | null {
  const faults = facts.detectors.flatMap(({ id, against, silent }) =>
    silent ? [`${id} is silent`] : against.map((what) => `${id}: ${what}`),
  );
  return faults.length > 0 ? faults.join("; ") : null;
}
