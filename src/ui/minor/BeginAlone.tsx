"use client";

import { ActForm } from "../act/ActForm";
import { Tick } from "../act/Field";
import { sendAll } from "../offline/keptActs";
import { useKeptActs, useOnline } from "../offline/useKeptActs";

type Props = Readonly<{
  permit: string;
  isolation: string;
  person: string;
  /** Ids of the steps that are not signed yet. */
  open: readonly string[];
  /** What may be done, and nothing else. */
  words: string;
  /** The permit of other work that they are on as well; null where they are on none. */
  also: string | null;
}>;

/** By the short route: what was done and the beginning of the work by one signature, once every step is done. */
export function BeginAlone({ permit, isolation, person, open, words, also }: Props) {
  const before = useKeptActs().filter(
    (act) => act.personId === person && act.refusal === null && act.input.isolation === isolation,
  );
  const online = useOnline();
  const done = new Set(before.flatMap((act) => (act.type === "step.do" ? [String(act.input.step)] : [])));
  const left = open.filter((id) => !done.has(id)).length;
  if (left > 0) {
    return (
      <p className="border-base-300 my-3 border-l-4 px-3 py-1">
        You begin when {left === 1 ? "the last step is" : `these ${left} steps are`} done: locked, proved and tried.
      </p>
    );
  }
  return (
    <section aria-label="Begin" data-next="" className="border-accent my-3 border-l-4 px-3 py-2">
      <h3 className="font-semibold">Begin the work, alone</h3>
      <p>
        <strong>{words}</strong>
      </p>
      <ActForm
        act="permit.begin-alone"
        label="Begin alone"
        toInput={(fields) => ({
          permit,
          briefed: fields.get("briefed") === "on",
          ...(fields.get("also") === "on" && also !== null ? { also } : {}),
        })}
        pin
        button={before.length > 0 ? `Begin; sign all ${before.length + 1}` : "Begin"}
        tone="strong"
        first={online && before.length > 0 ? (pin) => sendAll(before, pin) : undefined}
      >
        <Tick name="briefed" label="I do this and nothing else, and the key of my lock stays with me" />
        {also !== null && (
          <Tick name="also" label={`I am on ${also} as well, at other work, and go from one to the other`} />
        )}
      </ActForm>
    </section>
  );
}
