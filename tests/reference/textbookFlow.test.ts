import { cutProblem } from "../support/cutProblem";
import { kBarrierCut, type CutProblem } from "@/core/cut/kBarrierCut";

/**
 * The shipping network of Cormen, Leiserson, Rivest and Stein, Introduction to Algorithms, 3rd edition, figure 26.1 and
 * the maximum flow of 23 that figure 26.6 reaches; capacities quoted from memory. Its lines are the devices here, so the
 * cheapest single barrier is its minimum cut, {v1 to v3, v4 to v3, v4 to t} = 12 + 7 + 4.
 */
const LINES = [
  ["s", "v1", 16],
  ["s", "v2", 13],
  ["v2", "v1", 4],
  ["v1", "v3", 12],
  ["v3", "v2", 9],
  ["v2", "v4", 14],
  ["v4", "v3", 7],
  ["v3", "t", 20],
  ["v4", "t", 4],
] as const;

function shipping(K: number): { problem: CutProblem; nameOf: (node: number) => string } {
  const nodes = ["s", "v1", "v2", "v3", "v4", "t"];
  const gates = new Map<number, number>();
  const arcs: [number, number][] = [];
  LINES.forEach(([from, to, capacity], index) => {
    const gate = nodes.length + index;
    gates.set(gate, capacity);
    arcs.push([nodes.indexOf(from), gate], [gate, nodes.indexOf(to)]);
  });
  return {
    problem: cutProblem({
      nodeCount: nodes.length + LINES.length,
      arcs,
      gates,
      entries: [{ vertex: nodes.indexOf("s"), skips: 0 }],
      exits: [{ vertex: nodes.indexOf("t"), skips: 0 }],
      K,
    }),
    nameOf: (node) => LINES[node - nodes.length]!.slice(0, 2).join(" to "),
  };
}

describe("a textbook's flow network", () => {
  test.each(["supply", "work"] as const)("its minimum cut is 23, by the three published lines (%s)", (school) => {
    const { problem, nameOf } = shipping(1);
    const cut = kBarrierCut(problem, school);
    expect(cut.price).toBe(23);
    expect(cut.chosen.map(nameOf).sort()).toEqual(["v1 to v3", "v4 to t", "v4 to v3"]);
  });

  test("two barriers cost 49, which trying all 512 sets of lines finds as well", () => {
    // Two lines on every way, by trying everything: the ways are the simple paths from s to t.
    const ways: string[][] = [];
    const walk = (at: string, seen: string[], lines: string[]) => {
      if (at === "t") ways.push(lines);
      for (const [from, to] of LINES) {
        if (from === at && !seen.includes(to)) walk(to, [...seen, to], [...lines, `${from} to ${to}`]);
      }
    };
    walk("s", ["s"], []);
    let best = Infinity;
    for (let mask = 0; mask < 1 << LINES.length; mask++) {
      const set = LINES.filter((_, i) => (mask >> i) & 1);
      const names = new Set(set.map(([from, to]) => `${from} to ${to}`));
      if (ways.every((way) => way.filter((line) => names.has(line)).length >= 2)) {
        best = Math.min(
          best,
          set.reduce((sum, [, , capacity]) => sum + capacity, 0),
        );
      }
    }
    const { problem, nameOf } = shipping(2);
    const cut = kBarrierCut(problem, "work");
    expect(best).toBe(49);
    expect(cut.price).toBe(best);
    expect(cut.chosen.map(nameOf).sort()).toEqual(["s to v2", "v1 to v3", "v3 to t", "v4 to t"]);
  });
});
