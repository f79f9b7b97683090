import Link from "next/link";
import { permitState } from "@/core/words/en/permitState";
import { board, BOARD_PAGE } from "@/server/job/board";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { Pages } from "@/ui/text/Pages";
import { SoftLinks } from "@/ui/text/SoftLinks";
import { dayAndClock } from "@/ui/text/when";
import { WideTable } from "@/ui/text/WideTable";

export const metadata = { title: "Jobs" };

/** Every open job with its next act, those that cannot wait first; then the closed ones of late. */
export default async function JobsPage({ searchParams }: { searchParams: Promise<{ page?: string }> }) {
  const person = await requirePerson();
  const page = Math.max(1, Math.floor(Number((await searchParams).page)) || 1);
  const { open, openCount, closed, hasPlant } = board(requestTime_ms(), page);
  const timeZone = siteTimeZone();
  const mayAsk = person.roles.some((role) => role === "coordinator" || role === "holder" || role === "issuer");
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="mb-4 flex flex-wrap items-baseline gap-4">
        <h1 className="text-2xl font-semibold tracking-tight">Jobs</h1>
        <p className="opacity-85">{openCount === 1 ? "1 open job" : `${openCount} open jobs`}</p>
        {mayAsk && hasPlant && (
          <Link href="/jobs/new" className="btn btn-primary ml-auto">
            New request
          </Link>
        )}
      </div>
      {openCount === 0 && <p>No open jobs. Everything is back in service.</p>}
      {open.length > 0 && (
        <SoftLinks>
          <WideTable label="Open jobs">
            <table className="table">
              <thead>
                <tr>
                  <th>Job</th>
                  <th>Next act</th>
                  <th>Locks</th>
                  <th>People on</th>
                  <th>Permits</th>
                  <th>Window ends</th>
                </tr>
              </thead>
              <tbody>
                {open.map((job) => {
                  const on = job.permits.reduce((sum, permit) => sum + permit.on, 0);
                  return (
                    <tr key={job.number} className="hover:bg-base-200">
                      <td className="min-w-64">
                        <a href={`/jobs/${job.number}`} className="font-medium hover:underline">
                          <span className="tag mr-3">{job.number}</span>
                          {job.title}
                        </a>
                        <span className="tag mt-0.5 block text-sm opacity-85">{job.places.join("  ")}</span>
                      </td>
                      <td className="min-w-56">
                        {job.next && (
                          <a
                            href={`/jobs/${job.number}/${job.next.stage}`}
                            className="link decoration-accent decoration-2 underline-offset-4"
                          >
                            {job.next.urgent && <strong>Now: </strong>}
                            {job.next.words}
                          </a>
                        )}
                        <span className="mt-0.5 block text-sm opacity-85">{job.next?.who.join(" or ")}</span>
                      </td>
                      <td className="num">{job.points === 0 ? "–" : `${job.held.length} of ${job.points}`}</td>
                      <td className="num">{on}</td>
                      <td>
                        {job.permits.length === 0 && "none"}
                        {job.permits.map((permit) => (
                          <a key={permit.number} href={`/permits/${permit.number}`} className="block hover:underline">
                            <span className="tag">{permit.number}</span> {permitState(permit.state)}
                          </a>
                        ))}
                      </td>
                      <td className="num">{dayAndClock(job.windowTo_ms, timeZone)}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </WideTable>
        </SoftLinks>
      )}
      <Pages
        page={page}
        pages={Math.max(1, Math.ceil(openCount / BOARD_PAGE))}
        link={(to) => `/jobs?page=${to}`}
        words={["Before", "Further jobs"]}
      />
      {closed.length > 0 && (
        <section className="mt-10">
          <h2 className="mb-2 font-semibold">Closed</h2>
          <ul>
            {closed.map((job) => (
              <li key={job.number}>
                <Link href={`/jobs/${job.number}`} className="hover:underline">
                  <span className="tag mr-3">{job.number}</span>
                  {job.title}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
