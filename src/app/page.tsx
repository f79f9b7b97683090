import { permitState } from "@/core/words/en/permitState";
import Link from "next/link";
import { board, BOARD_PAGE } from "@/server/job/board";
import { bypasses } from "@/server/permit/permitRegister";
import { duration } from "@/core/units/format";
import { database } from "@/server/db/database";
import { clockStep_ms, now_ms } from "@/server/runtime/clock";
import { ActForm } from "@/ui/act/ActForm";
import { Field } from "@/ui/act/Field";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { Pages } from "@/ui/text/Pages";
import { SoftLinks } from "@/ui/text/SoftLinks";
import { dayAndClock } from "@/ui/text/when";
import { WideTable } from "@/ui/text/WideTable";

export default async function BoardPage({ searchParams }: { searchParams: Promise<{ page?: string }> }) {
  const person = await requirePerson();
  const page = Math.max(1, Math.floor(Number((await searchParams).page)) || 1);
  const { open, openCount, closed, hasPlant, alarms } = board(requestTime_ms(), page);
  const bypassed = bypasses(requestTime_ms());
  const timeZone = siteTimeZone();
  const step_ms = clockStep_ms(database(), now_ms());
  const mayAsk = person.roles.some((role) => role === "coordinator" || role === "holder" || role === "issuer");
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="mb-6 flex flex-wrap items-baseline gap-4">
        <h1 className="text-2xl font-semibold tracking-tight">Board</h1>
        <p className="opacity-85">{openCount === 1 ? "1 open job" : `${openCount} open jobs`}</p>
        <Link href="/handover" className="link">
          Shift handover
        </Link>
        {mayAsk && hasPlant && (
          <Link href="/jobs/new" className="btn btn-primary ml-auto">
            New request
          </Link>
        )}
      </div>
      {!hasPlant && (
        <p className="border-accent max-w-prose border-l-4 px-4 py-2">
          There is no plant register yet.{" "}
          <Link className="link" href="/plant/import">
            Import one
          </Link>{" "}
          before asking for a job.
        </p>
      )}
      {step_ms !== null && (
        <div role="alert" className="border-error bg-error/10 mb-4 max-w-prose border-l-4 px-4 py-3">
          <p>
            <strong>The server&apos;s clock was {duration(step_ms / 1000)} ahead.</strong> Acts stand still at the time
            of the last one until it has caught up, or until a coordinator says that it is right now. Then every live
            permit is stopped, and what was timed is looked at again.
          </p>
          {person.roles.includes("coordinator") && (
            <ActForm act="clock.settle" label="The clock is right" pin button="It is right now" compact>
              <Field label="Compared with" name="words" maxLength={200} />
            </ActForm>
          )}
        </div>
      )}
      {alarms.map(({ number, is }) => (
        <p key={number} role="alert" className="border-error bg-error/10 mb-4 max-w-prose border-l-4 px-4 py-2">
          {is === "broken" ? (
            <>
              <strong>Stop job {number}:</strong> the plant changed, and its points no longer hold.{" "}
            </>
          ) : (
            <>
              <strong>Hold job {number}:</strong> the plant changed, and its points are being judged anew. Until that is
              done nobody may count on them.{" "}
            </>
          )}
          <Link className="link" href={`/jobs/${number}/points`}>
            See what changed
          </Link>
        </p>
      ))}
      {bypassed.map((one) => (
        <p key={one.permit} className="border-warning mb-4 max-w-prose border-l-4 px-4 py-2">
          <strong>{one.safeguard} is bypassed</strong> under{" "}
          <Link className="link tag" href={`/permits/${one.permit}`}>
            {one.permit}
          </Link>
          . {one.owner} answers for it, {one.overdue ? "overdue since" : "back by"}{" "}
          <span className="num">{dayAndClock(one.until_ms, timeZone)}</span>.
        </p>
      ))}
      {hasPlant && openCount === 0 && <p>No open jobs. Everything is back in service.</p>}
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
        link={(to) => `/?page=${to}`}
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
