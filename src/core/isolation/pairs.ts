import type { SourceVertex } from "../trace/sources";
import { gateVertices, type StateGraph } from "../trace/stateGraph";
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
  /** Every device that may count as a barrier for this job: creditable, and not itself the work. */
  creditable: ReadonlySet<number>;
}>;

/** Cost: linear in items. */
export function barrierField(graph: StateGraph, faces: readonly WorkFace[]): BarrierField {
  const atWork = faceItems(faces);
  const creditable = new Set<number>();
  graph.plant.items.forEach((_, index) => {
    if (!atWork.has(index) && gateVertices(graph, index).length > 0) creditable.add(index);
  });
  return { graph, faces, creditable, targetsOf: new Map(faces.map((face) => [face, allFaceVertices(face)])) };
}

/** Devices that fail together are one unit and count once; any other device is a unit of its own. */
export function unitOf(field: BarrierField, itemIndex: number): string {
  const item = field.graph.plant.items[itemIndex];
  // A tag cannot begin with a space, so a common cause never meets a tag by chance.
  return item?.device?.commonCause === undefined ? (item?.tag ?? "") : ` ${item.device.commonCause}`;
}
