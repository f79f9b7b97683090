import { buildPlant } from "./buildPlant";
import type { Plant } from "./plant";
import { plantSchema } from "./plantSchema";
import type { Read } from "./problem";
import { schemaProblems } from "./schemaProblems";

/** A plant from the text of a `plant.json`. Nothing is taken unless all of it is right. */
export function readPlantJson(text: string, file: string): Read<Plant> {
  const json = parseJson(text, file);
  return json.ok ? readPlantValue(json.value, file) : json;
}

/** The same from JSON that is already parsed. */
export function readPlantValue(raw: unknown, file: string): Read<Plant> {
  const parsed = plantSchema.safeParse(raw);
  if (!parsed.success) return { ok: false, problems: schemaProblems(parsed.error, raw, file) };
  return buildPlant(parsed.data, { item: () => ({ file }), link: () => ({ file }), area: () => ({ file }) });
}

/** JSON from text, refusing what is empty or no text at all with a sentence that says so. */
export function parseJson(text: string, file: string): Read<unknown> {
  const refuse = (message: string) => ({ ok: false, problems: [{ file, message }] }) as const;
  if (text.trim() === "") return refuse("the file is empty");
  if (text.includes("\u0000") || text.includes("\ufffd")) return refuse("the file is not text");
  try {
    return { ok: true, value: JSON.parse(text), warnings: [] };
  } catch {
    return refuse("the file is not JSON");
  }
}
