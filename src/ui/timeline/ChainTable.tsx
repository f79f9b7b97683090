import { Link } from "../text/Link";
import type { Timeline, TimelineModel } from "../../core/schedule/timeline";
import type { WaitTime } from "../../core/schedule/stepTime";
import { duration } from "../../core/units/format";

/** The critical path, link by link. A wait opens to its sum; what was assumed is asked for. */
export function ChainTable({ timeline, stage }: { timeline: Timeline; stage: TimelineModel["stage"] }) {
  return (
    <section aria-label="Critical path">
      <h2 className="mb-2 font-semibold">The critical path</h2>
      {timeline.chain.length === 0 && (
        <p className="max-w-3xl">
          {stage === "restoring"
            ? "It is being restored: nothing before the work is left."
            : "Every step before the work is done: nothing is left to wait for."}
        </p>
      )}
      <ol className={timeline.chain.length === 0 ? "hidden" : "border-base-300 max-w-3xl border-t"}>
        {timeline.chain.map((link) => {
          const time =
            link.wait === null ? undefined : timeline.times[link.step]?.find((one) => one.words === link.wait);
          return (
            <li key={link.id} className="border-base-300 grid grid-cols-[6.5rem_1fr] gap-x-4 border-b py-1.5">
              <span className="num text-right font-semibold">{duration(link.duration_s)}</span>
              <span>
                {link.wait ?? `${link.label}${timeline.times[link.step] ? ", hands" : ""}`}
                {time && <Reason time={time} />}
              </span>
            </li>
          );
        })}
      </ol>
      {timeline.assumed.length > 0 && (
        <div className="border-accent mt-4 max-w-3xl border-l-4 px-3 py-1">
          <p className="font-medium">Not known, and taken on the slow side until somebody says:</p>
          <ul className="mt-1 list-disc pl-5">
            {timeline.assumed.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

function Reason({ time }: { time: WaitTime }) {
  return (
    <span className="block text-sm">
      {time.never !== null ? (
        <strong>No figure: {time.never}. A day is taken; a person decides.</strong>
      ) : (
        <>
          {time.because} {time.calculation?.formula}.{" "}
        </>
      )}{" "}
      <Link href={`/bench/${time.calculator}?${time.address}`} className="link">
        See the sum
      </Link>
    </span>
  );
}
