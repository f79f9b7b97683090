import { componentsOf, type Components } from "./components";
import type { RunningPlant } from "./runningPlant";
import { reached } from "../trace/barrierDistance";

/** Whether what an item delivers finds somewhere to go. */
export type WaysOut = Readonly<{
  /** From any of these vertices, one item's, on to a sink. */
  ends: (vertices: readonly number[]) => boolean;
  /** Or round through a vessel and back: what a machine delivers finds room there. */
  delivers: (vertices: readonly number[]) => boolean;
}>;

/** The ends of normal flow as the devices stand today, and those that are assumed because no sink is known. */
export type Ends = Readonly<{
  assumed: Uint8Array;
  /** Whose way ends at no sink that is known: they are judged by the assumed ones too. */
  byAssumed: (vertices: readonly number[]) => boolean;
}>;

/**
 * Where what flows may end. An item with no way to any sink today ends where its normal flow last leads, a device or the
 * item itself only where nothing else is last. Cost: linear.
 */
export function endsOf(running: RunningPlant, shut: Uint8Array, items: readonly (readonly number[])[]): Ends {
  const { flow, graph, sinks } = running;
  const toSink = reached(flow, marked(sinks), shut, "in");
  const assumed = new Uint8Array(graph.vertexCount);
  const without = items.filter((vertices) => !vertices.some((vertex) => toSink[vertex] === 1));
  if (without.length > 0) {
    const components = componentsOf(flow, shut);
    for (const vertices of without) {
      const own = new Set(vertices.map((vertex) => components.of[vertex]!));
      const onward = reached(flow, vertices, shut, "out");
      const last = marked(onward).filter((vertex) => {
        const component = components.of[vertex]!;
        return components.last[component] === 1 && !own.has(component) && mayEnd(running, vertex);
      });
      const isDevice = (vertex: number) => deviceAt(running, vertex);
      const chosen = last.some((vertex) => !isDevice(vertex)) ? last.filter((vertex) => !isDevice(vertex)) : last;
      for (const vertex of chosen) assumed[vertex] = 1;
    }
  }
  return { assumed, byAssumed: (vertices) => !vertices.some((vertex) => toSink[vertex] === 1) };
}

/** Cost: linear for what is reached, and once for the circles. */
export function waysOut(running: RunningPlant, ends: Ends, shut: Uint8Array): WaysOut {
  const { flow, sinks, vessels } = running;
  const toSink = reached(flow, marked(sinks), shut, "in");
  const toAny = reached(flow, [...marked(sinks), ...marked(ends.assumed)], shut, "in");
  let circles: { components: Components; held: Uint8Array } | undefined;
  const circulates = (vertex: number): boolean => {
    if (circles === undefined) {
      const components = componentsOf(flow, shut);
      const held = new Uint8Array(components.size.length);
      for (const vessel of marked(vessels)) if (components.of[vessel]! >= 0) held[components.of[vessel]!] = 1;
      circles = { components, held };
    }
    const component = circles.components.of[vertex]!;
    return component >= 0 && circles.components.size[component]! > 1 && circles.held[component] === 1;
  };
  const endsSomewhere = (vertices: readonly number[]) => {
    const to = ends.byAssumed(vertices) ? toAny : toSink;
    return vertices.some((vertex) => to[vertex] === 1);
  };
  return {
    ends: endsSomewhere,
    delivers: (vertices) => endsSomewhere(vertices) || vertices.some(circulates),
  };
}

export function marked(marks: Uint8Array): number[] {
  const found: number[] = [];
  for (let vertex = 0; vertex < marks.length; vertex++) if (marks[vertex] === 1) found.push(vertex);
  return found;
}

function mayEnd({ graph }: RunningPlant, vertex: number): boolean {
  return graph.plant.items[graph.places.itemOf[graph.placeAt[vertex]!]!]!.sink !== false;
}

function deviceAt({ graph }: RunningPlant, vertex: number): boolean {
  return graph.plant.items[graph.places.itemOf[graph.placeAt[vertex]!]!]!.device !== undefined;
}
