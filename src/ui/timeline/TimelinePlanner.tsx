"use client";

import { useState } from "react";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { Setup } from "../../core/schedule/setup";
import type { Timeline, TimelineModel } from "../../core/schedule/timeline";
import { duration } from "../../core/units/format";
import type { UnitSystem } from "../../core/units/units";
import { ActForm } from "../act/ActForm";
import { dayAndClock, span } from "../text/when";
import { AnswersOnceIsolated } from "./AnswersOnceIsolated";
import { ChainTable } from "./ChainTable";
import { SetupFields } from "./SetupFields";
import { Stopped } from "./Stopped";
import { StepTable } from "./StepTable";
import { TimelineChart } from "./TimelineChart";
import { useTimeline } from "./useTimeline";
import { Walks } from "./Walks";

type Props = Readonly<{
  job: string;
  model: TimelineModel;
  saved: Setup;
  initial: Timeline;
  permits: readonly Readonly<{ number: string; from_ms: number; to_ms: number }>[];
  shiftHours: readonly number[];
  timeZone: string;
  units: UnitSystem;
  /** May keep the set-up with the job; everybody may try. */
  mayChange: boolean;
}>;

/** The day of a job: drag its start, change its hands or its blower, and see what moves. */
export function TimelinePlanner({
  job,
  model,
  saved,
  initial,
  permits,
  shiftHours,
  timeZone,
  units,
  mayChange,
}: Props) {
  const [setup, setSetup] = useState(saved);
  const [start_ms, setStart] = useState(initial.start_ms);
  const [to_ms, setTo] = useState(model.window.to_ms);
  const window = { from_ms: model.window.from_ms, to_ms };
  const { timeline, working, failed } = useTimeline(model, setup, start_ms, window, initial);
  // The same figures, in whatever order they were said.
  const changed = canonicalJson(setup) !== canonicalJson(saved);
  return (
    <div className="space-y-8" aria-busy={working}>
      {model.stage === "isolating" ? (
        <Answers timeline={timeline} timeZone={timeZone} done={model.done} />
      ) : (
        <AnswersOnceIsolated timeline={timeline} model={model} timeZone={timeZone} />
      )}
      {failed && (
        <p role="alert" className="border-error border-l-4 px-3 py-1">
          Trying out does not work in this browser. Save the set-up, and the figures follow.
        </p>
      )}
      <div>
        <TimelineChart
          timeline={timeline}
          stage={model.stage}
          window={window}
          permits={permits}
          shiftHours={shiftHours}
          timeZone={timeZone}
          onStart={setStart}
          onWindowEnd={setTo}
        />
        <p className="mt-2 max-w-5xl text-sm opacity-85">
          Solid or thick: decides when work may start. Thin: may slip as far as its dots. Hatched: a wait. Striped
          ground: outside the window. Upright lines mark shift changes. Where the air is tested again the work stands
          meanwhile. Drag the handles, or use the arrow keys, to move the start and the end of the window.
        </p>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-8 lg:grid-cols-[24rem_minmax(0,1fr)]">
        <section aria-label="Set-up" className="space-y-4">
          <SetupFields model={model} setup={setup} units={units} onChange={setSetup} />
          {!changed && (
            <p className="text-sm opacity-85">This is how it is kept with the job. Change anything to try it.</p>
          )}
          {changed && !mayChange && (
            <p className="text-sm opacity-85">Trying only: a coordinator, holder or issuer can keep it.</p>
          )}
          {changed && mayChange && (
            <ActForm
              key={JSON.stringify(setup)}
              act="job.set-up"
              fixed={{ job, setup }}
              label="Keep the set-up"
              button="Keep this set-up with the job"
              compact
            />
          )}
        </section>
        <ChainTable timeline={timeline} stage={model.stage} />
      </div>
      <StepTable timeline={timeline} timeZone={timeZone} />
      <Walks timeline={timeline} units={units} />
    </div>
  );
}

const BY: Readonly<Record<Timeline["decidedBy"], string>> = {
  physics: "by waiting: no more hands would hurry it",
  crew: "by hands: more people would hurry it",
  handling: "by the handling itself",
};

/** The three things that people ask of a timeline, and why. */
function Answers({ timeline, timeZone, done }: { timeline: Timeline; timeZone: string; done: number }) {
  const late = timeline.spare_ms < 0;
  return (
    <dl className="grid max-w-6xl gap-x-12 gap-y-4 sm:grid-cols-3" aria-live="polite">
      <div>
        <dt className="opacity-85">Work may start, at the earliest</dt>
        {timeline.mayStart_ms === null ? (
          <>
            <dd className="text-2xl font-semibold" data-answer="no-start">
              Not yet
            </dd>
            <dd>
              <Stopped timeline={timeline} />
              The steps would be done by{" "}
              <span className="num" data-answer="steps-done">
                {dayAndClock(timeline.workFrom_ms, timeZone)}
              </span>
              .
            </dd>
          </>
        ) : (
          <>
            <dd className="num text-2xl font-semibold" data-answer="work-from">
              {dayAndClock(timeline.mayStart_ms, timeZone)}
            </dd>
            <dd>
              {duration(timeline.isolate_s)} after{" "}
              {done > 0
                ? `it goes on; ${done === 1 ? "1 step is" : `${done} steps are`} done already`
                : "the shutdown begins"}
            </dd>
          </>
        )}
      </div>
      <div>
        <dt className="opacity-85">{done > 0 ? "Go on with the shutdown" : "Begin the shutdown"}, at the latest</dt>
        <dd className="num text-2xl font-semibold" data-answer="latest-start">
          {dayAndClock(timeline.latestStart_ms, timeZone)}
        </dd>
        <dd>
          {late ? (
            <strong>The window is too short by {span(timeline.spare_ms)}.</strong>
          ) : (
            `to be back in the window; ${span(timeline.spare_ms)} to spare`
          )}
        </dd>
      </div>
      <div>
        <dt className="opacity-85">What decides the start</dt>
        <dd className="text-2xl font-semibold" data-answer="decided-by">
          {timeline.decidedBy === "physics" ? "Physics" : timeline.decidedBy === "crew" ? "Crew" : "Handling"}
        </dd>
        <dd>
          {BY[timeline.decidedBy]}. <span className="num">{span(timeline.physics_s * 1000)}</span> of waiting on the
          critical path, <span className="num">{span(timeline.crewAdds_s * 1000)}</span> for want of hands.
        </dd>
      </div>
    </dl>
  );
}
