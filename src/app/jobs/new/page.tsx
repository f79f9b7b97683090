import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { redirect } from "next/navigation";
import { HOWS } from "@/core/request/jobFile";
import { jobView, peopleToChoose } from "@/server/job/jobView";
import { procedureViews } from "@/server/library/procedureView";
import { allPlaces } from "@/server/plant/register";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, shiftChanges, siteTimeZone } from "@/server/runtime/siteTime";
import { PROFILES } from "@/core/requirement/profiles";
import { AskForm } from "@/ui/job/AskForm";
import { siteField } from "@/ui/text/siteInstant";

export const metadata: Metadata = { title: "New request" };

export default async function NewJobPage({
  searchParams,
}: {
  searchParams: Promise<{ like?: string; procedure?: string }>;
}) {
  await requirePerson();
  const { like: asked, procedure: wanted } = await searchParams;
  const now_ms = requestTime_ms();
  const library = procedureViews(now_ms).filter(({ current }) => current !== null && current.unusable === null);
  const procedure = library.find(({ number }) => number === wanted) ?? null;
  const like = (asked ?? procedure?.current?.job) ? jobView(asked ?? procedure!.current!.job, now_ms) : null;
  const places = allPlaces();
  if (places.length === 0) redirect("/plant/import");
  return (
    <div className="max-w-4xl px-4 py-4 md:px-5">
      <h1 className="mb-2 text-2xl font-semibold tracking-tight">New request</h1>
      {procedure ? (
        <p className="mb-4 max-w-prose">
          By{" "}
          <Link href={`/procedures/${procedure.number}`} className="link tag">
            {procedure.number}
          </Link>{" "}
          version <span className="num">{procedure.current!.life.version}</span>, {procedure.title}. Its points are
          judged on the plant of today, and what is otherwise is shown; other work locations or rules are other work.
        </p>
      ) : (
        library.length > 0 && (
          <p className="mb-4">
            By a procedure:{" "}
            {library.map(({ number, title }) => (
              <Link key={number} href={`/jobs/new?procedure=${number}`} className="link mr-4">
                <span className="tag">{number}</span> {title}
              </Link>
            ))}
          </p>
        )
      )}
      {like && !procedure && (
        <p className="mb-4 max-w-prose">
          As <span className="tag">{like.number}</span> was. Everything of it can be changed. Its points are judged on
          the plant of today, and what differs is shown.
        </p>
      )}
      <AskForm
        window={offeredWindow(now_ms)}
        procedure={procedure?.number}
        places={places}
        people={peopleToChoose()}
        hows={HOWS}
        profiles={PROFILES.map(({ id, name }) => ({ id, name }))}
        like={
          like
            ? {
                job: like.number,
                title: procedure?.title ?? like.title,
                work: like.work,
                faces: like.job.faces,
                profile: like.job.profile,
                longerThanShift: like.job.longerThanShift,
                from: "",
                to: "",
                holder: like.holderId,
                crew: like.crewIds,
              }
            : undefined
        }
      />
    </div>
  );
}

/** From now to the next shift change that leaves time to work; the day after where the site has no shifts. */
function offeredWindow(now_ms: number): { from: string; to: string } {
  const LEAST_MS = 2 * 3_600_000;
  const to_ms = shiftChanges(now_ms + LEAST_MS, now_ms + DAY_MS)[0] ?? now_ms + DAY_MS;
  const field = (at_ms: number) => siteField(at_ms, siteTimeZone());
  return { from: field(now_ms), to: field(to_ms) };
}
const DAY_MS = 86_400_000;
