import { existsSync, readdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { keptBackups } from "../../core/ledger/backupAges";
import { database, type Db } from "../db/database";
import { now_ms } from "./clock";
import { log } from "./log";

const HOUR_MS = 3_600_000;
const NAME = /^heavy-lantern-(\d{13})\.db$/;
/** Pages copied in one go: between two of them whoever asks is answered. */
const PAGES_AT_ONCE = 200;

/** When the backups of a folder were made, in ms. */
export function backupsIn(folder: string): number[] {
  return readdirSync(/*turbopackIgnore: true*/ folder).flatMap((name) => {
    const at = NAME.exec(name);
    return at === null ? [] : [Number(at[1])];
  });
}

const pathOf = (folder: string, at_ms: number) => join(/*turbopackIgnore: true*/ folder, `heavy-lantern-${at_ms}.db`);

/**
 * Copies the database, its record and its head with it, into a folder, and throws away what is older than is kept. A copy
 * has its name only when it is whole; whatever stands there under another name is left alone.
 */
export async function backUp(db: Db, folder: string, at_ms: number): Promise<string> {
  const path = pathOf(folder, at_ms);
  const part = `${path}.part`;
  rmSync(part, { force: true });
  await db.$client.backup(part, { progress: () => PAGES_AT_ONCE });
  renameSync(part, path);
  const made = backupsIn(folder);
  const kept = keptBackups(made, at_ms);
  for (const one of made) if (!kept.has(one)) rmSync(pathOf(folder, one), { force: true });
  return path;
}

const running = globalThis as { heavyLanternBackups?: true };

/** A backup an hour into `LANTERN_BACKUPS`, from now on; the first at once where the newest is older than that. */
export function startBackups(folder = process.env.LANTERN_BACKUPS): void {
  if (!folder || running.heavyLanternBackups) return;
  running.heavyLanternBackups = true;
  const make = async () => {
    try {
      if (!existsSync(/*turbopackIgnore: true*/ folder)) throw new Error(`there is no folder ${folder}`);
      const path = await backUp(database(), folder, now_ms());
      log().info({ path }, "backed up");
    } catch (error) {
      // The site goes on without; whoever keeps the server reads it here and at /api/health.
      log().error({ err: error, folder }, "no backup was made");
    }
  };
  const newest_ms = existsSync(/*turbopackIgnore: true*/ folder) ? Math.max(0, ...backupsIn(folder)) : 0;
  const first_ms = Math.min(HOUR_MS, Math.max(0, newest_ms + HOUR_MS - now_ms()));
  setTimeout(() => {
    void make();
    setInterval(() => void make(), HOUR_MS).unref();
  }, first_ms).unref();
}

/** How old the newest backup is, in hours; null where none are made, infinite where none is there. */
export function backupAge_h(at_ms: number, folder = process.env.LANTERN_BACKUPS): number | null {
  if (!folder) return null;
  try {
    return (at_ms - Math.max(-Infinity, ...backupsIn(folder))) / HOUR_MS;
  } catch {
    return Infinity;
  }
}
