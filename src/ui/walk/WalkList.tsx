"use client";

import { competenceMissing } from "../../core/procedure/competent";
import { useEffect } from "react";
import { stepLabel } from "../../core/procedure/steps";
import type { Guide } from "../../core/procedure/walkGuide";
import { ASKS_ANOTHER_PLAN } from "../../core/isolation/isolation";
import type { WalkStep } from "../../core/isolation/isolation";
import type { Competence, Role } from "../../core/people/roles";
import type { UnitSystem } from "../../core/units/units";
import { StepForm } from "../job/StepForm";
import { Conflict } from "../offline/Conflict";
import type { KeptAct } from "../offline/keptAct";
import { fetched, stepKey } from "../offline/keptActs";
import { useKeptActs, useSentSteps } from "../offline/useKeptActs";
import { readingUnit } from "../text/reading";
import { clock } from "../text/when";
import { Words } from "../text/Words";
import { mayBeSignedLater } from "../../core/isolation/keepable";
import { BEGUN } from "../../core/isolation/held";
import { asksOf } from "../../core/isolation/stepAsks";
import { isDone, openFailures } from "../../core/isolation/failures";
import { BeginForm } from "./BeginForm";
import { HowTo } from "./HowTo";
import { NotProved } from "./NotProved";
import { CannotForm, FreeForm } from "./CannotForm";

export type WalkRow = Readonly<{
  step: WalkStep;
  /** How long it takes, in words. */
  takes: string | null;
  /** When the wait of a step that is running is over; null where none runs. */
  over: Readonly<{ at_ms: number; isOver: boolean }> | null;
  guide: Guide;
  /** Of a proof that failed: where it may come from, in sentences. */
  suspects: readonly string[];
  /** Other isolations that hold its point: only one's own lock comes off. */
  heldBy: readonly string[];
  /** Words that may be put in by a touch: who was told before, who runs the plant. */
  offered: readonly string[];
}>;

export type Walker = Readonly<{
  id: string;
  name: string;
  mayDo: boolean;
  competences: readonly Competence[];
  roles: readonly Role[];
  units: UnitSystem;
}>;

type Props = Readonly<{
  isolation: string;
  rows: readonly WalkRow[];
  /** Its steps are being done now. */
  walking: boolean;
  /** Ids of steps of other phases that are done. */
  doneElsewhere: readonly string[];
  walker: Walker;
  /** Who may be asked to watch what runs. */
  people: readonly Readonly<{ id: string; name: string }>[];
  nameOf: Readonly<Record<string, string>>;
  timeZone: string;
  page: string;
  /** What is written on every tag. */
  tagText: string;
  /** These steps only record: a device may keep them without a network. */
  keeps: boolean;
  /** The job that this person may close with the last step; null where they may not. */
  closes: string | null;
}>;

type Place = "now" | "unsigned" | "ahead" | "done";

/** What is to be done now stands first, for hand and eye; what was done is read, and not passed on the way to it. */
const GROUPS: readonly Readonly<{ title: string; has: (place: Place) => boolean }>[] = [
  { title: "Now", has: (place) => place === "now" },
  { title: "Done, not signed", has: (place) => place === "unsigned" },
  { title: "To come", has: (place) => place === "ahead" },
  { title: "Done", has: (place) => place === "done" },
];

/** The ordered steps by their numbers. Those that may be done now are open; the rest wait. Works on without a network. */
export function WalkList(props: Props) {
  const { isolation, rows, walking, doneElsewhere, walker, timeZone } = props;
  const kept = useKeptActs().filter((act) => act.input.isolation === isolation);
  const sent = useSentSteps();
  useEffect(
    () => fetched(rows.filter(({ step }) => isDone(step)).map(({ step }) => stepKey(isolation, step.id))),
    [rows, isolation],
  );
  const isSent = (step: WalkStep) => !isDone(step) && sent.has(stepKey(isolation, step.id));
  const keptFor = new Map(kept.map((act) => [String(act.input.step), act]));
  // A kept step counts as done on this device only: the next one opens, and the server decides when it is sent.
  const done = new Set([
    ...doneElsewhere,
    ...rows.filter(({ step }) => isDone(step)).map(({ step }) => step.id),
    ...rows.filter(({ step }) => isSent(step)).map(({ step }) => step.id),
    ...kept.filter((act) => act.type === "step.do" && act.refusal === null).map((act) => String(act.input.step)),
  ]);
  const ids = new Set(rows.map(({ step }) => step.id));
  const lost = kept.filter((act) => act.refusal && act.personId === walker.id && !ids.has(String(act.input.step)));
  const stood = rows.map((row, index) => {
    const isOpen = walking && !isDone(row.step) && row.step.after.every((id) => done.has(id));
    // Signed, and the page has not fetched it yet: nobody does it twice meanwhile.
    if (isSent(row.step)) return { row, index, place: "done" as const };
    const isUnsigned = keptFor.get(row.step.id)?.refusal === null;
    const place: Place = isOpen ? (isUnsigned ? "unsigned" : "now") : isDone(row.step) ? "done" : "ahead";
    return { row, index, place };
  });
  return (
    <>
      {lost.map((act) => (
        <Conflict
          key={act.actId}
          act={act}
          there="The plan has changed; this step is not in it any more."
          timeZone={timeZone}
          mayHangToo={false}
        />
      ))}
      {GROUPS.map(({ title, has }) => {
        const group = stood.filter(({ place }) => has(place));
        if (group.length === 0) return null;
        return (
          <section key={title} aria-label={title} data-next={title === "Now" ? "" : undefined}>
            <h3 className="mt-3 mb-1 text-sm font-semibold">
              {title} <span className="num font-normal">{group.length}</span>
            </h3>
            <ol className="border-base-300 border-t">
              {group.map(({ row, index, place }) => (
                <StepRow
                  key={row.step.id}
                  {...props}
                  row={row}
                  index={index}
                  kept={keptFor.get(row.step.id)}
                  open={place === "now" || place === "unsigned"}
                />
              ))}
            </ol>
          </section>
        );
      })}
    </>
  );
}

