import type { Timeline, TimelineModel } from "../../core/schedule/timeline";
import { duration } from "../../core/units/format";
import { dayAndClock, span } from "../text/when";
import { Stopped } from "./Stopped";

type Props = Readonly<{ timeline: Timeline; model: TimelineModel; timeZone: string }>;

/** What people ask of the rest of the day: nobody asks when to begin a shutdown that stands. */
export function AnswersOnceIsolated({ timeline, model, timeZone }: Props) {
  const steps = (count: number) => (count === 1 ? "1 step" : `${count} steps`);
  const isRestoring = model.stage === "restoring";
  const hasPassed = timeline.endWorkBy_ms < timeline.start_ms;
  return (
    <dl className="grid max-w-6xl gap-x-12 gap-y-4 sm:grid-cols-3" aria-live="polite">
      <div>
        <dt className="opacity-85">{isRestoring ? "Work" : "Steps before the work"}</dt>
        <dd className="text-2xl font-semibold" data-answer="before">
          {isRestoring ? "Over" : "All done"}
        </dd>
        <dd>
          {isRestoring && "The permits are over, and it is being restored."}
          {!isRestoring && `${steps(model.done)} done. Whether anybody may work, the permits say. `}
          {!isRestoring && timeline.mayStart_ms === null && (
            <strong>
              As planned, nobody may: <Stopped timeline={timeline} />
            </strong>
          )}
        </dd>
      </div>
      <div>
        {isRestoring ? (
          <>
            <dt className="opacity-85">Back in service, at the earliest</dt>
            <dd className="num text-2xl font-semibold" data-answer="back">
              {dayAndClock(timeline.backAt_ms, timeZone)}
            </dd>
            <dd>
              {timeline.spare_ms < 0 ? (
                <strong>{span(timeline.spare_ms)} after the window.</strong>
              ) : (
                `${span(timeline.spare_ms)} before the window ends`
              )}
            </dd>
          </>
        ) : (
          <>
            <dt className="opacity-85">End the work, at the latest</dt>
            <dd className="num text-2xl font-semibold" data-answer="end-work">
              {dayAndClock(timeline.endWorkBy_ms, timeZone)}
            </dd>
            <dd>
              {hasPassed ? (
                <strong>That is over: it will not be back in its window.</strong>
              ) : (
                <>
                  to be back in the window.{" "}
                  {timeline.spare_ms < 0 &&
                    `From now the whole work would end ${span(timeline.spare_ms)} later than that.`}
                </>
              )}
            </dd>
          </>
        )}
      </div>
      <div>
        <dt className="opacity-85">{isRestoring ? "Left to restore" : "After the work"}</dt>
        <dd className="num text-2xl font-semibold" data-answer="restore">
          {duration(timeline.restore_s)}
        </dd>
        <dd>
          {steps(model.restore.length)} to restore it
          {timeline.watchTo_ms > timeline.workTo_ms &&
            `, after a watch of ${span(timeline.watchTo_ms - timeline.workTo_ms)}`}
          .
        </dd>
      </div>
    </dl>
  );
}
