import { ROUND_s } from "../atmosphere/testPoints";
import { airRetests_ms } from "../requirement/proofRules";
import type { Setup } from "./setup";
import { timeOf, type Governs } from "./stepTime";
import type { Wait } from "./wait";

export type Stretch = Readonly<{ from_ms: number; to_ms: number }>;

type Asked = Readonly<{
  /** The air is tested again after so long at the latest; null where no work asks it. */
  airRetest_s: number | null;
  /** One round, face by face: the same testers go from one to the next. */
  airRounds: readonly Wait[];
  governs: Governs;
  shifts_ms: readonly number[];
}>;

/**
 * The rounds of air tests while work goes on, and when so many seconds of work are done if it stands during each. A round is over
 * before the first reading of the one before is too old. Common practice, no source. Where a round takes longer than there is
 * for it, that is said, and no round is drawn: there is no day that could be so.
 */
export function roundsOf(
  asked: Asked,
  setup: Setup,
  work: Readonly<{ from_ms: number; work_s: number }>,
): Readonly<{
  retests: readonly Stretch[];
  workTo_ms: number;
  tooFew: readonly string[];
  assumed: readonly string[];
}> {
  const { from_ms, work_s } = work;
  const plain_ms = from_ms + work_s * 1000;
  if (asked.airRetest_s === null) return { retests: [], workTo_ms: plain_ms, tooFew: [], assumed: [] };
  const times = asked.airRounds.map((wait) => timeOf(wait, setup, asked.governs));
  const assumed = times.flatMap((time) => time.assumed);
  const long = times.flatMap(({ words, duration_s, calculation, never }) => {
    if (never !== null) return [`${words}: ${never}`];
    if (duration_s <= ROUND_s) return [];
    const needed = calculation?.results.find(({ key }) => key === "needed")?.value;
    return [
      `${words}: a round takes ${minutes(duration_s)}, at most ${minutes(ROUND_s)}; ${needed} instruments are asked`,
    ];
  });
  const round_s = times.reduce((sum, { duration_s }) => sum + duration_s, 0);
  const every_s = asked.airRetest_s - round_s;
  const slow =
    long.length === 0 && every_s <= round_s
      ? [
          `all rounds together take ${minutes(round_s)} of the ${minutes(asked.airRetest_s)} after which they are due again`,
        ]
      : [];
  const tooFew = [...long, ...slow];
  if (tooFew.length > 0) return { retests: [], workTo_ms: plain_ms, tooFew, assumed };
  let to_ms = plain_ms;
  for (;;) {
    const ends = airRetests_ms({
      from_ms,
      to_ms,
      every_s,
      shifts_ms: asked.shifts_ms.filter((at) => at > from_ms && at < to_ms),
    });
    // Two that fall together, at a shift change, are one after the other.
    const retests: Stretch[] = [];
    for (const end_ms of ends) {
      const start_ms = Math.max(end_ms - round_s * 1000, retests.at(-1)?.to_ms ?? from_ms);
      retests.push({ from_ms: start_ms, to_ms: end_ms });
    }
    const stands_ms = retests.reduce((sum, one) => sum + one.to_ms - one.from_ms, 0);
    if (plain_ms + stands_ms <= to_ms) return { retests, workTo_ms: to_ms, tooFew, assumed };
    to_ms = plain_ms + stands_ms;
  }
}

const minutes = (s: number) => `${Math.ceil(s / 60)} min`;
