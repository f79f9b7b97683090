import { afterClockJumped, afterClockSet } from "./clockSet";
import { waitsFrom_ms } from "./held";
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

test("after a jump ahead what runs is counted anew from then, what was proved is proved again, and nothing was done at another time", () => {
  const running = { ...step("empty", 0), done: null };
  expect(afterClockJumped(running, 700)).toEqual({ ...running, begun: { by, at_ms: 700 } });
  expect(waitsFrom_ms({ steps: [] }, afterClockJumped(running, 700))).toBe(700);
  const proof = afterClockJumped(step("prove", 100), 700);
  expect(proof.done).toMatchObject({ at_ms: 100, evidence: { instrument: "PG-04", wrongClock: true } });
  const still = { ...step("bleed", 0), done: null, begun: undefined };
  expect(afterClockJumped(still, 700)).toBe(still);
});

test("a wait that runs from locks is waited out anew after a jump", () => {
  const lock = { ...step("lock", 100), phase: "isolate", competence: "electrical" } as WalkStep;
  const short = { ...step("discharge", 0), phase: "isolate", after: ["i1"], done: null } as WalkStep;
  expect(waitsFrom_ms({ steps: [lock, short] }, short)).toBe(100);
  const jumped = afterClockJumped(lock, 700);
  expect(jumped.done!.at_ms).toBe(100);
  expect(waitsFrom_ms({ steps: [jumped, short] }, short)).toBe(700);
  // Nothing electrical was locked: from the last step before it.
  const bleed = { ...step("bleed", 100), phase: "isolate" } as WalkStep;
  expect(waitsFrom_ms({ steps: [afterClockJumped(bleed, 700), short] }, short)).toBe(700);
});
