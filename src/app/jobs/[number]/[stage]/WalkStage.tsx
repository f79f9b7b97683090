import Link from "next/link";
import { stepLabel } from "@/core/isolation/steps";
import type { WalkStep } from "@/core/locks/isolationLife";
import { duration } from "@/core/units/format";
import { stepTimes, type StepTakes } from "@/server/queries/dayView";
import { lanternOf, planOf, type JobView } from "@/server/queries/jobView";
import { siteTimeZone } from "@/server/siteTime";
import type { Person } from "@/server/signIn";
import { Lantern } from "@/ui/lantern/Lantern";
import { readingUnit } from "@/ui/text/reading";
import { clock } from "@/ui/text/when";
import type { UnitSystem } from "@/core/units/units";
import { StepForm } from "@/ui/job/StepForm";
import { IsolationReview } from "@/ui/locks/IsolationReview";
import { SwapForm } from "@/ui/job/SwapForm";

type Props = Readonly<{ view: JobView; person: Person; phase: "isolate" | "restore" }>;

/** The ordered steps of an isolation or of its return. Steps that may be done now are open; the rest wait. */
export function WalkStage({ view, person, phase }: Props) {
  const { isolation } = view;
  if (isolation === null) {
    return (
      <p>
        Nothing to walk yet.{" "}
        <Link className="link" href={`/jobs/${view.number}/points`}>
          Approve the points
        </Link>{" "}
        first.
      </p>
    );
  }
  const lantern = lanternOf(view, planOf(view, "work"));
  const steps = isolation.steps.filter((step) => step.phase === phase);
  const done = new Set(isolation.steps.filter((step) => step.done).map((step) => step.id));
  const walking = isolation.state === (phase === "isolate" ? "isolating" : "restoring");
  const proven = isolation.steps.filter((step) => step.kind === "prove" && step.done).map((step) => step.subject);
  const mayDo = person.roles.some((role) => role === "isolator" || role === "operator" || role === "coordinator");
  const times = stepTimes(view, planOf(view, "work"));
  const open = (step: WalkStep) => walking && !step.done && step.after.every((id) => done.has(id));
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <section aria-labelledby="steps" className="order-2 lg:order-1">
        <div className="mb-3 flex flex-wrap items-baseline gap-4">
          <h2 id="steps" className="text-lg font-semibold">
            {phase === "isolate" ? `Isolation ${isolation.number}` : `Return of ${isolation.number}`}: {isolation.state}
          </h2>
          {phase === "isolate" && (
            <a href={`/jobs/${view.number}/tags`} className="link">
              Tag sheet (PDF)
            </a>
          )}
        </div>
        {phase === "isolate" && view.review && (
          <IsolationReview
            isolation={isolation.number}
            review={view.review}
            mayReview={person.roles.includes("coordinator")}
            timeZone={siteTimeZone()}
          />
        )}
        {phase === "isolate" && isolation.state !== "restored" && view.held.length > 0 && (
          <SwapForm isolation={isolation.number} held={view.held} mayDo={person.roles.includes("isolator")} />
        )}
        <ol className="border-base-300 border-t">
          {steps.map((step, index) => (
            <li
              key={step.id}
              aria-label={`Step ${index + 1}: ${stepLabel(step)}`}
              className={`border-base-300 grid grid-cols-[2.25rem_1fr] gap-x-2 border-b py-3 ${open(step) ? "" : "opacity-90"}`}
            >
              <span className="num pt-0.5">{index + 1}</span>
              <div>
                <p className={open(step) ? "font-medium" : ""}>{step.words}</p>
                {!step.done && <Takes time={times.get(step.id)} />}
                <StepState step={step} view={view} open={open(step)} units={person.units} />
                {open(step) && mayDo && (
                  <StepForm
                    isolation={isolation.number}
                    step={step}
                    label={stepLabel(step)}
                    mayDo={competent(person, step)}
                    units={person.units}
                  />
                )}
              </div>
            </li>
          ))}
        </ol>
      </section>
      <div className="order-1 lg:order-2">
        <div className="lg:sticky lg:top-4">
          <Lantern scene={lantern.scene} frames={lantern.frames} now={lantern.now} proven={proven} height={520} />
        </div>
      </div>
    </div>
  );
}

function StepState({ step, view, open, units }: { step: WalkStep; view: JobView; open: boolean; units: UnitSystem }) {
  if (step.done?.skipped) return <p className="text-sm">Was never done, so nothing to undo.</p>;
  if (step.done) {
    return (
      <p className="text-sm">
        <strong>Done</strong> <span className="num">{clock(step.done.at_ms, siteTimeZone())}</span>,{" "}
        {view.nameOf[step.done.by]}
        {step.done.lock && (
          <>
            , lock <span className="tag">{step.done.lock}</span>
          </>
        )}
        {step.done.reading !== null && step.limit && (
          <>
            , read{" "}
            <span className="num">
              {readingUnit(step.limit.unit, units).fromLimit(step.done.reading)}{" "}
              {readingUnit(step.limit.unit, units).symbol}
            </span>
          </>
        )}
      </p>
    );
  }
  const needs = step.competence ? `Needs ${step.competence} competence.` : "";
  return <p className="text-sm">{open ? needs : `Waits for the steps before it. ${needs}`}</p>;
}

/** How long the step takes, and which wait decides it. */
function Takes({ time }: { time: StepTakes | undefined }) {
  if (time === undefined) return null;
  return (
    <p className="text-sm">
      About <span className="num">{duration(time.hands_s)}</span> of hands
      {time.waits.map((wait) => (
        <span key={wait.words}>
          ; <strong className="num">{duration(wait.duration_s)}</strong>, {wait.words}
          {wait.assumed.length > 0 && ", on figures that were assumed"}
        </span>
      ))}
      .
    </p>
  );
}

function competent(person: Person, step: WalkStep): boolean {
  return step.competence === null || person.competences.includes(step.competence);
}
