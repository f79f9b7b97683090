import { createHash } from "node:crypto";
import { existsSync } from "node:fs";
import type Database from "better-sqlite3";
import { z } from "zod";
import { parsed } from "../db/jsonColumn";
import { schemaNow, schemaOfMigrations } from "../db/schemaCheck";
import { stateNow, stateTables, type RowHashes } from "../db/stateRows";
import { identitiesIn } from "../../workers/stageRegister";
import { chainHash, GENESIS } from "./append";
import { headsElsewhere, notedHeads, readHeadFile, type HeadFile } from "./headFile";

export type Verification = Readonly<
  | { ok: true; rows: number; head: string; stateRows: number; stateKnown: boolean }
  | { ok: false; faults: readonly string[] }
>;

/** One row of the ledger, as its table has it. */
type Row = Readonly<{
  seq: number;
  act_id: string;
  body_version: number;
  type: string;
  outcome: string;
  by_person: string;
  subject: string;
  done_at_ms: number;
  recorded_at_ms: number;
  transcribed_by: string | null;
  corrects: number | null;
  body: string;
  previous_hash: string;
  hash: string;
}>;

/** More than a reader looks through; the count says how many there are. */
const MOST_FAULTS = 200;

/**
 * Walks the whole record and names what was changed, removed or inserted: rows of the ledger, its tail, rows of state that
 * are not as the ledger says they were written last, pictures and registers that are not what their hash says, and tables,
 * triggers and indexes that the program did not make.
 *
 * Looks at one moment of the database, so it is right while a server writes. Reads only. Cost: linear in everything.
 */
export function verifyLedger(
  client: Database.Database,
  headFile: string,
  elsewhere: string | null = headsElsewhere(),
): Verification {
  const faults: string[] = [];
  const walked = client.transaction(() => {
    const chain = walkChain(client, faults);
    const integrity = client.pragma("integrity_check", { simple: true });
    if (integrity !== "ok") faults.push(`the database is damaged: ${String(integrity)}`);
    // One by one: a database that was filled from outside has more faults than a call has room for arguments.
    const found = [schemaFaults(client), contentFaults(client, chain.identities), stateFaults(client, chain)];
    for (const part of found) for (const fault of part) faults.push(fault);
    return chain;
  })();
  // The head file is read after that moment, so whatever stood in the ledger by then it knows.
  faults.unshift(...headFaults(client, walked, headFile), ...elsewhereFaults(client, walked, elsewhere));
  if (faults.length > 0) {
    const more = faults.length - MOST_FAULTS;
    return { ok: false, faults: more > 0 ? [...faults.slice(0, MOST_FAULTS), `and ${more} more`] : faults };
  }
  let stateRows = 0;
  for (const known of walked.state.values()) stateRows += known.size;
  return { ok: true, rows: walked.rows, head: walked.hash, stateRows, stateKnown: walked.stateKnown };
}

type Chain = Readonly<{
  rows: number;
  last: number;
  /** What the last row's program was able to say. */
  lastVersion: number;
  hash: string;
  /** What the ledger says that each row of state hashes to, by table and key. */
  state: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** From some row on the ledger says what it wrote. */
  stateKnown: boolean;
  identities: Identities | null;
}>;

