import sharp from "sharp";

const LONGEST_SIDE = 1600;
/** Decoding more than this would cost more memory than any picture of a valve is worth. */
const MOST_PIXELS = 60_000_000;

/** One picture is decoded in one thread: the others are for those who sign. */
sharp.concurrency(1);

const startsWith = (bytes: Uint8Array, ...at: readonly number[]) => at.every((byte, i) => bytes[i] === byte);

/**
 * Made of pixels, by its first bytes: JPEG, PNG or WebP. Drawings in words, which can ask for work without end, are no pictures
 * here, whatever they call themselves.
 */
export function isPixels(bytes: Uint8Array): boolean {
  return (
    startsWith(bytes, 0xff, 0xd8, 0xff) ||
    startsWith(bytes, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a) ||
    (startsWith(bytes, 0x52, 0x49, 0x46, 0x46) && startsWith(bytes.subarray(8), 0x57, 0x45, 0x42, 0x50))
  );
}

export type DecodedPhoto = Readonly<{ jpeg: Uint8Array; width: number; height: number }>;

/**
 * A picture made again from its pixels: turned upright, no longer than 1600 on a side, and with nothing else in it, neither
 * where nor with what it was taken. Null for what is no picture.
 */
export async function decodePhoto(bytes: Uint8Array): Promise<DecodedPhoto | null> {
  if (!isPixels(bytes)) return null;
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
