import { createHash, randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { dataFolder, type Db } from "../db/database";
import { people } from "../db/schema";

const BYTES = 32;
const holder = globalThis as { heavyLanternKey?: Buffer };

/**
 * A key that every hash of a password or PIN is made with, kept outside the database: who has a copy of the database only
 * cannot try PINs on it. `LANTERN_KEY_FILE` says where, else beside the database.
 */
export function keyFile(): string {
  return resolve(/*turbopackIgnore: true*/ process.env.LANTERN_KEY_FILE ?? join(dataFolder(), "secrets.key"));
}

/** The key of this process, once it was opened; null before. */
export function secretKey(): Buffer | null {
  return holder.heavyLanternKey ?? null;
}

/** Eight letters that tell one key from another and nothing of either. */
export function keyName(key: Buffer): string {
  return createHash("sha256").update("name").update(key).digest("hex").slice(0, 8);
}

/** What a stored hash says of the key it was made with; null where it was made without. */
export function keyOfHash(stored: string): string | null {
  return /^key\.([0-9a-f]{8}):/.exec(stored)?.[1] ?? null;
}

/**
 * Reads the key, or makes it where no hash needs one yet. Answers null, or why nobody could sign in with it: it is gone, or
 * it is another site's. `makeAnew` makes one whatever was before, for the people whose secrets are made anew after it.
 */
export function openKey(db: Db, makeAnew = false): string | null {
  const path = keyFile();
  const known = new Set(
    db
      .select({ pin: people.pinHash, password: people.passwordHash })
      .from(people)
      .all()
      .flatMap(({ pin, password }) => [keyOfHash(pin), keyOfHash(password)])
      .filter((name) => name !== null),
  );
  if (!existsSync(path)) {
    if (known.size > 0 && !makeAnew)
      return `The key of passwords and PINs is not at ${path}, and nobody can sign in without it. Put it back from where it is kept. Where it is lost for good, ./lantern secrets SIGN-IN makes a new one, and new secrets for one person.`;
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, `${randomBytes(BYTES).toString("hex")}\n`, { mode: 0o600, flag: "wx" });
  }
  const text = readFileSync(path, "utf8").trim();
  if (!/^[0-9a-f]{64}$/.test(text)) return `${path} is not a key of this program.`;
  const key = Buffer.from(text, "hex");
  if (known.size > 0 && !known.has(keyName(key)) && !makeAnew)
    return `The key at ${path} is not the one that this site's passwords and PINs were made with. Put that one in its place.`;
  holder.heavyLanternKey = key;
  return null;
}

/** For tests, which open several sites one after another. */
export function closeKey(): void {
  delete holder.heavyLanternKey;
}
