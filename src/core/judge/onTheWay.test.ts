import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { engineCase, smallCase } from "../../../tests/support/plantArbitrary";
import { barrierDistance, UNREACHED } from "../trace/barrierDistance";
import { contentsGraph } from "../trace/contentsGraph";
import type { StateGraph } from "../trace/stateGraph";
import { onTheWayTo } from "./onTheWay";

/** Every vertex of every way that passes none twice, by trying them all. */
function bySimpleWays(graph: StateGraph, source: number, face: number): Set<number> {
  const found = new Set<number>();
  const way = [source];
  const walk = () => {
    const vertex = way.at(-1)!;
    if (vertex === face) return void way.forEach((one) => found.add(one));
    for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) {
      const other = graph.out.other[arc]!;
      if (way.includes(other)) continue;
      way.push(other);
      walk();
      way.pop();
    }
  };
  walk();
  return found;
}

test("never fewer than the simple ways visit, and none that no way at all leads through", () => {
  let [exact, more] = [0, 0];
  fc.assert(
    fc.property(smallCase, fc.nat(5), fc.nat(5), fc.boolean(), (one, a, b, contents) => {
      const whole = engineCase(one).graph;
      const graph = contents ? contentsGraph(whole) : whole;
      const linked = [...Array(graph.vertexCount).keys()].filter(
        (vertex) => graph.out.first[vertex]! < graph.out.first[vertex + 1]!,
      );
      if (linked.length === 0) return;
      const [source, face] = [linked[a % linked.length]!, linked[(b * 7 + 3) % linked.length]!];
      const { gates } = barrierDistance(graph, [face], null);
      const found = new Set(onTheWayTo(graph, face, (vertex) => gates[vertex] !== UNREACHED)(source));
      const simple = bySimpleWays(graph, source, face);
      for (const vertex of simple) expect(found.has(vertex)).toBe(true);
      // No more than what the source may reach and what may reach the face.
      const { gates: from } = barrierDistance({ ...graph, in: graph.out, out: graph.in }, [source], null);
      for (const vertex of found) {
        expect(gates[vertex]).not.toBe(UNREACHED);
        expect(from[vertex]).not.toBe(UNREACHED);
      }
      if (simple.size === 0) expect(found.size).toBe(gates[source] === UNREACHED ? 0 : found.size);
      if (found.size === simple.size) exact++;
      else more++;
    }),
    propertyRuns(400),
  );
  expect(exact).toBeGreaterThan(more);
});
