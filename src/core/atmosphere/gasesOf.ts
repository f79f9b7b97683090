import type { Contents } from "../plant/plant";
import { SUBSTANCES, substance } from "./substances";

/** A gas, vapour or fume that has to be reckoned with, and why. */
export type GasAsked = Readonly<{ gas: string; why: string }>;

/** Words of a register, and the gases that what they name gives off. Common practice, no source. */
const GIVES_OFF: readonly (readonly [words: RegExp, gases: readonly string[], why: string])[] = [
  [/effluent|sewage|sewer|sludge|gully|manure/i, ["hydrogen sulphide", "methane"], "what rots gives it off"],
  [/petrol|gasoline|naphtha/i, ["petrol vapour"], "its vapour"],
  [/\bhexane\b|solvent/i, ["hexane"], "its vapour"],
  [/hydrogen(?! sulph)/i, ["hydrogen"], "what is in it"],
  [/chlorine|hypochlorite/i, ["chlorine"], "what is in it"],
  [/natural gas|biogas|marsh gas/i, ["methane"], "what is in it"],
  [/exhaust|engine|flue/i, ["carbon monoxide", "nitrogen dioxide"], "engines and flames make it"],
];

/** Gases by name in the words of a register. */
const named = (words: string) =>
  SUBSTANCES.filter(({ name }) => new RegExp(`\\b${name}\\b`, "i").test(words)).map(({ name }) => name);

/**
 * What contents hold or may give off. What is written down as poisonous and is no gas of the table is named as it stands:
 * no instrument is known to see it.
 */
export function gasesOf(place: string, contents: Contents | undefined): GasAsked[] {
  if (contents === undefined) return [];
  const { fluid, hazards } = contents;
  const found: GasAsked[] = named(fluid).map((gas) => ({ gas, why: `${place} holds ${fluid}` }));
  for (const [words, gases, why] of GIVES_OFF) {
    if (words.test(fluid)) found.push(...gases.map((gas) => ({ gas, why: `${fluid} at ${place}: ${why}` })));
  }
  const poisons = found.some(({ gas }) => substance(gas)?.toxic !== undefined);
  if (hazards.includes("toxic") && !poisons) {
    found.push({ gas: `vapour of ${fluid}`, why: `${place} holds ${fluid}, which poisons` });
  }
  return found;
}

/** What the work itself makes. Common practice, no source. */
export function gasesOfWork(works: readonly string[]): GasAsked[] {
  const arc = works.some((work) => work === "welding" || work === "cutting");
  return arc
    ? [
        { gas: "ozone", why: "an arc makes it" },
        { gas: "nitrogen dioxide", why: "an arc or a flame makes it" },
      ]
    : [];
}

/** Each gas once, with the first reason. */
export function eachOnce(all: readonly GasAsked[]): GasAsked[] {
  return [...new Map([...all].reverse().map((one) => [one.gas, one])).values()].reverse();
}

/**
 * To which fraction of the air a space is swept: a tenth of the lower limit of what burns, or the limit for breathing,
 * whichever is lower of all that may be there. Null where nobody knows a gas: then it is never called fit by the sum.
 */
export function sweepTarget(gases: readonly string[]): Readonly<{ gas: string; fraction: number }> | null {
  let least: { gas: string; fraction: number } | null = null;
  for (const gas of gases) {
    const known = substance(gas);
    const burns = known?.lfl === undefined ? Infinity : Math.min(...Object.values(known.lfl)) / 10;
    const fraction = Math.min(burns, known?.toxic?.limit ?? Infinity);
    if (Number.isFinite(fraction) && (least === null || fraction < least.fraction)) least = { gas, fraction };
  }
  return least;
}
