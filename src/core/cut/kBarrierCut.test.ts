import fc from "fast-check";
import { cutProblem } from "../../../tests/support/cutProblem";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import { kBarrierCut, type CutProblem } from "./kBarrierCut";

/** Nodes 0 … n−1 in a row, with a price on those that are gates; energy enters at the first and leaves at the last. */
function row(prices: readonly (number | null)[], k: number, K = k): CutProblem {
  const last = prices.length - 1;
  return cutProblem({
    nodeCount: prices.length,
    arcs: prices.slice(1).flatMap((_, i): [number, number][] => [
      [i, i + 1],
      [i + 1, i],
    ]),
    gates: new Map(prices.flatMap((price, i): [number, number][] => (price === null ? [] : [[i, price]]))),
    entries: [{ vertex: 0, skips: K - k }],
    exits: [{ vertex: last, skips: 0 }],
    K,
  });
}

describe("kBarrierCut", () => {
  test("two barriers in source–A(2)–B(2)–C(1)–face cost 3: the cheapest two, not every jump of the layers", () => {
    // Without the straight arc the layer can jump by two lengths at once and three gates would be picked, for 5 or 4.
    for (const school of ["supply", "work"] as const) {
      const cut = kBarrierCut(row([null, 2, 2, 1, null], 2), school);
      expect(cut.price).toBe(3);
      expect(cut.bound).toBe(3);
      expect(cut.chosen).toHaveLength(2);
    }
  });

  test("of equal cuts the supply school takes the first, the work school the last", () => {
    expect(kBarrierCut(row([null, 5, 5, 5, null], 1), "supply").chosen).toEqual([1]);
    expect(kBarrierCut(row([null, 5, 5, 5, null], 1), "work").chosen).toEqual([3]);
  });

  test("an entry that needs fewer barriers skips the rest", () => {
    expect(kBarrierCut(row([null, 4, 3, 2, null], 1, 3), "work").chosen).toEqual([3]);
  });

  test("two sources that share the last gate pay for it once", () => {
    // 0 – a(3) ┐
    //          c(5) – face;  cutting c alone costs 5, a and b together 6
    // 1 – b(3) ┘
    const cut = kBarrierCut(
      cutProblem({
        nodeCount: 6,
        arcs: [
          [0, 2],
          [1, 3],
          [2, 4],
          [3, 4],
          [4, 5],
        ],
        gates: new Map([
          [2, 3],
          [3, 3],
          [4, 5],
        ]),
        entries: [
          { vertex: 0, skips: 0 },
          { vertex: 1, skips: 0 },
        ],
        exits: [{ vertex: 5, skips: 0 }],
        K: 1,
      }),
      "supply",
    );
    expect(cut.chosen).toEqual([4]);
    expect(cut.price).toBe(5);
  });

  test("an entry's own gate is no barrier to it", () => {
    const problem = row([1, 9, null], 1);
    expect(kBarrierCut(problem, "supply").chosen).toEqual([1]);
  });

  test("asking for more barriers than exist is a broken promise and throws", () => {
    expect(() => kBarrierCut(row([null, 4, null], 2), "work")).toThrow("more barriers were asked for than exist");
  });

  test("a textbook network: the minimum cut of unit gates is the number of disjoint ways (Menger 1927)", () => {
    // The three-dimensional cube graph is 3-connected: three vertex-disjoint ways join opposite corners 0 and 7.
    const arcs: [number, number][] = [];
    for (let node = 0; node < 8; node++) for (const bit of [1, 2, 4]) arcs.push([node, node ^ bit]);
    const gates = new Map([1, 2, 3, 4, 5, 6].map((node): [number, number] => [node, 1]));
    const base = { nodeCount: 8, arcs, gates, entries: [{ vertex: 0, skips: 0 }], exits: [{ vertex: 7, skips: 0 }] };
    expect(kBarrierCut(cutProblem({ ...base, K: 1 }), "work").price).toBe(3);
    // Every way has at least two inner corners, so both rings are needed for two barriers.
    expect(kBarrierCut(cutProblem({ ...base, K: 2 }), "work").price).toBe(6);
  });

  test("the same points and price whichever way the flow is found, and what trying every set finds", () => {
    let larger = 0;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(NODES - 1), fc.nat(NODES - 1)), { minLength: 12, maxLength: 24 }),
        fc.array(fc.integer({ min: 0, max: 9 }), { minLength: NODES, maxLength: NODES }),
        fc.integer({ min: 1, max: 3 }),
        fc.array(fc.nat(1), { minLength: 4, maxLength: 4 }),
        fc.constantFrom("supply" as const, "work" as const),
        (arcs, prices, K, skips, school) => {
          // An entry may be a device itself; an exit never is.
          const gates = new Map([...prices.entries()].filter(([node, price]) => node < NODES - 2 && price > 0));
          const entries = [0, 1].map((vertex) => ({ vertex, skips: skips[vertex]! }));
          const exits = [NODES - 2, NODES - 1].map((vertex, i) => ({ vertex, skips: skips[2 + i]! }));
          const best = cheapestByTrying({ arcs, gates, entries, exits, K });
          if (best === Infinity) return;
          const problem = cutProblem({ nodeCount: NODES, arcs, gates, entries, exits, K });
          const cut = kBarrierCut(problem, school);
          expect([cut.price, cut.bound]).toEqual([best, best]);
          for (const effort of [
            { levelled: 1, ways: 1 },
            { levelled: 1, ways: 1000 },
          ]) {
            const again = kBarrierCut(problem, school, effort);
            expect([again.chosen, again.price, again.bound]).toEqual([cut.chosen, cut.price, cut.bound]);
          }
          if (cut.chosen.length > 1) larger++;
        },
      ),
      propertyRuns(1500),
    );
    expect(larger).toBeGreaterThan(metAtLeast(40));
  });
});

const NODES = 9;

type Small = Omit<Parameters<typeof cutProblem>[0], "nodeCount">;

/** The least price of gates of which every way crosses as many as its ends ask, by trying every set of them. */
function cheapestByTrying({ arcs, gates, entries, exits, K }: Small): number {
  const nodes = [...gates.keys()];
  let best = Infinity;
  for (let bits = 0; bits < 2 ** nodes.length; bits++) {
    const set = new Set(nodes.filter((_, i) => (bits >> i) % 2 === 1));
    const price = [...set].reduce((sum, node) => sum + gates.get(node)!, 0);
    if (price >= best) continue;
    const holds = entries.every((entry) => {
      // Fewest gates crossed after leaving the entry, by relaxing every arc until nothing changes; its own does not count.
      const least = Array.from({ length: NODES }, (_, node) => (node === entry.vertex ? 0 : Infinity));
      for (let round = 0; round < NODES; round++) {
        for (const [from, to] of arcs) least[to] = Math.min(least[to]!, least[from]! + (set.has(to) ? 1 : 0));
      }
      return exits.every((exit) => least[exit.vertex]! >= K - entry.skips - exit.skips);
    });
    if (holds) best = price;
  }
  return best;
}
