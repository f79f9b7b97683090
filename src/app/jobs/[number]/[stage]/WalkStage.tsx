import { Link } from "@/ui/text/Link";
import type { ReactNode } from "react";
import { isMinor } from "@/core/minor/minorSteps";
import { guideOf } from "@/core/procedure/walkGuide";
import { itemTagOf } from "@/core/procedure/steps";
import { suspects } from "@/core/plan/suspects";
import { isolationState } from "@/core/words/en/notHeld";
import { suspectSentence } from "@/core/words/en/suspects";
import { isDone, openFailures } from "@/core/isolation/failures";
import { shownNow } from "@/core/isolation/failures";
import { overAt_ms, WATCHED } from "@/core/isolation/held";
import type { IsolationLife, WalkStep } from "@/core/isolation/isolation";
import { duration } from "@/core/units/format";
import { stepTimes, type StepTakes } from "@/server/figures/dayView";
import { peopleToChoose, type JobView } from "@/server/job/jobView";
import { lanternOf, planOf, plantOf } from "@/server/job/plans";
import { aloneUnder, heldElsewhere, replanView, temporaryView } from "@/server/isolation/walkView";
import { requestTime_ms, siteTime, siteTimeZone } from "@/server/runtime/siteTime";
import type { Person } from "@/server/people/signIn";
import { Bench } from "@/ui/stage/Bench";
import { LaidLantern } from "./LaidLantern";
import { LocksNotice } from "@/ui/locks/LocksNotice";
import { IsolationReview } from "@/ui/locks/IsolationReview";
import { ProofsDue, ProveAgain } from "@/ui/locks/ProveAgain";
import { TemporaryRestores } from "@/ui/locks/TemporaryRestores";
import { siteField } from "@/ui/text/siteInstant";
import { SwapForm } from "@/ui/job/SwapForm";
import { NotHeldNotice } from "@/ui/walk/NotHeldNotice";
import { Replan } from "@/ui/walk/Replan";
import { BeginAlone } from "@/ui/minor/WhenShown";
import { permitView } from "@/server/permit/permitView";
import { WalkList, type WalkRow } from "@/ui/walk/WalkList";

/** When a wait is over, and whether it is. */
const overBy = (at_ms: number | null, now_ms: number) => (at_ms === null ? null : { at_ms, isOver: at_ms <= now_ms });

/** When the wait of a step that runs is over. */
function overAt(life: Pick<IsolationLife, "steps">, step: WalkStep, takes: StepTakes | undefined): number | null {
  if (takes === undefined) return null;
  const least_s = takes.waits.reduce((sum, { duration_s }) => sum + duration_s, 0);
  return overAt_ms(life, step, { least_s, isAssumed: takes.waits.some(({ assumed }) => assumed.length > 0) });
}

type Props = Readonly<{
  view: JobView;
  person: Person;
  phase: "isolate" | "restore";
  /** What stands before the steps. */
  lead?: ReactNode;
}>;

