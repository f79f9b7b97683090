import { carrierMark } from "../../core/lantern/carrierMarks";
import { middleOfLongest } from "../../core/lantern/lanternLayout";
import { heavy } from "../runtime/workers";
import type { LanternLight, LanternNode, LanternScene } from "../../core/lantern/lanternScene";

const MONO_WIDTH = 8.6;
const HEIGHT = 34;

/**
 * The lantern as a clean line drawing for paper: live is drawn heavy, dark thin, what is isolated has a bar through it,
 * the work a double frame. Carriers by line pattern and letter. SVG in points, for the PDF.
 *
 * Cost: one layered layout of the scene, a second or two for three hundred places.
 */
export async function lanternDrawing(
  scene: LanternScene,
  light: LanternLight,
  isolated: readonly string[],
): Promise<string> {
  const size = ({ id }: LanternNode) => ({ width: Math.ceil(id.length * MONO_WIDTH) + 22, height: HEIGHT });
  const laid = await heavy("lay out", {
    nodes: scene.nodes.map((node) => ({ id: node.id, ...size(node) })),
    edges: scene.edges.map(({ id, from, to }) => ({ id, from, to })),
  });
  const lit = new Set(light.nodes);
  const litEdges = new Set(light.edges);
  const cut = new Set(isolated);
  const lines = scene.edges.flatMap((edge) => {
    const points = laid.edges[edge.id] ?? [];
    if (points.length < 2) return [];
    const mark = carrierMark(edge.carrier);
    const width = litEdges.has(edge.id) ? mark.width : Math.max(0.9, mark.width * 0.35);
    const d = points.map(({ x, y }, i) => `${i === 0 ? "M" : "L"}${x} ${y}`).join("");
    const at = middleOfLongest(points);
    return [
      `<path d="${d}" fill="none" stroke="#000" stroke-width="${width}"${mark.dash ? ` stroke-dasharray="${mark.dash}"` : ""}/>`,
      `<circle cx="${at.x}" cy="${at.y}" r="8" fill="#fff"/>`,
      `<text x="${at.x}" y="${at.y + 4}" font-family="Mono" font-size="11" text-anchor="middle">${mark.letter}</text>`,
    ];
  });
  const boxes = scene.nodes.flatMap((node) => {
    const box = laid.nodes[node.id];
    if (!box) return [];
    const { x, y, width, height } = box;
    const isCut = cut.has(node.id);
    const stroke = lit.has(node.id) && !isCut ? 3 : 1;
    const rect = (inset: number, weight: number) =>
      `<rect x="${x + inset}" y="${y + inset}" width="${width - 2 * inset}" height="${height - 2 * inset}" fill="#fff" stroke="#000" stroke-width="${weight}"/>`;
    return [
      rect(0, stroke),
      ...(node.role === "face" ? [rect(3, 1)] : []),
      ...(isCut
        ? [
            `<path d="M${x + width - 9} ${y + 3}L${x + width - 9} ${y + height - 3}" stroke="#000" stroke-width="4" fill="none"/>`,
          ]
        : []),
      ...(node.opened
        ? [`<circle cx="${x + width - 9}" cy="${y + height / 2}" r="4" fill="none" stroke="#000"/>`]
        : []),
      `<text x="${x + 8}" y="${y + height / 2 + 5}" font-family="Mono" font-size="14">${escape(node.id)}</text>`,
    ];
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${laid.width} ${laid.height}" width="${laid.width}" height="${laid.height}">${[...lines, ...boxes].join("")}</svg>`;
}

function escape(text: string): string {
  return text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");
}
