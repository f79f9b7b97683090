import { readFileSync } from "node:fs";
import { join } from "node:path";
import Ajv from "ajv";
import fc from "fast-check";
import { formatSchemas } from "../../src/cli/formatSchemas";
import { readPlantCsv } from "../../src/core/plant/readPlantCsv";
import { readPlantValue } from "../../src/core/plant/readPlantJson";
import { plantFile } from "../../src/core/plant/writePlant";
import { readJobValue } from "../../src/core/request/jobFile";
import { smallCase } from "../support/plantArbitrary";
import { propertyRuns } from "../support/runs";

/**
 * The schema files of docs/schema against a JSON Schema validator of the registry (ajv, draft 7): what the program reads they let
 * pass, for others write their files by them.
 */

const HOME = join(__dirname, "../..");
const text = (...path: string[]) => readFileSync(join(HOME, ...path), "utf8");
const stored = (name: string) => JSON.parse(text("docs", "schema", name)) as object;
const valid = (name: string) => {
  const validate = new Ajv({ allErrors: true }).compile(stored(name));
  return (value: unknown): boolean => validate(value) === true;
};
const isPlant = valid("plant.schema.json");
const isJob = valid("job.schema.json");

test.each(Object.entries(formatSchemas()))("docs/schema/%s is what the program reads by", (name, schema) => {
  expect(stored(name)).toEqual(JSON.parse(JSON.stringify(schema)));
});

test("the examples of docs/formats.md pass, and are read", () => {
  const blocks = [...text("docs", "formats.md").matchAll(/^```json\n([\s\S]*?)^```/gm)].map(([, block]) => block!);
  const files = blocks
    .filter((block) => /heavy-lantern\/(plant|job)"/.test(block))
    .map((block) => JSON.parse(block) as object);
  expect(files).toHaveLength(2);
  for (const file of files) {
    const isA = "items" in file ? isPlant : isJob;
    expect(isA(file)).toBe(true);
    expect(("items" in file ? readPlantValue(file, "plant.json") : readJobValue(file, "job.json")).ok).toBe(true);
  }
});

test("the demo plant, its jobs and the dairy's pass", () => {
  for (const folder of ["demo", "examples/dairy"]) {
    const file = (name: string) => ({ name, text: text(folder, name) });
    const read = readPlantCsv(file("items.csv"), file("links.csv"), file("areas.csv"));
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(isPlant(JSON.parse(JSON.stringify(plantFile(read.value))))).toBe(true);
  }
  for (const name of ["pump", "tank", "starters", "tipper", "autoclave"]) {
    expect(isJob(JSON.parse(text("demo", "jobs", `${name}.json`)))).toBe(true);
  }
  expect(isJob(JSON.parse(text("examples", "dairy", "job.json")))).toBe(true);
});

test("over random plants: what the program reads passes", () => {
  fc.assert(
    fc.property(smallCase, ({ plant, job }) => {
      const plain = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;
      expect([isPlant(plain(plant)), isJob(plain(job))]).toEqual([true, true]);
    }),
    propertyRuns(100),
  );
});

test.each<[string, object]>([
  ["another version", { version: 2 }],
  ["no items", { items: undefined }],
  ["a link to nowhere", { links: [{ from: "A", carries: "fluid" }] }],
  ["an unknown carrier", { links: [{ from: "A", to: "B", carries: "steam" }] }],
  [
    "a device that does not say what it stops",
    { items: [{ tag: "V", kind: "valve", device: { credit: true, effort: 1 } }] },
  ],
  ["a temperature in words", { items: [{ tag: "T", kind: "tank", contents: { fluid: "oil", temperature_C: "hot" } }] }],
])("%s passes neither schema nor program", (_, more) => {
  const file = {
    format: "heavy-lantern/plant",
    version: 1,
    items: [
      { tag: "A", kind: "pipe" },
      { tag: "B", kind: "pipe" },
    ],
    links: [],
    ...more,
  };
  const plain = JSON.parse(JSON.stringify(file)) as unknown;
  expect(isPlant(plain)).toBe(false);
  expect(readPlantValue(plain, "plant.json").ok).toBe(false);
});
