import { createHash } from "node:crypto";
import type { Db } from "../db/database";
import { photos } from "../db/schema";
import { heavy } from "../runtime/workers";

/** A picture as a phone takes it; larger is no picture. */
export const PHOTO_MOST_BYTES = 12 * 1024 * 1024;

export type StoredPhoto = { ok: true; id: string } | { ok: false; sentence: string };

/**
 * Stores a picture, made again from its pixels (see decodePhoto). The same picture sent twice is stored once: its id is the hash of what is
 * stored.
 */
export async function storePhoto(db: Db, bytes: Buffer, by: string, now_ms: number): Promise<StoredPhoto> {
  const made = await heavy("photo", bytes);
  if (made === null) {
    return { ok: false, sentence: "photo: this is not a picture that can be read. Take it again, as JPEG or PNG." };
  }
  const jpeg = Buffer.from(made.jpeg);
  const sha256 = createHash("sha256").update(jpeg).digest("hex");
  const id = sha256.slice(0, 32);
  db.insert(photos)
    .values({
      id,
      takenBy: by,
      storedAt: now_ms,
      sha256,
      width: made.width,
      height: made.height,
      jpeg,
    })
    .onConflictDoNothing()
    .run();
  return { ok: true, id };
}
