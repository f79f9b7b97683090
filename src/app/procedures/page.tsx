import type { Metadata } from "next";
import Link from "next/link";
import { procedureViews } from "@/server/library/procedureView";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { dayAndClock } from "@/ui/text/when";
import { TakeOut } from "@/ui/text/TakeOut";
import { WideTable } from "@/ui/text/WideTable";

export const metadata: Metadata = { title: "Procedures" };

/** The library of isolation procedures: what may be requested by, until when, and what waits for a signature. */
export default async function ProceduresPage() {
  const person = await requirePerson();
  const all = procedureViews(requestTime_ms());
  const timeZone = siteTimeZone();
  return (
    <div className="max-w-6xl px-4 py-4 md:px-5">
      <h1 className="mb-1 text-2xl font-semibold tracking-tight">Isolation procedures</h1>
      <p className="mb-4 max-w-prose">
        How a machine is isolated for the work that comes again. A version is taken from a job that is closed, approved
        by two people, inspected once a year, and judged anew on today&apos;s plant whenever it is used.
      </p>
      <div className="-mt-2 mb-4">
        <TakeOut reader={person} list="procedures" />
      </div>
      {all.length === 0 ? (
        <p>None yet. On the request of a closed job, write it into the library.</p>
      ) : (
        <WideTable label="Isolation procedures">
          <table className="table">
            <thead>
              <tr>
                <th>Procedure</th>
                <th>For</th>
                <th>Equipment</th>
                <th>Version</th>
                <th>Points</th>
                <th>State</th>
                <th>Inspected again by</th>
                <th>
                  <span className="sr-only">What may be done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {all.map(({ number, title, equipment, versions, current }) => {
                const shown = current ?? versions[0]!;
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
    </div>
  );
}
