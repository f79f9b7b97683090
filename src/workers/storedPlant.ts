import { createHash } from "node:crypto";
import type { Plant } from "../core/plant/plant";

/**
 * A register out of its stored text. It was read and found good before it was stored, and its hash says that this is that
 * text: reading all of it by its schema again would take seconds for 100,000 items.
 */
export function storedPlant(text: string, hash: string): Plant {
  if (createHash("sha256").update(text).digest("hex") !== hash) {
    throw new Error("a register in the database is not the one that was stored: its hash differs");
  }
  return JSON.parse(text) as Plant;
}