function StepRow({
  row: { step, takes, over, guide, suspects, heldBy, offered },
  index,
  open,
  kept,
  isolation,
  walker,
  people,
  nameOf,
  timeZone,
  page,
  tagText,
  keeps,
  closes,
}: Props & { row: WalkRow; index: number; open: boolean; kept: KeptAct | undefined }) {
  const label = stepLabel(step);
  const isWaiting = kept !== undefined && kept.refusal === null;
  const isConflict = kept?.refusal != null && kept.personId === walker.id;
  const fits =
    competenceMissing(step, walker.competences) === null &&
    (step.role === undefined || walker.roles.includes(step.role));
  const wantsCause = openFailures(step).some(({ cause }) => cause === null);
  const mayDo = open && !isWaiting && walker.mayDo;
  return (
    <li
      aria-label={`Step ${index + 1}: ${label}`}
      className={`border-base-300 grid grid-cols-[2.25rem_1fr] gap-x-2 border-b py-3 ${open ? "" : "opacity-90"}`}
    >
      <span className="num pt-0.5">{index + 1}</span>
      <div className="min-w-0">
        <p className={open ? "font-medium" : ""}>
          <Words>{step.words}</Words>
        </p>
        {open && !isWaiting && <HowTo guide={guide} tagText={step.kind === "lock" ? tagText : null} />}
        {!step.done && takes && <p className="text-sm">{takes}</p>}
        {!step.done && (step.begun !== undefined || over !== null) && (
          <p className="my-1">
            {step.begun && (
              <>
                Begun <span className="num">{clock(step.begun.at_ms, timeZone)}</span> by {nameOf[step.begun.by]}
                {step.begun.how && <>, {step.begun.how}</>}.{" "}
                {step.begun.watcher && (
                  <>
                    <strong>{people.find(({ id }) => id === step.begun!.watcher)?.name}</strong> watches it and does
                    nothing else.{" "}
                  </>
                )}
              </>
            )}
            {over !== null && (
              <>
                <strong>
                  {over.isOver ? "Its wait was over at" : "Over at"}{" "}
                  <span className="num">{clock(over.at_ms, timeZone)}</span>
                </strong>
                {over.isOver ? "." : ", not before."}
              </>
            )}
          </p>
        )}
        <StepState
          step={step}
          nameOf={nameOf}
          timeZone={timeZone}
          units={walker.units}
          open={open}
          waiting={isWaiting}
        />
        {open && heldBy.length > 0 && (
          <p className="border-warning my-1 border-l-4 px-3 py-1">
            Only your lock comes off. <span className="tag">{step.subject}</span> stays as it is: {heldBy.join(", ")}{" "}
            still {heldBy.length > 1 ? "hold" : "holds"} it. The last who lets go puts it back.
          </p>
        )}
        {step.failures && (
          <NotProved
            isolation={isolation}
            step={step.id}
            label={label}
            failures={step.failures}
            suspects={suspects}
            nameOf={nameOf}
            timeZone={timeZone}
            mayDo={walker.mayDo}
          />
        )}
        {isWaiting && (
          <p className="text-sm">
            <strong>Done, not signed</strong>, <span className="num">{clock(kept.doneAt_ms, timeZone)}</span>
            {kept.type === "step.cannot" ? ", as what cannot be done" : ""}. Kept on this device; nobody else sees it
            before it is signed.
          </p>
        )}
        {isConflict && (
          <Conflict
            act={kept}
            there={
              kept.refusal?.code === "already done" && !step.done
                ? "Being fetched from the server."
                : thereWords(step, nameOf, timeZone)
            }
            timeZone={timeZone}
            mayHangToo={step.kind === "lock" && step.done !== null}
          />
        )}
        {mayDo && step.stuck && !ASKS_ANOTHER_PLAN.has(step.stuck.why) && (
          <FreeForm isolation={isolation} step={step.id} label={label} />
        )}
        {mayDo && fits && !step.stuck && !isConflict && !wantsCause && (
          <>
            {BEGUN.has(step.kind) && <BeginForm isolation={isolation} step={step} label={label} people={people} />}
            {(!BEGUN.has(step.kind) || step.begun) && (
              <StepForm
                isolation={isolation}
                step={step}
                label={label}
                units={walker.units}
                keep={mayBeSignedLater(step) ? { personId: walker.id, personName: walker.name, page } : null}
                walker={walker}
                offered={offered}
                closes={closes}
              />
            )}
            <CannotForm
              isolation={isolation}
              step={step.id}
              label={label}
              keep={keeps ? { personId: walker.id, personName: walker.name, page } : null}
            />
          </>
        )}
      </div>
    </li>
  );
}

