import { SHIFT_CONTACT_C } from "../energy/coolDown";
import type { Plan } from "../plan/plan";
import type { Item } from "../plant/plant";
import type { Job } from "../request/jobFile";
import type { StateGraph } from "../trace/stateGraph";
import { drainsOf, isKnownEmpty, isVessel } from "../plan/emptiable";
import { itemTagOf, type StepList } from "./steps";

/** A vessel at a work location, and what has to be done with what is in it before people open, enter or burn. */
export type VesselWork = Readonly<{
  face: string;
  item: Item;
  /** Hotter than may be touched, or nobody wrote down how hot. */
  isHot: boolean;
  /** Something may stand in it that does not leave by itself. */
  toEmpty: boolean;
  /** What stays on its walls can harm whoever goes in or brings a flame. */
  toClean: boolean;
  heatsItself: boolean;
  /** Bleeds by which it surely drains; none: it is pumped, or drained as an approver accepted. */
  drains: readonly string[];
}>;

/**
 * The vessels that this work opens, enters or brings a flame to. What the register does not say counts as the worse:
 * unknown contents are there, are hot and leave something behind. Common practice, no source. Cost: linear in the faces.
 */
export function vesselWork(plan: Plan, graph: StateGraph, faces: Job["faces"]): VesselWork[] {
  const work = new Map<string, VesselWork>();
  for (const { place, how } of faces) {
    const isEntered = how.includes("enter");
    const isBurned = how.includes("hot");
    if (!isEntered && !isBurned && !how.includes("open")) continue;
    const item = graph.plant.items[graph.itemByTag.get(itemTagOf(graph, place)) ?? -1];
    if (item === undefined || (!isEntered && !isVessel(item))) continue;
    const { contents } = item;
    const before = work.get(place);
    work.set(place, {
      face: place,
      item,
      isHot: contents?.temperature_C === undefined ? isEntered : contents.temperature_C > SHIFT_CONTACT_C,
      toEmpty: contents?.phase !== "gas" && !isKnownEmpty(item),
      toClean: before?.toClean === true || ((isEntered || isBurned) && leavesSomething(item)),
      heatsItself: contents?.hazards.includes("self-heating") ?? false,
      drains: drainsOf(plan.cavities, graph, place).filter((tag) => !plan.unusable.includes(tag)),
    });
  }
  return [...work.values()];
}

/** A harmless gas goes with the air; everything else, and what nobody described, stays on the walls. */
function leavesSomething({ contents }: Item): boolean {
  return contents === undefined || contents.phase !== "gas" || contents.hazards.length > 0;
}

const WORDS = {
  cool: ({ face, item }: VesselWork) =>
    `Let ${face} cool with what is in it (${heat(item)}), and measure it, before anything is let out.`,
  empty: ({ face, item, drains, heatsItself }: VesselWork) =>
    `Empty ${face} of ${held(item)} ${drains.length > 0 ? `through ${drains.join(", ")}, or pump it out` : "by the way that was accepted: nothing is known by which it surely drains"}. Whoever answers for the place it goes to agrees first. Somebody watches all the time and does nothing else: where they are called away, shut it.${heatsItself ? " It heats itself: read its temperature meanwhile, and keep what comes out wet or under inert gas." : ""}`,
  clean: ({ face }: VesselWork) =>
    `Steam, wash or rinse ${face} out from outside, and rake out what has settled. Nobody goes in.`,
  certify: ({ face }: VesselWork) =>
    `Look into ${face} from outside: level at zero, as cold as the air around it, nothing left on its walls. Write the decontamination certificate. Not by whoever cleaned it.`,
} as const;

function heat({ contents }: Item): string {
  return contents?.temperature_C === undefined
    ? "nobody wrote down how hot it is"
    : `${contents.temperature_C} °C in the register`;
}

function held({ contents }: Item): string {
  if (contents === undefined) return "whatever stands in it: the register does not say";
  return contents.volume_m3 === undefined ? contents.fluid : `${contents.fluid}, up to ${contents.volume_m3} m³`;
}

type VesselStep = keyof typeof WORDS;

function vesselStep({ add }: StepList, kind: VesselStep, vessel: VesselWork, after: readonly string[]): string {
  return add({
    phase: "isolate",
    kind,
    subject: vessel.face,
    words: WORDS[kind](vessel),
    competence: kind === "certify" ? null : "process",
    after,
    secondPerson: kind === "certify",
  });
}

/**
 * Hot contents are let cool, and what has a drain is emptied through it under somebody's eyes, before any of its bleeds is
 * left open. Cooling that the list has already is not asked twice. `before` answers what a bleed waits for.
 */
export function coolAndDrain(
  list: StepList,
  vessels: readonly VesselWork[],
  locked: readonly string[],
  drainValves: readonly string[],
) {
  const cooled: string[] = [];
  const emptied: string[] = [];
  const ofBleed = new Map<string, string[]>();
  for (const vessel of vessels) {
    const isOfFace = ({ kind, subject }: StepList["steps"][number]) => kind === "cool" && subject === vessel.face;
    const before = list.steps.filter(isOfFace).map(({ id }) => id);
    if (vessel.isHot && before.length === 0) {
      const id = vesselStep(list, "cool", vessel, locked);
      cooled.push(id);
      before.push(id);
    }
    if (vessel.toEmpty && vessel.drains.length > 0) {
      const id = vesselStep(list, "empty", vessel, [...locked, ...drainValves, ...before]);
      emptied.push(id);
      before.push(id);
    }
    for (const tag of vessel.drains) ofBleed.set(tag, [...(ofBleed.get(tag) ?? []), ...before]);
  }
  return { cooled, emptied, before: (bleed: string): readonly string[] => ofBleed.get(bleed) ?? [] };
}

/** What has no drain is emptied by the way that was accepted; then cleaned, looked into and certified. Answers their ids. */
export function emptyAndClean(list: StepList, vessels: readonly VesselWork[], after: readonly string[]): string[] {
  return vessels.flatMap((vessel) => {
    const made: string[] = [];
    const next = (kind: VesselStep) =>
      made.push(vesselStep(list, kind, vessel, made.length > 0 ? [made.at(-1)!] : after));
    if (vessel.toEmpty && vessel.drains.length === 0) next("empty");
    if (vessel.toClean) {
      next("clean");
      next("certify");
    }
    return made;
  });
}
