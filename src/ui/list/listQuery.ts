/** What somebody asks of a list. It stands whole in the page's address, so that it can be kept, sent and gone back to. */
export type ListQuery<Column extends string> = Readonly<{
  /** Words that a row has to contain, each of them, in whatever order. */
  find: string;
  sort: Column;
  /** From the last to the first. */
  down: boolean;
  /** Counted from 1. */
  page: number;
}>;

type Params = Readonly<Record<string, string | readonly string[] | undefined>>;

/** The query in an address; what cannot be understood counts as not asked. */
export function readListQuery<Column extends string>(
  params: Params,
  columns: readonly Column[],
  usual: Readonly<{ sort: Column; down: boolean }>,
): ListQuery<Column> {
  const { find, sort: named, down, page } = params;
  const sort = columns.find((one) => one === named);
  return {
    find: typeof find === "string" ? find : "",
    sort: sort ?? usual.sort,
    down: sort === undefined ? usual.down : down === "1",
    page: Math.max(1, Math.floor(Number(page)) || 1),
  };
}

/** The address of a list, with what stays as usual left out. `more` are the list's own questions, as its state. */
export function listAddress(
  path: string,
  query: Readonly<{ find: string; sort: string; down: boolean; page: number }>,
  more: Readonly<Record<string, string>> = {},
): string {
  const params = new URLSearchParams();
  for (const [name, value] of Object.entries({ ...more, find: query.find })) if (value !== "") params.set(name, value);
  params.set("sort", query.sort);
  if (query.down) params.set("down", "1");
  if (query.page > 1) params.set("page", String(query.page));
  return `${path}?${params.toString()}`;
}

/** What a touch on a column's head asks: sorted by it, and the other way round when it was already. Begins at the first page. */
export function sortedBy<Column extends string>(query: ListQuery<Column>, column: Column): ListQuery<Column> {
  return { ...query, sort: column, down: query.sort === column && !query.down, page: 1 };
}
