import { Pages } from "../text/Pages";
import { listAddress, type ListQuery } from "./listQuery";

/** From one page of a list to the next, with all that was asked of it. */
export function ListPages({
  path,
  query,
  more,
  page,
  pages,
  next = "Next",
}: {
  path: string;
  query: ListQuery<string>;
  more?: Readonly<Record<string, string>>;
  page: number;
  pages: number;
  next?: string;
}) {
  const link = (to: number) => listAddress(path, { ...query, page: to }, more);
  return <Pages page={page} pages={pages} link={link} words={["Before", next]} />;
}
