/** Systems of conductors, as the register writes them. */
export const SYSTEMS = ["1-phase", "3-phase", "3-phase and neutral", "dc"] as const;
export type System = (typeof SYSTEMS)[number];

const CONDUCTORS: Readonly<Record<System, readonly string[]>> = {
  "1-phase": ["L", "N", "E"],
  "3-phase": ["L1", "L2", "L3", "E"],
  "3-phase and neutral": ["L1", "L2", "L3", "N", "E"],
  dc: ["+", "−", "E"],
};

/**
 * Every pair of conductors of a system, earth among them: n(n − 1)/2 readings, each its own, for a blade may hang on one
 * leg alone. A system that nobody wrote down is taken as the one with the most pairs. Common practice.
 */
export function pairsOf(system: System | undefined): string[] {
  const conductors = CONDUCTORS[system ?? "3-phase and neutral"];
  return conductors.flatMap((one, i) => conductors.slice(i + 1).map((other) => `${one}–${other}`));
}

/**
 * Control terminals have no system: the highest reading found between any two of them, and from any to neutral and to
 * earth. A voltage from the neighbour's cubicle shows against earth though nothing shows between. Common practice.
 */
export const CONTROL_PAIRS: readonly string[] = ["terminal–terminal", "terminal–N", "terminal–E"];
