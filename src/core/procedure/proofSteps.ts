import type { Carrier } from "../plant/carriers";
import { isVessel } from "../plan/emptiable";
import type { Plan } from "../plan/plan";
import { CONTROL_PAIRS, pairsOf } from "../plant/conductors";
import { competenceFor, itemTagOf, type StepList } from "./steps";

const FLUIDS: ReadonlySet<Carrier> = new Set(["fluid", "hydraulic", "pneumatic", "bulk"]);

const PRESSING: ReadonlySet<Carrier> = new Set(["fluid", "hydraulic", "pneumatic"]);

/** A manhole that a person fits through, where nobody wrote down how wide the door is. Common practice, no source. */
const MANHOLE_m = 0.6;

/** The door of a vessel that is opened: what a gauge cannot show still pushes on it. */
function openingOf(list: StepList, face: string): { opening_m?: number } {
  const item = list.item(itemTagOf(list.graph, face));
  return isVessel(item) ? { opening_m: item.space?.door_m ?? MANHOLE_m } : {};
}

/** One proof for each face and each energy that could have come to it; `opened` are faces that people open or enter. Answers their ids. */
export function addProofs(
  list: StepList,
  opened: ReadonlySet<string>,
  after: (carrier: Carrier) => readonly string[],
): string[] {
  return list.faces.flatMap((face) =>
    carriersToProve(list.plan, face).map((carrier) =>
      list.add({
        phase: "isolate",
        kind: "prove",
        subject: face,
        words: proofWords(face, carrier),
        competence: competenceFor([carrier]),
        after: after(carrier),
        carrier,
        limit: proofLimit(carrier),
        secondPerson: FLUIDS.has(carrier),
        ...(carrier === "power" ? { pairs: pairsOf(list.item(itemTagOf(list.graph, face)).system) } : {}),
        ...(PRESSING.has(carrier) && opened.has(face) ? openingOf(list, face) : {}),
        ...(carrier === "control" ? { pairs: CONTROL_PAIRS } : {}),
        ...(carrier === "power" || carrier === "control" ? { system_V: testerRating_V(list, face) } : {}),
      }),
    ),
  );
}

/** Low voltage as far as it goes: what a tester is rated for where nobody wrote the voltage down. */
const LOW_VOLTAGE_TOP_V = 1000;

/** The voltage that the tester must be rated for: the highest written down at the face and at its neighbours. */
function testerRating_V(list: StepList, face: string): number {
  const near = [face, ...list.plan.waysIn.filter((way) => way.face === face).map((way) => way.through)];
  const known = near.flatMap((place) => list.item(itemTagOf(list.graph, place)).voltage_V ?? []);
  const own = list.item(itemTagOf(list.graph, face)).voltage_V;
  return Math.max(...known, own === undefined ? LOW_VOLTAGE_TOP_V : 0);
}

/** What could have come to a face, and so must be shown not to be there. */
function carriersToProve(plan: Plan, face: string): Carrier[] {
  const arrives = new Set<Carrier>();
  for (const way of plan.waysIn) if (way.face === face) arrives.add(way.carrier);
  for (const row of plan.stored) if (row.face === face) arrives.add(row.arrives);
  return [...arrives];
}

function proofWords(face: string, carrier: Carrier): string {
  switch (carrier) {
    case "power":
      return `Prove ${face} dead: every pair of conductors, tester proved before and after.`;
    case "control":
      return `Prove every control terminal at ${face} dead, the neighbour's interlock among them.`;
    case "fluid":
    case "hydraulic":
    case "pneumatic":
      return `Prove ${face} empty of pressure (${carrier}): gauge at zero, nothing comes.`;
    case "bulk":
      return `Prove that no solids can come to ${face}.`;
    case "shaft":
    case "gravity":
      return `Prove that ${face} cannot be moved by ${carrier === "shaft" ? "its drive" : "its weight"}.`;
    case "heat":
      return `Measure the surface of ${face}.`;
    case "radiation":
      return `Survey ${face} with the shutter locked.`;
  }
}

/** Common practice, no source; 43 °C is the eight-hour contact limit for bare metal (EN ISO 13732-1, from memory). */
function proofLimit(carrier: Carrier): { most: number; unit: string } {
  switch (carrier) {
    case "power":
    case "control":
      return { most: 5, unit: "V" };
    case "fluid":
    case "hydraulic":
    case "pneumatic":
      return { most: 0.05, unit: "bar" };
    case "bulk":
    case "shaft":
    case "gravity":
      return { most: 0, unit: "mm moved" };
    case "heat":
      return { most: 43, unit: "°C" };
    case "radiation":
      return { most: 1, unit: "µSv/h" };
  }
}