function walkChain(client: Database.Database, faults: string[]): Chain {
  let previous = GENESIS;
  let expected = 1;
  let rows = 0;
  let lastVersion = 0;
  let stateKnown = false;
  let identities: Identities | null = null;
  const state = new Map<string, Map<string, string>>();
  const all = client.prepare("SELECT * FROM ledger ORDER BY seq").iterate() as IterableIterator<Row>;
  for (const row of all) {
    const name = `row ${row.seq}`;
    rows++;
    if (row.seq > expected) faults.push(`rows ${expected} to ${row.seq - 1} are missing`);
    expected = row.seq + 1;
    if (row.previous_hash !== previous)
      faults.push(`${name} does not follow the row before it: one was changed, removed or inserted`);
    if (chainHash(row.previous_hash, row.body) !== row.hash)
      faults.push(`${name} was changed: its hash does not fit its body`);
    previous = row.hash;
    const body = bodyOf(row, name);
    if (body === null) {
      faults.push(`${name} was changed: its body cannot be read`);
      continue;
    }
    faults.push(...columnFaults(row, body, name));
    lastVersion = row.body_version;
    if (row.body_version >= 2) stateKnown = true;
    identities = identitiesOf(body) ?? identities;
    for (const [table, written] of Object.entries((body.wrote ?? {}) as RowHashes)) {
      const known = state.get(table) ?? state.set(table, new Map()).get(table)!;
      for (const [key, hash] of Object.entries(written)) {
        if (hash === null) known.delete(key);
        else known.set(key, hash);
      }
    }
  }
  return { rows, last: expected - 1, lastVersion, hash: previous, state, stateKnown, identities };
}

function bodyOf(row: Row, name: string): Record<string, unknown> | null {
  try {
    return parsed(name, z.record(z.string(), z.unknown()), row.body);
  } catch {
    return null;
  }
}

function columnFaults(row: Row, body: Record<string, unknown>, name: string): string[] {
  const pairs: readonly (readonly [string, unknown, unknown])[] = [
    ["seq", row.seq, body.seq],
    ["act_id", row.act_id, body.actId],
    ["type", row.type, body.type],
    ["outcome", row.outcome, body.outcome],
    ["by_person", row.by_person, body.by],
    ["subject", row.subject, body.subject],
    ["done_at_ms", row.done_at_ms, body.doneAt_ms],
    ["recorded_at_ms", row.recorded_at_ms, body.recordedAt_ms],
    ["transcribed_by", row.transcribed_by, body.transcribedBy],
    ["corrects", row.corrects, body.corrects],
    ["body_version", row.body_version, body.v],
  ];
  return pairs
    .filter(([, column, said]) => column !== said)
    .map(([column]) => `${name} was changed: column ${column} does not fit its body`);
}

/** Rows of state that are not as the ledger says. A ledger of before said nothing of them. */
function stateFaults(client: Database.Database, { state, stateKnown, rows }: Chain): string[] {
  const faults: string[] = [];
  const left = new Map([...state].map(([table, known]) => [table, new Map(known)]));
  if (rows > 0 && !stateKnown) return [];
  for (const { table, key, hash } of stateNow(client)) {
    const known = left.get(table)?.get(key);
    if (known === undefined) faults.push(`${table} ${key} was inserted: no row of the ledger wrote it`);
    else if (known !== hash) faults.push(`${table} ${key} was changed: it is not as the ledger wrote it last`);
    left.get(table)?.delete(key);
  }
  const tables = new Set(stateTables(client).map(({ name }) => name));
  for (const [table, keys] of left) {
    if (!tables.has(table)) continue;
    for (const key of keys.keys()) faults.push(`${table} ${key} was removed: the ledger wrote it`);
  }
  return faults;
}

/** Ids and tags as they were entered, in that order, up to a register: how many, and what they hash to together. */
type Identities = Readonly<{ count: number; sha256: string }>;
const identitiesSchema = z.looseObject({
  answer: z.looseObject({ tags: z.number(), tagsHash: z.string() }),
});

function identitiesOf(body: Record<string, unknown>): Identities | null {
  const read = identitiesSchema.safeParse(body.answer);
  return read.success ? { count: read.data.answer.tags, sha256: read.data.answer.tagsHash } : null;
}

