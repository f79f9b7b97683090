import type { LayoutRequest } from "./lanternLayout";
import type { LanternNode as Node, LanternScene } from "./lanternScene";

const CHARACTER = 8.6;
const HEIGHT = 40;

/** Width for its tag in mono at 14, and room for the sign of what it is. */
export function nodeSize(node: Pick<Node, "id" | "role">): { width: number; height: number } {
  const sign = node.role === "plain" ? 24 : 44;
  return { width: Math.ceil(node.id.length * CHARACTER) + sign, height: node.role === "face" ? HEIGHT + 8 : HEIGHT };
}

/** What is asked of the layout for a scene. */
export function layoutRequestOf(scene: LanternScene): LayoutRequest {
  return {
    nodes: scene.nodes.map((node) => ({ id: node.id, ...nodeSize(node) })),
    edges: scene.edges.map(({ id, from, to }) => ({ id, from, to })),
  };
}
