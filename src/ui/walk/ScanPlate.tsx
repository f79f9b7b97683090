"use client";

import { ScanLine } from "lucide-react";
import { useId, useState } from "react";

/** The field for what the plate says: typed, or read off the code on the tag by the camera. */
export function ScanPlate() {
  const id = useId();
  const [seen, setSeen] = useState("");
  const [said, setSaid] = useState("");

  async function read(file: File | undefined) {
    if (!file) return;
    setSaid("Reading…");
    const code = await readCode(file);
    setSeen(code ?? "");
    setSaid(code === null ? "No code found in the picture. Take it nearer, or type the plate." : "Read from the code.");
  }

  return (
    <div className="flex flex-col gap-1 text-sm">
      <label htmlFor={`${id}-plate`}>Plate reads</label>
      <div className="flex items-center gap-2">
        <input
          id={`${id}-plate`}
          name="plate"
          autoComplete="off"
          autoCapitalize="characters"
          className="input tag w-36"
          value={seen}
          onChange={(event) => setSeen(event.target.value)}
          aria-describedby={`${id}-said`}
        />
        <label className="btn btn-outline focus-within:outline-accent focus-within:outline-3 focus-within:outline-offset-2">
          <ScanLine aria-hidden size={20} /> Scan
          <input
            type="file"
            accept="image/*"
            capture="environment"
            aria-label="Scan the code on the plate"
            className="sr-only"
            onChange={(event) => void read(event.target.files?.[0])}
          />
        </label>
      </div>
      <span id={`${id}-said`} aria-live="polite" className={said ? "" : "sr-only"}>
        {said}
      </span>
    </div>
  );
}

/** Longer pictures are made smaller first: a code is found faster, and phones have little memory. */
const LONGEST_SIDE = 1200;

/** The tag in a picture of a code; null when there is none. The code of a tag sheet is an address that ends in the tag. */
async function readCode(file: File): Promise<string | null> {
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

/** `…?point=V-2041` or the tag itself. */
export function tagIn(code: string): string {
  try {
    return new URL(code).searchParams.get("plate") ?? new URL(code).searchParams.get("point") ?? code;
  } catch {
    return code.trim();
  }
}
