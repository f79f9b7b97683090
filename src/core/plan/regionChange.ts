import { tagOfPlace } from "../plant/resolvePlace";
import type { StateGraph } from "../trace/stateGraph";

/** Tags that differ between two registers among those that a plan rests on. */
export type RegionChange = Readonly<{
  added: readonly string[];
  removed: readonly string[];
  changed: readonly string[];
}>;

/**
 * What changed near a plan: items that it names, or that a link joins to one of these, in either register. Empty lists
 * mean that the plan stands on the same plant. Cost: linear in both registers.
 */
export function regionChange(before: StateGraph, after: StateGraph, named: readonly string[]): RegionChange {
  const bare = (graph: StateGraph, name: string) => tagOfPlace(name, (one) => graph.itemByTag.has(one));
  const near = new Set<string>();
  for (const graph of [before, after]) {
    const own = new Set(named.map((name) => bare(graph, name)));
    for (const tag of own) near.add(tag);
    for (const { from, to } of graph.plant.links) {
      const [a, b] = [bare(graph, from), bare(graph, to)];
      if (own.has(a)) near.add(b);
      if (own.has(b)) near.add(a);
    }
  }
  const facts = (graph: StateGraph) => {
    const links = new Map<string, string[]>();
    for (const link of graph.plant.links) {
      // When somebody walked a line changes nothing about where energy goes.
      const text = JSON.stringify({ ...link, walked: undefined });
      for (const tag of new Set([bare(graph, link.from), bare(graph, link.to)])) {
        if (near.has(tag)) links.set(tag, [...(links.get(tag) ?? []), text]);
      }
    }
    return (tag: string) => {
      const index = graph.itemByTag.get(tag);
      if (index === undefined) return null;
      return JSON.stringify([graph.plant.items[index], (links.get(tag) ?? []).sort()]);
    };
  };
  const [was, is] = [facts(before), facts(after)];
  const change = { added: [] as string[], removed: [] as string[], changed: [] as string[] };
  for (const tag of [...near].sort()) {
    const [a, b] = [was(tag), is(tag)];
    if (a === b) continue;
    if (a === null) change.added.push(tag);
    else if (b === null) change.removed.push(tag);
    else change.changed.push(tag);
  }
  return change;
}
