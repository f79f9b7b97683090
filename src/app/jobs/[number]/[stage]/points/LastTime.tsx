import { Link } from "@/ui/text/Link";
import { holds } from "@/core/plan/onNewPlant";
import type { Plan } from "@/core/plan/plan";
import type { LastTime as Last } from "@/server/job/lastTime";
import { Tags } from "@/ui/text/Tags";
import { Differences } from "./Stale";

/** What was isolated the last time, judged on the plant of today, beside the plan that is shown. */
export function LastTime({ last, plan }: { last: Last; plan: Plan }) {
  const now = plan.points.map(({ device }) => device);
  const onlyNow = now.filter((tag) => !last.points.includes(tag));
  const onlyThen = last.points.filter((tag) => !now.includes(tag));
  const isSound = holds(last.today);
  return (
    <section
      role={isSound ? undefined : "alert"}
      aria-label="As the last time"
      className={`border-l-4 px-3 py-1 ${isSound ? "border-success" : "border-error bg-error/10"}`}
    >
      <p>
        <Link href={`/jobs/${last.job}/points`} className="link">
          As <span className="tag">{last.job}</span>
        </Link>
        , isolation <span className="tag">{last.isolation}</span>:{" "}
        {isSound ? (
          <>
            {last.points.length === 1 ? "its one point" : `its ${last.points.length} points`} would hold today as then.
          </>
        ) : (
          <strong>its points do not hold on the plant of today. Do not isolate by them.</strong>
        )}
      </p>
      {!isSound && <Differences stale={last.today} />}
      {onlyNow.length + onlyThen.length === 0 ? (
        <p className="text-sm">The plan shown has the same points.</p>
      ) : (
        <p className="text-sm">
          {onlyNow.length > 0 && (
            <>
              Only in the plan shown: <Tags tags={onlyNow} />.{" "}
            </>
          )}
          {onlyThen.length > 0 && (
            <>
              Only then: <Tags tags={onlyThen} />.
            </>
          )}
        </p>
      )}
    </section>
  );
}
