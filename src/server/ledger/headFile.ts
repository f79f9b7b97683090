import {
  appendFileSync,
  closeSync,
  fstatSync,
  fsyncSync,
  openSync,
  readFileSync,
  renameSync,
  writeSync,
} from "node:fs";
import { dirname, join } from "node:path";
import { z } from "zod";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import { dataFolder } from "../db/database";
import { log } from "../runtime/log";

const at = z.object({ seq: z.number().int().min(0), hash: z.string() });
export type LedgerHead = Readonly<z.output<typeof at>>;

/** The last row that was answered for, and the one that was about to be written after it. */
const headFileSchema = at.extend({ next: at.optional() });
export type HeadFile = Readonly<z.output<typeof headFileSchema>>;

/** Beside the database: a ledger that was cut, or grew behind the server's back, does not fit it. */
export function headFilePath(folder = dataFolder()): string {
  return join(folder, "ledger-head.json");
}

/**
 * Before a commit: where the ledger stands, and where it will stand. Whatever happens between the two, the ledger ends at
 * one of them.
 */
export function intendHead(before: LedgerHead, next: LedgerHead, path = headFilePath()): void {
  write({ ...before, next }, path);
}

/** After a commit. What another program of this server intends to write after it stays. */
export function writeHeadFile(head: LedgerHead, path = headFilePath()): void {
  noteElsewhere(head);
  const known = readHeadFile(path);
  if (known !== null && known.seq > head.seq) return;
  const next = known?.next;
  write(next !== undefined && next.seq > head.seq ? { ...head, next } : head, path);
}

/** A file in another folder, on another disk or machine, to which every head is added: `LANTERN_HEADS` names the folder. */
export function headsElsewhere(): string | null {
  const folder = process.env.LANTERN_HEADS;
  return folder ? join(/*turbopackIgnore: true*/ folder, "heads.jsonl") : null;
}

/** Nothing waits for it and nothing fails with it: it is there to be compared later. */
function noteElsewhere(head: LedgerHead): void {
  const path = headsElsewhere();
  if (path === null) return;
  try {
    appendFileSync(/*turbopackIgnore: true*/ path, `${canonicalJson({ seq: head.seq, hash: head.hash })}\n`);
  } catch (error) {
    log().error({ row: head.seq, err: error }, "the head was not noted elsewhere");
  }
}

/** Every head that was noted elsewhere; a line that cannot be read is none. */
export function notedHeads(path: string): LedgerHead[] {
  const lines = readFileSync(/*turbopackIgnore: true*/ path, "utf8").split("\n");
  return lines.flatMap((line) => {
    const read = at.safeParse(asJson(line));
    return read.success ? [read.data] : [];
  });
}

/** Written whole beside it, synced, and put in its place; the folder is synced too, or a power cut takes the name back. */
function write(head: HeadFile, path: string): void {
  try {
    writeBeside(head, path);
  } catch (error) {
    const { code = "" } = error as NodeJS.ErrnoException;
    if (code !== "ENOSPC" && code !== "EDQUOT") throw error;
    writeOver(head, path);
  }
}

/** On a full disk: over what is there, which takes no room. So short a text is written in one go. */
function writeOver(head: HeadFile, path: string): void {
  const file = openSync(/*turbopackIgnore: true*/ path, "r+");
  try {
    writeSync(file, canonicalJson(head).padEnd(fstatSync(file).size, " "), 0);
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}

function writeBeside(head: HeadFile, path: string): void {
  const part = `${path}.part`;
  const file = openSync(/*turbopackIgnore: true*/ part, "w", 0o600);
  try {
    writeSync(file, canonicalJson(head));
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
  renameSync(/*turbopackIgnore: true*/ part, path);
  const folder = openSync(/*turbopackIgnore: true*/ dirname(path), "r");
  try {
    fsyncSync(folder);
  } finally {
    closeSync(folder);
  }
}

/** The head file's word, or null when there is none yet. A file that cannot be read as one is an error. */
export function readHeadFile(path = headFilePath()): HeadFile | null {
  let text: string;
  try {
    text = readFileSync(/*turbopackIgnore: true*/ path, "utf8");
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return null;
    throw error;
  }
  const head = headFileSchema.safeParse(asJson(text));
  if (!head.success) throw new Error(`${path} is damaged`);
  return head.data;
}

function asJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
