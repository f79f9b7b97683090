import Papa from "papaparse";
import type { Problem, Read } from "./problem";

export type CsvFile = Readonly<{ name: string; text: string }>;
export type Row = Readonly<Record<string, string>>;

/** `mayBeEmpty`: no row under the headings is an answer as well. */
export function readTable(
  file: CsvFile,
  columns: readonly string[],
  required: readonly string[],
  mayBeEmpty = false,
): Read<readonly Row[]> {
  const refuse = (message: string, rest: Partial<Problem> = {}): Read<readonly Row[]> => ({
    ok: false,
    problems: [{ file: file.name, message, ...rest }],
  });
  if (file.text.trim() === "") return refuse("the file is empty");
  if (file.text.includes("\u0000") || file.text.includes("\ufffd")) return refuse("the file is not text");
  const text = file.text.replace(/^\ufeff/, "");
  const delimiter = delimiterOf(text, columns);
  let decimals = 0;
  const parsed = Papa.parse<Row>(text, {
    header: true,
    skipEmptyLines: "greedy",
    delimiter,
    transformHeader: (heading) => heading.trim(),
    transform: (value, column) => {
      const cell = value.trim();
      // Where a comma parts nothing it may stand in a number.
      if (delimiter === "," || !FIGURES.has(String(column)) || !/\d,\d/.test(cell)) return cell;
      decimals++;
      return cell.replace(/(\d),(\d)/g, "$1.$2");
    },
  });
  const headings = parsed.meta.fields ?? [];
  const unknown = headings.find((heading) => !columns.includes(heading));
  if (unknown !== undefined) {
    return refuse(`unknown column; the columns are ${columns.join(", ")}`, { row: 1, field: unknown });
  }
  const missing = required.find((column) => !headings.includes(column));
  if (missing !== undefined) return refuse("this column is missing", { row: 1, field: missing });
  const [fault] = parsed.errors;
  if (fault) {
    const row = (fault.row ?? 0) + 2;
    return refuse(`${fault.message.toLowerCase()}; quote a cell that holds ${DELIMITERS[delimiter]}`, { row });
  }
  if (parsed.data.length === 0 && !mayBeEmpty) return refuse("there is a heading but no rows");
  const said = [
    ...(delimiter === "," ? [] : [`its columns are parted by ${DELIMITERS[delimiter]}s`]),
    ...(decimals > 0 ? [`in ${decimals} cells a comma was read as the decimal point`] : []),
  ];
  const warnings = said.length > 0 ? [{ file: file.name, message: said.join(", and ") }] : [];
  return { ok: true, value: parsed.data, warnings };
}

const DELIMITERS = { ",": "comma", ";": "semicolon", "\t": "tab" } as const;
type Delimiter = keyof typeof DELIMITERS;

/** By the headings: what parts them into most columns that are known. */
function delimiterOf(text: string, columns: readonly string[]): Delimiter {
  const heading = text.split(/\r?\n/, 1)[0] ?? "";
  const known = (delimiter: Delimiter) =>
    heading.split(delimiter).filter((one) => columns.includes(one.trim().replace(/^"|"$/g, ""))).length;
  return (Object.keys(DELIMITERS) as Delimiter[]).reduce((best, one) => (known(one) > known(best) ? one : best));
}

/** Columns of figures, where a comma between digits is a decimal one. */
const FIGURES: ReadonlySet<string> = new Set([
  "level_m",
  "x_m",
  "y_m",
  "width_m",
  "depth_m",
  "voltage_V",
  "criticality",
  "temperature_C",
  "pressure_Pa",
  "volume_m3",
  "density_kg_m3",
  "gamma",
  "molar_kg",
  "limit_Pa",
  "vessel",
  "space",
  "stored",
  "effort",
  "bore_m",
  "bleed",
]);
