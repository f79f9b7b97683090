import fc from "fast-check";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import type { StateGraph } from "../trace/stateGraph";
import { deadLegsOf } from "./deadLegs";

const SIZE = 8;
const bits = fc.array(fc.boolean(), { minLength: SIZE, maxLength: SIZE });
const shape = fc.record({
  lines: fc.array(fc.tuple(fc.nat(SIZE - 1), fc.nat(SIZE - 1), fc.boolean()), { minLength: 2, maxLength: 12 }),
  gates: bits,
  closed: bits,
  kept: bits,
});
type Shape = typeof shape extends fc.Arbitrary<infer S> ? S : never;

function arcsOf(lines: Shape["lines"]): (readonly [number, number])[] {
  return lines.flatMap(([a, b, oneWay]) =>
    a === b ? [] : oneWay ? [[a, b] as const] : [[a, b] as const, [b, a] as const],
  );
}

function graphOf(lines: Shape["lines"]): StateGraph {
  const arcs = arcsOf(lines);
  const side = (at: 0 | 1) => {
    const lists = Array.from({ length: SIZE }, (_, vertex) =>
      arcs.filter((arc) => arc[at] === vertex).map((arc) => arc[at === 0 ? 1 : 0]),
    );
    const first = [0];
    for (const list of lists) first.push(first.at(-1)! + list.length);
    return { first: Int32Array.from(first), other: Int32Array.from(lists.flat()) };
  };
  return {
    vertexCount: SIZE,
    placeAt: Int32Array.from({ length: SIZE }, (_, i) => i),
    out: side(0),
    in: side(1),
  } as StateGraph;
}

/** Again and again, all of them looked at each time, until nothing more is struck. */
function byTrying({ lines, gates, closed, kept }: Shape): boolean[] {
  const arcs = arcsOf(lines);
  const struck = new Array<boolean>(SIZE).fill(false);
  const shut = (vertex: number) => closed[vertex]! || struck[vertex]!;
  for (let again = true; again;) {
    again = false;
    for (let vertex = 0; vertex < SIZE; vertex++) {
      if (shut(vertex) || gates[vertex]! || kept[vertex]!) continue;
      const to = new Set(arcs.filter(([a, b]) => a === vertex && !shut(b)).map(([, b]) => b));
      const from = new Set(arcs.filter(([a, b]) => b === vertex && !shut(a)).map(([a]) => a));
      // Coming from each neighbour, is there another to go on to?
      const goesOn = [...from].some((came) => [...to].some((next) => next !== came));
      const isLinked = arcs.some(([a, b]) => a === vertex || b === vertex);
      if (!isLinked || goesOn) continue;
      struck[vertex] = again = true;
    }
  }
  return struck;
}

test("as found by looking at every place again and again: what a way can leave only to where it came from", () => {
  let [met, kept] = [0, 0];
  fc.assert(
    fc.property(shape, (one) => {
      const marks = (all: readonly boolean[]) => Uint8Array.from(all, Number);
      const found = deadLegsOf(graphOf(one.lines), {
        gates: marks(one.gates),
        closed: marks(one.closed),
        kept: marks(one.kept),
      });
      const expected = byTrying(one);
      // What nothing is linked to lies on no way: whether it is struck is all the same.
      const linked = Array.from({ length: SIZE }, (_, vertex) => arcsOf(one.lines).some((arc) => arc.includes(vertex)));
      expect([...found].map((mark, vertex) => linked[vertex] && mark === 1)).toEqual(
        expected.map((mark, vertex) => linked[vertex] && mark),
      );
      met += expected.filter(Boolean).length;
      kept += expected.filter((mark) => !mark).length;
    }),
    propertyRuns(600),
  );
  expect(met).toBeGreaterThan(metAtLeast(200));
  expect(kept).toBeGreaterThan(metAtLeast(200));
});
