import type { Timeline } from "../../core/schedule/timeline";
import { duration } from "../../core/units/format";
import { clock } from "../text/when";
import { WideTable } from "../text/WideTable";
import { CREW_WORDS } from "./lanes";

/** Every piece of the day, for reading without the drawing. */
export function StepTable({ timeline, timeZone }: { timeline: Timeline; timeZone: string }) {
  const bars = [...timeline.bars].sort((a, b) => a.start_ms - b.start_ms || a.end_ms - b.end_ms);
  return (
    <details>
      <summary className="cursor-pointer font-semibold">Every step with its times</summary>
      <WideTable label="Steps with their times">
        <table className="table-sm mt-2 table max-w-5xl">
          <thead>
            <tr>
              <th className="text-right">From</th>
              <th className="text-right">To</th>
              <th className="text-right">Takes</th>
              <th className="text-right">May slip</th>
              <th>Step</th>
              <th>Who</th>
            </tr>
          </thead>
          <tbody>
            {bars.map((bar) => (
              <tr key={bar.id}>
                <td className="num text-right">{clock(bar.start_ms, timeZone)}</td>
                <td className="num text-right">{clock(bar.end_ms, timeZone)}</td>
                <td className="num text-right">{duration((bar.end_ms - bar.start_ms) / 1000)}</td>
                <td className="num text-right">{bar.critical ? <strong>not at all</strong> : duration(bar.slack_s)}</td>
                <td>{bar.wait ?? `${bar.label}${timeline.times[bar.step] ? ", hands" : ""}`}</td>
                <td>{bar.crew === null ? "nobody: a wait" : `${CREW_WORDS[bar.crew]} ${(bar.person ?? 0) + 1}`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </WideTable>
    </details>
  );
}
