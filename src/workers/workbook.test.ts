import ExcelJS from "exceljs";
import { readPlantFiles } from "../core/plant/readPlantFiles";
import { plantTables } from "../core/plant/writePlant";
import { demoGraph } from "../../tests/support/demoPlant";
import { readWorkbook, writeWorkbook } from "./workbook";

async function bytesOf(sheets: Readonly<Record<string, ExcelJS.CellValue[][]>>): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  for (const [name, rows] of Object.entries(sheets)) {
    const sheet = book.addWorksheet(name);
    for (const row of rows) sheet.addRow(row);
  }
  return new Uint8Array(await book.xlsx.writeBuffer());
}
const ITEMS: ExcelJS.CellValue[][] = [
  ["tag", "kind", "source", "level_m", "stops", "credit", "effort"],
  ["S", "header", "fluid", 2.5, null, null, null],
  [101, "valve", null, null, "fluid", true, { formula: "2+3", result: 5 }],
];
const LINKS: ExcelJS.CellValue[][] = [
  ["from", "to", "carries", "walked"],
  ["S", 101, { richText: [{ text: "flu" }, { text: "id" }] }, new Date(Date.UTC(2026, 9, 1))],
];

test("the demo as a workbook and read again is the demo", async () => {
  const { plant } = demoGraph();
  const book = await readWorkbook("plant.xlsx", await writeWorkbook(plantTables(plant)));
  if (!book.ok) throw new Error(book.problem);
  const read = readPlantFiles(book.files);
  if (!read.ok) throw new Error(JSON.stringify(read.problems.slice(0, 3)));
  expect(JSON.parse(JSON.stringify(read.value))).toEqual(JSON.parse(JSON.stringify(plant)));
});

test("numbers, flags, dates, formulas and formatted words are read as what they show", async () => {
  const book = await readWorkbook(
    "plant.xlsx",
    await bytesOf({ "Plant items": ITEMS, Links: LINKS, Notes: [["nothing"]] }),
  );
  if (!book.ok) throw new Error(book.problem);
  const read = readPlantFiles(book.files);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  expect(read.value.items[1]).toMatchObject({ tag: "101", device: { credit: true, effort_min: 5 } });
  expect(read.value.items[0]).toMatchObject({ level_m: 2.5 });
  expect(read.value.links[0]).toMatchObject({ to: "101", carries: "fluid", walked: "2026-10-01" });
});

test("what is wrong is said with the sheet, the row and the column", async () => {
  const problem = async (sheets: Parameters<typeof bytesOf>[0]) => {
    const book = await readWorkbook("plant.xlsx", await bytesOf(sheets));
    return book.ok ? "" : book.problem;
  };
  expect(await problem({ items: ITEMS })).toMatch(/one named links/);
  expect(await problem({ items: ITEMS, links: LINKS, "old items": ITEMS })).toMatch(
    /more than one sheet is named items/,
  );
  const broken = [ITEMS[0]!, ["S", "header", "fluid", { error: "#REF!" } as ExcelJS.CellValue]];
  expect(await problem({ items: broken, links: LINKS })).toMatch(
    /sheet items, row 2, column 4: the cell holds an error/,
  );
  expect((await readWorkbook("plant.xlsx", new Uint8Array([1, 2, 3]))).ok).toBe(false);
  const wrong = await readWorkbook(
    "plant.xlsx",
    await bytesOf({
      items: [
        ["tag", "colour"],
        ["S", "red"],
      ],
      links: LINKS,
    }),
  );
  const read = wrong.ok ? readPlantFiles(wrong.files) : null;
  expect(read?.ok === false && read.problems[0]).toMatchObject({
    file: "plant.xlsx sheet items",
    row: 1,
    field: "colour",
  });
});
