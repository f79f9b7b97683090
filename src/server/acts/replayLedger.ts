import { and, asc, eq, gt } from "drizzle-orm";
import { z } from "zod";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import { sentSchema } from "../../core/permit/air/instruments";
import { verdictSchema } from "../../core/isolation/keptSchemas";
import { parsed } from "../db/jsonColumn";
import type { Db, Tx } from "../db/database";
import { accessTokens, detectors, isolations, ledger, items, people, plantRevisions, plantTexts } from "../db/schema";
import { countTimesAnew } from "../permit/clockTimes";
import { CLOCK_STEPPED } from "../permit/clockWatch";
import { moveByClock } from "../permit/settlePermits";
import { toPerson } from "../people/signIn";
import { Taken } from "../plant/plantActs";
import { appendAsItWas, ledgerHead } from "../ledger/append";
import { CLOCK, isNobody } from "../ledger/nobody";
import { ACTS } from "./acts";
import { entersAgain } from "./replayPeople";

const heardSchema = z.object({ id: z.string(), at_ms: z.number().nullable(), reading: z.string().nullable() });
const entrySchema = z.object({
  actId: z.string(),
  transcribedBy: z.string().nullable(),
  corrects: z.number().nullable(),
  by: z.string(),
  type: z.string(),
  outcome: z.enum(["done", "refused"]),
  subject: z.string(),
  doneAt_ms: z.number(),
  recordedAt_ms: z.number(),
  input: z.unknown(),
  answer: z.unknown(),
  heard: z.array(heardSchema).optional(),
});

export type Replayed = Readonly<{ ok: true; hash: string } | { ok: false; row: number; why: string }>;

/**
 * Does every act of one ledger again on an empty database, by the rules of this program, and answers the new ledger's last
 * hash, or the first row that now comes out otherwise. Instruments and registers, which no act makes, and people's secrets,
 * which no ledger knows, are taken from the first database; what was refused is appended as it was, for it changed nothing. What instruments had said is in the
 * rows since version 2 of the ledger; before, a stop by an instrument is taken at its word.
 *
 * What it says of a ledger that an earlier program wrote is no fault of the record: rules have become sharper since. Ids
 * that the program makes up differ. A second database that holds the beginning of the same ledger, done again before, is gone on
 * from where it stands. Cost: that of all its acts, plans among them.
 */
export async function replayLedger(
  from: Db,
  to: Db,
  /** Told of each row once it is done again. */
  after: (row: Readonly<{ seq: number; recordedAt: number }>) => void = () => undefined,
): Promise<Replayed> {
  takeWhatNoActMakes(from, to);
  const stands = ledgerHead(to);
  let last = stands.hash;
  const rows = from.select().from(ledger).where(gt(ledger.seq, stands.seq)).orderBy(asc(ledger.seq)).all();
  for (const row of rows) {
    const entry = parsed(`row ${row.seq} of the ledger`, entrySchema, row.body);
    const why = await doAgain(from, to, entry);
    if (why !== null) return { ok: false, row: row.seq, why: `${entry.type} ${why}` };
    last = to.transaction((tx) => appendAsItWas(tx, row.body, row.bodyVersion, entry)).hash;
    after(row);
  }
  return { ok: true, hash: last };
}

type Entry = z.output<typeof entrySchema>;
const steppedSchema = z.object({ by_ms: z.number(), words: z.string() });

/** Null where it came out as it was, else how it came out. */
async function doAgain(from: Db, to: Db, entry: Entry): Promise<string | null> {
  for (const { id, at_ms, reading } of entry.heard ?? []) {
    const lastReading = reading === null ? null : sentSchema.parse(JSON.parse(reading));
    to.update(detectors).set({ lastAt: at_ms, lastReading }).where(eq(detectors.id, id)).run();
  }
  if (entry.outcome === "refused") return null;
  if (entry.by === CLOCK && entry.type.startsWith("isolation.")) return takeVerdict(to, entry);
  if (entry.by === CLOCK && entry.type === CLOCK_STEPPED) {
    countTimesAnew(to, { ...steppedSchema.parse(entry.input), now_ms: entry.recordedAt_ms });
    return null;
  }
  if (entersAgain(to, entry)) return null;
  if (isNobody(entry.by)) {
    if (entry.type.startsWith("permit.")) moveByClock(to, entry.subject, entry.recordedAt_ms);
    return null;
  }
  // Secrets are taken as they are, and what somebody signed is done again without them.
  if (entry.type.startsWith("person.") && !RIGHTS.has(entry.type)) return null;
  // So are the tokens of instruments, with the instruments, and those of programs.
  if (entry.type.startsWith("instrument.") || entry.type.startsWith("access.")) return null;
  const act = ACTS.get(entry.type);
  if (act === undefined) return "is no act any more";
  const input = act.input.safeParse(withSecrets(from, entry));
  if (!input.success) return `is not understood any more: ${input.error.issues[0]?.path.join(".")}`;
  const prepared = await act.prepare?.(to, input.data, entry.recordedAt_ms);
  const person = to.select().from(people).where(eq(people.id, entry.by)).get();
  if (person === undefined) return `is by ${entry.by}, who is unknown`;
  // What it brought on has rows of its own in the ledger.
  const said = to.transaction((tx) => {
    const context = {
      tx,
      person: toPerson(person, entry.recordedAt_ms),
      now_ms: entry.recordedAt_ms,
      done_ms: entry.doneAt_ms,
      kept: entry.doneAt_ms !== entry.recordedAt_ms,
    };
    const outcome = act.run(context, input.data, prepared);
    return outcome.ok ? { ok: true, answer: outcome.answer } : { ok: false, refusal: outcome.refusal };
  });
  const isSame = canonicalJson(JSON.parse(JSON.stringify(said))) === canonicalJson(entry.answer);
  return isSame ? null : `came out as ${JSON.stringify(said)} and not as ${JSON.stringify(entry.answer)}`;
}

