import type { Db } from "../../src/server/db/database";
import { stateTables } from "../../src/server/db/stateRows";
import { replayLedger } from "../../src/server/acts/replayLedger";

/** Everything that acts wrote, as text, with made-up ids replaced by the order in which they first appear. */
export function stateOf(db: Db): string[] {
  const ids = new Map<string, string>();
  const plain = (text: string) =>
    text.replace(/[0-9a-f]{8}-[0-9a-f-]{27}|\bs[0-9a-f]{8}\b/g, (id) => {
      if (!ids.has(id)) ids.set(id, `#${ids.size + 1}`);
      return ids.get(id)!;
    });
  const tables = [...stateTables(db.$client), { name: "items", columns: ["id", "tag"] }];
  return tables.flatMap(({ name: table, columns }) =>
    db.$client
      .prepare(`SELECT ${columns.map((column) => `"${column}"`).join(", ")} FROM ${table} ORDER BY rowid`)
      .all()
      .map((row) => plain(`${table} ${JSON.stringify(row)}`)),
  );
}

/** The last hash of a ledger done again on an empty database; throws where a row comes out otherwise. */
export async function replay(from: Db, to: Db, after?: Parameters<typeof replayLedger>[2]): Promise<string> {
  const replayed = await replayLedger(from, to, after);
  if (!replayed.ok) throw new Error(`row ${replayed.row}: ${replayed.why}`);
  return replayed.hash;
}
