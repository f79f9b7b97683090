import type { Carrier } from "../plant/carriers";
import { leastWay, viaNames } from "../trace/barrierDistance";
import { itemAt, placeName } from "../trace/stateGraph";
import { barrierDepths } from "./barrierDepth";
import { unprovedGrade } from "./grade";
import type { BarrierField } from "./pairs";
import type { RequiredPair } from "./requirePairs";

/** How one source stands to one face with the chosen devices isolated. */
export type Route = Readonly<{
  source: string;
  carrier: Carrier;
  face: string;
  required: number;
  requiredGrade: string;
  /** Which rule asks it, and where the rule comes from. */
  rule: string;
  available: number;
  depth: number;
  grade: string;
  /** The way with the fewest isolated devices, then links, in place names. */
  via: readonly string[];
}>;

export type Shortfall = Readonly<{
  source: string;
  carrier: Carrier;
  face: string;
  required: number;
  available: number;
}>;

/** One row for each pair, sorted by face, source, carrier. Cost: barrierDepths for each face, and the routes. */
export function routesOf(field: BarrierField, pairs: readonly RequiredPair[], isolated: ReadonlySet<number>): Route[] {
  const { graph } = field;
  const routes: Route[] = [];
  for (const face of field.faces) {
    const ofFace = pairs.filter((pair) => pair.face === face);
    const asked = Math.max(0, ...ofFace.map((pair) => pair.required));
    const sources = ofFace.map((pair) => pair.source);
    const depths = barrierDepths(field, face, sources, isolated, asked);
    const targets = field.targetsOf.get(face)!;
    for (const { source, required, available, rule } of ofFace) {
      const found = depths.get(source);
      if (found === undefined) throw new Error(`${placeName(graph, source.vertex)} no longer reaches ${face.name}`);
      const way = leastWay(graph, source.vertex, targets, found.gateMarks, found.distance)!;
      const barriers = way.filter((vertex) => found.gateMarks[vertex] === 1).map((vertex) => itemAt(graph, vertex));
      routes.push({
        source: placeName(graph, source.vertex),
        carrier: source.carrier,
        face: face.name,
        required,
        requiredGrade: rule.grade,
        rule: `${rule.reason} (${rule.source})`,
        available,
        depth: found.depth,
        grade: unprovedGrade(source.carrier, found.depth, barriers),
        via: viaNames(graph, way),
      });
    }
  }
  return routes.sort((a, b) => (rowKey(a) < rowKey(b) ? -1 : 1));
}

function rowKey({ face, source, carrier }: Route): string {
  return [face, source, carrier].join("\u0000");
}

export function shortfallsOf(routes: readonly Route[]): Shortfall[] {
  return routes
    .filter((route) => route.available < route.required)
    .map(({ source, carrier, face, required, available }) => ({ source, carrier, face, required, available }));
}
