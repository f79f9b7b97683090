import Link from "next/link";
import { exchangesOf } from "@/server/queries/boxView";
import { peopleToChoose, type JobView } from "@/server/queries/jobView";
import { siteTimeZone } from "@/server/siteTime";
import type { Person } from "@/server/signIn";
import { CrewForm } from "@/ui/job/CrewForm";
import { Exchanges } from "@/ui/locks/ExchangeForm";
import { PermitDraftForm } from "@/ui/job/PermitDraftForm";
import { dayAndClock } from "@/ui/text/when";

export function PermitsStage({ view, person }: { view: JobView; person: Person }) {
  const timeZone = siteTimeZone();
  const mayWrite = person.roles.some((role) => role === "coordinator" || role === "issuer" || role === "holder");
  const standing = view.isolation && view.isolation.state !== "restored" && view.isolation.state !== "restoring";
  return (
    <div className="space-y-10">
      <section>
        <h2 className="mb-2 text-lg font-semibold">Permits of this job</h2>
        {view.permits.length === 0 ? (
          <p>None yet.</p>
        ) : (
          <table className="table max-w-4xl">
            <thead>
              <tr>
                <th>Permit</th>
                <th>State</th>
                <th>Signed on</th>
                <th>Runs out</th>
                <th>Work</th>
              </tr>
            </thead>
            <tbody>
              {view.permits.map((permit) => (
                <tr key={permit.number}>
                  <td>
                    <Link href={`/permits/${permit.number}`} className="tag link">
                      {permit.number}
                    </Link>
                  </td>
                  <td>{permit.runOut && permit.state === "live" ? <strong>run out</strong> : permit.state}</td>
                  <td className="num">{permit.on}</td>
                  <td className="num">{dayAndClock(permit.validTo_ms, timeZone)}</td>
                  <td>{permit.words}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      <section className="grid gap-10 lg:grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)]">
        <div>
          <h2 className="mb-3 text-lg font-semibold">Write a permit</h2>
          {!standing && (
            <p>
              A permit stands on an isolation.{" "}
              <Link className="link" href={`/jobs/${view.number}/points`}>
                Approve the points
              </Link>{" "}
              first.
            </p>
          )}
          {standing && !mayWrite && <p>The holder, an issuer or a coordinator writes the permit.</p>}
          {standing && mayWrite && (
            <PermitDraftForm
              job={view.number}
              words={view.work}
              holder={view.holderId}
              leads={peopleToChoose().filter(({ roles }) => roles.includes("holder"))}
            />
          )}
        </div>
        <div>
          <Crew view={view} mayChange={mayWrite} />
          <Exchanges
            job={view.number}
            exchanges={exchangesOf(view.number)}
            mayExchange={person.roles.includes("coordinator")}
            timeZone={timeZone}
          />
          <h2 className="mt-8 mb-3 text-lg font-semibold">Lock box</h2>
          {view.boxes.length === 0 && <p>None yet: it comes with the isolation.</p>}
          {view.boxes.map((box) => (
            <div key={box.number}>
              <p>
                Box{" "}
                <Link href={`/boxes/${box.number}`} className="tag link">
                  {box.number}
                </Link>
                , {box.state}
              </p>
              {box.locks.length === 0 ? (
                <p className="mt-1">No personal lock hangs on it.</p>
              ) : (
                <ol className="mt-2 space-y-1">
                  {box.locks.map((lock) => (
                    <li key={lock.lock}>
                      <span className="tag mr-3">{lock.lock}</span>
                      {lock.person}, since {dayAndClock(lock.onAt, timeZone)}
                    </li>
                  ))}
                </ol>
              )}
            </div>
          ))}
        </div>
      </section>
    </div>
  );
}

/** Who may sign on. */
function Crew({ view, mayChange }: { view: JobView; mayChange: boolean }) {
  return (
    <section aria-label="Crew">
      <h2 className="mb-2 text-lg font-semibold">Crew</h2>
      <p>{view.crew.length === 0 ? "Nobody is named." : view.crew.join(", ")}</p>
      {mayChange && view.state === "open" && (
        <CrewForm
          job={view.number}
          crew={view.crewIds}
          people={peopleToChoose().map(({ id, name }) => ({ id, name }))}
        />
      )}
    </section>
  );
}
