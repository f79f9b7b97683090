import { lockedBy, nominalBore, SIZE_MISSING } from "../gear/lockedBy";
import type { Plan } from "../plan/plan";
import type { PlannedStep } from "../procedure/steps";
import type { Item } from "../plant/plant";
import type { StateGraph } from "../trace/stateGraph";
import { settled, type Setup } from "../schedule/setup";
import { boltsFor } from "./boltTable";
import { haspsFor, personalLocks } from "../gear/hasps";

/** Something to bring: what, of which size, how many, and what for. */
export type PickLine = Readonly<{
  thing: string;
  /** Empty where it comes in one size. */
  size: string;
  count: number;
  /** Tags it is for, or why. */
  for: readonly string[];
}>;

/**
 * What has to be brought to carry out a plan: locks, tags and how each device takes them, hasps, blinds with gaskets and
 * bolts, hoses, earths, blower, instruments. Lines are joined by thing and size, in the order of use. What the register
 * does not say is a line of its own: somebody looks before walking out. Common practice.
 *
 * Cost: linear in the plan.
 */
export function pickList(plan: Plan, steps: readonly PlannedStep[], graph: StateGraph, setup: Setup): PickLine[] {
  const itemOf = (tag: string): Item | undefined => graph.plant.items[graph.itemByTag.get(tag) ?? -1];
  const lines = new Map<string, { thing: string; size: string; count: number; for: Set<string> }>();
  const need = (thing: string, size: string, count: number, what: string) => {
    const key = `${thing} ${size}`;
    const line = lines.get(key) ?? { thing, size, count: 0, for: new Set() };
    line.count += count;
    line.for.add(what);
    lines.set(key, line);
  };
  const isolating = steps.filter((step) => step.phase === "isolate");
  const of = (kind: PlannedStep["kind"]) => isolating.filter((step) => step.kind === kind);

  for (const point of plan.points) {
    const item = itemOf(point.device);
    if (point.lockable) need("isolation lock with tag", "", 1, point.device);
    else need("tag, and something more", "", 1, point.device);
    if (point.lockable && !point.positive)
      for (const [thing, size] of lockedBy(item)) need(thing, size, 1, point.device);
  }
  for (const step of of("bleed")) {
    need("isolation lock with tag", "", 1, step.subject);
    const bore = itemOf(step.subject)?.bleed?.bore_m;
    need("bleed hose", bore === undefined ? SIZE_MISSING : nominalBore(bore), 1, step.subject);
  }
  const people = settled(setup, "people");
  const school = settled(setup, "lockSchool");
  const points = plan.points.filter((point) => point.lockable);
  need("personal lock", "", personalLocks({ people, points: points.length, school }), `${people} people, ${school}`);
  need("lock box", "", 1, "the isolation's keys");
  if (school === "on the box") need("hasp", "6 holes", Math.max(haspsFor(people), 0), "lock box");
  // The isolation's own lock hangs on the point besides.
  else for (const point of points) need("hasp", "6 holes", haspsFor(people + 1), point.device);

  for (const blind of plan.blinds) {
    const size = [
      blind.bore_m === null ? SIZE_MISSING : nominalBore(blind.bore_m),
      blind.flangeClass === null ? "class not in the register" : classWords(blind.flangeClass),
    ].join(", ");
    need("blind", size, 1, blind.device);
    // One on each side of the blind, and the same again when it comes out.
    need("gasket", size, 4, blind.device);
    const bolts =
      blind.bore_m === null || blind.flangeClass === null ? null : boltsFor(blind.bore_m, blind.flangeClass);
    if (bolts === null) need("bolts: count them on the flange", size, 1, blind.device);
    else need("bolt with nuts, long enough for the blind", size, bolts, blind.device);
  }
  for (const step of of("earth")) need("portable earth, set of three", "", 1, step.subject);
  for (const step of of("discharge")) need("shorting stick", "", 1, step.subject);
  for (const step of of("restrain")) need("pin, block or chock", "", 1, step.subject);
  for (const step of of("inert")) need("inert gas hose and gauge", "", 1, step.subject);
  for (const step of of("purge")) need("blower with hose", "", 1, step.subject);
  for (const step of of("test air")) need("gas instrument with hose, bump-tested", "", 1, step.subject);
  const proofs = of("prove");
  const carrierProved = (...carriers: (string | null)[]) => proofs.filter((step) => carriers.includes(step.carrier));
  const instrument = (thing: string, proved: readonly PlannedStep[]) => {
    if (proved.length === 0) return;
    for (const step of proved) need(thing, "", 0, step.subject);
    need(thing, "", 1, proved[0]!.subject);
  };
  instrument("voltage tester with proving unit", carrierProved("power", "control"));
  instrument("contact thermometer", [...carrierProved("heat"), ...of("cool")]);
  instrument("radiation survey meter", carrierProved("radiation"));
  instrument("rod for clearing bleeds", of("bleed"));
  return [...lines.values()]
    .filter((line) => line.count > 0)
    .map(({ for: what, ...line }) => ({ ...line, for: [...what] }));
}

/** "PN 16" or "class 150": numbers up to 100 are pressures in bar by EN 1092-1, those above classes by ASME B16.5. */
function classWords(flangeClass: string): string {
  const figures = flangeClass.replace(/\D/g, "");
  return figures === "" ? flangeClass : `${Number(figures) <= 100 ? "PN" : "class"} ${figures}`;
}
