import { CREWS, type Crew } from "../../core/schedule/setup";
import type { Bar, Timeline } from "../../core/schedule/timeline";

/** A row of the chart: a person of a crew, or waits that nobody attends. */
export type Lane = Readonly<{ key: string; words: string; bars: readonly Bar[] }>;

export const CREW_WORDS: Readonly<Record<Crew, string>> = {
  electrical: "Electrical",
  mechanical: "Mechanical",
  process: "Process",
  anybody: "Operator",
};

/** One lane for each person with something to do, then as many as the waits that run side by side need. */
export function lanesOf({ bars }: Pick<Timeline, "bars">): Lane[] {
  const people = CREWS.flatMap((crew) => {
    const own = bars.filter((bar) => bar.crew === crew && bar.end_ms > bar.start_ms);
    const count = Math.max(-1, ...own.map((bar) => bar.person ?? 0)) + 1;
    return Array.from({ length: count }, (_, person) => ({
      key: `${crew} ${person}`,
      words: count === 1 ? CREW_WORDS[crew] : `${CREW_WORDS[crew]} ${person + 1}`,
      bars: own.filter((bar) => bar.person === person),
    }));
  });
  const waits: Bar[][] = [];
  const free = [...bars].filter((bar) => bar.crew === null && bar.end_ms > bar.start_ms);
  for (const bar of free.sort((a, b) => a.start_ms - b.start_ms)) {
    const lane = waits.find((one) => one.at(-1)!.end_ms <= bar.start_ms);
    if (lane) lane.push(bar);
    else waits.push([bar]);
  }
  return [
    ...people,
    ...waits.map((own, i) => ({ key: `wait ${i}`, words: i === 0 ? "Nobody: waiting" : "", bars: own })),
  ];
}
