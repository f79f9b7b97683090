import type { Pair } from "../barrier/pairs";

/**
 * Requirements as k(s,t) = a(s) + b(t), the form in which one flow is exact; null when they have no such form. Pairs
 * that need nothing must get no more than 0 from the sum. Offsets may be negative.
 *
 * Cost: linear in pairs.
 */
export function requirementOffsets(
  pairs: readonly Pair[],
): { ofSource: Map<number, number>; ofFace: Map<string, number> } | null {
  const ofSource = new Map<number, number>();
  const ofFace = new Map<string, number>();
  const asking = pairs.filter((pair) => pair.k > 0);
  const byFace = new Map<string, Pair[]>();
  const bySource = new Map<number, Pair[]>();
  for (const pair of asking) {
    addTo(byFace, pair.face.name, pair);
    addTo(bySource, pair.source.vertex, pair);
  }
  for (const root of asking) {
    if (ofFace.has(root.face.name)) continue;
    ofFace.set(root.face.name, 0);
    const queue = byFace.get(root.face.name)!.slice();
    for (let head = 0; head < queue.length; head++) {
      const { face, source, k } = queue[head]!;
      const b = ofFace.get(face.name);
      const a = ofSource.get(source.vertex);
      if (b !== undefined && a === undefined) {
        ofSource.set(source.vertex, k - b);
        for (const pair of bySource.get(source.vertex)!) queue.push(pair);
      } else if (a !== undefined && b === undefined) {
        ofFace.set(face.name, k - a);
        for (const pair of byFace.get(face.name)!) queue.push(pair);
      } else if (a! + b! !== k) return null;
    }
  }
  const overAsked = pairs.some(
    (pair) =>
      pair.k === 0 &&
      ofSource.has(pair.source.vertex) &&
      ofFace.has(pair.face.name) &&
      ofSource.get(pair.source.vertex)! + ofFace.get(pair.face.name)! > 0,
  );
  return overAsked ? null : { ofSource, ofFace };
}

function addTo<Key>(groups: Map<Key, Pair[]>, key: Key, pair: Pair): void {
  const group = groups.get(key);
  if (group) group.push(pair);
  else groups.set(key, [pair]);
}
