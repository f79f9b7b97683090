import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { mayRead } from "@/core/people/mayRead";
import { whoReads } from "@/core/words/en/reading";
import { actWords } from "@/server/acts/acts";
import { ledgerPage, LEDGER_PAGE } from "@/server/ledger/ledgerPage";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { dayAndClock } from "@/ui/text/when";
import { Pages } from "@/ui/text/Pages";

export const metadata: Metadata = { title: "Ledger" };

export default async function LedgerPage({
  searchParams,
}: {
  searchParams: Promise<{ find?: string; page?: string }>;
}) {
  const person = await requirePerson();
  const { find = "", page: asked } = await searchParams;
  const page = Math.max(1, Math.floor(Number(asked)) || 1);
  const readsAll = mayRead("record", person);
  const { rows, found, head } = ledgerPage(find, page, readsAll ? null : person.id);
  const pages = Math.max(1, Math.ceil(found / LEDGER_PAGE));
  const timeZone = siteTimeZone();
  const pageLink = (to: number) => `/ledger?${new URLSearchParams({ find, page: String(to) }).toString()}`;
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1 className="text-2xl font-semibold tracking-tight">Ledger</h1>
        {mayRead("figures", person) && (
          <Link href="/figures" className="link inline-flex min-h-11 items-center">
            Figures of it
          </Link>
        )}
      </div>
      {!readsAll && (
        <p className="mb-2 max-w-prose">
          <strong className="font-semibold">Here is what you did yourself.</strong> {whoReads("record")} What happened
          to a permit, an isolation or a lock stands on its own page.
        </p>
      )}
      <p className="mb-6 max-w-prose">
        Every act and every refusal, never changed. <span className="num">{head.seq}</span> rows; each carries the hash
        of the one before, the last is <span className="tag break-all whitespace-normal">{head.hash.slice(0, 16)}</span>
        . <span className="tag">./lantern verify</span> compares it with all that it speaks of.
        {mayRead("whole record as a file", person) && (
          <>
            {" "}
            <a href="/ledger/lines" download className="link">
              Take all of it out as lines of JSON
            </a>
            , which a short script in the documents checks without this program.
          </>
        )}
      </p>
      <form role="search" className="mb-6 flex max-w-xl items-end gap-3" action="/ledger">
        <label className="flex grow flex-col gap-1">
          <span className="text-sm font-medium">Find by number, lock, tag or words</span>
          <input
            name="find"
            type="search"
            defaultValue={find}
            className="input w-full"
            placeholder="P-0001, V-2041, G-0104"
          />
        </label>
        <button type="submit" className="btn btn-outline">
          Find
        </button>
      </form>
      {rows.length === 0 ? (
        <p>
          {find
            ? `Nothing in the ledger matches “${find}”${readsAll ? "" : " of what you did"}.`
            : readsAll
              ? "The ledger is empty: nothing has been done yet."
              : "You have done nothing yet."}
        </p>
      ) : (
        <table aria-label="Ledger rows" className="w-full max-w-6xl">
          <thead className="text-left text-sm">
            <tr>
              <th className="w-36 py-1 font-semibold">When</th>
              <th className="py-1 font-semibold">Who did what</th>
              <th className="w-40 py-1 font-semibold">About</th>
              <th className="w-36 py-1 font-semibold">Row, hash</th>
            </tr>
          </thead>
          <tbody className="max-md:block">
            {rows.map((row) => (
              <tr key={row.seq} className="border-base-300 border-t align-top max-md:grid max-md:py-1">
                <td className="num py-1.5 pr-3">{dayAndClock(row.doneAt, timeZone)}</td>
                <td className="py-1.5 pr-4">
                  <strong className="font-semibold">{row.by}</strong>
                  {row.isNobody ? ": " : " "}
                  {row.refused === null ? row.words : `wanted to ${actWords(row.type)}, and was refused`}
                  {row.via !== null && <span className="text-sm">, by a program, {row.via}</span>}
                  {row.refused && <span className="block text-sm">{row.refused}</span>}
                  {row.inError && <strong className="block">Entered in error.</strong>}
                </td>
                <td className="tag py-1.5 pr-3 whitespace-normal">{row.subject || "–"}</td>
                <td className="num py-1.5 text-sm">
                  {row.seq} <span className="tag">{row.hash.slice(0, 8)}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Pages page={page} pages={pages} link={pageLink} words={["Newer", "Older"]} />
    </div>
  );
}
