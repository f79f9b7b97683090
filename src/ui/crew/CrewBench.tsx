"use client";

import { useState } from "react";
import type { CrewAtBox } from "./crewAtBox";
import { clock } from "../text/when";
import { CrewList } from "./CrewList";
import { LeaveBox } from "./LeaveBox";
import { OneOfCrew } from "./OneOfCrew";
import { RollCall } from "./RollCall";

type Props = Readonly<{
  view: CrewAtBox;
  round: Readonly<{ number: string }>;
  /** Who stands by. */
  lead: string;
  timeZone: string;
  signOut: () => Promise<void>;
}>;
type Shown = Readonly<{ what: "nobody" | "roll" | "end" } | { what: "one"; id: string }>;

/** The screen at the box: everybody of the crew on the left, the one who signs, or the leader, on the right. */
export function CrewBench({ view, round, lead, timeZone, signOut }: Props) {
  const [shown, setShown] = useState<Shown>({ what: "nobody" });
  const [said, setSaid] = useState("");
  const one = shown.what === "one" ? view.crew.find(({ id }) => id === shown.id) : undefined;
  const isOn = view.crew.filter(({ on }) => on !== null).length;
  const done = (words: string) => {
    setSaid(words);
    setShown({ what: "nobody" });
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] lg:h-[calc(100dvh-8rem)] lg:grid-cols-[26rem_minmax(0,1fr)]">
      <CrewList
        crew={view.crew}
        lead={view.lead}
        chosen={one?.id ?? null}
        timeZone={timeZone}
        onChoose={(id) => {
          setSaid("");
          setShown({ what: "one", id });
        }}
      />
      <section
        aria-label="Signing"
        className={`min-w-0 space-y-5 overflow-y-auto px-4 py-4 md:px-6 ${shown.what === "nobody" && said === "" ? "" : "max-lg:order-first"}`}
      >
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <p className="mr-auto">
            On now: <strong className="num text-lg">{isOn}</strong> of <span className="num">{view.crew.length}</span>
          </p>
          <button type="button" className="btn btn-outline" onClick={() => setShown({ what: "roll" })}>
            Call the roll
          </button>
          <button type="button" className="btn btn-outline" onClick={() => setShown({ what: "end" })}>
            End the round
          </button>
        </div>
        <p role="status" className={said === "" ? "sr-only" : "border-success border-l-4 px-3 py-2 text-lg"}>
          {said}
        </p>
        {view.missing && (
          <p className="border-error bg-error/10 border-l-4 px-3 py-2">
            <strong>Not seen at the roll-call of {clock(view.missing.at_ms, timeZone)}:</strong>{" "}
            {view.missing.names.join(", ")}. Look for them; their locks still hang.
          </p>
        )}
        {one && <OneOfCrew key={one.id} view={view} round={round.number} lead={lead} one={one} onDone={done} />}
        {shown.what === "roll" && <RollCall view={view} round={round.number} onDone={done} />}
        {shown.what === "end" && <LeaveBox view={view} round={round.number} lead={lead} signOut={signOut} />}
        {shown.what === "nobody" && <Briefing view={view} lead={lead} />}
      </section>
    </div>
  );
}

/** What the leader reads out, before the first of the crew signs. */
function Briefing({ view, lead }: { view: CrewAtBox; lead: string }) {
  return (
    <div className="max-w-prose space-y-3">
      <h2 className="text-xl font-semibold">Touch your name</h2>
      <p>
        {lead} stands by and asks each of you where the work is. Bring your own lock and your own PIN. Sign off here as
        well before you leave.
      </p>
      <dl className="grid gap-x-5 gap-y-2 sm:grid-cols-[8rem_1fr]">
        <dt>Permitted work</dt>
        <dd>
          <strong>{view.words}</strong>
        </dd>
        <dt>Hazards</dt>
        <dd>{view.hazards}</dd>
        <dt>Precautions</dt>
        <dd>{view.precautions}</dd>
      </dl>
    </div>
  );
}
