import type { Job, How } from "../request/jobFile";
import { CARRIERS, type Carrier } from "../plant/carriers";
import type { Problem, Read } from "../plant/problem";
import { carrierOf, vertexOf, type StateGraph } from "./stateGraph";

/** A work face as the searches need it. */
export type WorkFace = Readonly<{
  /** As the job names it: a tag, or tag.part. */
  name: string;
  how: readonly How[];
  /** Items that are this face: a device among them is no barrier for the job. */
  items: readonly number[];
  places: readonly number[];
  carriers: readonly Carrier[];
  /** Carriers were left out without a reason written down. */
  narrowedWithoutReason: boolean;
}>;

/** The job's faces on this plant. A name that is no place, or named twice, is refused. */
export function workFaces(graph: StateGraph, job: Job, file: string): Read<readonly WorkFace[]> {
  const problems: Problem[] = [];
  const faces: WorkFace[] = [];
  job.faces.forEach((face, index) => {
    const field = `faces.${index + 1}.place`;
    const found = graph.places.resolveFace(face.place);
    if (!found.ok) {
      problems.push({ file, tag: face.place, field, message: found.message });
      return;
    }
    if (faces.some((other) => other.name === face.place)) {
      problems.push({ file, tag: face.place, field, message: "this face is named twice" });
      return;
    }
    faces.push({
      name: face.place,
      how: face.how,
      places: found.places,
      items: [...new Set(found.places.map((place) => graph.places.itemOf[place]!))],
      carriers: face.carriers ?? CARRIERS,
      narrowedWithoutReason:
        face.carriers !== undefined && new Set(face.carriers).size < CARRIERS.length && !face.reason?.trim(),
    });
  });
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: faces, warnings: [] };
}

/** The face's vertices, by the carrier as it arrives there; carriers that never come there are left out. */
export function faceVertices(graph: StateGraph, face: WorkFace): Map<Carrier, number[]> {
  const found = new Map<Carrier, number[]>();
  for (const carrier of face.carriers) {
    const vertices = face.places.map((place) => vertexOf(graph, place, carrier)).filter((vertex) => vertex >= 0);
    if (vertices.length > 0) found.set(carrier, vertices);
  }
  return found;
}

export function allFaceVertices(graph: StateGraph, face: WorkFace): number[] {
  return [...faceVertices(graph, face).values()].flat();
}

/** Items that are themselves the work of this job. */
export function faceItems(faces: readonly WorkFace[]): ReadonlySet<number> {
  return new Set(faces.flatMap((face) => face.items));
}

/** The carrier as it arrives at the end of a way. */
export function arrivesAs(graph: StateGraph, way: readonly number[]): Carrier {
  const end = way.at(-1);
  if (end === undefined) throw new RangeError("an empty way arrives nowhere");
  return carrierOf(graph, end);
}
