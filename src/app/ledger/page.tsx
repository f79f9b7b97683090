import type { Metadata } from "next";
import { ledgerPage, LEDGER_PAGE } from "@/server/ledger/ledgerPage";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { dayAndClock } from "@/ui/text/when";
import { Pages } from "@/ui/text/Pages";
import { WideTable } from "@/ui/text/WideTable";

export const metadata: Metadata = { title: "Ledger" };

export default async function LedgerPage({
  searchParams,
}: {
  searchParams: Promise<{ find?: string; page?: string }>;
}) {
  await requirePerson();
  const { find = "", page: asked } = await searchParams;
  const page = Math.max(1, Math.floor(Number(asked)) || 1);
  const { rows, found, head } = ledgerPage(find, page);
  const pages = Math.max(1, Math.ceil(found / LEDGER_PAGE));
  const timeZone = siteTimeZone();
  const pageLink = (to: number) => `/ledger?${new URLSearchParams({ find, page: String(to) }).toString()}`;
  return (
    <div className="px-4 py-8 md:px-8">
      <h1 className="text-2xl font-semibold tracking-tight">Ledger</h1>
      <p className="mb-6 max-w-prose">
        Every act and every refusal, never changed. <span className="num">{head.seq}</span> rows; each carries the hash
        of the one before, the last is <span className="tag break-all whitespace-normal">{head.hash.slice(0, 16)}</span>
        . <span className="tag">./lantern verify</span> compares it with all that it speaks of.
      </p>
      <form role="search" className="mb-6 flex max-w-xl items-end gap-3" action="/ledger">
        <label className="flex grow flex-col gap-1">
          <span className="text-sm font-medium">Find by number, act, lock or tag</span>
          <input
            name="find"
            type="search"
            defaultValue={find}
            className="input w-full"
            placeholder="P-0001, step.do, G-0104"
          />
        </label>
        <button type="submit" className="btn btn-outline">
          Find
        </button>
      </form>
      {rows.length === 0 ? (
        <p>{find ? `Nothing in the ledger matches “${find}”.` : "The ledger is empty: nothing has been done yet."}</p>
      ) : (
        <WideTable label="Ledger rows">
          <table className="table-sm table">
            <thead>
              <tr>
                <th>Row</th>
                <th>When</th>
                <th>Who</th>
                <th>Act</th>
                <th>About</th>
                <th>What</th>
                <th>Hash</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.seq}>
                  <td className="num">{row.seq}</td>
                  <td className="num">{dayAndClock(row.doneAt, timeZone)}</td>
                  <td className="whitespace-nowrap">{row.by}</td>
                  <td className="whitespace-nowrap">
                    {row.type}
                    {row.outcome === "refused" && <strong className="block">refused</strong>}
                    {row.inError && <strong className="block">entered in error</strong>}
                  </td>
                  <td className="tag">{row.subject || "–"}</td>
                  <td className="min-w-72">
                    {row.sentence && <span className="block">{row.sentence}</span>}
                    <span className="tag text-xs break-words whitespace-normal">{saidIn(row.input)}</span>
                  </td>
                  <td className="tag">{row.hash.slice(0, 8)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </WideTable>
      )}
      <Pages page={page} pages={pages} link={pageLink} words={["Newer", "Older"]} />
    </div>
  );
}

/** Fields that hold ids of people or steps: the columns beside say the same in words. */
const IDS: ReadonlySet<string> = new Set(["crew", "holder", "step", "isolation", "permit"]);

/** What was asked, in short; empty fields left out. */
function saidIn(input: unknown): string {
  return Object.entries(typeof input === "object" && input !== null ? input : {})
    .filter(([key, value]) => value !== null && value !== false && value !== "" && !IDS.has(key))
    .map(([key, value]) => `${key} ${typeof value === "object" ? JSON.stringify(value) : String(value)}`)
    .join(" · ")
    .slice(0, 220);
}
