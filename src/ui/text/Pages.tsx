import { Link } from "./Link";

/** From one page of a long list to the next; nothing where there is only one. */
export function Pages({
  page,
  pages,
  link,
  words: [before, next],
}: {
  page: number;
  pages: number;
  link: (to: number) => string;
  words: readonly [before: string, next: string];
}) {
  if (pages <= 1) return null;
  return (
    <nav aria-label="Pages" className="mt-4 flex items-center gap-4">
      {page > 1 && (
        <Link className="link" href={link(page - 1)}>
          {before}
        </Link>
      )}
      <span className="num">
        {page} of {pages}
      </span>
      {page < pages && (
        <Link className="link" href={link(page + 1)}>
          {next}
        </Link>
      )}
    </nav>
  );
}
