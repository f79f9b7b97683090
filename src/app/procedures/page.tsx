import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { foundBy, inOrder, pageOf } from "@/core/listed";
import { procedureViews } from "@/server/library/procedureView";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { FindForm } from "@/ui/list/FindForm";
import { ListHead } from "@/ui/list/ListHead";
import { ListPages } from "@/ui/list/ListPages";
import { readListQuery } from "@/ui/list/listQuery";
import { dayAndClock } from "@/ui/text/when";
import { TakeOut } from "@/ui/text/TakeOut";
import { WideTable } from "@/ui/text/WideTable";

export const metadata: Metadata = { title: "Procedures" };

type Params = Promise<Record<string, string | string[] | undefined>>;

const SORTS = ["number", "for", "equipment", "points", "inspected"] as const;
const COLUMNS = [
  { words: "Procedure", sort: "number" },
  { words: "For", sort: "for" },
  { words: "Equipment", sort: "equipment" },
  { words: "Version" },
  { words: "Points", sort: "points" },
  { words: "State" },
  { words: "Inspected again by", sort: "inspected" },
  { words: "Use" },
] as const;
const PAGE = 50;

/** The library of isolation procedures: what may be requested by, until when, and what waits for a signature. */
export default async function ProceduresPage({ searchParams }: { searchParams: Params }) {
  const person = await requirePerson();
  const query = readListQuery(await searchParams, SORTS, { sort: "number", down: false });
  const all = procedureViews(requestTime_ms());
  const shownOf = ({ current, versions }: (typeof all)[number]) => current ?? versions[0]!;
  const found = foundBy(all, query.find, ({ number, title, equipment }) => `${number} ${title} ${equipment}`);
  const sorted = inOrder(
    found,
    (one) =>
      ({
        number: one.number,
        for: one.title,
        equipment: one.equipment,
        points: shownOf(one).content.points.length,
        inspected: one.current?.inspectionDue_ms ?? null,
      })[query.sort],
    query.down,
  );
  const { rows, page, pages } = pageOf(sorted, query.page, PAGE);
  const timeZone = siteTimeZone();
  return (
    <div className="max-w-6xl px-4 py-4 md:px-5">
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-2xl font-semibold tracking-tight">Isolation procedures</h1>
        {all.length > 0 && <FindForm path="/procedures" query={query} words="Number, work or equipment" />}
      </div>
      <p className="mb-4 max-w-prose">
        How a machine is isolated for the work that comes again. A version is taken from a job that is closed, approved
        by two people, inspected once a year, and judged anew on today&apos;s plant whenever it is used.
      </p>
      <div className="-mt-2 mb-4">
        <TakeOut reader={person} list="procedures" />
      </div>
      {all.length > 0 && rows.length === 0 && <p>No procedure is like that.</p>}
      {all.length === 0 ? (
        <p>None yet. On the request of a closed job, write it into the library.</p>
      ) : (
        <WideTable label="Isolation procedures">
          <table className="table">
            <thead>
              <ListHead columns={COLUMNS} query={query} path="/procedures" />
            </thead>
            <tbody>
              {rows.map((one) => {
                const { number, title, equipment, versions, current } = one;
                const shown = shownOf(one);
                const usable = current !== null && current.unusable === null;
                const draft = versions.find(({ life }) => life.state === "draft");
                return (
                  <tr key={number}>
                    <td>
                      <Link href={`/procedures/${number}`} className="link tag">
                        {number}
                      </Link>
                    </td>
                    <td>{title}</td>
                    <td className="tag">{equipment}</td>
                    <td className="num">{shown.life.version}</td>
                    <td className="num">{shown.content.points.length}</td>
                    <td>
                      {usable ? "approved" : <strong>not to be used: {shown.unusable}</strong>}
                      {draft && current && (
                        <span className="block text-sm">version {draft.life.version} is a draft</span>
                      )}
                    </td>
                    <td className="num">{current ? dayAndClock(current.inspectionDue_ms!, timeZone) : "–"}</td>
                    <td>
                      {usable && (
                        <Link href={`/jobs/new?procedure=${number}`} className="link whitespace-nowrap">
                          Request work by it
                        </Link>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </WideTable>
      )}
      <ListPages path="/procedures" query={query} page={page} pages={pages} />
    </div>
  );
}
