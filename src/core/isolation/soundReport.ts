import type { PlannedStep } from "../procedure/steps";
import { WATCHED } from "./held";
import type { EmptiedHow } from "./isolation";
import { asksOf } from "./stepAsks";
import type { StepReport } from "./stepEvidence";

/** Instruments by the numbers they have in the demo's register. */
export const SOUND_GEAR = {
  tester: "VT-02",
  provingUnit: "PU-02",
  gloves: "GL-11",
  "pressure gauge": "PG-04",
  thermometer: "TH-02",
  "survey meter": "SM-01",
  earths: ["PE-01", "PE-02", "PE-03", "PE-04", "PE-05", "PE-06"],
} as const;

/**
 * What somebody reports who does a step well and finds it as it should be: the demo's day and the tests are made of it.
 * `lock` is the number of the lock they hang, `people` how many have worked, `locks` how many hang on the box.
 */
export function soundReport(
  step: PlannedStep,
  p: Readonly<{ lock?: string; people?: number; locks?: number; earths?: readonly string[] }> = {},
): StepReport {
  const asks = asksOf(step);
  return {
    plate: step.plate,
    ...(asks.lock ? { lock: p.lock } : {}),
    ...(asks.pairs.length > 0
      ? {
          readings: Object.fromEntries(asks.pairs.map((pair) => [pair, 0])),
          tester: SOUND_GEAR.tester,
          provingUnit: SOUND_GEAR.provingUnit,
          gloves: SOUND_GEAR.gloves,
          provedBefore: true,
          provedAfter: true,
        }
      : {}),
    ...(asks.reading
      ? {
          reading: 0,
          instrument: asks.reading.instrument ? SOUND_GEAR[asks.reading.instrument as "thermometer"] : null,
        }
      : {}),
    ...(asks.opening_m === null ? {} : { words: "two long bolts left in, opened from the hinge side" }),
    tried: asks.ways,
    ...(asks.earths === "apply" ? { earths: { [p.earths?.[0] ?? SOUND_GEAR.earths[0]]: step.subject } } : {}),
    ...(asks.earths === "remove" ? { earths: { [p.earths?.[0] ?? SOUND_GEAR.earths[0]]: step.subject } } : {}),
    ...(asks.locksCounted ? { locksCounted: p.locks ?? 0 } : {}),
    ...(asks.peopleCounted ? { peopleCounted: p.people ?? 0 } : {}),
    ...(asks.leakTest ? { pressure_bar: 6, held_min: 15, lost_bar: 0, instrument: SOUND_GEAR["pressure gauge"] } : {}),
    ...(asks.words === null ? {} : { words: WORDS[asks.words] ?? "as planned" }),
  };
}

/** How somebody begins a step well that runs for a time. */
export function soundBegin(step: PlannedStep, watcher: string): Readonly<{ watcher?: string; how?: EmptiedHow }> {
  return WATCHED.has(step.kind) ? { watcher, how: "drained" } : {};
}

const WORDS: Readonly<Record<string, string>> = {
  "Who was told": "Control room, and the shift by radio; repeated back",
  "What is done about each": "Standby lined up, panel told, read back by radio",
  "What holds it": "Steel pin through both lugs",
  "Who does it, where, and what was found": "Ivo, at the valve, by radio; seat tight",
  "What was put back": "Handle back on",
  "Where it went, and who agreed to it": "Slop tank, its level seen; the panel agreed",
  "With what, for how long, and where the washings went": "Hot water for an hour, washings to the slop tank",
  "Number of the certificate, and who wrote it": "DC-14, written by the laboratory",
  "Who takes it": "Ruth Amberley, for operations",
  "What was seen": "Turned as it should, stopped at once",
};
