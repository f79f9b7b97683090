import { mkdirSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";

/** Not the name that earlier versions gave a file with a number in it, which one that was killed left behind. */
const LOCK = "in-use.lock";

const holder = globalThis as { heavyLanternFolder?: Database.Database };

/**
 * Takes the data folder for this process, or answers false where another server has it. It is let go when the process ends,
 * however it ends: the system itself keeps the lock, through a small database of its own.
 */
export function holdFolder(folder: string): boolean {
  if (holder.heavyLanternFolder) return true;
  mkdirSync(/*turbopackIgnore: true*/ folder, { recursive: true });
  const client = new Database(join(/*turbopackIgnore: true*/ folder, LOCK), { timeout: 0 });
  try {
    client.exec("BEGIN EXCLUSIVE");
  } catch (error) {
    client.close();
    if ((error as { code?: string }).code?.startsWith("SQLITE_BUSY")) return false;
    throw error;
  }
  holder.heavyLanternFolder = client;
  return true;
}

/** Lets it go again: for what was done in passing, and for tests. */
export function letFolderGo(): void {
  holder.heavyLanternFolder?.close();
  delete holder.heavyLanternFolder;
}
