import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { notFound } from "next/navigation";
import { lockedPoints } from "@/core/isolation/lockedPoints";
import { jobView } from "@/server/job/jobView";
import { plantOf } from "@/server/job/plans";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { LockCheck } from "@/ui/locks/LockCheck";
import { RehangForm } from "@/ui/locks/RehangForm";
import { dayAndClock } from "@/ui/text/when";
import { NotHeldNotice } from "@/ui/walk/NotHeldNotice";

type Params = { params: Promise<{ number: string }> };

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: `Locks of ${(await params).number}` };
}

/** A round over the points of an isolation, read off the locks themselves: no number of them stands on this page. */
export default async function LocksPage({ params }: Params) {
  const person = await requirePerson();
  const { number } = await params;
  const view = jobView(number, requestTime_ms());
  const isolation = view?.isolation;
  if (!view || !isolation) notFound();
  const { graph } = plantOf(view);
  const points = lockedPoints(isolation).map(({ subject }) => {
    const item = graph.plant.items[graph.itemByTag.get(subject) ?? -1];
    return { tag: subject, where: [item?.name, item?.area].filter(Boolean).join(", ") };
  });
  const missing = view.locks?.missing ?? [];
  const checked_ms = view.locks?.checked_ms ?? null;
  const walks = person.roles.some((role) => role === "isolator" || role === "operator" || role === "coordinator");
  const isOfCrew = view.holderId === person.id || view.crewIds.includes(person.id);
  const mayRead = walks || isOfCrew;
  const readers = view.locks?.crew ?? [];
  return (
    <div className="max-w-4xl px-4 py-4 md:px-5">
      <p>
        Isolation <span className="tag">{isolation.number}</span>, for{" "}
        <Link href={`/jobs/${view.number}/walk`} className="link">
          <span className="tag">{view.number}</span> {view.title}
        </Link>
      </p>
      <h1 className="mt-1 text-2xl font-semibold">
        Locks on {points.length} {points.length === 1 ? "point" : "points"}
      </h1>
      <p className="mt-1">
        {checked_ms === null ? (
          "Nobody has read them since they were hung."
        ) : (
          <>
            Hung or last read <span className="num">{dayAndClock(checked_ms, siteTimeZone())}</span>.
          </>
        )}{" "}
        {readers.length > 0 && (
          <>
            Of the crew read by{" "}
            {readers.map(({ name, at_ms }, i) => (
              <span key={`${name} ${at_ms}`}>
                {i > 0 && ", "}
                {name} <span className="num">{dayAndClock(at_ms, siteTimeZone())}</span>
              </span>
            ))}
            .
          </>
        )}
      </p>
      <div className="mt-4">
        <NotHeldNotice why={view.planFault} />
      </div>
      {missing.length > 0 && person.roles.includes("isolator") && (
        <section aria-labelledby="again" className="mb-6">
          <h2 id="again" className="mb-1 text-lg font-semibold">
            Hung again
          </h2>
          <p className="mb-3 max-w-prose">
            Find out what became of it first. Then hang a lock; somebody else reads it there, and what was proved before
            is proved again.
          </p>
          {missing.map((point) => (
            <RehangForm key={point} isolation={isolation.number} point={point} />
          ))}
        </section>
      )}
      {points.length === 0 ? (
        <p>No point of it is locked.</p>
      ) : mayRead ? (
        <section aria-labelledby="read">
          <h2 id="read" className="mb-1 text-lg font-semibold">
            What hangs there
          </h2>
          <p className="mb-3 max-w-prose">
            Go to every point and write down what stands on its lock. What is not the number on record counts as no
            lock: work stops, and another person looks.
          </p>
          <LockCheck isolation={isolation.number} job={view.number} points={points} />
        </section>
      ) : (
        <p>An isolator, an operator, a coordinator, or who works behind them reads them.</p>
      )}
    </div>
  );
}
