import type { SourceVertex } from "../trace/sources";
import type { Carrier } from "../plant/carriers";
import { isCreditable } from "../plant/plant";
import { onceFor } from "../onceFor";
import { gatesOf, type StateGraph } from "../trace/stateGraph";
import { weakDevices, type Weak } from "./weakDevices";
import { allFaceVertices, faceItems, type WorkFace } from "../trace/workFaces";

/** A feeding source that may reach a face, and how many barriers the job asks between them. */
export type Pair = Readonly<{
  source: SourceVertex;
  face: WorkFace;
  required: number;
  /** Barriers there would be with every creditable device isolated. */
  available: number;
  /** What can be held: the lesser of the two. */
  k: number;
}>;

/** What the barrier searches need to know of a job, worked out once. */
export type BarrierField = Readonly<{
  graph: StateGraph;
  faces: readonly WorkFace[];
  targetsOf: ReadonlyMap<WorkFace, readonly number[]>;
  /**
   * Every device that may count as a barrier for this job: creditable, bearing what may come to it, not itself the work, and
   * not barred by the job.
   */
  creditable: ReadonlySet<number>;
  /** Items that are themselves the work. */
  atWork: ReadonlySet<number>;
  /** Devices and bleeds that the job cannot use: no barrier, no drain. */
  struck: ReadonlySet<number>;
  /** Limits of the register that do not hold here, for their relief is cut off: see limitsLost. */
  limitsLost: ReadonlySet<number>;
  /** Devices that count for nothing, for more may come to them than their flanges bear. */
  weak: ReadonlyMap<number, Weak>;
}>;

/**
 * `struck` are devices and bleeds that this job cannot use, `passing` those it must leave passing, `limitsLost` limits that what is
 * isolated takes away. Cost: linear in items, and see weakDevices.
 */
export function barrierField(
  graph: StateGraph,
  faces: readonly WorkFace[],
  struck: ReadonlySet<number> = new Set(),
  passing: ReadonlySet<number> = new Set(),
  limitsLost: ReadonlySet<number> = new Set(),
): BarrierField {
  const atWork = faceItems(faces);
  const creditable = new Set<number>();
  const weak = weakDevices(graph, limitsLost);
  graph.plant.items.forEach(({ device }, index) => {
    const isBarred = atWork.has(index) || struck.has(index) || passing.has(index) || weak.has(index);
    if (device && !isBarred && isCreditable(device)) creditable.add(index);
  });
  return {
    graph,
    faces,
    creditable,
    atWork,
    struck,
    limitsLost,
    weak,
    targetsOf: new Map(faces.map((face) => [face, allFaceVertices(graph, face)])),
  };
}

/** 1 at every vertex where a device that may count stops energy. Made once for each set of devices and graph. */
export function gateMarksOf({ graph, creditable }: BarrierField): Uint8Array {
  const known = marksOn(graph);
  const found = known.get(creditable) ?? gatesOf(graph, creditable);
  known.set(creditable, found);
  return found;
}

const marksOn = onceFor((_: StateGraph) => new WeakMap<ReadonlySet<number>, Uint8Array>());

/** Devices that fail together are one unit and count once; any other device is a unit of its own. */
export function unitOf(field: BarrierField, itemIndex: number): string {
  const item = field.graph.plant.items[itemIndex];
  // A tag cannot begin with a space, so a common cause never meets a tag by chance.
  return item?.device?.commonCause === undefined ? (item?.tag ?? "") : ` ${item.device.commonCause}`;
}

/** The same field with fewer devices to count on. */
export function narrowed(field: BarrierField, keep: (item: number) => boolean): BarrierField {
  return { ...field, creditable: new Set([...field.creditable].filter(keep)) };
}

/** The same face, met by one carrier only: what is asked of one form of arrival is judged against that form. */
export function faceByCarrier(face: WorkFace, carrier: Carrier): WorkFace {
  return { ...face, name: `${face.name} ${carrier}`, carriers: [carrier] };
}

/** The same field with other faces, its devices as they are. */
export function facing(field: BarrierField, faces: readonly WorkFace[]): BarrierField {
  return { ...field, faces, targetsOf: new Map(faces.map((face) => [face, allFaceVertices(field.graph, face)])) };
}
