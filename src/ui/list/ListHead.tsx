import { Link } from "../text/Link";
import { listAddress, sortedBy, type ListQuery } from "./listQuery";

/** A column of a list: the head's words, and by what it sorts where it does. */
export type ListColumn<Column extends string> = Readonly<{ words: string; sort?: Column; isNumber?: boolean }>;

const LABEL = "inline-flex min-h-6 items-center gap-1";

/** The heads of a list. One that sorts is a link, which tells which way it stands now. */
export function ListHead<Column extends string>({
  columns,
  query,
  path,
  more = {},
}: {
  columns: readonly ListColumn<Column>[];
  query: ListQuery<Column>;
  path: string;
  more?: Readonly<Record<string, string>>;
}) {
  return (
    <tr>
      {columns.map(({ words, sort, isNumber }) => {
        const side = isNumber ? "text-right" : undefined;
        if (sort === undefined) {
          return (
            <th key={words} className={side}>
              <span className={LABEL}>{words}</span>
            </th>
          );
        }
        const isSorted = query.sort === sort;
        // It has its place where it does not stand, so that no column moves.
        const arrow = (
          <span aria-hidden className="inline-block w-3 text-center">
            {isSorted ? (query.down ? "↓" : "↑") : "\u00a0"}
          </span>
        );
        const way = query.down ? "descending" : "ascending";
        return (
          <th key={words} aria-sort={isSorted ? way : "none"} className={side}>
            <Link
              href={listAddress(path, sortedBy(query, sort), more)}

              scroll={false}
              className={`group ${LABEL}`}
            >
              {isNumber && arrow}
              <span
                className={`decoration-dotted underline-offset-4 group-hover:decoration-solid ${isSorted ? "" : "underline"}`}
              >
                {words}
              </span>
              {!isNumber && arrow}
            </Link>
          </th>
        );
      })}
    </tr>
  );
}
