import fc from "fast-check";
import type { PersonId } from "../people/roles";
import type { PermitLife } from "../permit/record/permitTypes";
import { headSteps } from "./heads";
import { valueAt } from "./tracks";

const who = ["una", "arn", "wim"] as PersonId[];
const times = fc.tuple(fc.integer({ min: 0, max: 30 }), fc.option(fc.integer({ min: 0, max: 30 })));
const stay = fc.record({ person: fc.constantFrom(...who), times }).map(({ person, times: [a, b] }) => ({
  person,
  from_ms: b === null ? a : Math.min(a, b),
  to_ms: b === null ? null : Math.max(a, b),
}));
const permit = fc.array(stay, { maxLength: 5 });
type Stay = Readonly<{ person: PersonId; from_ms: number; to_ms: number | null }>;

const asSignedOn = (all: readonly Stay[]) =>
  ({
    signOns: all.map(({ person, from_ms, to_ms }) => ({ person, on_ms: from_ms, off_ms: to_ms, lock: "" })),
    log: [],
    state: "live",
  }) as unknown as PermitLife;

test("at every moment it is the number of different people who are there, under however many permits", () => {
  fc.assert(
    fc.property(fc.array(permit, { maxLength: 4 }), (permits) => {
      const steps = headSteps(permits.map(asSignedOn));
      for (let at_ms = 0; at_ms <= 31; at_ms++) {
        const there = permits
          .flat()
          .filter(({ from_ms, to_ms }) => from_ms <= at_ms && (to_ms === null || to_ms > at_ms));
        expect([at_ms, valueAt(steps, at_ms) ?? 0]).toEqual([at_ms, new Set(there.map(({ person }) => person)).size]);
      }
    }),
  );
});

test("who stands on post or is inside is there too, and is one person", () => {
  const [una, arn] = who;
  const log = [
    { type: "post taken", at_ms: 5, by: una, person: una, post: "attendant" },
    { type: "post left", at_ms: 9, by: una, person: una },
  ] as unknown as PermitLife["log"];
  const on = (person: PersonId, on_ms: number, off_ms: number | null) => ({ person, on_ms, off_ms, lock: "" });
  const permits = [
    { signOns: [on(una!, 2, 6), on(arn!, 3, 8)], log, state: "live" },
    { signOns: [on(arn!, 4, 10)], log: [], state: "live" },
  ] as unknown as PermitLife[];
  const at = [1, 2, 3, 5, 7, 9, 10].map((at_ms) => valueAt(headSteps(permits), at_ms) ?? 0);
  expect(at).toEqual([0, 1, 2, 2, 2, 1, 0]);
  // A post that nobody left ends with its permit.
  const left = [
    { signOns: [], log: [log[0]!, { type: "closed", at_ms: 20, by: una }], state: "closed" },
  ] as unknown as PermitLife[];
  expect([6, 19, 20].map((at_ms) => valueAt(headSteps(left), at_ms) ?? 0)).toEqual([1, 1, 0]);
});