function thereWords(step: WalkStep, nameOf: Readonly<Record<string, string>>, timeZone: string): string {
  if (step.stuck) return `${nameOf[step.stuck.by] ?? "Somebody"} says it cannot be done: ${step.stuck.words}`;
  if (!step.done) return "Not done yet.";
  const by = nameOf[step.done.by] ?? "somebody";
  const lock = step.done.lock ? `, lock ${step.done.lock}` : "";
  return `Done ${clock(step.done.at_ms, timeZone)} by ${by}${lock}.`;
}

function StepState({
  step,
  nameOf,
  timeZone,
  units,
  open,
  waiting,
}: {
  step: WalkStep;
  nameOf: Readonly<Record<string, string>>;
  timeZone: string;
  units: UnitSystem;
  open: boolean;
  waiting: boolean;
}) {
  if (step.done?.skipped) return <p className="text-sm">Was never done, so nothing to undo.</p>;
  if (step.done) {
    const { evidence } = step.done;
    const read = asksOf(step).reading;
    const unit = read ? readingUnit(read.unit, units) : null;
    return (
      <div className="text-sm">
        <p>
          <strong>{openFailures(step).length > 0 ? "Before that" : "Done"}</strong>{" "}
          <span className="num">{clock(step.done.at_ms, timeZone)}</span>, {nameOf[step.done.by]}
          {step.done.lock && (
            <>
              , lock <span className="tag">{step.done.lock}</span>
            </>
          )}
          {step.done.reading !== null && unit && (
            <>
              , read{" "}
              <span className="num">
                {unit.fromLimit(step.done.reading)} {unit.symbol}
              </span>
            </>
          )}
          {evidence?.words && <>. {evidence.words}</>}
          {evidence?.stays && <>. It stays as it is: {evidence.stays.join(", ")} still held it</>}
        </p>
        {evidence?.readings && (
          <p>
            {Object.entries(evidence.readings).map(([pair, volts]) => (
              <span key={pair} className="num mr-3 inline-block">
                <span className="tag">{pair}</span> {volts} V
              </span>
            ))}
            Tester <span className="tag">{evidence.tester}</span>, proved before and after on{" "}
            {evidence.provingUnit ? (
              <span className="tag">{evidence.provingUnit}</span>
            ) : (
              `${evidence.knownSource}, ${evidence.knownSource_V} V`
            )}
            .
          </p>
        )}
        {evidence?.earths && step.kind === "earth" && (
          <p>
            {Object.entries(evidence.earths).map(([number, place]) => (
              <span key={number} className="mr-3 inline-block">
                Earth <span className="tag">{number}</span> at <span className="tag">{place}</span>
              </span>
            ))}
          </p>
        )}
        {evidence?.photo && (
          <a href={`/api/photos/${evidence.photo}`} className="link" target="_blank" rel="noreferrer">
            Picture
          </a>
        )}
      </div>
    );
  }
  if (step.stuck) {
    return (
      <p className="border-warning my-1 border-l-4 pl-3 text-sm">
        <strong>Cannot be done as planned</strong>: {step.stuck.why}, {nameOf[step.stuck.by]},{" "}
        <span className="num">{clock(step.stuck.at_ms, timeZone)}</span>. {step.stuck.words}
      </p>
    );
  }
  if (waiting) return null;
  const needs = step.competence
    ? `Needs ${step.competence}${step.highVoltage ? " and high-voltage" : ""} competence. `
    : step.role
      ? `The ${step.role} signs this. `
      : "";
  const second = step.secondPerson ? "Somebody who did not lock it. " : "";
  return (
    <p className="text-sm">
      {open ? "" : "Waits for the steps before it. "}
      {needs}
      {second}
    </p>
  );
}
