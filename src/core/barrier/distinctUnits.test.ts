import fc from "fast-check";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import type { StateGraph } from "../trace/stateGraph";
import { distinctUnits, NO_GATE, SINGLE_GATE } from "./distinctUnits";

type Case = Readonly<{ size: number; arcs: readonly (readonly [number, number])[]; gates: readonly number[] }>;

/** Up to nine vertices; at each no gate, a gate of its own, or one of three units that stand at several. */
const cases: fc.Arbitrary<Case> = fc.integer({ min: 2, max: 9 }).chain((size) =>
  fc.record({
    size: fc.constant(size),
    arcs: fc.array(fc.tuple(fc.nat(size - 1), fc.nat(size - 1)), { minLength: size, maxLength: 4 * size }),
    gates: fc.array(fc.constantFrom(NO_GATE, SINGLE_GATE, 0, 0, 1, 1, 2), { minLength: size, maxLength: size }),
  }),
);

function graphOf({ size, arcs }: Case): StateGraph {
  const into = Array.from({ length: size }, (_, to) => arcs.flatMap(([from, at]) => (at === to ? [from] : [])));
  const first = [0];
  for (const from of into) first.push(first.at(-1)! + from.length);
  // Only what the search looks at.
  return {
    vertexCount: size,
    in: { first: Int32Array.from(first), other: Int32Array.from(into.flat()) },
  } as StateGraph;
}

/** The same by walking every way that passes no vertex twice, from the target 0. Infinity where there is none. */
function byWalking({ size, arcs, gates }: Case): number[] {
  const least = new Array<number>(size).fill(Infinity);
  const walk = (vertex: number, crossed: ReadonlySet<string>, seen: ReadonlySet<number>) => {
    least[vertex] = Math.min(least[vertex]!, crossed.size);
    const gate = vertex === 0 ? NO_GATE : gates[vertex]!;
    const name = gate === SINGLE_GATE ? `alone ${vertex}` : `unit ${gate}`;
    const then = gate === NO_GATE ? crossed : new Set([...crossed, name]);
    for (const [from, to] of arcs) if (to === vertex && !seen.has(from)) walk(from, then, new Set([...seen, from]));
  };
  walk(0, new Set(), new Set([0]));
  return least;
}

const every = (size: number) => new Uint8Array(size).fill(1);

describe("the fewest distinct units on a way", () => {
  test("is what walking every way finds, and a bound never says more", () => {
    let cut = 0;
    let twice = 0;
    fc.assert(
      fc.property(cases, fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 40 }), (one, below, mostLabels) => {
        const truth = byWalking(one);
        const vertices = Array.from({ length: one.size }, (_, i) => i);
        const ask = {
          sources: new Set(vertices),
          isBetween: every(one.size),
          below: 99,
          mostLabels: Infinity,
          enough: 99,
          mostBeyond: Infinity,
        };
        const unitAt = (vertex: number) => one.gates[vertex]!;
        const whole = distinctUnits(graphOf(one), [0], unitAt, ask);
        expect(vertices.map((vertex) => whole.found.get(vertex)?.depth ?? Infinity)).toEqual(truth);
        for (const { depth, units } of whole.found.values()) {
          expect(units.length).toBeLessThanOrEqual(depth);
          if (units.length > 0) twice++;
        }
        for (const bounds of [
          { below, mostLabels },
          { enough: below, mostBeyond: mostLabels },
        ]) {
          const part = distinctUnits(graphOf(one), [0], unitAt, { ...ask, ...bounds });
          for (const vertex of vertices) {
            const found = part.found.get(vertex);
            if (found !== undefined) expect(found.depth).toBe(truth[vertex]);
            else expect(part.atLeast).toBeLessThanOrEqual(truth[vertex]!);
            if (found === undefined && truth[vertex]! < Infinity) cut++;
          }
        }
      }),
      propertyRuns(1000),
    );
    expect(cut).toBeGreaterThan(metAtLeast(100));
    expect(twice).toBeGreaterThan(metAtLeast(100));
  });

  test("keeps what crossed other units as well: it may be the better one later, whichever came first", () => {
    // 1 is reached by unit 0 (at 2) and by unit 1 (at 3), one each; behind it 4 stands at unit 0 again and 5 at unit 1 again.
    const one: Case = {
      size: 8,
      arcs: [
        [2, 0],
        [3, 0],
        [1, 2],
        [1, 3],
        [4, 1],
        [5, 1],
        [6, 4],
        [7, 5],
      ],
      gates: [NO_GATE, NO_GATE, 0, 1, 0, 1, NO_GATE, NO_GATE],
    };
    const ask = { isBetween: every(8), below: 9, mostLabels: 99, enough: 9, mostBeyond: 99 };
    const { found } = distinctUnits(graphOf(one), [0], (vertex) => one.gates[vertex]!, {
      ...ask,
      sources: new Set([6, 7]),
    });
    expect([found.get(6), found.get(7)]).toEqual([
      { depth: 1, units: [0] },
      { depth: 1, units: [1] },
    ]);
  });

  test("counts a unit once that stands at both ends, and goes round by the way with fewer", () => {
    // 3 → 2 → 1 → 0 by units 0, 1, 0 at 3's neighbours; 3 → 0 by a long way of two single gates.
    const one: Case = {
      size: 6,
      arcs: [
        [5, 3],
        [3, 2],
        [2, 1],
        [1, 0],
        [5, 4],
        [4, 0],
      ],
      gates: [NO_GATE, 0, 1, 0, SINGLE_GATE, NO_GATE],
    };
    const ask = { isBetween: every(6), below: 9, mostLabels: 99, enough: 9, mostBeyond: 99 };
    const unitAt = (vertex: number) => one.gates[vertex]!;
    const found = distinctUnits(graphOf(one), [0], unitAt, { ...ask, sources: new Set([5, 3]) }).found;
    expect(found.get(5)).toEqual({ depth: 1, units: [] });
    expect(found.get(3)).toEqual({ depth: 2, units: [0, 1] });
  });
});
