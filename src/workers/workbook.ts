import ExcelJS from "exceljs";
import Papa from "papaparse";
import type { TextFile } from "../core/plant/readPlantFiles";
import type { Table } from "../core/plant/writePlant";

/** Sheets of a register, by a word of their name. */
const SHEETS = ["items", "links", "areas"] as const;

/** As a sheet is named among files: `plant.xlsx sheet items`. */
export const sheetFile = (file: string, sheet: string): string => `${file} sheet ${sheet}`;

/**
 * The sheets of a workbook that hold a register, each as the text of a table; or what is wrong with it. Dates become year-month-day, a
 * formula what it last came to; a cell that is an error is named.
 */
export async function readWorkbook(
  name: string,
  bytes: Uint8Array,
): Promise<Readonly<{ ok: true; files: TextFile[] }> | Readonly<{ ok: false; problem: string }>> {
  const book = new ExcelJS.Workbook();
  try {
    await book.xlsx.load(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer);
  } catch {
    return { ok: false, problem: `${name}: the file is no workbook (xlsx) that can be read. Nothing was stored.` };
  }
  const files: TextFile[] = [];
  for (const word of SHEETS) {
    const found = book.worksheets.filter((sheet) => sheet.name.toLowerCase().includes(word));
    if (found.length > 1)
      return { ok: false, problem: `${name}: more than one sheet is named ${word}. Name them apart.` };
    const [sheet] = found;
    if (sheet === undefined) continue;
    const rows: string[][] = [];
    let fault: string | null = null;
    sheet.eachRow({ includeEmpty: true }, (row, number) => {
      const cells: string[] = [];
      row.eachCell({ includeEmpty: true }, (cell, column) => {
        const text = textOf(cell.value);
        if (text === null)
          fault ??= `${name} sheet ${sheet.name}, row ${number}, column ${column}: the cell holds an error`;
        cells[column - 1] = text ?? "";
      });
      rows.push(Array.from(cells, (cell) => cell ?? ""));
    });
    if (fault !== null) return { ok: false, problem: `${fault as string}. Nothing was stored.` };
    files.push({ name: sheetFile(name, word), text: Papa.unparse(squared(rows), { newline: "\n" }) });
  }
  if (
    !files.some(({ name: one }) => one.endsWith("sheet items")) ||
    !files.some(({ name: one }) => one.endsWith("sheet links"))
  ) {
    return {
      ok: false,
      problem: `${name}: a workbook needs a sheet named items and one named links. Nothing was stored.`,
    };
  }
  return { ok: true, files };
}

/** Every row as wide as the headings; empty cells beyond them are none. */
function squared(rows: readonly string[][]): string[][] {
  const filled = (row: readonly string[]) => row.findLastIndex((cell) => cell.trim() !== "") + 1;
  const width = filled(rows[0] ?? []);
  return rows.map((row) => Array.from({ length: Math.max(width, filled(row)) }, (_, i) => row[i] ?? ""));
}

/** Null where it is an error. */
function textOf(value: ExcelJS.CellValue): string | null {
  if (value === null || value === undefined) return "";
  if (typeof value === "string") return value;
  if (typeof value === "number") return String(value);
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if ("error" in value) return null;
  if ("richText" in value) return value.richText.map(({ text }) => text).join("");
  if ("hyperlink" in value) return String(value.text);
  return "result" in value ? textOf(value.result as ExcelJS.CellValue) : null;
}

/** A workbook with a sheet for each table, its headings in bold and standing still. */
export async function writeWorkbook(tables: Readonly<Record<string, Table>>): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  for (const [name, table] of Object.entries(tables)) {
    const sheet = book.addWorksheet(name, { views: [{ state: "frozen", xSplit: 1, ySplit: 1 }] });
    for (const row of table) sheet.addRow(row.map((cell) => (cell === "" ? null : cell)));
    sheet.getRow(1).font = { bold: true };
    sheet.columns.forEach((column, i) => {
      const longest = Math.max(...table.slice(0, 200).map((row) => String(row[i] ?? "").length));
      column.width = Math.min(40, Math.max(8, longest + 2));
    });
  }
  return new Uint8Array(await book.xlsx.writeBuffer());
}
