import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { boxesInUse, lockAnswer } from "@/server/box/boxView";
import { mayRead } from "@/core/people/mayRead";
import { requirePerson } from "@/server/people/session";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { TakeOut } from "@/ui/text/TakeOut";
import { dayAndClock } from "@/ui/text/when";

export const metadata: Metadata = { title: "Locks" };

type Params = { searchParams: Promise<{ lock?: string | string[] }> };

/** Whose lock is where, why, since when, and what would happen if it came off. */
export default async function LocksPage({ searchParams }: Params) {
  const person = await requirePerson();
  const { lock } = await searchParams;
  const asked = typeof lock === "string" ? lock.trim().slice(0, 60) : "";
  const answer = asked === "" ? null : lockAnswer(asked);
  const boxes = boxesInUse();
  const timeZone = siteTimeZone();
  return (
    <div className="max-w-5xl space-y-10 px-4 py-4 md:px-5">
      <div>
        <div className="flex flex-wrap items-baseline gap-x-6">
          <h1 className="text-2xl font-semibold tracking-tight">Locks</h1>
          <Link href="/locks/register" className="link">
            Register of locks, earths and instruments
          </Link>
          <TakeOut reader={person} list="locks" words="Take all that hang out as" />
        </div>
        <form action="/locks" role="search" aria-label="Find a lock" className="mt-5 flex flex-wrap items-end gap-3">
          <label className="flex flex-col gap-1 text-sm">
            <span>Lock number</span>
            <input name="lock" defaultValue={asked} autoComplete="off" className="input tag w-44" />
          </label>
          <button type="submit" className="btn btn-primary">
            Where is it?
          </button>
        </form>
      </div>
      {answer && (
        <section aria-label={`Lock ${answer.number}`} className="border-base-content border-t-2 pt-3">
          <h2 className="text-xl font-semibold">
            <span className="tag">{answer.number}</span>{" "}
            {answer.hangs ? `hangs ${answer.hangs}` : answer.owner ? "hangs nowhere" : "is not known here"}
          </h2>
          {(answer.owner || answer.hangs) && (
            <dl className="mt-4 grid gap-x-6 gap-y-3 sm:grid-cols-[9rem_1fr]">
              {answer.owner && <Row label="Belongs to">{answer.owner}</Row>}
              {answer.by && (
                <Row label="Hung by">
                  {answer.by}, <span className="num">{dayAndClock(answer.since_ms ?? 0, timeZone)}</span>
                </Row>
              )}
              {answer.why && (
                <Row label="Why">
                  {answer.why}
                  {answer.job && (
                    <>
                      ,{" "}
                      <Link className="link tag" href={`/jobs/${answer.job}/walk`}>
                        {answer.job}
                      </Link>
                    </>
                  )}
                </Row>
              )}
              {answer.key && <Row label="Its key">{answer.key}</Row>}
              {answer.ifOff.length > 0 && (
                <Row label="If it came off">
                  <ul className="space-y-1">
                    {answer.ifOff.map((sentence) => (
                      <li key={sentence}>{sentence}</li>
                    ))}
                  </ul>
                </Row>
              )}
              <Row label="Its story">
                <Link className="link" href={`/ledger?find=${encodeURIComponent(answer.number)}`}>
                  {mayRead("record", person) ? "every act with it" : "every act of yours with it"}, in the ledger
                </Link>
              </Row>
            </dl>
          )}
        </section>
      )}
      <section aria-labelledby="boxes">
        <h2 id="boxes" className="mb-3 text-lg font-semibold">
          Boxes in use: <span className="num">{boxes.length}</span>
        </h2>
        {boxes.length === 0 ? (
          <p>None. A box comes with every isolation that is approved.</p>
        ) : (
          <ul className="border-base-300 divide-base-300 divide-y border-y">
            {boxes.map((box) => (
              <li key={box.life.number} className="grid gap-x-6 gap-y-1 py-3 md:grid-cols-[7rem_1fr_1fr]">
                <Link href={`/boxes/${box.life.number}`} className="link tag text-lg">
                  {box.life.number}
                </Link>
                <span>
                  {box.life.state}
                  {box.jobs.map((job) => (
                    <span key={job.isolation} className="block text-sm">
                      <span className="tag">{job.number}</span> {job.title}
                    </span>
                  ))}
                </span>
                <span className="text-sm">
                  {box.on.length === 0
                    ? "nobody is on"
                    : `on: ${[...new Set(box.on.map((one) => one.person))].join(", ")}`}
                  <span className="block">
                    {box.standing.length === 0
                      ? "no coordinator's lock"
                      : box.standing.map((one) => `${one.person}, ${one.lock}`).join("; ")}
                  </span>
                </span>
              </li>
            ))}
          </ul>
        )}
      </section>
    </div>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <>
      <dt className="opacity-85">{label}</dt>
      <dd className="max-w-prose">{children}</dd>
    </>
  );
}
