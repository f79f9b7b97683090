import { closedBy, type Failures, type Scope } from "./byFailures";

/**
 * Walks themselves, step by step from the source, up to twice as many steps as there are vertices; walks that agree in
 * where they are, which units they crossed and what their present stretch is are one. For small plants.
 */
export function walksFrom(
  failures: Failures,
  from: string,
  face: string,
  scope: Scope,
): Readonly<{ fewestUnits: number; allPassASpace: boolean }> | null {
  const own = failures.itemAt(from).tag;
  const closed = closedBy(failures, ["fluid", "hydraulic", "pneumatic", "bulk"], own);
  const arcs = failures.scoped(scope);
  const legs = failures.deadLegs(arcs, closed);
  let here = new Map<
    string,
    { node: string; units: string; stretch: "none" | "clean" | "spoilt" | "before"; passed: boolean }
  >();
  const put = (
    map: typeof here,
    one: { node: string; units: string; stretch: "none" | "clean" | "spoilt" | "before"; passed: boolean },
  ) => map.set(`${one.node}/${one.units}/${one.stretch}/${one.passed}`, one);
  put(here, { node: from, units: "", stretch: "before", passed: false });
  const seen = new Set(here.keys());
  let fewestUnits = Infinity;
  let allPassASpace = true;
  for (let step = 0; step <= failures.nodes.length * 2 && here.size > 0; step++) {
    const next: typeof here = new Map();
    for (const walk of here.values()) {
      if (walk.node === face) {
        fewestUnits = Math.min(fewestUnits, walk.units === "" ? 0 : walk.units.split(",").length);
        allPassASpace &&= walk.passed;
        continue;
      }
      for (const { from: a, to } of arcs) {
        if (a !== walk.node || legs.has(to) || closed.has(to)) continue;
        const gate = failures.gates.get(to);
        if (gate === undefined || gate === own || to === face) {
          const stretch =
            walk.stretch === "before"
              ? "before"
              : walk.stretch === "spoilt" || !failures.proved(to)
                ? "spoilt"
                : "clean";
          put(next, { ...walk, node: to, stretch });
          continue;
        }
        const units = [...new Set([...walk.units.split(",").filter(Boolean), failures.unitOf(gate)])].sort().join(",");
        const body = failures.items.get(failures.items.get(gate)!.device!.bodyBleed ?? "")?.bleed?.safe === true;
        put(next, { node: to, units, stretch: "none", passed: walk.passed || walk.stretch === "clean" || body });
      }
    }
    here = new Map([...next].filter(([key]) => !seen.has(key)));
    for (const key of here.keys()) seen.add(key);
  }
  return fewestUnits === Infinity ? null : { fewestUnits, allPassASpace };
}
