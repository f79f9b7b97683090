/**
 * Of something that asks: never two at once. Whoever calls while one runs waits for one that begins after it, together with
 * all others who called meanwhile; so each has an answer that was asked for after their call. A fault is the caller's.
 */
export function oneAtATime(ask: () => Promise<void>): () => Promise<void> {
  let running: Promise<void> | null = null;
  let next: Promise<void> | null = null;
  const begin = () => {
    const mine = ask().finally(() => {
      if (running === mine) running = null;
    });
    running = mine;
    return mine;
  };
  return () => {
    if (next !== null) return next;
    if (running === null) return begin();
    next = running
      .catch(() => undefined)
      .then(() => {
        next = null;
        return begin();
      });
    return next;
  };
}
