import type { Tx } from "./database";

/**
 * A question that is asked over and over, built once for each connection: to build one takes thirty times as long as to
 * have it answered. What differs from time to time are placeholders; `build` ends in `prepare()`.
 *
 * Cost: the first time what building costs, then a look-up.
 */
export function question<Q>(build: (tx: Tx) => Q): (tx: Tx) => Q {
  const built = new WeakMap<object, Q>();
  return (tx) => {
    // A transaction asks by the same session as its database, and one session is one connection.
    const { session } = tx as Tx & { session?: object };
    if (session === undefined) return build(tx);
    const known = built.get(session) ?? build(tx);
    built.set(session, known);
    return known;
  };
}
