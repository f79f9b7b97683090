import { isTransformer } from "../plant/kinds";
import type { Contents } from "../plant/plant";
import { reached } from "../trace/barrierDistance";
import { contentsGraph, familyGraph } from "../trace/contentsGraph";
import type { SourceVertex } from "../trace/sources";
import { ARC, itemAt, placeName, placeOf, vertexOf, type StateGraph } from "../trace/stateGraph";
import type { WorkFace } from "../trace/workFaces";
import type { Carrier } from "../plant/carriers";
import { onTheWayTo, type OnTheWay } from "./onTheWay";

/** Contents that may come to a face, and whose they are; undefined where nobody wrote them down. */
export type Holds = Readonly<{ place: string; contents: Contents | undefined }>;

export type WhatStands = Readonly<{
  /** Of one source to a face: its own contents, the face's, and what stands at places on the ways between. */
  contents: (source: SourceVertex, arrives: Carrier) => readonly Holds[];
  /** What the face itself holds or last held. */
  faceHolds: readonly Holds[];
  /**
   * Highest voltage on the ways from a source; undefined where the face's is unknown. A transformer ends the stretch, but where it
   * may be fed from the side that it normally feeds: then what stands on its other side counts as well.
   */
  voltage_V: (source: SourceVertex, arrives: Carrier) => number | undefined;
}>;

/**
 * What decides the grade that is asked at one face. Other feeding sources are left out, for each is asked about itself;
 * their pressure and temperature are not: what may reach the face is as strong as the strongest that may.
 *
 * `isFlange`: a flange that is opened for a blind holds what flows there, and is no gap in the register.
 *
 * Cost: linear in the graph for each face place and arriving carrier, and in the blocks between for each source.
 */
export function whatStandsAt(
  graph: StateGraph,
  face: WorkFace,
  feeding: readonly SourceVertex[],
  isFlange: boolean,
): WhatStands {
  const { plant, places } = graph;
  const isFeeding = new Set(feeding.map(({ item }) => item));
  const known = new Map<string, { ways: OnTheWay; reaches: Uint8Array }>();
  const waysFor = (kind: "contents" | "wire", arrives: Carrier, place: number) => {
    const key = `${kind} ${arrives} ${place}`;
    const found = known.get(key);
    if (found) return found;
    const own = kind === "contents" ? contentsGraph(graph) : familyGraph(graph, "wire");
    const end = vertexOf(graph, place, arrives);
    const reaches = reached(own, end < 0 ? [] : [end], new Uint8Array(own.vertexCount), "in");
    const ways = end < 0 ? () => [] : onTheWayTo(own, end, (vertex) => reaches[vertex] === 1);
    const made = { ways, reaches };
    known.set(key, made);
    return made;
  };
  const faceHolds = face.items
    .map((item) => plant.items[item]!)
    .filter(({ contents }) => !isFlange || contents !== undefined)
    .map(({ tag, contents }): Holds => ({ place: tag, contents }));

  /** The most that any source may bring here, of those whose figure somebody wrote down. */
  const strongest = new Map<Carrier, Pick<Contents, "pressure_Pa" | "temperature_C">>();
  const strongestAt = (arrives: Carrier) => {
    const found = strongest.get(arrives);
    if (found) return found;
    const reaching = feeding.filter(({ vertex }) =>
      face.places.some((place) => waysFor("contents", arrives, place).reaches[vertex] === 1),
    );
    const most = (field: "pressure_Pa" | "temperature_C") => {
      const figures = reaching.flatMap(({ item }) => plant.items[item]!.contents?.[field] ?? []);
      return figures.length === 0 ? undefined : Math.max(...figures);
    };
    const made = { pressure_Pa: most("pressure_Pa"), temperature_C: most("temperature_C") };
    strongest.set(arrives, made);
    return made;
  };
  const raised = (contents: Contents, arrives: Carrier): Contents => {
    const { pressure_Pa, temperature_C } = strongestAt(arrives);
    const higher = (a: number | undefined, b: number | undefined) =>
      a === undefined || b === undefined ? (a ?? b) : Math.max(a, b);
    return {
      ...contents,
      pressure_Pa: higher(contents.pressure_Pa, pressure_Pa),
      temperature_C: higher(contents.temperature_C, temperature_C),
    };
  };

  return {
    faceHolds,
    contents: (source, arrives) => {
      const own: Holds = { place: placeName(graph, source.vertex), contents: plant.items[source.item]!.contents };
      const between = new Map<string, Holds>();
      for (const place of face.places) {
        for (const vertex of waysFor("contents", arrives, place).ways(source.vertex)) {
          const item = places.itemOf[placeOf(graph, vertex)]!;
          const { contents } = plant.items[item]!;
          if (contents === undefined || isFeeding.has(item) || item === source.item || face.items.includes(item))
            continue;
          between.set(placeName(graph, vertex), { place: placeName(graph, vertex), contents });
        }
      }
      // As written, and as strong as it may become: a vacuum stays one.
      const all = [own, ...between.values()];
      return [
        ...all,
        ...all.flatMap(({ place, contents }) => (contents ? [{ place, contents: raised(contents, arrives) }] : [])),
        // What the face held is what people meet; it stands at no more than what may come.
        ...faceHolds.map(({ place, contents }) => ({ place, contents: contents && raised(contents, arrives) })),
      ];
    },
    voltage_V: (source, arrives) => {
      const own = face.items.map((item) => plant.items[item]!.voltage_V);
      if (own.some((voltage) => voltage === undefined)) return undefined;
      const found = own.map((voltage) => voltage!);
      const graphOfWires = familyGraph(graph, "wire");
      for (const place of face.places) {
        const end = vertexOf(graph, place, arrives);
        if (end < 0) continue;
        const between = new Set(waysFor("wire", arrives, place).ways(source.vertex));
        for (const vertex of stretchFrom(graphOfWires, end, between)) {
          found.push(itemAt(graph, vertex).voltage_V ?? 0);
        }
      }
      return Math.max(...found);
    },
  };
}

/** Of the vertices on the ways, those from which the face is reached without passing a transformer that feeds it as it normally does. */
function stretchFrom(graph: StateGraph, face: number, between: ReadonlySet<number>): Set<number> {
  const found = new Set([face]);
  for (const vertex of found) {
    for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
      const before = graph.in.other[arc]!;
      if (!between.has(before)) continue;
      // Its other side is another voltage, and its own plate names both. Fed from behind, or nobody knows from where, it is one of
      // them that comes, stepped up as it may be.
      const feeds = graph.in.type[arc] === ARC.plain && isForward(graph, graph.in.link[arc]!);
      if (!isTransformer(itemAt(graph, before).kind) || !feeds) found.add(before);
    }
  }
  return found;
}

/** A line of which somebody wrote down which way it is normally fed. */
function isForward(graph: StateGraph, link: number): boolean {
  return graph.plant.links[link]?.normal === "forward";
}
