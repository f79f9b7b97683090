import { isSink, isVessel } from "../plant/kinds";
import { sourcesOf } from "../trace/sources";
import { carrierOf, itemAt, placeName, placeOf, verticesAt, type StateGraph } from "../trace/stateGraph";
import type { Supply } from "./fedNoMore";
import { isFlowing, type RunningPlant } from "./runningPlant";
import { reached } from "../trace/barrierDistance";

type Section = Readonly<{ item: number; by: ReadonlySet<number>; places: readonly string[] }>;

/**
 * Sections that a plan shuts in full of liquid: closed by two devices or more, one of the plan among them that passes
 * today, with no relief, no bleed that the plan opens, and nothing with a gas space or that swallows it. It expands when
 * it warms. What nobody wrote down is liquid, unless all that feeds it is gas.
 *
 * Cost: linear in the plant.
 */
export function lockedIn(
  running: RunningPlant,
  isolated: ReadonlySet<number>,
  { shutBefore, shutAfter }: Supply,
  opened: ReadonlySet<number>,
): Section[] {
  const { graph } = running;
  const { plant, places } = graph;
  const itemOf = (vertex: number) => places.itemOf[placeOf(graph, vertex)]!;
  const gas = gasOnly(running, shutBefore);
  const seen = new Uint8Array(graph.vertexCount);
  const found: Section[] = [];
  for (const device of isolated) {
    const gates = verticesAt(graph, places.firstOf[device]!).filter(
      (vertex) => shutAfter[vertex] === 1 && shutBefore[vertex] === 0 && isFlowing(graph, vertex),
    );
    for (const start of besideLines(graph, gates)) {
      if (seen[start] === 1 || shutAfter[start] === 1) continue;
      const section = piece(graph, start, shutAfter, seen);
      const edges = new Set(
        besideLines(graph, section)
          .filter((vertex) => shutAfter[vertex] === 1)
          .map(itemOf),
      );
      if (edges.size < 2 || section.some(isEased) || section.every((vertex) => gas[vertex] === 1)) continue;
      const named = section.find((vertex) => itemAt(graph, vertex).device === undefined) ?? start;
      found.push({
        item: itemOf(named),
        by: new Set([...edges].filter((item) => isolated.has(item))),
        places: [...new Set(section.map((vertex) => placeName(graph, vertex)))].sort(),
      });
    }
  }
  return found;

  /** Something that lets go, swallows, keeps its pressure, or has a cushion of gas. */
  function isEased(vertex: number): boolean {
    const item = plant.items[itemOf(vertex)]!;
    if (item.kind === "relief valve" || item.service === "relief" || item.sources.length > 0) return true;
    if ((item.sink ?? isSink(item.kind)) || isVessel(item.kind)) return true;
    return item.bleed !== undefined && opened.has(itemOf(vertex));
  }
}

/** Vertices that a line joins to one of these, either way; some of them twice. */
function besideLines(graph: StateGraph, vertices: readonly number[]): number[] {
  const found: number[] = [];
  for (const vertex of vertices) {
    for (const side of [graph.out, graph.in]) {
      for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
        if (side.link[arc]! >= 0) found.push(side.other[arc]!);
      }
    }
  }
  return found;
}

function piece(graph: StateGraph, start: number, shut: Uint8Array, seen: Uint8Array): number[] {
  const vertices = [start];
  seen[start] = 1;
  for (let head = 0; head < vertices.length; head++) {
    for (const next of besideLines(graph, [vertices[head]!])) {
      if (seen[next] === 1 || shut[next] === 1) continue;
      seen[next] = 1;
      vertices.push(next);
    }
  }
  return vertices;
}

/** 1 where only what is no liquid is known to come, by what stands there and what feeds it. */
function gasOnly({ graph, flow }: RunningPlant, shut: Uint8Array): Uint8Array {
  const phaseAt = (vertex: number) => itemAt(graph, vertex).contents?.phase;
  const isDry = (vertex: number) => {
    const phase = phaseAt(vertex);
    const carrier = carrierOf(graph, vertex);
    return phase === "gas" || phase === "solid" || carrier === "pneumatic" || carrier === "bulk";
  };
  const starts = sourcesOf(graph)
    .feeding.map(({ vertex }) => vertex)
    .filter((vertex) => isFlowing(graph, vertex));
  const dry = reached(flow, starts.filter(isDry), shut, "out");
  const wet = reached(
    flow,
    starts.filter((vertex) => !isDry(vertex)),
    shut,
    "out",
  );
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    const phase = phaseAt(vertex);
    if (isFlowing(graph, vertex) && isDry(vertex)) dry[vertex] = 1;
    else if (phase === "liquid" || phase === "two-phase" || wet[vertex] === 1) dry[vertex] = 0;
  }
  return dry;
}
