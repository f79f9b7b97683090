import { createHash, randomUUID } from "node:crypto";
import Database from "better-sqlite3";
import type { Problem, Read } from "../core/plant/problem";
import { readPlantFiles, type TextFile } from "../core/plant/readPlantFiles";
import { registerParts } from "./registerParts";

/** A register that was read, found good and put into the database, where nothing shows of it until a revision names it. */
export type StagedRegister = Readonly<{
  hash: string;
  parts: number;
  items: number;
  links: number;
  /** The files it came in, and what each hashes to. */
  files: readonly Readonly<{ name: string; sha256: string }>[];
  /** Every id with its tag, as they were entered up to here: how many, and what they hash to together. */
  identities: Readonly<{ count: number; sha256: string }>;
  warnings: readonly Problem[];
}>;

/** Tags entered, and parts stored, in one go: some milliseconds in which nobody else can write. */
const TAGS_AT_ONCE = 1000;

/** What was sent and never signed for is thrown away after a day. */
const KEPT_MS = 24 * 3_600_000;

/**
 * Reads the register in these files and puts it into the database part by part, each of its tags with a lasting id, by a
 * connection of its own: whoever writes meanwhile waits for one part at most. It is on disk once the revision that names it
 * is.
 */
export function stageRegister(file: string, files: readonly TextFile[], now_ms: number): Read<StagedRegister> {
  const read = readPlantFiles(files);
  if (!read.ok) return read;
  const { parts, hash } = registerParts(read.value);
  const db = new Database(file, { fileMustExist: true });
  let identities;
  try {
    db.pragma("synchronous = NORMAL");
    db.pragma("busy_timeout = 5000");
    db.prepare(
      "DELETE FROM plant_texts WHERE stored_at_ms < ? AND hash NOT IN (SELECT content_hash FROM plant_revisions)",
    ).run(now_ms - KEPT_MS);
    const store = db.prepare("INSERT OR REPLACE INTO plant_texts (hash, part, text, stored_at_ms) VALUES (?, ?, ?, ?)");
    parts.forEach((text, part) => store.run(hash, part, text, now_ms));
    const enter = db.prepare(
      "INSERT OR IGNORE INTO items (id, tag) SELECT value ->> 'id', value ->> 'tag' FROM json_each(?)",
    );
    const tags = read.value.items.map(({ tag }) => ({ id: randomUUID(), tag }));
    for (let from = 0; from < tags.length; from += TAGS_AT_ONCE) {
      enter.run(JSON.stringify(tags.slice(from, from + TAGS_AT_ONCE)));
    }
    identities = identitiesIn(db);
    // Written to the database's own file here, not by the next one who commits.
    db.pragma("wal_checkpoint(PASSIVE)");
  } finally {
    db.close();
  }
  return {
    ok: true,
    warnings: [],
    value: {
      hash,
      parts: parts.length,
      items: read.value.items.length,
      links: read.value.links.length,
      files: files.map(({ name, text }) => ({ name, sha256: createHash("sha256").update(text).digest("hex") })),
      identities,
      warnings: read.warnings,
    },
  };
}

/** Ids are entered once and stay: the first so many of them hash to the same for ever. Cost: linear in them. */
export function identitiesIn(db: Database.Database, first?: number): StagedRegister["identities"] {
  const hash = createHash("sha256");
  let count = 0;
  const all = db
    .prepare("SELECT id, tag FROM items ORDER BY rowid LIMIT ?")
    .raw()
    .iterate(first ?? -1);
  for (const row of all) {
    hash.update(`${JSON.stringify(row)}\n`);
    count++;
  }
  return { count, sha256: hash.digest("hex") };
}
