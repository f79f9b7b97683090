import fc from "fast-check";
import { walkFacts } from "../../../tests/support/walkFacts";
import type { PersonId } from "../people/roles";
import type { PlannedStep } from "../procedure/steps";
import { open, type IsolationLife } from "./isolation";
import { decideIsolation } from "./isolationLife";

const MINUTE = 60_000;
const APPROVED = 100 * MINUTE;
const facts = walkFacts({ approvedAt_ms: APPROVED });
const step = (n: number): PlannedStep => ({
  id: `s${n}`,
  phase: "isolate",
  kind: "verify",
  subject: `V-${n}`,
  plate: null,
  words: "look",
  competence: null,
  after: n === 0 ? [] : [`s${n - 1}`],
  carrier: null,
  limit: null,
  secondPerson: false,
});
const life: IsolationLife = { number: "S-1", state: "isolating", steps: [0, 1, 2, 3].map((n) => open(step(n))) };
const act = (from: IsolationLife, n: number, at_ms: number, kept = true) =>
  decideIsolation(
    from,
    { type: "do step", step: `s${n}`, by: "pia" as PersonId, at_ms, kept, competences: [], roles: [] },
    facts,
  );

test("a step is not done before the approval that it follows; a clock that is a little slow is set right", () => {
  const early = act(life, 0, APPROVED - 2 * MINUTE - 1);
  expect(early.ok ? "done" : early.refusal).toEqual({
    code: "before its cause",
    said: String(APPROVED - 2 * MINUTE - 1),
    what: "the approval of S-1",
    at: String(APPROVED),
  });
  const setBack = act(life, 0, APPROVED - 60 * MINUTE, false);
  expect(setBack.ok && setBack.value.steps[0]!.done!.at_ms).toBe(APPROVED);
  const slow = act(life, 0, APPROVED - 2 * MINUTE);
  expect(slow.ok && slow.value.steps[0]!.done!.at_ms).toBe(APPROVED);
});

test("by whatever clocks steps are done, each is at or after what it follows, and what is late keeps its time", () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 90, max: 200 }), { minLength: 4, maxLength: 12 }), (minutes) => {
      let now = life;
      for (const at of minutes) {
        const n = now.steps.findIndex(({ done }) => !done);
        if (n === -1) break;
        const decided = act(now, n, at * MINUTE);
        if (!decided.ok) {
          expect(decided.refusal.code).toBe("before its cause");
          continue;
        }
        now = decided.value;
        const done_ms = now.steps[n]!.done!.at_ms;
        const cause_ms = n === 0 ? APPROVED : now.steps[n - 1]!.done!.at_ms;
        expect(done_ms).toBe(Math.max(at * MINUTE, cause_ms));
      }
    }),
  );
});
