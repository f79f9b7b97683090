import type { Metadata } from "next";
import { permitState } from "@/core/words/en/permitState";
import Link from "next/link";
import { bypasses, permitRegister, REGISTER_PAGE } from "@/server/permit/permitRegister";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { dayAndClock } from "@/ui/text/when";
import { Pages } from "@/ui/text/Pages";
import { TakeOut } from "@/ui/text/TakeOut";
import { WideTable } from "@/ui/text/WideTable";

export const metadata: Metadata = { title: "Permits" };

type Query = { searchParams: Promise<{ kind?: string; state?: string; find?: string; page?: string }> };

export default async function PermitsPage({ searchParams }: Query) {
  const person = await requirePerson();
  const { kind = "", state = "open", find = "", page: asked } = await searchParams;
  const page = Math.max(1, Math.floor(Number(asked)) || 1);
  const timeZone = siteTimeZone();
  const now_ms = requestTime_ms();
  const { rows, found, kinds, states, holding } = permitRegister({ kind, state, find }, page, now_ms);
  const bypassed = bypasses(now_ms);
  const pages = Math.max(1, Math.ceil(found / REGISTER_PAGE));
  const pageLink = (to: number) =>
    `/permits?${new URLSearchParams({ kind, state, find, page: String(to) }).toString()}`;
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="mb-4 flex flex-wrap items-baseline gap-4">
        <h1 className="text-2xl font-semibold tracking-tight">Permits</h1>
        <p className="opacity-85">
          <span className="num">{found}</span> found
        </p>
        <div className="ml-auto flex flex-wrap gap-x-6">
          <TakeOut reader={person} list="permits" words="Take all permits out as" />
          <TakeOut reader={person} list="jobs" words="all jobs as" />
        </div>
      </div>
      <form role="search" action="/permits" className="mb-6 flex flex-wrap items-end gap-3">
        <label className="flex flex-col gap-1">
          <span className="text-sm font-medium">Kind</span>
          <select name="kind" defaultValue={kind} className="select w-52">
            <option value="">every kind</option>
            {kinds.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1">
          <span className="text-sm font-medium">State</span>
          <select name="state" defaultValue={state} className="select w-44">
            <option value="open">not over</option>
            <option value="">every state</option>
            {states.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1">
          <span className="text-sm font-medium">Number, job, work or holder</span>
          <input name="find" type="search" defaultValue={find} className="input w-64" />
        </label>
        <button type="submit" className="btn btn-outline">
          Show
        </button>
      </form>
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
              <tr>
                <th>Permit</th>
                <th>Kind</th>
                <th>State</th>
                <th>Work</th>
                <th>Holder</th>
                <th>On</th>
                <th>From</th>
                <th>Until</th>
              </tr>
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
      <Pages page={page} pages={pages} link={pageLink} words={["Newer", "Older"]} />
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
