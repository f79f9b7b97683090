import sharp from "sharp";

const LONGEST_SIDE = 1600;
/** Decoding more than this would cost more memory than any picture of a valve is worth. */
const MOST_PIXELS = 60_000_000;

export type DecodedPhoto = Readonly<{ jpeg: Uint8Array; width: number; height: number }>;

/**
 * A picture made again from its pixels: turned upright, no longer than 1600 on a side, and with nothing else in it, neither
 * where nor with what it was taken. Null for what is no picture.
 */
export async function decodePhoto(bytes: Uint8Array): Promise<DecodedPhoto | null> {
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: "error" })
      .rotate()
      .resize(LONGEST_SIDE, LONGEST_SIDE, { fit: "inside", withoutEnlargement: true })
      .jpeg({ quality: 80 })
      .toBuffer({ resolveWithObject: true });
    return { jpeg: data, width: info.width, height: info.height };
  } catch {
    return null;
  }
}
