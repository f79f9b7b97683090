import { copyFileSync, existsSync, mkdtempSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type Database from "better-sqlite3";
import { closeDatabase, database, openToRead } from "../server/db/database";
import { onCommandLine } from "../server/ledger/byTheServer";
import { headFilePath, readHeadFile, type HeadFile, type LedgerHead } from "../server/ledger/headFile";
import { verifyLedger } from "../server/ledger/verify";

export type Recovered = Readonly<{ ok: true; said: readonly string[] } | { ok: false; faults: readonly string[] }>;

/**
 * Puts a backup in the place of a site's database. The backup is verified first; what was there is kept beside it, its log
 * files with it, or an old log would undo the backup. Says how many rows of the record the backup does not have, and writes
 * that it was done into the record. Run only while no server has the folder.
 */
export function recover(backup: string, path: string, headFile = headFilePath(), now_ms = Date.now()): Recovered {
  const copy = openToRead(backup);
  let last: LedgerHead;
  try {
    last = lastRow(copy);
    const found = verifiedAsItStands(copy, last);
    if (!found.ok) return found;
  } finally {
    copy.close();
  }
  const known = headOf(headFile);
  const stamp = new Date(now_ms).toISOString().slice(0, 19).replaceAll(":", "-");
  const kept = `${path}.replaced-${stamp}`;
  for (const suffix of ["", "-wal", "-shm"]) {
    if (existsSync(path + suffix)) renameSync(path + suffix, kept + suffix);
  }
  copyFileSync(backup, path);
  if (existsSync(headFile)) renameSync(headFile, `${headFile}.replaced-${stamp}`);
  writeFileSync(headFile, JSON.stringify(last), { mode: 0o600 });
  const lost = known === null ? null : Math.max(0, (known.next ?? known).seq - last.seq);
  const loss =
    lost === null
      ? "how many rows came after it is not known: there was no head file"
      : lost === 0
        ? "no row came after it"
        : `${lost} ${lost === 1 ? "row that came" : "rows that came"} after it ${lost === 1 ? "is" : "are"} not in it`;
  const did = `The record goes on from a backup that ends at row ${last.seq}; ${loss}.`;
  onCommandLine(
    database(),
    { type: "record.recovered", subject: "", input: { to: last, from: known }, did },
    () => undefined,
    { headFile, now_ms },
  );
  closeDatabase();
  return {
    ok: true,
    said: [did, `What was there is kept as ${kept}.`, "Look at every open job before anybody works on."],
  };
}

function lastRow(client: Database.Database): LedgerHead {
  const row = client.prepare("SELECT seq, hash FROM ledger ORDER BY seq DESC LIMIT 1").get() as LedgerHead | undefined;
  return row ? { seq: row.seq, hash: row.hash } : { seq: 0, hash: "0".repeat(64) };
}

/** A backup has no head file of its own: its record has to be whole up to its own end. */
function verifiedAsItStands(client: Database.Database, last: LedgerHead): Recovered {
  const folder = mkdtempSync(join(tmpdir(), "lantern-recover-"));
  try {
    const headFile = join(folder, "head.json");
    writeFileSync(headFile, JSON.stringify(last));
    const found = verifyLedger(client, headFile);
    return found.ok ? { ok: true, said: [] } : { ok: false, faults: found.faults };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function headOf(headFile: string): HeadFile | null {
  try {
    return readHeadFile(headFile);
  } catch {
    return null;
  }
}
