import type { Competence } from "../people/roles";
import type { Carrier } from "../plant/carriers";
import type { Item } from "../plant/plant";
import type { StateGraph } from "../trace/stateGraph";
import type { Plan } from "./plan";

export type StepKind =
  | "tell"
  | "stop"
  | "lock"
  | "bleed"
  | "release"
  | "prove"
  | "try start"
  | "close box"
  | "clear"
  | "close bleed"
  | "unlock"
  | "hand over";

/** One thing to do at one place. Steps without a way between them in `after` may be done side by side. */
export type PlannedStep = Readonly<{
  id: string;
  phase: "isolate" | "restore";
  kind: StepKind;
  /** The tag it is done at, or the job. */
  subject: string;
  /** What is written on the real device; the person reads it back. */
  plate: string | null;
  words: string;
  competence: Competence | null;
  /** Ids of the steps that must be done before. */
  after: readonly string[];
  /** Proving only: which energy is shown not to be there. */
  carrier: Carrier | null;
  /** Proving only: what must not be exceeded, and its unit. */
  limit: Readonly<{ most: number; unit: string }> | null;
  secondPerson: boolean;
}>;

/** What a step is called where there is no room for its words. No two open steps of an isolation share it. */
export function stepLabel(step: Pick<PlannedStep, "kind" | "subject" | "carrier">): string {
  return `${step.kind} ${step.subject}${step.carrier === null ? "" : ` (${step.carrier})`}`;
}

/**
 * The steps of an isolation and of its return, in an order that may be walked.
 *
 * Tell; stop by the normal controls; isolate drives before their process lines; on the process lines the side of the
 * supply first; then bleed, make stored energy harmless, prove every face dead by every carrier that could have come,
 * try to start, close the box. The return runs the other way: clear, close bleeds, locks off, hand over. Common practice.
 *
 * Cost: linear in the plan.
 */
