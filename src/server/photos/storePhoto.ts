import { createHash } from "node:crypto";
import sharp, { type OutputInfo } from "sharp";
import type { Db } from "../db/database";
import { photos } from "../db/schema";

/** A picture as a phone takes it; larger is no picture. */
export const PHOTO_MOST_BYTES = 12 * 1024 * 1024;
const LONGEST_SIDE = 1600;
/** Decoding more than this would cost more memory than any picture of a valve is worth. */
const MOST_PIXELS = 60_000_000;

export type StoredPhoto = { ok: true; id: string } | { ok: false; sentence: string };

/**
 * Stores a picture, made again from its pixels: turned upright, no longer than 1600 on a side, and with nothing else in
 * it, neither where nor with what it was taken. The same picture sent twice is stored once: its id is the hash of what is
 * stored.
 */
export async function storePhoto(db: Db, bytes: Buffer, by: string, now_ms: number): Promise<StoredPhoto> {
  let made: { data: Buffer; info: OutputInfo };
  try {
    made = await sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: "error" })
      .rotate()
      .resize(LONGEST_SIDE, LONGEST_SIDE, { fit: "inside", withoutEnlargement: true })
      .jpeg({ quality: 80 })
      .toBuffer({ resolveWithObject: true });
  } catch {
    return { ok: false, sentence: "photo: this is not a picture that can be read. Take it again, as JPEG or PNG." };
  }
  const sha256 = createHash("sha256").update(made.data).digest("hex");
  const id = sha256.slice(0, 32);
  db.insert(photos)
    .values({
      id,
      takenBy: by,
      storedAt: now_ms,
      sha256,
      width: made.info.width,
      height: made.info.height,
      jpeg: made.data,
    })
    .onConflictDoNothing()
    .run();
  return { ok: true, id };
}
