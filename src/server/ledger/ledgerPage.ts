import { rowSentence } from "../../core/words/en/rowSentences";
import type { PersonId } from "../../core/people/roles";
import { and, count, desc, eq, like, or } from "drizzle-orm";
import { database } from "../db/database";
import { ledger } from "../db/schema";
import { bodyOf } from "./body";
import { ledgerHead } from "./append";
import { namesOf } from "../people/signIn";
import { nobodyNamed } from "./nobody";

export const LEDGER_PAGE = 50;

/** The ledger, newest first, found by subject, act or text in its body; all of it, or what one person did. */
export function ledgerPage(words: string, page: number, of: PersonId | null) {
  const db = database();
  const pattern = `%${words.trim().replace(/[%_]/g, "")}%`;
  const where = and(
    of === null ? undefined : eq(ledger.byPerson, of),
    words.trim() === ""
      ? undefined
      : or(like(ledger.subject, pattern), like(ledger.type, pattern), like(ledger.body, pattern)),
  );
  const nameOf = namesOf(db);
  const rows = db
    .select()
    .from(ledger)
    .where(where)
    .orderBy(desc(ledger.seq))
    .limit(LEDGER_PAGE)
    .offset((page - 1) * LEDGER_PAGE)
    .all()
    .map((row) => {
      const { input, answer, via = null } = bodyOf(row);
      const did = answer.ok ? answer.answer.did : answer.sentence;
      const came = answer.ok ? answer.answer : {};
      return {
        seq: row.seq,
        type: row.type,
        outcome: row.outcome,
        by: nobodyNamed(row.byPerson) ?? nameOf(row.byPerson),
        /** The clock, an instrument or the command line: what follows is no act of theirs. */
        isNobody: nobodyNamed(row.byPerson) !== null,
        subject: row.subject,
        doneAt: row.doneAt,
        hash: row.hash,
        corrects: row.corrects,
        /** The token by which a program sent it; null where a person did. */
        via,
        /** What was done, in words that follow the name of who did it. */
        words: rowSentence(row.type, input, came, nameOf),
        /** Why it was refused; null where it was done. */
        refused: answer.ok ? null : typeof did === "string" ? did : "",
      };
    });
  const inError = new Set(
    rows.length === 0
      ? []
      : db
          .select({ corrects: ledger.corrects })
          .from(ledger)
          .where(and(eq(ledger.type, "ledger.entered-in-error"), eq(ledger.outcome, "done")))
          .all()
          .map((row) => row.corrects),
  );
  return {
    rows: rows.map((row) => ({ ...row, inError: inError.has(row.seq) })),
    found: db.select({ n: count() }).from(ledger).where(where).get()?.n ?? 0,
    head: ledgerHead(db),
  };
}