/** Pictures, and the registers that revisions name, by their own hashes. */
function contentFaults(client: Database.Database, identities: Identities | null): string[] {
  const faults: string[] = [];
  if (identities !== null && identitiesIn(client, identities.count).sha256 !== identities.sha256)
    faults.push("items were changed: an id does not belong to the tag that it was entered with");
  // A database of before has fewer tables.
  const has = schemaNow(client);
  type Picture = Readonly<{ id: string; sha256: string; jpeg: Buffer }>;
  const pictures = has.has("table photos")
    ? (client.prepare("SELECT id, sha256, jpeg FROM photos").iterate() as IterableIterator<Picture>)
    : [];
  for (const { id, sha256, jpeg } of pictures) {
    const hash = createHash("sha256").update(jpeg).digest("hex");
    if (hash !== sha256 || !hash.startsWith(id)) faults.push(`picture ${id} was changed: its hash does not fit it`);
  }
  if (!has.has("table plant_texts")) return faults;
  const named = client
    .prepare("SELECT revision, content_hash AS hash FROM plant_revisions ORDER BY revision")
    .all() as {
    revision: number;
    hash: string;
  }[];
  for (const { revision, hash } of named) {
    const parts = client.prepare("SELECT text FROM plant_texts WHERE hash = ? ORDER BY part").pluck().all(hash);
    const whole = createHash("sha256")
      .update((parts as string[]).join("\n"))
      .digest("hex");
    if (whole !== hash) faults.push(`the register of revision ${revision} was changed: its hash does not fit it`);
  }
  return faults;
}

/** Tables, indexes and triggers are those that the migrations make, no more and no fewer. */
function schemaFaults(client: Database.Database): string[] {
  const made = schemaOfMigrations(client);
  const there = schemaNow(client);
  const names = [...new Set([...made.keys(), ...there.keys()])].sort();
  return names.flatMap((name) => {
    if (!there.has(name)) return [`${name} is missing from the database`];
    if (!made.has(name)) return [`${name} is in the database, and no migration made it`];
    return made.get(name) === there.get(name) ? [] : [`${name} was changed: it is not as the migrations made it`];
  });
}

function headFaults(client: Database.Database, { rows, last, lastVersion, hash }: Chain, headFile: string): string[] {
  const head = readHead(headFile);
  if (head === "damaged") return ["the head file is damaged"];
  if (head === null) return rows > 0 ? ["the head file is missing"] : [];
  const hashAt = (seq: number) =>
    client.prepare("SELECT hash FROM ledger WHERE seq = ?").pluck().get(seq) as string | undefined;
  if (head.seq > 0) {
    const there = hashAt(head.seq);
    if (there === undefined) return [`the tail was cut: the head file knows row ${head.seq}, the last row is ${last}`];
    if (there !== head.hash) return [`row ${head.seq} is not the one that the head file knows`];
  }
  // A program of before wrote the head only after the commit: killed between the two, it is one row behind.
  if (head.next === undefined && lastVersion < 2 && last === head.seq + 1) return [];
  const known = head.next ?? head;
  if (last > known.seq)
    return [`rows ${known.seq + 1} to ${last} were inserted: the head file knows only row ${known.seq}`];
  return last === known.seq && last > 0 && hash !== known.hash
    ? [`row ${last} is not the one that the head file knows`]
    : [];
}

/** Heads noted where whoever changed these files did not reach: a record written anew from some row on does not fit them. */
function elsewhereFaults(client: Database.Database, { last }: Chain, path: string | null): string[] {
  if (path === null || !existsSync(path)) return [];
  const hashAt = client.prepare("SELECT hash FROM ledger WHERE seq = ?").pluck();
  const strange = notedHeads(path).filter(({ seq, hash }) => seq > 0 && hashAt.get(seq) !== hash);
  if (strange.length === 0) return [];
  const first = Math.min(...strange.slice(0, 1000).map(({ seq }) => seq));
  return [
    first > last
      ? `the tail was cut: row ${first} is noted in ${path}, the last row is ${last}`
      : `row ${first} is not the one that is noted in ${path}: the record was written anew from there`,
  ];
}

function readHead(headFile: string): HeadFile | null | "damaged" {
  try {
    return readHeadFile(headFile);
  } catch {
    return "damaged";
  }
}
