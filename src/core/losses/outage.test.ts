import fc from "fast-check";
import { engineCase, smallCase } from "../../../tests/support/plantArbitrary";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import { SmallPlant } from "../../../tests/support/smallPlant";
import { reachableFrom } from "../trace/barrierDistance";
import { sourcesOf } from "../trace/sources";
import { gatesOf } from "../trace/stateGraph";
import { lossOf } from "./fedNoMore";
import { dominatorTree } from "../trace/dominators";
import { outageOf } from "./outage";

describe("dominators", () => {
  test("a vertex dominates another exactly when without it nothing gets there", () => {
    let dominated = 0;
    fc.assert(
      fc.property(smallCase, (small) => {
        const { graph } = engineCase(small);
        const starts = sourcesOf(graph).feeding.map((source) => source.vertex);
        const none = gatesOf(graph, []);
        const { order, dominator } = dominatorTree(graph, starts, none);
        const reached = reachableFrom(graph, starts, null);
        for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
          expect(order[vertex]! >= 0).toBe(reached[vertex] === 1);
          if (reached[vertex] === 0 || starts.includes(vertex)) continue;
          const above = new Set<number>();
          for (let up = dominator[vertex]!; up >= 0; up = dominator[up]!) above.add(up);
          dominated += above.size;
          for (let other = 0; other < graph.vertexCount; other++) {
            if (other === vertex || reached[other] === 0) continue;
            const without = none.slice();
            without[other] = 1;
            const left = reachableFrom(
              graph,
              starts.filter((start) => start !== other),
              without,
            );
            expect(above.has(other)).toBe(left[vertex] === 0);
          }
        }
      }),
      propertyRuns(25),
    );
    expect(dominated).toBeGreaterThan(metAtLeast(50));
  });
});

/** Two consumers behind their own isolators on one board; the board has two feeders, one of them open today. */
const board = () =>
  new SmallPlant()
    .source("NET", "power")
    .device("CB-1", "power")
    .device("CB-2", "power", { stands: "stopping" })
    .item("BUS", "busbar")
    .device("Q-1", "power")
    .device("Q-2", "power")
    .item("M-1", "motor", { needs: ["power"], criticality: 3, area: "Hall", name: "Mixer" })
    .item("M-2", "motor", { needs: ["power"], area: "Attic" })
    .item("M-3", "motor", { needs: ["power", "pneumatic"] })
    .line("power", "NET", "CB-1", "BUS", "CB-2", "NET")
    .line("power", "BUS", "Q-1", "M-1")
    .line("power", "BUS", "Q-2", "M-2");

describe("what goes dark", () => {
  const index = (graph: ReturnType<typeof board>["graph"], ...tags: string[]) =>
    new Set(tags.map((tag) => graph.itemByTag.get(tag)!));

  test("a device weighs what depends on it alone, by criticality; an open feeder weighs nothing", () => {
    const { graph } = board();
    const outage = outageOf(graph, new Set());
    const of = (tag: string) => outage[graph.itemByTag.get(tag)!];
    expect([of("CB-1"), of("CB-2"), of("Q-1"), of("Q-2")]).toEqual([4, 0, 3, 1]);
  });
  test("the work itself does not weigh", () => {
    const { graph } = board();
    expect(outageOf(graph, index(graph, "M-1"))[graph.itemByTag.get("CB-1")!]).toBe(1);
  });
  test("the loss lists consumers lit before and dark after, and not those dark already", () => {
    const { graph } = board();
    const losses = lossOf(graph, index(graph, "CB-1"), index(graph, "M-2"));
    expect(losses).toMatchObject([
      { tag: "M-2", area: "Attic", isWork: true, loses: ["power"] },
      { tag: "M-1", area: "Hall", name: "Mixer", isWork: false, criticality: 3 },
    ]);
    expect(lossOf(graph, index(graph, "CB-2"), new Set())).toEqual([]);
  });
  test("isolating more never brings anything back", () => {
    fc.assert(
      fc.property(
        fc.subarray(["CB-1", "CB-2", "Q-1", "Q-2"]),
        fc.constantFrom("CB-1", "CB-2", "Q-1", "Q-2"),
        (some, more) => {
          const { graph } = board();
          const dark = (tags: string[]) => lossOf(graph, index(graph, ...tags), new Set()).map((loss) => loss.tag);
          expect(dark([...some, more])).toEqual(expect.arrayContaining(dark(some)));
        },
      ),
      propertyRuns(40),
    );
  });
});
