import Papa from "papaparse";
import { readPlantCsv } from "../core/plant/readPlantCsv";
import { lostInTables, plantFile, plantTables, type Table } from "../core/plant/writePlant";
import type { Plant } from "../core/plant/plant";
import { plantFrom, type PlantKey } from "./plantFrom";
import { writeWorkbook } from "./workbook";

export const REGISTER_FILES = ["plant.json", "register.xlsx", "items.csv", "links.csv", "areas.csv"] as const;
export type RegisterFile = (typeof REGISTER_FILES)[number];

export type Written = Readonly<{ ok: true; bytes: Uint8Array } | { ok: false; lost: readonly string[] }>;

/** How many are named of what tables cannot say. */
const NAMED = 20;

/** A register as a file. Tables are given out only where they say all of it. Cost: linear. */
export async function writeRegister({ plant: key, as }: { plant: PlantKey; as: RegisterFile }): Promise<Written> {
  const { plant } = plantFrom(key);
  const bytes = (text: string) => new TextEncoder().encode(text);
  if (as === "plant.json") return { ok: true, bytes: bytes(`${JSON.stringify(plantFile(plant), null, 1)}\n`) };
  const tables = plantTables(plant);
  const lost = lostIn(plant, tables);
  if (lost.length > 0) return { ok: false, lost: lost.slice(0, NAMED) };
  switch (as) {
    case "register.xlsx":
      return { ok: true, bytes: await writeWorkbook(tables) };
    case "items.csv":
      return { ok: true, bytes: bytes(csv(tables.items)) };
    case "links.csv":
      return { ok: true, bytes: bytes(csv(tables.links)) };
    case "areas.csv":
      return { ok: true, bytes: bytes(csv(tables.areas)) };
  }
}

// As they are: what a spreadsheet would take for a formula would come back as another tag.
const csv = (table: Table) => Papa.unparse(table as unknown[][], { newline: "\r\n" });

function lostIn(plant: Plant, { items, links, areas }: ReturnType<typeof plantTables>): string[] {
  const read = readPlantCsv(
    { name: "items.csv", text: csv(items) },
    { name: "links.csv", text: csv(links) },
    { name: "areas.csv", text: csv(areas) },
  );
  return read.ok
    ? lostInTables(plant, read.value)
    : read.problems.map(({ tag = "", field = "" }) => `${tag} (${field})`);
}
