/** Rows by a key, for those that were loaded together and are asked for one by one. Order is kept. Cost: linear. */
export function grouped<Row, Key>(rows: readonly Row[], keyOf: (row: Row) => Key): (key: Key) => readonly Row[] {
  const groups = new Map<Key, Row[]>();
  for (const row of rows) {
    const key = keyOf(row);
    const known = groups.get(key);
    if (known) known.push(row);
    else groups.set(key, [row]);
  }
  return (key) => groups.get(key) ?? [];
}
