import type { Plant } from "./plant";
import type { Read } from "./problem";
import { readPlantCsv } from "./readPlantCsv";
import { readPlantJson } from "./readPlantJson";

export type TextFile = Readonly<{ name: string; text: string }>;

/** A plant from one plant.json, or from items.csv, links.csv and perhaps areas.csv, or sheets of these names. */
export function readPlantFiles(files: readonly TextFile[]): Read<Plant> {
  const [first, second] = files;
  if (first === undefined) return refuse("files", "choose a plant.json, or items.csv and links.csv, or a workbook");
  if (second === undefined) {
    if (isCsv(first)) return refuse(first.name, "choose items.csv and links.csv together");
    return readPlantJson(first.text, first.name);
  }
  const named = (word: string) =>
    files.filter(({ name }) => (/ sheet ([a-z]+)$/i.exec(name)?.[1] ?? name).toLowerCase().includes(word));
  const [items, links, areas] = [named("items"), named("links"), named("areas")];
  const all = [...items, ...links, ...areas];
  const isOneEach = items.length === 1 && links.length === 1 && areas.length <= 1 && new Set(all).size === files.length;
  if (!isOneEach || all.length !== files.length || !files.every(isCsv)) {
    return refuse(
      first.name,
      "choose one plant.json, one workbook, or CSV files with items, links and perhaps areas in their names",
    );
  }
  return readPlantCsv(items[0]!, links[0]!, areas[0]);
}

function isCsv(file: TextFile): boolean {
  // A sheet of a workbook comes as the text of a table.
  return /\.csv$| sheet [a-z]+$/i.test(file.name);
}

function refuse(file: string, message: string): Read<Plant> {
  return { ok: false, problems: [{ file, message }] };
}
