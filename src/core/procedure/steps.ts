import { isHighVoltage } from "./highVoltage";
import { tagOfPlace } from "../plant/resolvePlace";
import type { Role, Trade } from "../people/roles";
import type { Carrier } from "../plant/carriers";
import type { Item } from "../plant/plant";
import type { StateGraph } from "../trace/stateGraph";
import type { Plan } from "../plan/plan";

export const STEP_KINDS = [
  "tell",
  "accept losses",
  "stop",
  "bar off",
  "position",
  "restrain",
  "run down",
  "lock",
  "verify",
  "bleed",
  "release",
  "cool",
  "empty",
  "clean",
  "certify",
  "inert",
  "purge",
  "prove",
  "stand in",
  "discharge",
  "earth",
  "test air",
  "try start",
  "close box",
  "clear",
  "count people",
  "guards",
  "end stand-in",
  "take pin out",
  "take short off",
  "remove earth",
  "close bleed",
  "cap",
  "leak test",
  "walk line",
  "tell all",
  "unlock",
  "start",
  "watch",
  "take barriers away",
  "hand over",
  "open box",
  "test run",
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** One thing to do at one place. Steps without a way between them in `after` may be done side by side. */
export type PlannedStep = Readonly<{
  id: string;
  /** `test` is a temporary de-isolation: points lifted for a test, and locked and proved again. */
  phase: "isolate" | "restore" | "test";
  kind: StepKind;
  /** The tag it is done at, or the job. */
  subject: string;
  /** What is written on the real device; the person reads it back. */
  plate: string | null;
  words: string;
  competence: Trade | null;
  /** At high voltage, or at one that nobody wrote down: only whoever is appointed for that does it. */
  highVoltage?: true;
  /** Ids of the steps that must be done before. */
  after: readonly string[];
  /** Proving only: which energy is shown not to be there. */
  carrier: Carrier | null;
  /** Proving only: what must not be exceeded, and its unit. */
  limit: Readonly<{ most: number; unit: string }> | null;
  secondPerson: boolean;
  /** Only somebody of this role does it. */
  role?: Role;
  /** Proving dead: every pair to be read, and the voltage the tester must be rated for. */
  pairs?: readonly string[];
  system_V?: number;
  /** Trying to start: every way that is tried. */
  ways?: readonly string[];
  /** Earths: the face's way in by power that the earths must stand on, for working between them. */
  entrances?: readonly string[];
  /** Proving no pressure where a door or cover is opened: how wide it is inside its gasket. */
  opening_m?: number;
  /** Of a minor isolation: done by the one person who works under it alone, and by nobody else. */
  alone?: true;
}>;

/** What a step is called where there is no room for its words. No two open steps of an isolation share it. */
export function stepLabel(step: Pick<PlannedStep, "kind" | "subject" | "carrier">): string {
  return `${step.kind} ${step.subject}${step.carrier === null ? "" : ` (${step.carrier})`}`;
}

type NewStep = Omit<PlannedStep, "id" | "plate" | "carrier" | "limit" | "secondPerson"> & Partial<PlannedStep>;

/** A plan being written out as steps: its parts, and the list that grows. */
export type StepList = Readonly<{
  plan: Plan;
  graph: StateGraph;
  /** Names of the faces, and the tags of their items. */
  faces: readonly string[];
  faceTags: readonly string[];
  item: (tag: string) => Item;
  /** The place with its item's name. */
  named: (place: string) => string;
  plateOf: (tag: string) => string;
  steps: readonly PlannedStep[];
  /** Adds a step and answers its id. */
  add: (step: NewStep) => string;
}>;

export function stepList(plan: Plan, graph: StateGraph): StepList {
  const item = (tag: string): Item => {
    const found = graph.plant.items[graph.itemByTag.get(tag) ?? -1];
    if (found === undefined) throw new Error(`the plan names ${tag}, which the plant does not have`);
    return found;
  };
  const faces = [...new Set(plan.routes.map((route) => route.face))];
  const steps: PlannedStep[] = [];
  /** Where dead is proved the tester may meet what stands at the next place as well. */
  const voltageAt = ({ subject, system_V }: NewStep): number | undefined => {
    const { voltage_V } = item(itemTagOf(graph, subject));
    return voltage_V === undefined || system_V === undefined ? voltage_V : Math.max(voltage_V, system_V);
  };
  const carriersAt = ({ subject, carrier }: NewStep): readonly Carrier[] =>
    carrier ? [carrier] : (plan.points.find(({ device }) => device === subject)?.stops ?? ["power"]);
  return {
    plan,
    graph,
    faces,
    faceTags: [...new Set(faces.map((face) => itemTagOf(graph, face)))],
    item,
    named: (place) => {
      const { name } = item(itemTagOf(graph, place));
      return name ? `${place}, ${name}` : place;
    },
    plateOf: (tag) => item(tag).plate ?? tag,
    steps,
    add: (step) => {
      const id = `${step.phase.charAt(0)}${steps.length + 1}`;
      const high = step.competence === "electrical" && isHighVoltage(voltageAt(step), carriersAt(step));
      const made = { plate: null, carrier: null, limit: null, secondPerson: false, ...step, id };
      steps.push(high ? { ...made, highVoltage: true } : made);
      return id;
    },
  };
}

/** The tag of a place: itself, or the item whose part it is. */
export function itemTagOf(graph: StateGraph, place: string): string {
  return tagOfPlace(place, (name) => graph.itemByTag.has(name));
}

const WIRES: ReadonlySet<Carrier> = new Set(["power", "control"]);

/** Drives and voltages come off before the lines they move. */
export function driveFirst(stops: readonly Carrier[]): 0 | 1 {
  return stops.some((carrier) => carrier === "power" || carrier === "control" || carrier === "shaft") ? 0 : 1;
}

export function competenceFor(carriers: readonly Carrier[]): Trade {
  if (carriers.some((carrier) => WIRES.has(carrier) || carrier === "radiation")) return "electrical";
  if (carriers.some((carrier) => carrier === "shaft" || carrier === "gravity")) return "mechanical";
  return "process";
}