/** What changes what somebody may do; the rest of what is done to accounts is secrets and sign-ins. */
const RIGHTS: ReadonlySet<string> = new Set(["person.change", "person.leave", "person.come-back"]);

/** How a plan fared on a later register, as its row says. */
function takeVerdict(tx: Tx, { subject, input }: Entry): null {
  const { verdict } = z.object({ verdict: verdictSchema }).parse(input);
  tx.update(isolations).set({ verdict }).where(eq(isolations.number, subject)).run();
  return null;
}

function takeWhatNoActMakes(from: Db, to: Db): void {
  const isEmpty = (table: typeof people | typeof detectors | typeof accessTokens) =>
    to.select().from(table).all().length === 0;
  if (isEmpty(people)) {
    const left = leavers(from);
    for (const one of from.select().from(people).all()) {
      to.insert(people)
        .values({ ...one, active: one.active || left.has(one.id) })
        .run();
    }
  }
  if (isEmpty(detectors)) {
    for (const one of from.select().from(detectors).all()) {
      const bare = { ...one, permit: null, place: "", postedAt: null, lastAt: null, lastReading: null };
      to.insert(detectors).values(bare).run();
    }
  }
  if (isEmpty(accessTokens)) {
    for (const one of from.select().from(accessTokens).all()) to.insert(accessTokens).values(one).run();
  }
  for (const one of from.select().from(plantTexts).all()) to.insert(plantTexts).values(one).onConflictDoNothing().run();
  for (const one of from.select().from(items).all()) to.insert(items).values(one).onConflictDoNothing().run();
}

/** Who left by an act: until then they were here. */
function leavers(from: Db): ReadonlySet<string> {
  const rows = from
    .select({ body: ledger.body })
    .from(ledger)
    .where(and(eq(ledger.type, "person.leave"), eq(ledger.outcome, "done")))
    .all();
  return new Set(rows.map(({ body }) => parsed("ledger", leaverSchema, body).input.person));
}
const leaverSchema = z.object({ input: z.object({ person: z.string() }) });

const filesSchema = z.object({ files: z.array(z.object({ name: z.string(), sha256: z.string() })) });
const importAnswer = z.object({
  answer: z.object({ revision: z.number(), tags: z.number().optional(), tagsHash: z.string().optional() }),
});
const pairsSchema = z.looseObject({ pairs: z.array(z.looseObject({})) });

/** PINs never reach the ledger; a register is there by its hash, and is taken as it was staged then. */
export function withSecrets(from: Db, { type, input, answer }: Pick<Entry, "type" | "input" | "answer">): unknown {
  switch (type) {
    case "plant.import": {
      const { files } = filesSchema.parse(input);
      const said = importAnswer.parse(answer).answer;
      const identities = { count: said.tags ?? 0, sha256: said.tagsHash ?? "" };
      return { files: [], taken: new Taken({ ...stagedThen(from, said.revision), files, identities }) };
    }
    case "contractor.exchange":
      return { ...(input as object), leadPin: "-" };
    case "shift.hand-over":
      return { ...(input as object), comingPin: "-" };
    case "crew.sign-on":
    case "crew.sign-off":
      return { ...(input as object), whoPin: "-" };
    case "permit.hand-over": {
      const { pairs, ...rest } = pairsSchema.parse(input);
      return { ...rest, pairs: pairs.map((pair) => ({ ...pair, fromPin: "-", toPin: "-" })) };
    }
    default:
      return input;
  }
}

function stagedThen(from: Db, revision: number) {
  const row = from.select().from(plantRevisions).where(eq(plantRevisions.revision, revision)).get();
  if (row === undefined) throw new Error(`plant revision ${revision} is not in the database`);
  const parts = from.select().from(plantTexts).where(eq(plantTexts.hash, row.contentHash)).all().length;
  const { contentHash: hash, itemCount: items, linkCount: links } = row;
  return { hash, parts, items, links, warnings: [] };
}
