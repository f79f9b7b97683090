import { Link } from "@/ui/text/Link";
import type { NotHeld } from "@/core/refusal/notHeld";
import { DECIDE_CONFLICTS } from "@/core/conflict/decision";
import { missing } from "@/core/muster/muster";
import { duration } from "@/core/units/format";
import { boardPage } from "@/server/board/boardPage";
import { database } from "@/server/db/database";
import { openMusters } from "@/server/muster/musterStore";
import { requirePerson } from "@/server/people/session";
import { bypasses } from "@/server/permit/permitRegister";
import { clockStep_ms, now_ms } from "@/server/runtime/clock";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { ActForm } from "@/ui/act/ActForm";
import { Field } from "@/ui/act/Field";
import { BoardBench, type BoardData } from "@/ui/board/BoardBench";
import { StopAll } from "@/ui/board/StopAll";
import { dayAndClock } from "@/ui/text/when";
import "@/ui/board/board.css";

/** The whole site's day in one picture; what cannot wait stands above it. */
export default async function BoardPage({ searchParams }: { searchParams: Promise<{ at?: string }> }) {
  const person = await requirePerson();
  const now = requestTime_ms();
  const asked = Number((await searchParams).at);
  const middle_ms = Number.isFinite(asked) && asked > 0 && asked < MOST_MS ? asked : now;
  const { openJobs, hasPlant, alarms, ...page } = boardPage(person, middle_ms, now);
  const bypassed = bypasses(now);
  const timeZone = siteTimeZone();
  const step_ms = clockStep_ms(database(), now_ms());
  const mayAsk = person.roles.some((role) => role === "coordinator" || role === "holder" || role === "issuer");
  return (
    <>
      <h1 className="sr-only">Board</h1>
      {!hasPlant && (
        <p className="border-accent mx-4 max-w-prose border-l-4 px-4 py-2">
          There is no plant register yet.{" "}
          <Link className="link" href="/plant/import">
            Import one
          </Link>{" "}
          before asking for a job.
        </p>
      )}
      {step_ms !== null && (
        <div role="alert" className="border-error bg-error/10 mx-4 mb-2 border-l-4 px-4 py-3 lg:flex lg:gap-10">
          <p className="max-w-prose">
            <strong>The server&apos;s clock was at least {duration(Math.floor(step_ms / 60_000) * 60)} ahead.</strong>{" "}
            Acts stand still at the time of the last one until it has caught up, or until a coordinator says that it is
            right now. Then every live permit is stopped, and what was proved, read, purged or watched before is done
            again: nobody knows how long ago it was.
          </p>
          {person.roles.includes("coordinator") && (
            <ActForm act="clock.settle" label="The clock is right" pin button="It is right now" compact>
              <Field label="Compared with" name="words" maxLength={200} />
            </ActForm>
          )}
        </div>
      )}
      {openMusters(database()).map((muster) => (
        <p key={muster.number} role="alert" className="band band-stopped px-4 py-2">
          <strong>All work {muster.area === "" ? "on the site" : `at ${muster.area}`} is stopped:</strong>{" "}
          {muster.reason}.{" "}
          {missing(muster).length === 0
            ? "Everybody was seen."
            : `${missing(muster).length} of ${muster.people.length} not seen.`}{" "}
          <Link className="link font-semibold" href={`/muster/${muster.number}`}>
            Muster {muster.number}
          </Link>
        </p>
      ))}
      {alarms.map(({ number, why }) => (
        <p key={number} role="alert" className="border-error bg-error/10 mx-4 mb-2 max-w-prose border-l-4 px-4 py-2">
          <StandingAlarm job={number} why={why} />
        </p>
      ))}
      {bypassed.map((one) => (
        <p key={one.permit} className="border-warning mx-4 mb-2 max-w-prose border-l-4 px-4 py-2">
          <strong>{one.safeguard} is bypassed</strong> under{" "}
          <Link className="link tag" href={`/permits/${one.permit}`}>
            {one.permit}
          </Link>
          . {one.owner} answers for it, {one.overdue ? "overdue since" : "back by"}{" "}
          <span className="num">{dayAndClock(one.until_ms, timeZone)}</span>.
        </p>
      ))}
      {hasPlant && (
        <BoardBench
          key={middle_ms === now ? "now" : middle_ms}
          data={JSON.stringify(page satisfies BoardData)}
          now_ms={now}
          timeZone={timeZone}
          mayDecide={DECIDE_CONFLICTS.some((role) => person.roles.includes(role))}
        >
          <Link href="/jobs" className="link">
            {openJobs === 1 ? "1 open job" : `${openJobs} open jobs`}
          </Link>
          <StopAll areas={[...new Set(page.areas.map(({ name }) => name))].sort()} />
          <Link href="/handover" className="link">
            Shift handover
          </Link>
          {mayAsk && (
            <Link href="/jobs/new" className="btn btn-primary btn-sm">
              New request
            </Link>
          )}
        </BoardBench>
      )}
    </>
  );
}

/** No date is later than this. */
const MOST_MS = 8.64e15;

/** Why nobody may count on the isolation of a job, and where more is to be seen. */
function StandingAlarm({ job, why }: { job: string; why: NotHeld }) {
  const points = (
    <Link className="link" href={`/jobs/${job}/points`}>
      See what changed
    </Link>
  );
  switch (why.code) {
    case "not proven":
      return null;
    case "plan fell":
      return (
        <>
          <strong>Stop job {job}:</strong> the plant changed, and its points no longer hold. {points}
        </>
      );
    case "not judged":
      return (
        <>
          <strong>Hold job {job}:</strong> the plant changed, and its points are being judged anew. Until that is done
          nobody may count on them. {points}
        </>
      );
    case "locks not found":
      return (
        <>
          <strong>Stop job {job}:</strong> the lock was not found on {why.points.join(" and ")}.{" "}
          <Link className="link" href={`/jobs/${job}/locks`}>
            Its locks
          </Link>
        </>
      );
  }
}
