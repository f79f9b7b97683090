import type { Carrier } from "../plant/carriers";
import { isCreditable, type Item } from "../plant/plant";
import { barrierDistance, reachableFrom, UNREACHED } from "../trace/barrierDistance";
import { sourcesOf } from "../trace/sources";
import { gatesOf, placeName, vertexOf, verticesAt, type StateGraph } from "../trace/stateGraph";
import type { Plan } from "../plan/plan";

/** What the lantern draws: the plant around a job. Plain data, for the screen and for paper. */
export type LanternScene = Readonly<{
  nodes: readonly LanternNode[];
  edges: readonly LanternEdge[];
  /** Areas in the extent, and whether each is folded into one node. */
  areas: readonly Readonly<{ name: string; places: number; folded: boolean }>[];
}>;

export type LanternNode = Readonly<{
  /** Place name. */
  id: string;
  name: string;
  kind: string;
  role: "face" | "source" | "device" | "bleed" | "stored" | "plain" | "area";
  /** Devices: is it one of the plan's points, and may it be counted on? */
  point: boolean;
  credit: boolean;
  /** Number of the shut-in space that it is in once the points are isolated, from 1; 0 for none. */
  cavity: number;
  /** A bleed that the plan opens. */
  opened: boolean;
  /** Places that it stands for: itself, or all of a folded area. */
  places: readonly string[];
}>;

export type LanternEdge = Readonly<{
  id: string;
  from: string;
  to: string;
  carrier: Carrier;
  /** Indices of the plant's links that it stands for. */
  links: readonly number[];
}>;

/** How much to draw, and which areas the person unfolded or folded. */
export type LanternExtent = Readonly<{
  whole: boolean;
  open: ReadonlySet<string>;
  shut: ReadonlySet<string>;
}>;

/** What is live, after some of the points have been isolated. */
export type LanternLight = Readonly<{ nodes: readonly string[]; edges: readonly string[] }>;

/** Ways longer than this are left to the list: they come from far through other machines and would hide the plant near by. */
const LONGEST_WAY_DRAWN = 13;
/** More nodes than this cannot be read, nor laid out while a person waits. */
export const MOST_NODES = 300;
const NEAR: LanternExtent = { whole: false, open: new Set(), shut: new Set() };

/**
 * The places worth drawing for a plan: its faces, its points, its bleeds, and for each way in the nearest sources with
 * the way they come; or, asked for the whole, every place from which energy may reach the work. Never more than
 * MOST_NODES: areas are folded into one node each, the largest first, their faces and points still drawn by themselves;
 * an area that the person unfolded is folded last.
 *
 * Cost: linear in the plant and the plan.
 */
