import { lockedBy } from "../gear/lockedBy";
import type { Item } from "../plant/plant";
import type { PlannedStep } from "./steps";

/** How a step is done on the spot: where to stand, how it must be left, what holds the lock. */
export type Guide = Readonly<{
  stand: string | null;
  position: string | null;
  holdsLock: string | null;
  /** What is easily taken for more than it is. */
  mind: string | null;
}>;

const NOTHING: Guide = { stand: null, position: null, holdsLock: null, mind: null };

/** So that nobody reaches past one that is not proved yet. Common practice, no source. */
const CONDUCTORS = "The nearest conductor first, then the farther; the lowest first, then the higher.";

const SWITCHES: ReadonlySet<string> = new Set(["breaker", "isolator", "switch", "starter"]);

/** Common practice, no source. Cost: constant. */
export function guideOf(step: PlannedStep, item: Item | undefined): Guide {
  const isSwitch = item !== undefined && SWITCHES.has(item.kind);
  const isBlind = item?.device?.positive === true && !isSwitch;
  const holds = lockedBy(item)
    .map(([thing, size]) => (size === "" ? thing : `${thing}, ${size}`))
    .join("; ");
  switch (step.kind) {
    case "lock":
      return {
        ...NOTHING,
        stand: isSwitch
          ? "To the side of it, hand nearest the handle, face turned away."
          : isBlind
            ? "Beside the flange and upwind; slacken the bolts on the far side first."
            : "Beside the stem, never over it; upwind of the packing.",
        position: isSwitch
          ? "Off. Look at every blade: one can hang. The lock goes through the handle, not the door."
          : isBlind
            ? "Fitted, both gaskets in, every bolt tight."
            : "Shut: the handwheel turns no further, and the stem stands as it should.",
        holdsLock: item?.device?.lockable === false ? null : holds || "the lock itself, through the handle",
      };
    case "unlock":
      return {
        ...NOTHING,
        stand: isSwitch ? "To the side of it, face turned away." : "Beside it, upwind.",
        position: isBlind ? "Out, and the flange closed with a new gasket." : "As the line-up says.",
      };
    case "bleed":
      return {
        ...NOTHING,
        stand: "Upwind and beside the outlet; it may spit.",
        position: "Open and locked open.",
        mind: "A bleed that shows nothing may be plugged: rod it.",
      };
    case "empty":
      return {
        ...NOTHING,
        stand: "Upwind of where it goes, with the valve in reach.",
        mind: "Pressure off at its highest point first, and that left open: it must neither spurt nor suck itself in. A level gauge hangs and a sight glass clogs: dip it, or look in.",
      };
    case "close bleed":
      return { ...NOTHING, stand: "Upwind and beside the outlet.", position: "Shut and plugged." };
    case "prove":
      return step.limit?.unit === "V"
        ? {
            ...NOTHING,
            stand: "Footing dry, face shield down, nobody within reach of your elbow.",
            position: CONDUCTORS,
            mind: "A contact-free stick is a hint, never proof. Only every pair is.",
          }
        : NOTHING;
    case "earth":
      return {
        ...NOTHING,
        stand: "Clear of the conductors, with the stick's whole length.",
        position: `Earth end first. ${CONDUCTORS}`,
      };
    case "remove earth":
      return {
        ...NOTHING,
        stand: "Clear of the conductors, with the stick's whole length.",
        position:
          "The other way round: the farthest and the highest first, the nearest and lowest last, earth end last of all.",
      };
    case "position":
      return {
        ...NOTHING,
        stand: "Clear of everything that turns, in sight of who is at the controls.",
        mind: "It is entered only once it is locked: what holds it by itself holds nobody.",
      };
    case "try start":
      return {
        ...NOTHING,
        stand: "Clear of everything that could move.",
        mind: "It proves nothing where an interlock already blocks the start.",
      };
    case "tell":
    case "accept losses":
    case "stop":
    case "restrain":
    case "run down":
    case "verify":
    case "release":
    case "cool":
    case "clean":
    case "certify":
    case "inert":
    case "purge":
    case "discharge":
    case "test air":
    case "close box":
    case "clear":
    case "count people":
    case "guards":
    case "take pin out":
    case "take short off":
    case "bar off":
    case "take barriers away":
    case "cap":
    case "leak test":
    case "walk line":
    case "tell all":
    case "start":
    case "watch":
    case "hand over":
    case "open box":
    case "test run":
    case "stand in":
    case "end stand-in":
      return NOTHING;
  }
}
