"use client";

import { useEffect, useRef } from "react";
import type { CrewAtBox, CrewMember } from "./crewAtBox";
import { ActForm } from "../act/ActForm";
import { Field, Tick } from "../act/Field";
import { useFault } from "../act/faults";
import { OfferedNumbers } from "../act/OfferedNumbers";
import { ScanField } from "../act/ScanField";
import { PointLocks } from "../locks/PointLocks";

type One = CrewMember;
type Props = Readonly<{
  view: CrewAtBox;
  round: string;
  lead: string;
  one: One;
  /** What came of it, in words. */
  onDone: (words: string) => void;
}>;

/** One of the crew comes on or goes off, by their own hand, with the leader beside them. */
export function OneOfCrew({ view, round, lead, one, onDone }: Props) {
  const fixed = { permit: view.number, crew: round, who: one.id };
  if (one.on !== null) {
    const left = one.elsewhere === null ? "" : ` Still on ${one.elsewhere}: sign off there before leaving the site.`;
    return (
      <div className="space-y-3">
        <Heading words={`${one.name}, off`} />
        <p>
          Tools out, you are clear. Take your own lock <span className="tag">{one.on.lock}</span> off
          {view.pointsToLock.length > 0 ? " every point." : " the box."}
        </p>
        <ActForm
          act="crew.sign-off"
          label={`Sign ${one.name} off`}
          fixed={fixed}
          button="Sign off, my lock is off"
          tone="strong"
          onDone={() => onDone(`${one.name} is off.${left}`)}
        >
          <OwnPin />
        </ActForm>
      </div>
    );
  }
  return (
    <div className="space-y-3">
      <Heading words={`${one.name}, on`} />
      {one.against !== null && <p className="border-error bg-error/10 border-l-4 px-3 py-2">{one.against}</p>}
      <ActForm
        act="crew.sign-on"
        label={`Sign ${one.name} on`}
        toInput={(fields) => ({
          ...fixed,
          answer: String(fields.get("answer") ?? ""),
          ...(fields.get("briefed") === "on" ? { briefed: true } : {}),
          ...(one.also !== null && fields.get("also") === "on" ? { also: one.also } : {}),
          lock: String(fields.get("lock") ?? ""),
          points: Object.fromEntries(view.pointsToLock.map((tag) => [tag, String(fields.get(`point ${tag}`) ?? "")])),
          whoPin: String(fields.get("whoPin") ?? ""),
        })}
        button="Sign on, my lock is on"
        tone="strong"
        onDone={() => onDone(`${one.name} is on.${one.elsewhere === null ? "" : ` Also on ${one.elsewhere}.`}`)}
      >
        {one.also !== null && (
          <div className="border-warning border-l-4 px-3 py-1">
            <p>
              You are on <span className="tag">{one.also}</span>, at other work.
            </p>
            <Tick name="also" label={`Both holders know that I come and go between ${one.also} and here`} />
          </div>
        )}
        <Places lead={lead} places={view.places} />
        {view.pointsToLock.length === 0 ? (
          <div className="flex flex-wrap items-end gap-x-3 gap-y-1">
            <ScanField name="lock" label="My lock, on the box" scan="Scan the code on the lock" />
            <OfferedNumbers name="lock" numbers={one.own} />
          </div>
        ) : (
          <div className="flex flex-wrap gap-3">
            <PointLocks points={view.pointsToLock} />
          </div>
        )}
        <Tick name="briefed" label="I was told what may be done, its hazards and precautions" />
        <OwnPin />
      </ActForm>
    </div>
  );
}

/** The hand goes on from here: whoever cannot see it hears whose turn it is. */
function Heading({ words }: { words: string }) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  return (
    <h2 ref={heading} tabIndex={-1} className="text-xl font-semibold outline-none">
      {words}
    </h2>
  );
}

/** Asked aloud, and touched: nothing is chosen beforehand, and a wrong answer is refused without the right one. */
function Places({ lead, places }: { lead: string; places: readonly string[] }) {
  const fault = useFault("answer");
  return (
    <fieldset data-field="answer">
      <legend className="mb-1 text-sm font-medium">{lead} asks: where do you work?</legend>
      <div className="flex flex-wrap gap-2">
        {places.map((place) => (
          <label
            key={place}
            className="border-base-content/40 has-checked:border-base-content has-checked:bg-base-200 has-focus-visible:outline-accent flex min-h-11 cursor-pointer items-center gap-2 rounded-sm border px-3 has-focus-visible:outline-3"
          >
            <input type="radio" name="answer" value={place} className="radio radio-sm" />
            <span className="tag">{place}</span>
          </label>
        ))}
      </div>
      {fault && <p className="text-error mt-1 text-sm font-medium">{fault.message}</p>}
    </fieldset>
  );
}

function OwnPin() {
  return (
    <div className="w-36">
      <Field
        label="Your PIN"
        name="whoPin"
        type="password"
        inputMode="numeric"
        autoComplete="off"
        maxLength={20}
        className="num"
      />
    </div>
  );
}