export function lanternScene(graph: StateGraph, plan: Plan, extent: LanternExtent = NEAR): LanternScene {
  const shown = extent.whole ? wholeRegion(graph, plan) : nearTheWork(graph, plan);
  const points = new Set(plan.points.map((point) => point.device));
  const faces = new Set(plan.routes.map((route) => route.face));
  const stays = (node: LanternNode) => node.role === "face" || node.point;
  const cavityOf = new Map(plan.cavities.flatMap(({ places }, index) => places.map((place) => [place, index + 1])));
  const opened = new Set(plan.bleeds);
  const areaOf = new Map<string, string>();
  const single = graph.places.names.flatMap((id, place): LanternNode[] => {
    if (!shown.has(id)) return [];
    const item = graph.plant.items[graph.places.itemOf[place]!]!;
    areaOf.set(id, item.area ?? "no area");
    return [
      {
        id,
        name: item.name ?? "",
        kind: item.kind,
        role: roleOf(item, faces.has(id) || faces.has(item.tag)),
        point: points.has(id),
        credit: item.device ? isCreditable(item.device) : false,
        cavity: cavityOf.get(id) ?? 0,
        opened: opened.has(id),
        places: [id],
      },
    ];
  });

  const foldable = new Map<string, LanternNode[]>();
  for (const node of single) {
    if (stays(node)) continue;
    const area = areaOf.get(node.id)!;
    foldable.set(area, [...(foldable.get(area) ?? []), node]);
  }
  const folded = new Set([...extent.shut].filter((area) => (foldable.get(area)?.length ?? 0) > 1));
  const count = () => [...folded].reduce((sum, area) => sum - foldable.get(area)!.length + 1, single.length);
  const bySize = [...foldable].sort(
    ([a, one], [b, other]) =>
      Number(extent.open.has(a)) - Number(extent.open.has(b)) || other.length - one.length || (a < b ? -1 : 1),
  );
  for (const [area] of bySize) {
    if (count() <= MOST_NODES) break;
    folded.add(area);
  }
  const nodeOf = new Map<string, string>();
  const nodes: LanternNode[] = [];
  for (const node of single) {
    const area = areaOf.get(node.id)!;
    const into = folded.has(area) && !stays(node) ? area : node.id;
    nodeOf.set(node.id, into);
    if (into === node.id) nodes.push(node);
  }
  for (const area of folded) {
    const inside = foldable.get(area)!;
    nodes.push({
      id: area,
      name: `${inside.length} places`,
      kind: "area",
      role: "area",
      point: false,
      credit: false,
      cavity: 0,
      opened: false,
      places: inside.map((node) => node.id),
    });
  }

  const edges = new Map<string, LanternEdge & { links: number[] }>();
  graph.plant.links.forEach((link, index) => {
    const [from, to] = [nodeOf.get(link.from), nodeOf.get(link.to)];
    if (link.wall || from === undefined || to === undefined || from === to) return;
    const merges = folded.has(from) || folded.has(to);
    const key = merges ? `${from} ${to} ${link.carries}` : `e${index}`;
    const known = edges.get(key);
    if (known) known.links.push(index);
    else edges.set(key, { id: `e${index}`, from, to, carrier: link.carries, links: [index] });
  });
  return {
    nodes,
    edges: [...edges.values()],
    areas: [...foldable]
      .map(([name, inside]) => ({ name, places: inside.length, folded: folded.has(name) }))
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  };
}

function roleOf(item: Item, isFace: boolean): LanternNode["role"] {
  if (isFace) return "face";
  if (item.sources.some((source) => source.feeding)) return "source";
  if (item.device) return "device";
  if (item.bleed) return "bleed";
  return item.sources.length > 0 ? "stored" : "plain";
}

function nearTheWork(graph: StateGraph, plan: Plan): Set<string> {
  const shown = new Set<string>();
  for (const point of plan.points) shown.add(point.device);
  for (const bleed of plan.bleeds) shown.add(bleed);
  for (const way of plan.waysIn) {
    shown.add(way.face);
    const near = way.sources.filter(({ via }) => via.length <= LONGEST_WAY_DRAWN).slice(0, 2);
    for (const { via } of near) for (const place of via) shown.add(place);
  }
  for (const row of plan.stored) if (row.via.length <= 4) for (const place of row.via) shown.add(place);
  for (const link of bleedsBeside(graph, shown)) shown.add(link);
  return shown;
}

/** Every place from which energy may reach a face, with the bleeds on it. */
function wholeRegion(graph: StateGraph, plan: Plan): Set<string> {
  const faces = [...new Set(plan.routes.map((route) => route.face))];
  const targets = faces.flatMap((face) => {
    const found = graph.places.resolveFace(face);
    return found.ok ? found.places.flatMap((place) => verticesAt(graph, place)) : [];
  });
  const { steps } = barrierDistance(graph, targets, null);
  const shown = new Set<string>();
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    if (steps[vertex] !== UNREACHED) shown.add(placeName(graph, vertex));
  }
  for (const point of plan.points) shown.add(point.device);
  for (const bleed of bleedsBeside(graph, shown)) shown.add(bleed);
  return shown;
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
    return place.ok && lit[vertexOf(graph, place.place, carrier)] === 1;
  };
  const liveEdges = scene.edges.filter((edge) =>
    edge.links.some((index) => {
      const link = graph.plant.links[index]!;
      return isLit(link.from, link.carries) || (isLit(link.to, link.carries) && !link.oneWay);
    }),
  );
  const sources = new Set(feeding.map((source) => graph.places.names[source.place]!));
  const isLive = (id: string) => {
    if (sources.has(id)) return true;
    const place = graph.places.resolveOne(id);
    if (!place.ok) return false;
    return verticesAt(graph, place.place).some((vertex) => lit[vertex] === 1);
  };
  const liveNodes = scene.nodes.filter(({ places }) => places.some(isLive));
  return { nodes: liveNodes.map((node) => node.id), edges: liveEdges.map((edge) => edge.id) };
}
