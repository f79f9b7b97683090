import { CONTROL_PAIRS, pairsOf, SYSTEMS } from "./conductors";

describe("the pairs that are tested", () => {
  test.each([
    ["1-phase", 3],
    ["3-phase", 6],
    ["3-phase and neutral", 10],
    ["dc", 3],
  ] as const)("%s has every pair of its conductors and earth: %i", (system, count) => {
    const pairs = pairsOf(system);
    expect(pairs).toHaveLength(count);
    expect(new Set(pairs).size).toBe(count);
    const met = new Set(pairs.map((pair) => pair.split("–").sort().join()));
    expect(met.size).toBe(count);
  });
  test("a system that nobody wrote down has no fewer than any other", () => {
    const all = new Set(pairsOf(undefined));
    for (const system of SYSTEMS.filter((one) => one.startsWith("3")))
      for (const pair of pairsOf(system)) expect(all).toContain(pair);
    expect(all.size).toBe(Math.max(...SYSTEMS.map((system) => pairsOf(system).length)));
  });
  test("control terminals are read between, and to earth: a neighbour's voltage shows only there", () => {
    expect(CONTROL_PAIRS.some((pair) => pair.endsWith("E"))).toBe(true);
  });
});