export function stepsOf(plan: Plan, graph: StateGraph): PlannedStep[] {
  const item = (tag: string): Item => {
    const found = graph.plant.items[graph.itemByTag.get(tag) ?? -1];
    if (found === undefined) throw new Error(`the plan names ${tag}, which the plant does not have`);
    return found;
  };
  const named = (tag: string) => (item(tag).name ? `${tag}, ${item(tag).name}` : tag);
  const steps: PlannedStep[] = [];
  let count = 0;
  const add = (
    step: Omit<PlannedStep, "id" | "plate" | "carrier" | "limit" | "secondPerson"> & Partial<PlannedStep>,
  ): string => {
    const id = `${step.phase === "isolate" ? "i" : "r"}${++count}`;
    steps.push({ plate: null, carrier: null, limit: null, secondPerson: false, ...step, id });
    return id;
  };
  const faces = [...new Set(plan.routes.map((route) => route.face))];
  const faceTags = [...new Set(faces.map((face) => (graph.itemByTag.has(face) ? face : face.split(".")[0]!)))];

  const tell = add({
    phase: "isolate",
    kind: "tell",
    subject: faces.join(", "),
    words: `Tell the operator and everyone who depends on ${faces.join(", ")} that it goes out of service.`,
    competence: null,
    after: [],
  });
  const stop = add({
    phase: "isolate",
    kind: "stop",
    subject: faces.join(", "),
    words: `Run out and stop ${faces.join(", ")} by the normal controls. Leave the controls off.`,
    competence: null,
    after: [tell],
  });

  const points = [...plan.points].sort(
    (a, b) =>
      a.stage - b.stage ||
      driveFirst(a.stops) - driveFirst(b.stops) ||
      a.layer - b.layer ||
      (a.device < b.device ? -1 : 1),
  );
  const valves = points.filter((point) => point.stage === 1);
  const fitted = points.filter((point) => point.stage === 2);
  const drives: string[] = [];
  const locks: string[] = [];
  for (const point of valves) {
    const isDrive = driveFirst(point.stops) === 0;
    const id = add({
      phase: "isolate",
      kind: "lock",
      subject: point.device,
      plate: item(point.device).plate ?? point.device,
      words: `${isDrive ? "Open" : "Shut"} ${named(point.device)}, and at once ${point.lockable ? "lock and tag it" : "tag it: it takes no lock, so do something more"}.`,
      competence: competenceFor(point.stops),
      after: isDrive ? [stop] : [stop, ...drives],
    });
    (isDrive ? drives : locks).push(id);
  }
  const beforeBlinds = [...drives, ...locks];

  const bleeds = [...new Set([...plan.bleeds, ...bleedsAt(graph, faceTags)])].sort().map((tag) => ({
    tag,
    id: add({
      phase: "isolate",
      kind: "bleed",
      subject: tag,
      plate: item(tag).plate ?? tag,
      words: `Open ${named(tag)} to a safe place, rod it clear, lock it open and watch until nothing comes.`,
      competence: "process",
      after: beforeBlinds.length > 0 ? beforeBlinds : [stop],
    }),
  }));
  // A blind is fitted only where the line behind the valves was bled.
  const blinds = fitted.map((point) =>
    add({
      phase: "isolate",
      kind: "lock",
      subject: point.device,
      plate: item(point.device).plate ?? point.device,
      words: `Fit ${named(point.device)}: first flange opened as if full, standing aside. Lock and tag it.`,
      competence: "mechanical",
      after: [stop, ...beforeBlinds, ...bleeds.map(({ id }) => id)],
    }),
  );
  const allLocks = [...beforeBlinds, ...blinds];
  const stored = [...new Map(plan.stored.map((row) => [row.source, row])).values()].filter((row) =>
    row.via.slice(1, -1).every((place) => !plan.points.some((point) => point.device === place)),
  );
  const releases = stored.map((row) =>
    add({
      phase: "isolate",
      kind: "release",
      subject: row.source,
      words: `Make the stored energy at ${named(row.source)} harmless: ${row.harmless}.`,
      competence: competenceFor([row.carrier]),
      after: [...allLocks, ...bleeds.map(({ id }) => id)],
    }),
  );

  const proofs = faces.flatMap((face) =>
    carriersToProve(plan, face).map((carrier) =>
      add({
        phase: "isolate",
        kind: "prove",
        subject: face,
        words: proofWords(face, carrier),
        competence: competenceFor([carrier]),
        after: [...allLocks, ...bleeds.map(({ id }) => id), ...releases],
        carrier,
        limit: proofLimit(carrier),
        secondPerson: FLUIDS.has(carrier),
      }),
    ),
  );
  const tried = add({
    phase: "isolate",
    kind: "try start",
    subject: faces.join(", "),
    words: `Try every way of starting ${faces.join(", ")}. Nothing must move. Leave the controls off.`,
    competence: null,
    after: proofs.length > 0 ? proofs : [...allLocks, ...releases],
  });
  add({
    phase: "isolate",
    kind: "close box",
    subject: "lock box",
    words: "Put every key of the isolation locks into the box, close and lock it.",
    competence: null,
    after: [tried],
  });

  const clear = add({
    phase: "restore",
    kind: "clear",
    subject: faces.join(", "),
    words: "Tools out, open ends closed, guards back, people counted and clear. Tell everyone it comes back.",
    competence: null,
    after: [],
  });
  const blindsOut = fitted.map((point) =>
    add({
      phase: "restore",
      kind: "unlock",
      subject: point.device,
      plate: item(point.device).plate ?? point.device,
      words: `Take ${named(point.device)} out with its lock and tag, and close the flange with a new gasket.`,
      competence: "mechanical",
      after: [clear],
    }),
  );
  const shut = bleeds.map(({ tag }) =>
    add({
      phase: "restore",
      kind: "close bleed",
      subject: tag,
      plate: item(tag).plate ?? tag,
      words: `Close and plug ${named(tag)}.`,
      competence: "process",
      after: [clear, ...blindsOut],
    }),
  );
  const lifted: string[] = [...blindsOut];
  // Process lines first, the work side before the supply side; drives come back last.
  for (const point of [...valves].reverse()) {
    lifted.push(
      add({
        phase: "restore",
        kind: "unlock",
        subject: point.device,
        plate: item(point.device).plate ?? point.device,
        words: `Take lock and tag off ${named(point.device)} and put it back to its normal position.`,
        competence: competenceFor(point.stops),
        after: driveFirst(point.stops) === 0 ? [clear, ...shut, ...lifted] : [clear, ...blindsOut, ...shut],
      }),
    );
  }
  add({
    phase: "restore",
    kind: "hand over",
    subject: faces.join(", "),
    words: `Walk the line, start by the normal controls, watch it run and hand ${faces.join(", ")} to operations.`,
    competence: null,
    after: [clear, ...shut, ...lifted],
  });
  return steps;
}

const FLUIDS: ReadonlySet<Carrier> = new Set(["fluid", "hydraulic", "pneumatic", "bulk"]);
const WIRES: ReadonlySet<Carrier> = new Set(["power", "control"]);

/** Drives and voltages come off before the lines they move. */
function driveFirst(stops: readonly Carrier[]): 0 | 1 {
  return stops.some((carrier) => carrier === "power" || carrier === "control" || carrier === "shaft") ? 0 : 1;
}

export function competenceFor(carriers: readonly Carrier[]): Competence {
  if (carriers.some((carrier) => WIRES.has(carrier) || carrier === "radiation")) return "electrical";
  if (carriers.some((carrier) => carrier === "shaft" || carrier === "gravity")) return "mechanical";
  return "process";
}

/** Bleeds that are linked straight to the work: the nearest place where a person can see that nothing comes. */
function bleedsAt(graph: StateGraph, faceTags: readonly string[]): string[] {
  const near = new Set<string>();
  for (const { from, to } of graph.plant.links) {
    for (const [end, other] of [
      [from, to],
      [to, from],
    ] as const) {
      const bleed = graph.plant.items[graph.itemByTag.get(end) ?? -1]?.bleed;
      if (bleed && faceTags.includes(other)) near.add(end);
    }
  }
  return [...near].sort();
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
      return `Prove ${face} empty of pressure (${carrier}): gauge at zero, bleed clear, nothing comes.`;
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
