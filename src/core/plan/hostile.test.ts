import { hostilePlant, type Hostile } from "../../../tests/support/hostilePlant";
import type { Carrier } from "../plant/carriers";
import { reached } from "../trace/barrierDistance";
import { gateVertices } from "../trace/stateGraph";
import { sourcesOf } from "../trace/sources";
import { workFaces, allFaceVertices } from "../trace/workFaces";
import { plan } from "./plan";

const CASES: readonly Hostile[] = [
  { rows: 6, columns: 6, k: 3, cause: 0.5, several: 0 },
  { rows: 6, columns: 8, k: 4, cause: 0.8, several: 0.5 },
  { rows: 10, columns: 10, k: 3, cause: 0.8, several: 0.5 },
  { rows: 4, columns: 12, k: 5, cause: 0.9, several: 0.8 },
];

/** Found by failures, not by the search: the source is let through every pair of units at once, and more by chance. */
function litWhenFailing(
  { graph, job }: ReturnType<typeof hostilePlant>,
  points: readonly string[],
  failing: number,
  carrier: Carrier,
) {
  const faces = workFaces(graph, job, "job");
  if (!faces.ok) throw new Error("no faces");
  const targets = new Set(faces.value.flatMap((face) => allFaceVertices(graph, face)));
  const starts = sourcesOf(graph).feeding.flatMap((one) => (one.carrier === carrier ? [one.vertex] : []));
  const units = new Map<string, number[]>();
  for (const tag of points) {
    const item = graph.itemByTag.get(tag)!;
    const unit = graph.plant.items[item]!.device!.commonCause ?? tag;
    units.set(unit, [...(units.get(unit) ?? []), ...gateVertices(graph, item)]);
  }
  const all = [...units.values()];
  const shut = new Uint8Array(graph.vertexCount);
  for (const gates of all) for (const gate of gates) shut[gate] = 1;
  let lit = 0;
  let tried = 0;
  const fail = (from: number, left: number) => {
    if (left === 0) {
      tried++;
      const marks = reached(graph, starts, shut, "out");
      if ([...targets].some((target) => marks[target] === 1)) lit++;
      return;
    }
    // All pairs; of larger sets every seventh, which is some thousands.
    for (let i = from; i < all.length; i += left > 2 ? 7 : 1) {
      for (const gate of all[i]!) shut[gate] = 0;
      fail(i + 1, left - 1);
      for (const gate of all[i]!) shut[gate] = 1;
    }
  };
  fail(0, failing);
  return { lit, tried };
}

describe("plants made to be hard", () => {
  test.each(CASES)("$rows × $columns, $k barriers, $cause of the valves on common causes", (hostile) => {
    const site = hostilePlant(hostile);
    const made = plan(site.graph, site.job);
    if (!made.ok) throw new Error("refused");
    const { points, routes, exact, bound, shortfalls } = made.value;
    const tags = points.map(({ device }) => device);
    // What is not proved cheapest says what it might have been.
    expect(bound).toBeLessThanOrEqual(made.value.cost);
    if (!exact) expect(bound).toBeLessThan(made.value.cost);
    for (const { carrier, depth, held, required } of routes) {
      expect(held).toBe(depth >= required);
      const surely = Math.min(depth, hostile.k!) - 1;
      if (surely < 1) continue;
      const { lit, tried } = litWhenFailing(site, tags, surely, carrier);
      expect(tried).toBeGreaterThan(20);
      expect(lit).toBe(0);
    }
    for (const { proved, available, required } of shortfalls)
      if (available >= required) expect(proved).toBe("not found");
  });
});
