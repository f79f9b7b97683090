import type { Plant } from "../../core/plant/plant";
import type { Read } from "../../core/plant/problem";
import { readPlantCsv } from "../../core/plant/readPlantCsv";
import { readPlantJson } from "../../core/plant/readPlantJson";

type TextFile = Readonly<{ name: string; text: string }>;

/** A plant from one plant.json, or from items.csv and links.csv. */
export function readPlantFiles(files: readonly TextFile[]): Read<Plant> {
  const [first, second, ...more] = files;
  if (first === undefined) return refuse("files", "choose a plant.json, or items.csv and links.csv");
  if (second === undefined) {
    if (isCsv(first)) return refuse(first.name, "choose items.csv and links.csv together");
    return readPlantJson(first.text, first.name);
  }
  const items = files.find(({ name }) => name.toLowerCase().includes("items"));
  const links = files.find(({ name }) => name.toLowerCase().includes("links"));
  if (more.length > 0 || !isCsv(first) || !isCsv(second) || !items || !links || items === links) {
    return refuse(first.name, "choose one plant.json, or two files with items and links in their names");
  }
  return readPlantCsv(items, links);
}

function isCsv(file: TextFile): boolean {
  return file.name.toLowerCase().endsWith(".csv");
}

function refuse(file: string, message: string): Read<Plant> {
  return { ok: false, problems: [{ file, message }] };
}
