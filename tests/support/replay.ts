import { asc, eq } from "drizzle-orm";
import type { Verdict } from "../../src/core/isolation/heldNow";
import { ACTS } from "../../src/server/acts/acts";
import type { Db, Tx } from "../../src/server/db/database";
import { isolations, ledger, people } from "../../src/server/db/schema";
import { appendToLedger, type LedgerEntry } from "../../src/server/ledger/append";
import { moveByClock } from "../../src/server/permit/settlePermits";
import { CLOCK } from "../../src/server/ledger/nobody";
import { toPerson } from "../../src/server/people/signIn";

/** Tables that acts write; people are not made by acts, and sessions are no fact of the plant. */
const TABLES = [
  "plant_revisions",
  "items",
  "jobs",
  "isolations",
  "job_isolations",
  "deviations",
  "steps",
  "holds",
  "lock_boxes",
  "box_isolations",
  "standing_locks",
  "permits",
  "permit_isolations",
  "permit_log",
  "personal_locks",
  "gear",
  "earths_on",
  "exchanges",
  "temporary_restores",
  "isolation_reviews",
  "forced_removals",
  "figures",
  "stock",
  "handovers",
] as const;

/** Everything that acts wrote, as text, with made-up ids replaced by the order in which they first appear. */
export function stateOf(db: Db): string[] {
  const ids = new Map<string, string>();
  const plain = (text: string) =>
    text.replace(/[0-9a-f]{8}-[0-9a-f-]{27}|\bs[0-9a-f]{8}\b/g, (id) => {
      if (!ids.has(id)) ids.set(id, `#${ids.size + 1}`);
      return ids.get(id)!;
    });
  return TABLES.flatMap((table) =>
    db.$client
      .prepare(`SELECT * FROM ${table} ORDER BY rowid`)
      .all()
      .map((row) => plain(`${table} ${JSON.stringify(row)}`)),
  );
}

type Body = LedgerEntry & { v: number; seq: number };

/**
 * Does every act of one ledger again on an empty database with the same people, and answers the new ledger's last hash.
 * What was refused is appended as it was: it changed nothing. Files of an import are not in the ledger and are given.
 */
export async function replay(from: Db, to: Db, files: unknown): Promise<string> {
  for (const person of from.select().from(people).all()) to.insert(people).values(person).run();
  let last = "";
  for (const row of from.select().from(ledger).orderBy(asc(ledger.seq)).all()) {
    const { v: _, seq: __, ...entry } = JSON.parse(row.body) as Body;
    const act = entry.by !== CLOCK && entry.outcome === "done" ? ACTS.get(entry.type)! : null;
    const input = act?.input.parse(withSecrets(entry.type, entry.input, files));
    const prepared = await act?.prepare?.(to, input, entry.recordedAt_ms);
    to.transaction((tx) => {
      if (entry.by === CLOCK && entry.type.startsWith("isolation.")) takeVerdict(tx, entry);
      else if (entry.by === CLOCK) moveByClock(tx, entry.subject, entry.recordedAt_ms);
      else if (act !== null) {
        const person = toPerson(
          tx
            .select()
            .from(people)
            .all()
            .find(({ id }) => id === entry.by)!,
        );
        const context = {
          tx,
          person,
          now_ms: entry.recordedAt_ms,
          done_ms: entry.doneAt_ms,
          kept: entry.doneAt_ms !== entry.recordedAt_ms,
        };
        const outcome = act.run(context, input, prepared);
        const said = JSON.stringify(outcome.ok ? { ok: true, answer: outcome.answer } : outcome);
        const known = JSON.stringify(entry.answer);
        if (!outcome.ok || sortedKeys(said) !== sortedKeys(known)) {
          throw new Error(`row ${row.seq}, ${entry.type}, answered ${said} and not ${known}`);
        }
      }
      last = appendToLedger(tx, entry).hash;
    });
  }
  return last;
}

/** How a plan fared on a later register, as its row says. */
function takeVerdict(tx: Tx, { subject, input }: LedgerEntry): void {
  const { verdict } = input as { verdict: Verdict };
  tx.update(isolations).set({ verdict }).where(eq(isolations.number, subject)).run();
}

function sortedKeys(text: string): string {
  const sort = (value: unknown): unknown =>
    value !== null && typeof value === "object" && !Array.isArray(value)
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([key, inner]) => [key, sort(inner)]),
        )
      : value;
  return JSON.stringify(sort(JSON.parse(text)));
}

/** PINs never reach the ledger, and a plant's files are there by their hash only. */
function withSecrets(type: string, input: unknown, files: unknown): unknown {
  if (type === "plant.import") return { files };
  if (type === "contractor.exchange") return { ...(input as object), leadPin: "-" };
  if (type === "shift.hand-over") return { ...(input as object), comingPin: "-" };
  if (type === "permit.hand-over") {
    const { pairs, ...rest } = input as { pairs: object[] };
    return { ...rest, pairs: pairs.map((pair) => ({ ...pair, fromPin: "-", toPin: "-" })) };
  }
  return input;
}
