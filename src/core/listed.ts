/** By what a column sorts; null where a row has nothing there. */
export type SortKey = string | number | null;

/** Numbers in a text count as numbers: V-9 stands before V-10. */
const natural = new Intl.Collator("en", { numeric: true, sensitivity: "base" });

function compare(a: string | number, b: string | number): number {
  if (typeof a === "number" && typeof b === "number") return a - b;
  return natural.compare(String(a), String(b));
}

/**
 * Rows in the order of a column. Rows alike stay in the order they had, and those with nothing there stand last both ways.
 * Cost: n log n comparisons; the key of each row is made once.
 */
export function inOrder<Row>(rows: readonly Row[], keyOf: (row: Row) => SortKey, down = false): Row[] {
  return rows
    .map((row) => ({ row, key: keyOf(row) }))
    .sort((a, b) => {
      if (a.key === null || b.key === null) return Number(a.key === null) - Number(b.key === null);
      return down ? compare(b.key, a.key) : compare(a.key, b.key);
    })
    .map(({ row }) => row);
}

const BETWEEN_WORDS = /[^\p{L}\p{N}]+/u;
const ONE_LETTER = /^[\p{L}\p{N}]$/u;

/**
 * Rows in whose text each of the words stands, in whatever order; upper and lower case alike. A single letter or figure has to
 * stand by itself: "pump A" is not every pump that has an a.
 */
export function foundBy<Row>(rows: readonly Row[], find: string, textOf: (row: Row) => string): Row[] {
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [...rows];
  return rows.filter((row) => {
    const text = textOf(row).toLowerCase();
    return words.every((word) =>
      ONE_LETTER.test(word) ? text.split(BETWEEN_WORDS).includes(word) : text.includes(word),
    );
  });
}

/** One page of a list; where there are fewer pages than the one asked, the last. */
export type Page<Row> = Readonly<{ rows: readonly Row[]; found: number; page: number; pages: number }>;

/** Pages are counted from 1; of nothing there is one, empty. */
export function pageOf<Row>(rows: readonly Row[], asked: number, size: number): Page<Row> {
  const { page, pages, from } = placeOf(rows.length, asked, size);
  return { rows: rows.slice(from, from + size), found: rows.length, page, pages };
}

/** Where a page stands in a list of so many. */
export function placeOf(found: number, asked: number, size: number) {
  const pages = Math.max(1, Math.ceil(found / size));
  const page = Math.min(Math.max(1, asked), pages);
  return { page, pages, from: (page - 1) * size };
}
