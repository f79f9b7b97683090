import { closeSync, fsyncSync, openSync, rmSync, statfsSync, statSync, writeSync } from "node:fs";
import { join } from "node:path";

/**
 * Room on the disk for stopping work. A file of this size is kept beside the database; where the disk is full it is given up
 * for what protects people, and everything else is refused until there is room for it again.
 */
const RESERVE_BYTES = Number(process.env.LANTERN_RESERVE_MB ?? 32) * 2 ** 20;
/** Pictures are large, and can wait. */
const FOR_PICTURES = 4;

const holder = globalThis as { heavyLanternReserve?: string };
const fileIn = (folder: string) => join(/*turbopackIgnore: true*/ folder, "reserve");

function freeBytes(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
}

function isKept(folder: string): boolean {
  try {
    return statSync(/*turbopackIgnore: true*/ fileIn(folder)).size >= RESERVE_BYTES;
  } catch {
    return false;
  }
}

/** Keeps the reserve in a folder from now on; answers whether there is room for it. */
export function keepReserve(folder: string): boolean {
  holder.heavyLanternReserve = folder;
  if (isKept(folder)) return true;
  // As much again for what goes on: else the reserve itself fills the disk.
  if (freeBytes(folder) < 2 * RESERVE_BYTES) return false;
  const file = openSync(/*turbopackIgnore: true*/ fileIn(folder), "w", 0o600);
  try {
    const part = Buffer.alloc(2 ** 20, 1);
    for (let written = 0; written < RESERVE_BYTES; written += part.length) writeSync(file, part);
    fsyncSync(file);
    return true;
  } catch {
    rmSync(/*turbopackIgnore: true*/ fileIn(folder), { force: true });
    return false;
  } finally {
    closeSync(file);
  }
}

/** Gives it up, so that what protects people can be written. False where there was none. */
export function spendReserve(): boolean {
  const folder = holder.heavyLanternReserve;
  if (folder === undefined || !isKept(folder)) return false;
  rmSync(/*turbopackIgnore: true*/ fileIn(folder), { force: true });
  return true;
}

/** The reserve was spent, and there is no room for it yet: only what protects people is written. */
export function isDiskFull(): boolean {
  const folder = holder.heavyLanternReserve;
  return folder !== undefined && !isKept(folder) && !keepReserve(folder);
}

export function hasRoomForPictures(): boolean {
  const folder = holder.heavyLanternReserve;
  return folder === undefined || (isKept(folder) && freeBytes(folder) > FOR_PICTURES * RESERVE_BYTES);
}

/** What SQLite and the system say where nothing more fits on the disk. */
export function saysFull(error: unknown): boolean {
  const { code = "" } = error as { code?: string };
  return [
    "SQLITE_FULL",
    "SQLITE_IOERR_WRITE",
    "SQLITE_IOERR_FSYNC",
    "SQLITE_IOERR_SHMSIZE",
    "ENOSPC",
    "EDQUOT",
  ].includes(code);
}
