import Database from "better-sqlite3";
import type { Plant } from "../core/plant/plant";
import { inOneGo } from "../core/inOneGo";
import { storedPlantSteps } from "./registerParts";
import { buildStateGraph, type StateGraph } from "../core/trace/stateGraph";

/** Which register: the database that has it, and its hash. */
export type PlantKey = Readonly<{ file: string; hash: string }>;

type Found = Readonly<{ plant: Plant; graph: StateGraph }>;

/** A graph of 100,000 items takes some hundred megabytes. */
const KEPT = 2;
const known = new Map<string, Found>();

/** A register with its graph, read by a connection of this thread's own. Cost: linear the first time, then none. */
export function plantFrom({ file, hash }: PlantKey): Found {
  const found = known.get(hash) ?? read(file, hash);
  known.delete(hash);
  known.set(hash, found);
  if (known.size > KEPT) known.delete(known.keys().next().value!);
  return found;
}

function read(file: string, hash: string): Found {
  const db = new Database(file, { readonly: true, fileMustExist: true });
  try {
    const parts = db.prepare("SELECT text FROM plant_texts WHERE hash = ? ORDER BY part").pluck().iterate(hash);
    const plant = inOneGo(storedPlantSteps(parts as Iterable<string>, hash));
    return { plant, graph: buildStateGraph(plant) };
  } finally {
    db.close();
  }
}
