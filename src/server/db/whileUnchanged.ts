import type { Db, Tx } from "./database";
import { writesOn } from "./statements";

/**
 * Asks the database once and answers the same for as long as nothing is written. Within a transaction it is asked anew:
 * what was written there may be taken back.
 */
export function whileUnchanged<T>(ask: (tx: Tx) => T): (tx: Tx) => T {
  const known = new WeakMap<object, Readonly<{ writes: number; answer: T }>>();
  return (tx) => {
    const { $client: client } = tx as Partial<Db>;
    if (client === undefined || client.inTransaction) return ask(tx);
    const writes = writesOn(client);
    const last = known.get(client);
    if (last?.writes === writes) return last.answer;
    const answer = ask(tx);
    known.set(client, { writes, answer });
    return answer;
  };
}
