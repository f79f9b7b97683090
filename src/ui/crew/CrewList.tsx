"use client";

import { useState } from "react";
import type { CrewMember } from "./crewAtBox";
import { clock } from "../text/when";

type Props = Readonly<{
  crew: readonly CrewMember[];
  lead: string;
  chosen: string | null;
  timeZone: string;
  onChoose: (id: string) => void;
}>;

/** Everybody of the crew, each with what they are on; found by a touch, by the number in the list, or by two letters. */
export function CrewList({ crew, lead, chosen, timeZone, onChoose }: Props) {
  const [typed, setTyped] = useState("");
  const shown = crew.map((one, i) => ({ ...one, n: i + 1 })).filter(({ name, n }) => fits(typed.trim(), name, n));
  return (
    <section aria-label="The crew" className="border-base-300 flex min-h-0 flex-col lg:border-r">
      <label className="border-base-300 flex items-center gap-3 border-b px-4 py-2">
        <span className="text-sm">Name or number</span>
        <input
          className="input w-40"
          autoComplete="off"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== "Enter" || shown.length !== 1) return;
            onChoose(shown[0]!.id);
            setTyped("");
          }}
        />
      </label>
      <ul className="divide-base-300 min-h-0 flex-1 divide-y overflow-y-auto">
        {shown.map(({ id, name, n, on, elsewhere, against }) => (
          <li key={id}>
            <button
              type="button"
              aria-pressed={id === chosen}
              className="aria-pressed:bg-base-200 hover:bg-base-200 grid min-h-14 w-full grid-cols-[2rem_1fr_auto] items-center gap-x-3 px-4 py-1.5 text-left"
              onClick={() => {
                setTyped("");
                onChoose(id);
              }}
            >
              <span className="num opacity-80">{n}</span>
              <span className="min-w-0">
                <span className="block font-medium">
                  {name}
                  {id === lead && <span className="font-normal">, holder</span>}
                </span>
                {elsewhere !== null && (
                  <span className="block text-sm">
                    also on <span className="tag">{elsewhere}</span>
                  </span>
                )}
                {on === null && against !== null && <span className="text-error block text-sm">may not come on</span>}
              </span>
              {on === null ? (
                <span className="text-sm">not on</span>
              ) : (
                <span className="text-right text-sm">
                  <strong className="block">
                    on, lock <span className="tag">{on.lock}</span>
                  </strong>
                  <span className="num">since {clock(on.on_ms, timeZone)}</span>
                </span>
              )}
            </button>
          </li>
        ))}
        {shown.length === 0 && (
          <li className="px-4 py-3">
            Nobody of this crew is called so. The holder or a coordinator sets the crew of the job.
          </li>
        )}
      </ul>
    </section>
  );
}

function fits(typed: string, name: string, n: number): boolean {
  if (typed === "") return true;
  if (/^\d+$/.test(typed)) return n === Number(typed);
  return name
    .toLowerCase()
    .split(/\s+/)
    .some((part) => part.startsWith(typed.toLowerCase()));
}
