import type { Metadata } from "next";
import { storeLines } from "@/server/figures/dayView";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { CountForm } from "@/ui/store/CountForm";
import { dayAndClock } from "@/ui/text/when";
import { TakeOut } from "@/ui/text/TakeOut";
import { WideTable } from "@/ui/text/WideTable";

export const metadata: Metadata = { title: "Store" };

/** What the store has, as last counted. */
export default async function StorePage() {
  const person = await requirePerson();
  const lines = storeLines();
  const timeZone = siteTimeZone();
  const mayCount = person.roles.some((role) => role === "coordinator" || role === "operator");
  return (
    <div className="px-4 py-4 md:px-5">
      <h1 className="text-2xl font-semibold tracking-tight">Store</h1>
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
      ) : (
        <WideTable label="The store">
          <table className="mt-6 table max-w-4xl">
            <thead>
              <tr>
                <th>Thing</th>
                <th>Size</th>
                <th className="text-right">Count</th>
                <th>Counted</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((line) => (
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
    </div>
  );
}
