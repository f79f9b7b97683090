import { afterClockSet } from "./clockSet";
import type { WalkStep } from "./isolation";

const by = "p1" as WalkStep["role"] & never;
const step = (kind: WalkStep["kind"], done_ms: number): WalkStep =>
  ({
    id: "i1",
    kind,
    done: { by, at_ms: done_ms, lock: null, reading: 0, skipped: false, evidence: { instrument: "PG-04" } },
    stuck: null,
    begun: { by, at_ms: 90 },
    failures: [{ what: "leaks", by, at_ms: 95 }],
  }) as unknown as WalkStep;

test("nothing of a step is later than when the clock was set right, and a proof of before is marked to be done again", () => {
  const right = (at_ms: number) => Math.min(at_ms, 50);
  const proof = afterClockSet(step("prove", 100), right);
  expect(proof.done).toMatchObject({ at_ms: 50, evidence: { instrument: "PG-04", wrongClock: true } });
  expect([proof.begun?.at_ms, proof.failures?.[0]?.at_ms]).toEqual([50, 50]);
  // Also one whose time looks right: nobody knows since when the clock was ahead.
  expect(afterClockSet(step("prove", 10), right).done).toMatchObject({ at_ms: 10, evidence: { wrongClock: true } });
  expect(afterClockSet(step("lock", 100), right).done).toEqual({ ...step("lock", 50).done });
  const early = step("lock", 10);
  expect(afterClockSet(early, (at_ms) => at_ms)).toBe(early);
});
