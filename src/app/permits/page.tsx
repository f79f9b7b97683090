import type { Metadata } from "next";
import { permitState } from "@/core/words/en/permitState";
import { Link } from "@/ui/text/Link";
import { bypasses, permitRegister, REGISTER_SORTS } from "@/server/permit/permitRegister";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { FindForm, ListChoice } from "@/ui/list/FindForm";
import { ListHead } from "@/ui/list/ListHead";
import { ListPages } from "@/ui/list/ListPages";
import { readListQuery } from "@/ui/list/listQuery";
import { dayAndClock } from "@/ui/text/when";
import { TakeOut } from "@/ui/text/TakeOut";
import { WideTable } from "@/ui/text/WideTable";

export const metadata: Metadata = { title: "Permits" };

type Query = { searchParams: Promise<Record<string, string | string[] | undefined>> };

const one = (value: string | string[] | undefined, usual = "") => (typeof value === "string" ? value : usual);
const COLUMNS = [
  { words: "Permit", sort: "number" },
  { words: "Kind", sort: "kind" },
  { words: "State" },
  { words: "Work" },
  { words: "Holder", sort: "holder" },
  { words: "On" },
  { words: "From", sort: "from" },
  { words: "Until", sort: "until" },
] as const;

export default async function PermitsPage({ searchParams }: Query) {
  const person = await requirePerson();
  const params = await searchParams;
  const kind = one(params.kind);
  // An empty one was "every state" in addresses of before.
  const state = one(params.state, "open") || "every";
  const query = readListQuery(params, REGISTER_SORTS, { sort: "number", down: true });
  const more = { kind, state };
  const timeZone = siteTimeZone();
  const now_ms = requestTime_ms();
  const { find, sort, down } = query;
  const { rows, found, page, pages, kinds, states, holding } = permitRegister(
    { kind, state: state === "every" ? "" : state, find, sort, down },
    query.page,
    now_ms,
  );
  const bypassed = bypasses(now_ms);
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-2xl font-semibold tracking-tight">Permits</h1>
        <p className="opacity-85">
          <span className="num">{found}</span> found
        </p>
        <FindForm path="/permits" query={query} words="Number, job, work or holder">
          <ListChoice
            name="kind"
            words="Kind"
            value={kind}
            options={[["", "every kind"], ...kinds.map((each) => [each, each] as const)]}
          />
          <ListChoice
            name="state"
            words="State"
            value={state}
            options={[
              ["open", "not over"],
              ["every", "every state"],
              ...states.map((each) => [each, permitState(each)] as const),
            ]}
          />
        </FindForm>
      </div>
      {bypassed.length > 0 && (
        <section aria-labelledby="bypassed" className="border-warning mb-8 max-w-5xl border-l-4 pl-4">
          <h2 id="bypassed" className="mb-1 text-lg font-semibold">
            Safeguards that do not work now
          </h2>
          <ul className="space-y-1">
            {bypassed.map((one) => (
              <li key={one.permit}>
                <Link href={`/permits/${one.permit}`} className="link tag">
                  {one.permit}
                </Link>{" "}
                <strong>{one.safeguard}</strong>, {one.state}. {one.owner} answers for it. Instead: {one.compensation}.{" "}
                {one.overdue ? <strong>Overdue since</strong> : "Back by"}{" "}
                <span className="num">{dayAndClock(one.until_ms, timeZone)}</span>.
              </li>
            ))}
          </ul>
        </section>
      )}
      {rows.length === 0 ? (
        <p>{find || kind || state !== "open" ? "No permit is like that." : "No permit is active."}</p>
      ) : (
        <WideTable label="Permits">
          <table className="table">
            <thead>
              <ListHead columns={COLUMNS} query={query} path="/permits" more={more} />
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.number} className="hover:bg-base-200">
                  <td>
                    <Link href={`/permits/${row.number}`} className="tag link">
                      {row.number}
                    </Link>
                    {row.previous && <span className="block text-sm opacity-80">after {row.previous}</span>}
                  </td>
                  <td className="whitespace-nowrap">{row.kind}</td>
                  <td className="whitespace-nowrap">
                    {["suspended", "run out"].includes(row.state) ? (
                      <strong>{permitState(row.state)}</strong>
                    ) : (
                      permitState(row.state)
                    )}
                  </td>
                  <td className="min-w-64">
                    {row.words}
                    <Link href={`/jobs/${row.job}/permits`} className="block text-sm hover:underline">
                      <span className="tag">{row.job}</span> {row.title}
                    </Link>
                  </td>
                  <td>{row.holder}</td>
                  <td className="num">{row.on}</td>
                  <td className="num whitespace-nowrap">{dayAndClock(row.validFrom_ms, timeZone)}</td>
                  <td className="num whitespace-nowrap">{dayAndClock(row.validTo_ms, timeZone)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </WideTable>
      )}
      <ListPages path="/permits" query={query} more={more} page={page} pages={pages} />
      <div className="mt-4 flex flex-wrap gap-x-6">
        <TakeOut reader={person} list="permits" words="Take all permits out as" />
        <TakeOut reader={person} list="jobs" words="all jobs as" />
      </div>
      {holding.length > 0 && (
        <section aria-labelledby="holding" className="mt-10 max-w-3xl">
          <h2 id="holding" className="mb-2 text-lg font-semibold">
            Who holds what now
          </h2>
          <ul className="border-base-300 divide-base-300 divide-y border-y">
            {holding.map(({ who, what, permit }) => (
              <li
                key={`${who} ${what} ${permit}`}
                className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_6rem] gap-x-4 py-1.5"
              >
                <span className="font-medium">{who}</span>
                <span>{what}</span>
                <Link href={`/permits/${permit}`} className="link tag">
                  {permit}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
