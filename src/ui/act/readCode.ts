/** Longer pictures are made smaller first: a code is found faster, and phones have little memory. */
const LONGEST_SIDE = 1200;

/** The tag in a picture of a code; null when there is none. The code of a tag sheet is an address that ends in the tag. */
export async function readCode(file: File): Promise<string | null> {
  try {
    const bitmap = await createImageBitmap(file);
    const scale = Math.min(1, LONGEST_SIDE / Math.max(bitmap.width, bitmap.height));
    const canvas = document.createElement("canvas");
    canvas.width = Math.round(bitmap.width * scale);
    canvas.height = Math.round(bitmap.height * scale);
    const context = canvas.getContext("2d", { willReadFrequently: true })!;
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height);
    const { default: jsQR } = await import("jsqr");
    const found = jsQR(data, width, height);
    if (found === null) return null;
    return tagIn(found.data);
  } catch {
    return null;
  }
}

/** `…?point=V-2041` or the number itself. */
export function tagIn(code: string): string {
  try {
    return new URL(code).searchParams.get("plate") ?? new URL(code).searchParams.get("point") ?? code;
  } catch {
    return code.trim();
  }
}
