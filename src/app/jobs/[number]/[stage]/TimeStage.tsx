import { timelineOf } from "@/core/schedule/timeline";
import { figuresFor, setupOf, timelineModelOf } from "@/server/figures/dayView";
import { type JobView } from "@/server/job/jobView";
import { planOf } from "@/server/job/plans";
import { requestTime_ms, shiftHours, siteTimeZone } from "@/server/runtime/siteTime";
import type { Person } from "@/server/people/signIn";
import { AttachedFigures } from "@/ui/bench/AttachedFigures";
import { TimelineWhenShown } from "@/ui/timeline/TimelineWhenShown";

/** How long it all takes, and why. */
export async function TimeStage({ view, person }: { view: JobView; person: Person }) {
  const plan = await planOf(view, "work");
  const model = timelineModelOf(view, plan);
  const setup = setupOf(view);
  if (model.isolate.length === 0 && model.restore.length === 0) return <p>Every step is done.</p>;
  // What is still to do cannot begin before now.
  const start_ms = model.done > 0 ? Math.max(requestTime_ms(), view.windowFrom_ms) : view.windowFrom_ms;
  const timeZone = siteTimeZone();
  return (
    <div className="space-y-10">
      <TimelineWhenShown
        job={view.number}
        model={model}
        saved={setup}
        initial={timelineOf(model, setup, start_ms)}
        permits={view.permits
          .filter((permit) => permit.state !== "cancelled")
          .map((permit) => ({ number: permit.number, from_ms: permit.validFrom_ms, to_ms: permit.validTo_ms }))}
        shiftHours={shiftHours()}
        timeZone={timeZone}
        units={person.units}
        mayChange={
          view.state === "open" && person.roles.some((role) => ["coordinator", "holder", "issuer"].includes(role))
        }
      />
      <AttachedFigures figures={figuresFor({ jobId: view.id })} units={person.units} timeZone={timeZone} />
    </div>
  );
}
