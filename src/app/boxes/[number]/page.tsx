import type { Metadata } from "next";
import { permitState } from "@/core/words/en/permitState";
import { Link } from "@/ui/text/Link";
import { notFound } from "next/navigation";
import { peopleToChoose } from "@/server/job/jobView";
import { boxView } from "@/server/box/boxView";
import { ownFreeLocks } from "@/server/box/locks";
import { database } from "@/server/db/database";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { StandingLocks } from "@/ui/locks/StandingLocks";
import { isolationState } from "@/core/words/en/notHeld";
import { NotHeldNotice } from "@/ui/walk/NotHeldNotice";
import { dayAndClock } from "@/ui/text/when";
import { WideTable } from "@/ui/text/WideTable";

type Params = { params: Promise<{ number: string }> };

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: `Box ${(await params).number}` };
}

/** One lock box: whose locks hang on it, in which order, since when; which permits; which keys are inside. */
export default async function BoxPage({ params }: Params) {
  const person = await requirePerson();
  const box = boxView((await params).number);
  if (box === null) notFound();
  const timeZone = siteTimeZone();
  const { life } = box;
  const inside = box.keys.filter((key) => key.at === "box");
  return (
    <div className="max-w-6xl px-4 py-4 md:px-5">
      {box.jobs.map((job) => (
        <p key={job.isolation}>
          Lock box of isolation <span className="tag">{job.isolation}</span>,{" "}
          {isolationState(job.state, job.planFault, job.stale)}, for{" "}
          <Link href={`/jobs/${job.number}/walk`} className="link">
            <span className="tag">{job.number}</span> {job.title}
          </Link>
        </p>
      ))}
      <h1 className="mt-1 flex flex-wrap items-baseline gap-x-5 text-3xl font-semibold">
        <span className="tag">{life.number}</span>
        <span className="text-xl">{life.state}</span>
        <a href={`/boxes/${life.number}/paper`} className="link ml-auto pr-1 text-base font-normal">
          Lock-box sheet (PDF)
        </a>
      </h1>
      {box.jobs.map(({ isolation, planFault }) => (
        <NotHeldNotice key={isolation} why={planFault} />
      ))}
      <div className="mt-8 grid gap-x-14 gap-y-10 lg:grid-cols-2">
        <section aria-labelledby="hangs">
          <h2 id="hangs" className="mb-1 text-lg font-semibold">
            Hangs on it now: <span className="num">{box.standing.length + box.on.length}</span>
          </h2>
          <p className="mb-3 text-sm opacity-85">In the order the locks went on. They come off the other way.</p>
          {box.standing.length + box.on.length === 0 ? (
            <p>No lock hangs on it.</p>
          ) : (
            <ol className="border-base-300 divide-base-300 divide-y border-y">
              {box.standing.map((lock) => (
                <Hung
                  key={lock.lock}
                  lock={lock.lock}
                  since={dayAndClock(lock.since_ms, timeZone)}
                  who={lock.person}
                  what={lock.role === "coordinator" ? "coordinator, first on and last off" : "department, over the gap"}
                />
              ))}
              {box.on.map((lock) => (
                <Hung
                  key={`${lock.lock} ${lock.point}`}
                  lock={lock.lock}
                  since={dayAndClock(lock.since_ms, timeZone)}
                  who={lock.person}
                  what={
                    <>
                      <Link href={`/permits/${lock.permit}`} className="link tag">
                        {lock.permit}
                      </Link>
                      {lock.point && (
                        <>
                          , on <span className="tag">{lock.point}</span>
                        </>
                      )}
                    </>
                  }
                />
              ))}
            </ol>
          )}
          <div className="mt-6">
            <StandingLocks
              box={life.number}
              closed={life.state === "closed"}
              standing={box.standing}
              person={{ id: person.id, isCoordinator: person.roles.includes("coordinator") }}
              people={peopleToChoose().map(({ id, name }) => ({ id, name }))}
              own={ownFreeLocks(database(), person.id)}
            />
          </div>
        </section>
        <div className="space-y-10">
          <section aria-labelledby="permits">
            <h2 id="permits" className="mb-2 text-lg font-semibold">
              Permits that hang on it
            </h2>
            {box.permits.length === 0 ? (
              <p>None.</p>
            ) : (
              <ul className="space-y-1">
                {box.permits.map((permit) => (
                  <li key={permit.number}>
                    <Link href={`/permits/${permit.number}`} className="link tag">
                      {permit.number}
                    </Link>
                    , {permitState(permit.state)}, holder {permit.lead}
                  </li>
                ))}
              </ul>
            )}
          </section>
          <section aria-labelledby="keys">
            <h2 id="keys" className="mb-2 text-lg font-semibold">
              Keys inside: <span className="num">{inside.length}</span> of{" "}
              <span className="num">{box.keys.length}</span>
            </h2>
            {box.keys.length === 0 ? (
              <p>No lock of this isolation hangs.</p>
            ) : (
              <WideTable label="Keys">
                <table className="table-sm table">
                  <thead>
                    <tr>
                      <th>Lock</th>
                      <th>Hangs on</th>
                      <th>Its key</th>
                    </tr>
                  </thead>
                  <tbody>
                    {box.keys.map((key) => (
                      <tr key={key.lock}>
                        <td className="tag">
                          <Link href={`/locks?lock=${encodeURIComponent(key.lock)}`} className="link">
                            {key.lock}
                          </Link>
                        </td>
                        <td className="tag">{key.point}</td>
                        <td>{key.at === "box" ? "in the box" : <strong>with {key.by}</strong>}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </WideTable>
            )}
          </section>
        </div>
      </div>
    </div>
  );
}

function Hung({ lock, who, what, since }: { lock: string; who: string; what: React.ReactNode; since: string }) {
  return (
    <li className="grid grid-cols-[5.5rem_1fr] gap-x-4 py-2">
      <span className="tag text-lg">{lock}</span>
      <span>
        <span className="font-medium">{who}</span>, {what}
        <span className="num block text-sm">since {since}</span>
      </span>
    </li>
  );
}
