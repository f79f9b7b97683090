import { createHash } from "node:crypto";
import { desc, eq, inArray } from "drizzle-orm";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { IsolationNow, Verdict } from "../../core/isolation/heldNow";
import type { Job } from "../../core/request/jobFile";
import { heldTags } from "../box/heldTags";
import type { Tx } from "../db/database";
import { isolations, plantRevisions } from "../db/schema";
import { question } from "../db/question";
import { whileUnchanged } from "../db/whileUnchanged";

/** States in which somebody counts on an isolation, or soon will. */
const COUNTED_ON = ["isolating", "proven", "testing"] as const;
const countedOn: ReadonlySet<string> = new Set(COUNTED_ON);
export const isCountedOn = (state: string) => countedOn.has(state);

/** The revision of the register of today; 0 where none was imported. */
export const revisionToday = whileUnchanged((tx): number => lastRevision(tx).get()?.revision ?? 0);
const lastRevision = question((tx) =>
  tx
    .select({ revision: plantRevisions.revision })
    .from(plantRevisions)
    .orderBy(desc(plantRevisions.revision))
    .limit(1)
    .prepare(),
);

type Row = Pick<typeof isolations.$inferSelect, "number" | "state" | "plantRevision" | "verdict" | "lockCheck">;

/** What the core is told of an isolation's plan. */
export function asNow(row: Row, openSteps: number, today: number): IsolationNow {
  const { number, state, plantRevision: planned, verdict, lockCheck } = row;
  return { number, state, openSteps, planned, today, verdict, lockCheck };
}

/** An isolation that people count on, with what its plan has to be judged from. */
export type ToJudge = Readonly<{
  id: string;
  isolation: string;
  job: Job;
  planned: number;
  /** What its locks hang on; null where what is planned will be judged: what is lifted for a test goes back on. */
  held: readonly string[] | null;
  /** Says all of this: where it is another later, the judgement was of something else. */
  name: string;
}>;

/** Isolations that stand on another register than this one and were not judged on it. Cost: two queries. */
export function toJudge(tx: Tx, revision: number): ToJudge[] {
  const rows = tx
    .select({
      id: isolations.id,
      isolation: isolations.number,
      state: isolations.state,
      job: isolations.inputs,
      planned: isolations.plantRevision,
      verdict: isolations.verdict,
    })
    .from(isolations)
    .where(inArray(isolations.state, [...COUNTED_ON]))
    .orderBy(isolations.number)
    .all()
    .filter(({ planned, verdict }) => planned !== revision && !(verdict?.judged && verdict.revision === revision));
  const hangs = heldTags(
    tx,
    rows.map(({ id }) => id),
  );
  return rows.map(({ id, isolation, state, job, planned }) => {
    const held = state === "proven" ? hangs(id) : null;
    const said = canonicalJson(JSON.parse(JSON.stringify({ isolation, job, planned, held })));
    return { id, isolation, job, planned, held, name: createHash("sha256").update(said).digest("hex") };
  });
}

export function saveVerdict(tx: Tx, isolationId: string, verdict: Verdict): void {
  tx.update(isolations).set({ verdict }).where(eq(isolations.id, isolationId)).run();
}
