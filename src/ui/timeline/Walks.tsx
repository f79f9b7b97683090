import type { Timeline } from "../../core/schedule/timeline";
import { figure } from "../../core/units/format";
import type { UnitSystem } from "../../core/units/units";
import { CREW_WORDS } from "./lanes";

/** For each crew the order in which its steps are least walked. */
export function Walks({ timeline, units }: { timeline: Timeline; units: UnitSystem }) {
  return (
    <section aria-label="Walking order">
      <h2 className="mb-1 font-semibold">Walking order</h2>
      <p className="mb-3 max-w-prose text-sm opacity-85">
        Short, within the order of the steps, over the register&apos;s coordinates; a metre of stairs counts as three.
        Not proved shortest, and no part of the times above.
      </p>
      <div className="grid max-w-6xl gap-x-12 gap-y-5 md:grid-cols-2">
        {timeline.walks.map((walk) => (
          <div key={walk.crew}>
            <h3 className="border-base-300 flex justify-between border-b pb-1 font-medium">
              {CREW_WORDS[walk.crew]}
              <span className="num">{figure(Math.round(walk.length_m), "length", units)}</span>
            </h3>
            <ol className="mt-1 list-decimal pl-7">
              {walk.labels.map((label) => (
                <li key={label} className="py-0.5">
                  {label}
                </li>
              ))}
            </ol>
          </div>
        ))}
      </div>
    </section>
  );
}
