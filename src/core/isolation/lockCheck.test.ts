import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { walkFacts } from "../../../tests/support/walkFacts";
import type { Competence, PersonId } from "../people/roles";
import { notHeld, standingFault } from "./heldNow";
import type { IsolationLife, WalkStep } from "./isolation";
import { decideLockCheck, decideRehang, lockCheckDue_ms, type LockCheck } from "./lockCheck";

const ANN = "ann" as PersonId;
const BEN = "ben" as PersonId;
const HOUR = 3_600_000;
const POINTS = { "V-1": "L-1", "V-2": "L-2", "Q-1": "L-3" } as const;

const lockStep = (point: string, lock: string): WalkStep =>
  ({
    id: `lock ${point}`,
    phase: "isolate",
    kind: "lock",
    subject: point,
    competence: "process",
    after: [],
    done: { by: ANN, at_ms: 1, lock, reading: null, skipped: false, evidence: null },
    stuck: null,
  }) as unknown as WalkStep;
const life: IsolationLife = {
  number: "S-1",
  state: "proven",
  steps: Object.entries(POINTS).map(([point, lock]) => lockStep(point, lock)),
};
const facts = { hangs: (point: string) => [POINTS[point as keyof typeof POINTS]].filter(Boolean) };
const all = (more: Record<string, string> = {}) =>
  Object.entries({ ...POINTS, ...more }).map(([point, lock]) => ({ point, lock }));
const check = (
  found: readonly { point: string; lock: string }[],
  by = ANN,
  before: LockCheck | null = null,
  at_ms = HOUR,
) => decideLockCheck(life, before, { by, at_ms, found }, facts);
const value = (...p: Parameters<typeof check>): LockCheck => {
  const decided = check(...p);
  if (!decided.ok) throw new Error(decided.refusal.code);
  return decided.value;
};

test("every point is read, and nothing else", () => {
  expect(check(all().slice(1))).toMatchObject({ refusal: { code: "points not read", points: ["V-1"] } });
  expect(check([...all(), { point: "V-9", lock: "L-9" }])).toMatchObject({ refusal: { code: "unknown", name: "V-9" } });
  expect(check([])).toMatchObject({ refusal: { code: "points not read" } });
  expect(decideLockCheck({ ...life, steps: [] }, null, { by: ANN, at_ms: 1, found: [] }, facts)).toMatchObject({
    refusal: { code: "wrong state" },
  });
});

test("numbers are read however they are written", () => {
  expect(value(all({ "V-1": " l - 1 " })).faults).toEqual([]);
});

test("another number, or none, breaks the isolation from that moment; nothing says which was wanted", () => {
  const found = value(all({ "V-1": "L-2", "Q-1": "" }));
  expect(found.faults).toEqual([
    { point: "V-1", by: ANN },
    { point: "Q-1", by: ANN },
  ]);
  const now = { number: "S-1", openSteps: 0, planned: 1, today: 1, verdict: null, lockCheck: found };
  expect(notHeld({ ...now, state: "proven" })).toEqual({
    code: "locks not found",
    isolation: "S-1",
    points: ["V-1", "Q-1"],
  });
  expect(JSON.stringify(standingFault(now))).not.toMatch(/L-\d/);
});

test("who did not find it does not find it later: another person does, and proofs before that count no more", () => {
  const missed = value(all({ "V-1": "" }));
  expect(value(all(), ANN, missed, 2 * HOUR)).toMatchObject({ faults: [{ point: "V-1" }], right_ms: null });
  const right = value(all(), BEN, missed, 2 * HOUR);
  expect(right).toEqual({ checked_ms: 2 * HOUR, faults: [], right_ms: 2 * HOUR, crew: [] });
  // A later round changes nothing of when it was put right.
  expect(value(all(), ANN, right, 3 * HOUR)).toEqual({
    checked_ms: 3 * HOUR,
    faults: [],
    right_ms: 2 * HOUR,
    crew: [],
  });
});

test("another lock is hung only where one was not found, with a free lock, and somebody else reads it", () => {
  const free = walkFacts();
  const missed = value(all({ "V-1": "" }));
  const hang = (point: string, lock: string, more = {}, competences: readonly Competence[] = ["process"]) =>
    decideRehang(life, missed, { by: BEN, point, lock, competences }, { ...free, ...more });
  expect(hang("V-1", "L-7", {}, ["electrical"])).toMatchObject({
    refusal: { code: "not competent", needs: "process" },
  });
  expect(hang("V-2", "L-7")).toMatchObject({ refusal: { code: "unknown" } });
  expect(hang("V-1", "L-7", { lockHangs: () => "on V-5" })).toMatchObject({ refusal: { code: "lock in use" } });
  const hung = hang("V-1", "L-7");
  if (!hung.ok) throw new Error();
  expect(hung.value.life.steps[0]!.done).toMatchObject({ lock: "L-7", by: ANN, at_ms: 1 });
  expect(hung.value.check.faults).toEqual([{ point: "V-1", by: BEN }]);
  const now = { hangs: (point: string) => (point === "V-1" ? ["L-7"] : facts.hangs(point)) };
  const read = (by: PersonId) =>
    decideLockCheck(hung.value.life, hung.value.check, { by, at_ms: 5 * HOUR, found: all({ "V-1": "L-7" }) }, now);
  expect(read(BEN)).toMatchObject({ value: { faults: [{ point: "V-1" }] } });
  expect(read(ANN)).toMatchObject({ value: { faults: [], right_ms: 5 * HOUR } });
});

test("read again a day after they were hung or last read, while people count on them", () => {
  const due = (state: IsolationLife["state"], last: LockCheck | null) =>
    lockCheckDue_ms({ state, approved_ms: HOUR, check: last }, 24);
  expect(due("proven", null)).toBe(25 * HOUR);
  expect(due("proven", value(all(), ANN, null, 30 * HOUR))).toBe(54 * HOUR);
  expect(due("restoring", null)).toBeNull();
});

test("over any rounds of two people: held exactly where the last word of each point is right, by another where it was wrong", () => {
  const points = Object.keys(POINTS) as (keyof typeof POINTS)[];
  const round = fc.record({ by: fc.constantFrom(ANN, BEN), wrong: fc.subarray(points) });
  fc.assert(
    fc.property(fc.array(round, { minLength: 1, maxLength: 8 }), (rounds) => {
      let known: LockCheck | null = null;
      const open = new Map<string, PersonId>();
      rounds.forEach(({ by, wrong }, i) => {
        known = value(all(Object.fromEntries(wrong.map((point) => [point, "L-99"]))), by, known, i);
        for (const point of points) {
          if (wrong.includes(point)) open.set(point, by);
          else if (open.get(point) !== by) open.delete(point);
        }
        expect(new Set(known.faults.map(({ point }) => point))).toEqual(new Set(open.keys()));
      });
    }),
    propertyRuns(200),
  );
});
