import type { ElkNode } from "elkjs/lib/elk-api";

export type LayoutRequest = Readonly<{
  nodes: readonly { id: string; width: number; height: number }[];
  edges: readonly { id: string; from: string; to: string }[];
}>;

export type Layout = Readonly<{
  width: number;
  height: number;
  nodes: Readonly<Record<string, { x: number; y: number; width: number; height: number }>>;
  edges: Readonly<Record<string, readonly { x: number; y: number }[]>>;
}>;

/** The question to the layout engine: layered from supply on the left to work on the right, with right-angled lines. */
export function layoutQuestion(request: LayoutRequest): ElkNode {
  return {
    id: "lantern",
    layoutOptions: {
      "elk.algorithm": "layered",
      "elk.direction": "RIGHT",
      "elk.edgeRouting": "ORTHOGONAL",
      "elk.spacing.nodeNode": "22",
      "elk.spacing.edgeNode": "14",
      "elk.spacing.edgeEdge": "10",
      "elk.layered.spacing.nodeNodeBetweenLayers": "46",
      "elk.layered.nodePlacement.strategy": "NETWORK_SIMPLEX",
      "elk.separateConnectedComponents": "true",
    },
    children: request.nodes.map((node) => ({ ...node })),
    edges: request.edges.map(({ id, from, to }) => ({ id, sources: [from], targets: [to] })),
  };
}

/** A tenth of a pixel is finer than anybody sees, and a third of the digits. */
const tenth = (value: number) => Math.round(value * 10) / 10;

/** Its answer, by id. */
export function layoutAnswer(laid: ElkNode): Layout {
  return {
    width: tenth(laid.width ?? 0),
    height: tenth(laid.height ?? 0),
    nodes: Object.fromEntries(
      (laid.children ?? []).map(({ id, x = 0, y = 0, width = 0, height = 0 }) => [
        id,
        { x: tenth(x), y: tenth(y), width: tenth(width), height: tenth(height) },
      ]),
    ),
    edges: Object.fromEntries(
      (laid.edges ?? []).map((edge) => {
        const section = edge.sections?.[0];
        const points = section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : [];
        return [edge.id, points.map(({ x, y }) => ({ x: tenth(x), y: tenth(y) }))];
      }),
    ),
  };
}

type Point = Readonly<{ x: number; y: number }>;

/** The middle of a line's longest stretch: where its letter stands. At least one point. */
export function middleOfLongest(points: readonly Point[]): Point {
  let best = { x: points[0]!.x, y: points[0]!.y };
  let longest = -1;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const length = Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
    if (length > longest) {
      longest = length;
      best = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
    }
  }
  return best;
}
