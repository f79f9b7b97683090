import type { PlannedStep, StepKind } from "../procedure/steps";

/** Minutes of hands for each kind of step, when nobody has measured better. Common practice, no source. */
const HANDS_min: Readonly<Record<StepKind, number>> = {
  tell: 10,
  "accept losses": 10,
  stop: 15,
  "bar off": 15,
  position: 20,
  "take barriers away": 10,
  restrain: 15,
  "run down": 2,
  lock: 8,
  verify: 4,
  bleed: 8,
  release: 10,
  cool: 3,
  empty: 20,
  clean: 60,
  certify: 10,
  inert: 15,
  purge: 10,
  prove: 8,
  "stand in": 15,
  "end stand-in": 10,
  discharge: 10,
  earth: 15,
  "test air": 10,
  "try start": 5,
  "close box": 5,
  clear: 15,
  "count people": 3,
  guards: 10,
  "take pin out": 8,
  "take short off": 5,
  "remove earth": 10,
  "close bleed": 5,
  cap: 10,
  "leak test": 10,
  "walk line": 10,
  "tell all": 10,
  unlock: 8,
  start: 10,
  watch: 15,
  "hand over": 5,
  "open box": 5,
  "test run": 15,
};

/** Ten pairs and the tester twice. */
const PROVE_DEAD_min = 15;

/** Minutes of hands for a step; a device's own effort wins, and the same again to take its lock off. */
export function handsFor_min(step: PlannedStep, effort_min: number | undefined): number {
  if (step.kind === "lock" || step.kind === "unlock") return effort_min ?? HANDS_min[step.kind];
  if (step.kind === "prove" && step.carrier === "power") return PROVE_DEAD_min;
  return HANDS_min[step.kind];
}
