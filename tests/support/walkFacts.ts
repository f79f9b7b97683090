import type { IsolationFacts } from "../../src/core/isolation/isolation";

/** A quiet site: nobody on, every instrument in the register and in date, no lock known yet. */
export function walkFacts(rest: Partial<IsolationFacts> = {}): IsolationFacts {
  return {
    lockHangs: () => undefined,
    peopleOn: [],
    standingOn: [],
    openPermits: [],
    workLeft: [],
    heldByOthers: () => [],
    approvedAt_ms: 0,
    timeOf: (at_ms) => String(at_ms),
    waitOf: () => ({ least_s: 0, because: null, isAssumed: false }),
    watches: () => null,
    planFell: false,
    alone: null,
    nameOf: (id) => id,
    gear: (kind, number) =>
      kind === "lock"
        ? undefined
        : {
            kind,
            number,
            owner: null,
            key: null,
            inDateUntil_ms: Number.MAX_SAFE_INTEGER,
            rating_V: 24_000,
            error: 0.01,
            withdrawn: false,
            withdrawnBy: null,
            bumpedAt_ms: null,
            zeroedAt_ms: null,
            sheet: null,
            withJob: null,
          },
    earthStands: () => undefined,
    job: "J-1",
    earthsAt: () => [],
    crewSize: 2,
    leakTest_min: 10,
    ...rest,
  };
}
