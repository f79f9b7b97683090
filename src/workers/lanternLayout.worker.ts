import ELK, { type ElkNode } from "elkjs/lib/elk.bundled.js";

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

const elk = new ELK();

/** Layered from supply on the left to work on the right, with right-angled lines. */
async function layOut(request: LayoutRequest): Promise<Layout> {
  const graph: ElkNode = {
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
  const laid = await elk.layout(graph);
  return {
    width: laid.width ?? 0,
    height: laid.height ?? 0,
    nodes: Object.fromEntries(
      (laid.children ?? []).map(({ id, x = 0, y = 0, width = 0, height = 0 }) => [id, { x, y, width, height }]),
    ),
    edges: Object.fromEntries(
      (laid.edges ?? []).map((edge) => {
        const section = edge.sections?.[0];
        return [edge.id, section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : []];
      }),
    ),
  };
}

// Set after the import: the layout library sets a handler of its own while it loads.
self.onmessage = (event: MessageEvent<LayoutRequest>) => {
  layOut(event.data).then(
    (layout) => self.postMessage({ ok: true, layout }),
    (error: unknown) => self.postMessage({ ok: false, error: String(error) }),
  );
};
