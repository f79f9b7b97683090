/** Kept for the process: pages and routes are bundled apart, each with its own copy of this file. */
const holder = globalThis as { heavyLanternTurns?: Map<string, { last: Promise<unknown>; waiting: number }> };

/**
 * One after another for each key, in the order in which they came. Null where more than `most` wait for theirs already:
 * then nothing was begun.
 */
export async function inTurn<T>(key: string, most: number, work: () => Promise<T>): Promise<T | null> {
  const turns = (holder.heavyLanternTurns ??= new Map());
  const turn = turns.get(key) ?? { last: Promise.resolve(), waiting: 0 };
  if (turn.waiting >= most) return null;
  turn.waiting++;
  turns.set(key, turn);
  const mine = turn.last.then(work);
  turn.last = mine.catch(() => undefined);
  try {
    return await mine;
  } finally {
    turn.waiting--;
    if (turn.waiting === 0) turns.delete(key);
  }
}
