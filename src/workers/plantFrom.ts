import Database from "better-sqlite3";
import type { Plant } from "../core/plant/plant";
import { storedPlant } from "./storedPlant";
import { buildStateGraph, type StateGraph } from "../core/trace/stateGraph";

/** Which register: a revision of a database. Revisions are never changed. */
export type PlantKey = Readonly<{ file: string; revision: number; hash: string }>;

type Found = Readonly<{ plant: Plant; graph: StateGraph }>;

/** A graph of 100,000 items takes some hundred megabytes. */
const KEPT = 2;
const known = new Map<string, Found>();

/** A register with its graph, read by a connection of this thread's own. Cost: linear the first time, then none. */
export function plantFrom({ file, revision, hash }: PlantKey): Found {
  const found = known.get(hash) ?? read(file, revision, hash);
  known.delete(hash);
  known.set(hash, found);
  if (known.size > KEPT) known.delete(known.keys().next().value!);
  return found;
}

function read(file: string, revision: number, hash: string): Found {
  const db = new Database(file, { readonly: true, fileMustExist: true });
  try {
    const row = db.prepare("SELECT plant_json FROM plant_revisions WHERE revision = ?").pluck().get(revision);
    if (typeof row !== "string") throw new Error(`plant revision ${revision} is not in the database`);
    const plant = storedPlant(row, hash);
    return { plant, graph: buildStateGraph(plant) };
  } finally {
    db.close();
  }
}
