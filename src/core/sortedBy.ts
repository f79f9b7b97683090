/** Rows in the code-unit order of a key, which is made once for each. */
export function sortedBy<Row>(rows: readonly Row[], keyOf: (row: Row) => string): Row[] {
  return rows
    .map((row) => ({ row, key: keyOf(row) }))
    .sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0))
    .map(({ row }) => row);
}
