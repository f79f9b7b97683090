import type { Metadata } from "next";
import { foundBy, inOrder, pageOf } from "@/core/listed";
import { storeLines } from "@/server/figures/dayView";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { CountForm } from "@/ui/store/CountForm";
import { FindForm } from "@/ui/list/FindForm";
import { ListHead } from "@/ui/list/ListHead";
import { ListPages } from "@/ui/list/ListPages";
import { readListQuery } from "@/ui/list/listQuery";
import { dayAndClock } from "@/ui/text/when";
import { TakeOut } from "@/ui/text/TakeOut";
import { WideTable } from "@/ui/text/WideTable";

export const metadata: Metadata = { title: "Stores" };

type Params = Promise<Record<string, string | string[] | undefined>>;

const SORTS = ["thing", "size", "count", "counted"] as const;
const COLUMNS = [
  { words: "Thing", sort: "thing" },
  { words: "Size", sort: "size" },
  { words: "Count", sort: "count", isNumber: true },
  { words: "Counted", sort: "counted" },
] as const;
const PAGE = 100;

/** What the store has, as last counted. */
export default async function StorePage({ searchParams }: { searchParams: Params }) {
  const person = await requirePerson();
  const lines = storeLines();
  const query = readListQuery(await searchParams, SORTS, { sort: "thing", down: false });
  const found = foundBy(lines, query.find, ({ thing, size, countedBy }) => `${thing} ${size} ${countedBy}`);
  const sorted = inOrder(
    found,
    ({ thing, size, count, countedAt }) => ({ thing, size: size || null, count, counted: countedAt })[query.sort],
    query.down,
  );
  const { rows, page, pages } = pageOf(sorted, query.page, PAGE);
  const timeZone = siteTimeZone();
  const mayCount = person.roles.some((role) => role === "coordinator" || role === "operator");
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-2xl font-semibold tracking-tight">Stores</h1>
        {lines.length > 0 && <FindForm path="/store" query={query} words="What, size or who counted" />}
      </div>
      <p className="mt-1 mb-6 max-w-prose opacity-85">
        What there is to hang, fit and measure with, as last counted. A job&apos;s kit is set against it; write a thing
        as the kit calls it.
      </p>
      <div className="-mt-4 mb-6">
        <TakeOut reader={person} list="stores" />
      </div>
      {mayCount && <CountForm things={[...new Set(lines.map((line) => line.thing))]} />}
      {lines.length === 0 ? (
        <p className="mt-6">Nothing has been counted yet.</p>
      ) : rows.length === 0 ? (
        <p>Nothing in the store is like that.</p>
      ) : (
        <WideTable label="The store">
          <table className="mt-4 table max-w-4xl">
            <thead>
              <ListHead columns={COLUMNS} query={query} path="/store" />
            </thead>
            <tbody>
              {rows.map((line) => (
                <tr key={`${line.thing} ${line.size}`}>
                  <td>{line.thing}</td>
                  <td>{line.size || "–"}</td>
                  <td className="num text-right font-semibold">{line.count}</td>
                  <td>
                    {dayAndClock(line.countedAt, timeZone)}, {line.countedBy}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </WideTable>
      )}
      <ListPages path="/store" query={query} page={page} pages={pages} />
    </div>
  );
}