/** The ordered steps of an isolation or of its return. Steps that may be done now are open; the rest wait. */
export async function WalkStage({ view, person, phase, lead }: Props) {
  const { isolation } = view;
  if (isolation === null) {
    return (
      <p className="p-4">
        Nothing to isolate yet.{" "}
        <Link className="link" href={`/jobs/${view.number}/points`}>
          Approve the points
        </Link>{" "}
        first.
      </p>
    );
  }
  const plan = await planOf(view, "work");
  const { graph } = plantOf(view);
  const lantern = lanternOf(view, plan);
  const timeZone = siteTimeZone();
  const now_ms = requestTime_ms();
  const shown = shownNow(isolation.steps, view.planFault, view.stale);
  const heldBy = heldElsewhere(isolation.number);
  const times = stepTimes(view, plan);
  const itemOf = (place: string) => graph.plant.items[graph.itemByTag.get(itemTagOf(graph, place)) ?? -1];
  const told = isolation.steps.flatMap(({ kind, done }) => (kind === "tell" && done?.evidence?.words) || []);
  const operators =
    isolation.state === "restoring" ? peopleToChoose().filter(({ roles }) => roles.includes("operator")) : [];
  const offeredFor = ({ kind }: WalkStep) =>
    kind === "tell all" ? told : kind === "hand over" ? operators.map(({ name }) => name) : [];
  const rowsOf = (which: "isolate" | "restore" | "test"): WalkRow[] =>
    isolation.steps
      .filter((step) => step.phase === which)
      .map((step) => ({
        // Read at the device, so it does not even come with the page.
        step: { ...step, plate: step.plate === null ? null : "" },
        takes: takesWords(times.get(step.id)),
        over: overBy(overAt(isolation, step, times.get(step.id)), now_ms),
        guide: guideOf(step, itemOf(step.subject)),
        offered: offeredFor(step),
        heldBy: step.kind === "unlock" && which !== "isolate" ? heldBy(step.subject) : [],
        suspects:
          openFailures(step).length === 0 || which === "restore"
            ? []
            : suspects(plan, step.kind === "prove" ? step.subject : null, step.carrier).map(suspectSentence),
      }));
  const people = isolation.steps.some(({ kind }) => WATCHED.has(kind)) ? peopleToChoose() : [];
  const isCoordinator = person.roles.includes("coordinator");
  const alone = isMinor(isolation.steps) ? view.permits.find(({ kind }) => kind === "minor isolation") : undefined;
  // Until their lock was taken off without them, nobody does a step for who works alone.
  const onlyBy = isMinor(isolation.steps) ? aloneUnder(isolation.number) : null;
  const walkList = (which: "isolate" | "restore" | "test") => (
    <WalkList
      isolation={isolation.number}
      rows={rowsOf(which)}
      walking={isolation.state === { isolate: "isolating", restore: "restoring", test: "testing" }[which]}
      doneElsewhere={isolation.steps.filter((step) => step.phase !== which && isDone(step)).map(({ id }) => id)}
      walker={{
        id: person.id,
        name: person.name,
        mayDo:
          (onlyBy === null || onlyBy === person.id) &&
          person.roles.some((role) => role === "isolator" || role === "operator" || role === "coordinator"),
        competences: person.competences,
        roles: person.roles,
        units: person.units,
      }}
      people={people}
      nameOf={view.nameOf}
      timeZone={timeZone}
      page={`/jobs/${view.number}/${phase === "isolate" ? "walk" : "return"}`}
      tagText={`Do not operate. ${view.title} (${view.number}, ${isolation.number}); ${person.name}; until ${siteTime(view.windowTo_ms)}`}
      keeps={which === "isolate"}
      closes={which === "restore" && view.state === "open" && isCoordinator ? view.number : null}
    />
  );
  const replan = phase === "isolate" ? await replanView(view) : null;
  const tests = rowsOf("test");
  const inPhase = isolation.steps.filter((step) => step.phase === phase);
  const doneCount = inPhase.filter(isDone).length;
  return (
    <Bench drawing={<LaidLantern scene={lantern.scene} frames={lantern.frames} now={lantern.now} {...shown} />}>
      {lead}
      <section aria-labelledby="steps" className="min-w-0">
        <div className="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <h2 id="steps" className="flex-1 font-semibold">
            {phase === "isolate" ? "Isolation" : "Restoring"} {isolation.number}:{" "}
            {isolationState(isolation.state, view.planFault, view.stale)}
          </h2>
          <span className="num text-sm">
            {doneCount} of {inPhase.length} steps done
          </span>
        </div>
        <div aria-hidden className="bg-base-300 mb-3 h-1">
          <div
            className="bg-base-content h-1"
            style={{ width: `${(100 * doneCount) / Math.max(1, inPhase.length)}%` }}
          />
        </div>
        <NotHeldNotice why={view.planFault} />
        {replan && (
          <Replan
            isolation={isolation.number}
            view={replan}
            mayApprove={isCoordinator}
            job={view.number}
            until={siteField(view.windowTo_ms, timeZone)}
          />
        )}
        {phase === "isolate" && tests.length > 0 && (
          <>
            <h3 className="mb-2 text-lg font-semibold">Lifted for a test</h3>
            {walkList("test")}
            <h3 className="mt-6 mb-2 text-lg font-semibold">As it was isolated</h3>
          </>
        )}
        {phase === "isolate" && isolation.state === "proven" && (
          <ProofsDue isolation={isolation} stale={view.stale} person={person} />
        )}
        {onlyBy !== null && onlyBy !== person.id && isolation.state !== "restored" && (
          <p className="border-accent my-3 border-l-4 px-3 py-2">
            <strong>{peopleToChoose().find(({ id }) => id === onlyBy)?.name ?? "One person"}</strong> works alone here,
            by the short route: nobody else does these steps or takes the lock off.
          </p>
        )}
        {phase === "isolate" && alone?.state === "checked" && alone.holderId === person.id && (
          <BeginAlone
            permit={alone.number}
            isolation={isolation.number}
            person={person.id}
            open={isolation.steps.filter((one) => one.phase === "isolate" && !isDone(one)).map(({ id }) => id)}
            words={alone.words}
            also={permitView(alone.number, requestTime_ms())?.atOtherWork(person.id) ?? null}
          />
        )}
        {phase === "isolate" && alone?.state === "live" && alone.holderId === person.id && (
          <p className="border-accent my-3 border-l-4 px-3 py-2" data-next="">
            You work alone under <span className="tag">{alone.number}</span>. When it is done:{" "}
            <Link className="link" href={`/jobs/${view.number}/return`}>
              clear, and take your lock off
            </Link>
            .
          </p>
        )}
        {walkList(phase)}
        {phase === "isolate" && (
          <div className="mt-6 flex flex-col gap-3">
            <p className="flex flex-wrap gap-x-5 gap-y-1">
              {(alone ? [] : view.boxes).map((box) => (
                <Link key={box.number} href={`/boxes/${box.number}`} className="link">
                  Group lock box <span className="tag">{box.number}</span>
                </Link>
              ))}
              <a href={`/jobs/${view.number}/tags`} className="link">
                Tag sheet (PDF)
              </a>
              <a href={`/jobs/${view.number}/certificate`} className="link">
                Certificate (PDF)
              </a>
            </p>
            {view.locks?.due_ms != null && (
              <LocksNotice
                job={view.number}
                due_ms={view.locks.due_ms}
                checked_ms={view.locks.checked_ms}
                now_ms={requestTime_ms()}
                missing={view.locks.missing}
                timeZone={timeZone}
              />
            )}
            {view.review && (
              <IsolationReview
                isolation={isolation.number}
                review={view.review}
                mayReview={isCoordinator}
                timeZone={timeZone}
              />
            )}
            {!alone && isolation.state !== "restored" && view.held.length > 0 && (
              <SwapForm isolation={isolation.number} held={view.held} mayDo={person.roles.includes("isolator")} />
            )}
            {isolation.state === "proven" && <ProveAgain isolation={isolation} stale={view.stale} person={person} />}
            {!alone && (
              <TemporaryRestores
                isolation={isolation.number}
                state={isolation.state}
                held={view.held}
                tests={temporaryView(view)}
                person={{ id: person.id, roles: person.roles }}
                timeZone={timeZone}
              />
            )}
          </div>
        )}
      </section>
    </Bench>
  );
}

/** How long the step takes, and which wait decides it. */
function takesWords(time: StepTakes | undefined): string | null {
  if (time === undefined) return null;
  const waits = time.waits.map(
    (wait) =>
      `; ${duration(wait.duration_s)}, ${wait.words}${wait.assumed.length > 0 ? ", on figures that were assumed" : ""}`,
  );
  return `About ${duration(time.hands_s)} of hands${waits.join("")}.`;
}
