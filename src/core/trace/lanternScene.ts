import { CARRIER_COUNT, type Carrier } from "../plant/carriers";
import { isCreditable } from "../plant/plant";
import { reachableFrom } from "./barrierDistance";
import { sourcesOf } from "./sources";
import { gatesOf, vertexOf, type StateGraph } from "./stateGraph";
import type { Plan } from "../isolation/plan";

/** What the lantern draws: the plant around a job. Plain data, for the screen and for paper. */
export type LanternScene = Readonly<{
  nodes: readonly LanternNode[];
  edges: readonly LanternEdge[];
}>;

export type LanternNode = Readonly<{
  /** Place name. */
  id: string;
  name: string;
  kind: string;
  role: "face" | "source" | "device" | "bleed" | "stored" | "plain";
  /** Devices: is it one of the plan's points, and may it be counted on? */
  point: boolean;
  credit: boolean;
}>;

export type LanternEdge = Readonly<{ id: string; from: string; to: string; carrier: Carrier }>;

/** What is live, after some of the points have been isolated. */
export type LanternLight = Readonly<{ nodes: readonly string[]; edges: readonly string[] }>;

/** Ways longer than this are left to the list: they come from far through other machines and would hide the plant near by. */
const LONGEST_WAY_DRAWN = 13;

/**
 * The places worth drawing for a plan: its faces, its points, all that is dark once the points are isolated and can
 * reach the work, and for each way in the nearest sources with the way they come.
 *
 * Cost: linear in the plant and the plan.
 */
export function lanternScene(graph: StateGraph, plan: Plan): LanternScene {
  const shown = new Set<string>();
  for (const point of plan.points) shown.add(point.device);
  for (const way of plan.waysIn) {
    shown.add(way.face);
    const near = way.sources.filter(({ via }) => via.length <= LONGEST_WAY_DRAWN).slice(0, 2);
    for (const { via } of near) for (const place of via) shown.add(place);
  }
  for (const row of plan.stored) if (row.via.length <= 4) for (const place of row.via) shown.add(place);
  for (const link of bleedsBeside(graph, shown)) shown.add(link);

  const faces = new Set(plan.routes.map((route) => route.face));
  const points = new Set(plan.points.map((point) => point.device));
  const nodes = graph.places.names.flatMap((id, place): LanternNode[] => {
    if (!shown.has(id)) return [];
    const item = graph.plant.items[graph.places.itemOf[place]!]!;
    const role =
      faces.has(id) || faces.has(item.tag)
        ? "face"
        : item.sources.some((source) => source.feeding)
          ? "source"
          : item.device
            ? "device"
            : item.bleed
              ? "bleed"
              : item.sources.length > 0
                ? "stored"
                : "plain";
    return [
      {
        id,
        name: item.name ?? "",
        kind: item.kind,
        role,
        point: points.has(id),
        credit: item.device ? isCreditable(item.device) : false,
      },
    ];
  });
  const drawn = new Set(nodes.map((node) => node.id));
  const edges = graph.plant.links.flatMap((link, index): LanternEdge[] =>
    !link.wall && drawn.has(link.from) && drawn.has(link.to)
      ? [{ id: `e${index}`, from: link.from, to: link.to, carrier: link.carries }]
      : [],
  );
  return { nodes, edges };
}

/** Bleeds that hang on a place already shown. */
function bleedsBeside(graph: StateGraph, shown: ReadonlySet<string>): string[] {
  return graph.plant.links.flatMap(({ from, to }) =>
    [
      [from, to],
      [to, from],
    ].flatMap(([end, other]) =>
      graph.plant.items[graph.itemByTag.get(end!) ?? -1]?.bleed && shown.has(other!) ? [end!] : [],
    ),
  );
}

/**
 * The light with these devices isolated and every other device as it stands today; what is unknown counts as passing.
 * A place is live when any feeding source may reach it by any carrier, a connection when energy stands at either end.
 *
 * Cost: one search.
 */
export function lanternLight(graph: StateGraph, scene: LanternScene, isolated: readonly string[]): LanternLight {
  const stopping = graph.plant.items.flatMap((item, index) =>
    item.device && (item.device.stands === "stopping" || isolated.includes(item.tag)) ? [index] : [],
  );
  const { feeding } = sourcesOf(graph);
  const lit = reachableFrom(
    graph,
    feeding.map((source) => source.vertex),
    gatesOf(graph, stopping),
  );
  const isLit = (name: string, carrier: Carrier) => {
    const place = graph.places.resolveOne(name);
    return place.ok && lit[vertexOf(place.place, carrier)] === 1;
  };
  const liveEdges = scene.edges.filter(
    (edge) => isLit(edge.from, edge.carrier) || (isLit(edge.to, edge.carrier) && !oneWay(graph, edge)),
  );
  const sources = new Set(feeding.map((source) => graph.places.names[source.place]!));
  const liveNodes = scene.nodes.filter(({ id }) => {
    if (sources.has(id)) return true;
    const place = graph.places.resolveOne(id);
    if (!place.ok) return false;
    for (let vertex = place.place * CARRIER_COUNT; vertex < (place.place + 1) * CARRIER_COUNT; vertex++)
      if (lit[vertex] === 1) return true;
    return false;
  });
  return { nodes: liveNodes.map((node) => node.id), edges: liveEdges.map((edge) => edge.id) };
}

function oneWay(graph: StateGraph, edge: LanternEdge): boolean {
  return graph.plant.links[Number(edge.id.slice(1))]?.oneWay === true;
}
