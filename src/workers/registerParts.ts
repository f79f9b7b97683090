import { createHash } from "node:crypto";
import { canonicalJson } from "../core/ledger/canonicalJson";
import type { Item, Link, Plant } from "../core/plant/plant";

/** A register as it is kept: texts of JSON, each of them a part of it, and what they hash to together. */
export type RegisterParts = Readonly<{ parts: readonly string[]; hash: string }>;

/** Items or links in one part: some hundred kilobytes, read in some milliseconds. */
const IN_A_PART = 1000;

/** Between two parts when they are hashed. A register in one part hashes as its text. */
const BETWEEN = "\n";

/** Cost: linear. */
export function registerParts({ items, links, ...rest }: Plant): RegisterParts {
  const parts = [rest, ...slices("items", items), ...slices("links", links)].map((part) =>
    canonicalJson(JSON.parse(JSON.stringify(part))),
  );
  return { parts, hash: createHash("sha256").update(parts.join(BETWEEN)).digest("hex") };
}

function slices<T>(name: "items" | "links", all: readonly T[]): object[] {
  const found: object[] = [];
  for (let from = 0; from < all.length; from += IN_A_PART) found.push({ [name]: all.slice(from, from + IN_A_PART) });
  return found;
}

/**
 * A register out of its stored parts, bit by bit. It was read and found good before it was stored, and its hash says that
 * this is that text: reading all of it by its schema again would take seconds for 100,000 items.
 */
export function* storedPlantSteps(parts: Iterable<string>, hash: string): Generator<void, Plant> {
  const hashed = createHash("sha256");
  const items: Item[] = [];
  const links: Link[] = [];
  let rest: Omit<Plant, "items" | "links"> = { kinds: [], areas: [] };
  let count = 0;
  for (const text of parts) {
    if (count++ > 0) hashed.update(BETWEEN);
    hashed.update(text);
    const { items: more = [], links: moreLinks = [], ...other } = JSON.parse(text) as Partial<Plant>;
    for (const item of more) items.push(item);
    for (const link of moreLinks) links.push(link);
    rest = { ...rest, ...other };
    yield;
  }
  if (hashed.digest("hex") !== hash) {
    throw new Error("a register in the database is not the one that was stored: its hash differs");
  }
  return { ...rest, items, links };
}
