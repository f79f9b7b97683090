import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { criticalPath } from "../network/criticalPath";
import { crewSchedule, type CrewStep } from "./crewSchedule";
import { apart_m, walkingOrder, type WalkedStep } from "./walkingOrder";

type Crew = "e" | "p";

/** Steps that wait only for earlier ones, so that there is an order. */
const stepsArbitrary = fc
  .array(
    fc.record({
      duration_s: fc.integer({ min: 0, max: 3600 }),
      crew: fc.constantFrom<Crew | null>("e", "p", null),
      waits: fc.array(fc.nat(), { maxLength: 3 }),
      x_m: fc.integer({ min: 0, max: 200 }),
      y_m: fc.integer({ min: 0, max: 100 }),
      level_m: fc.constantFrom(0, 6, 12),
    }),
    { maxLength: 25 },
  )
  .map((raw) =>
    raw.map(({ waits, x_m, y_m, level_m, ...rest }, i) => ({
      ...rest,
      id: `s${i}`,
      after: i === 0 ? [] : [...new Set(waits.map((wait) => `s${wait % i}`))],
      spot: { x_m, y_m, level_m },
    })),
  );
const sizes = fc.record({ e: fc.integer({ min: 1, max: 4 }), p: fc.integer({ min: 1, max: 4 }) });

describe("a schedule with crews", () => {
  test("keeps precedence, never asks one person to do two things, and says a true chain", () => {
    fc.assert(
      fc.property(stepsArbitrary, sizes, (steps, size) => {
        const made = crewSchedule<Crew>(steps, (crew) => size[crew]);
        const at = new Map(made.steps.map((step) => [step.id, step]));
        for (const [i, step] of steps.entries()) {
          const mine = made.steps[i]!;
          expect(mine.end_s - mine.start_s).toBeCloseTo(step.duration_s, 6);
          for (const before of step.after) expect(at.get(before)!.end_s).toBeLessThanOrEqual(mine.start_s + 1e-6);
          if (step.crew !== null) expect(mine.person!).toBeLessThan(size[step.crew]);
          for (const [j, other] of steps.entries()) {
            if (i === j || step.crew === null || step.crew !== other.crew || mine.person !== made.steps[j]!.person)
              continue;
            const apart = mine.end_s <= made.steps[j]!.start_s + 1e-6 || made.steps[j]!.end_s <= mine.start_s + 1e-6;
            expect(apart).toBe(true);
          }
        }
        expect(made.length_s).toBeCloseTo(Math.max(0, ...made.steps.map((step) => step.end_s)), 6);
        const chain = made.chain.map((id) => steps.find((step) => step.id === id)!.duration_s);
        expect(chain.reduce((sum, one) => sum + one, 0)).toBeCloseTo(made.length_s, 6);
      }),
      propertyRuns(300),
    );
  });

  test("is the critical path's with hands enough, and never shorter than it", () => {
    fc.assert(
      fc.property(stepsArbitrary, sizes, (steps, size) => {
        const { length_s } = criticalPath(steps);
        expect(crewSchedule<Crew>(steps, () => 25).length_s).toBeCloseTo(length_s, 6);
        expect(crewSchedule<Crew>(steps, (crew) => size[crew]).length_s).toBeGreaterThanOrEqual(length_s - 1e-6);
      }),
      propertyRuns(200),
    );
  });

  test("by hand: four locks of ten minutes take 40 with one person and 20 with two", () => {
    const locks: CrewStep<Crew>[] = [1, 2, 3, 4].map((i) => ({ id: `l${i}`, duration_s: 600, after: [], crew: "e" }));
    expect(crewSchedule(locks, () => 1)).toMatchObject({ length_s: 2400, unlimited_s: 600 });
    expect(crewSchedule(locks, () => 2).length_s).toBe(1200);
    expect(crewSchedule(locks, () => 1).steps.every((step) => step.critical)).toBe(true);
    expect(() => crewSchedule(locks, () => 0)).toThrow(RangeError);
  });
});

describe("the walking order", () => {
  /** The shortest of every order that keeps precedence: only for a handful of steps. */
  function shortest(steps: readonly WalkedStep[]): number {
    let best = Infinity;
    const go = (done: readonly WalkedStep[], length: number) => {
      if (length >= best) return;
      if (done.length === steps.length) best = length;
      for (const next of steps) {
        if (done.includes(next) || !next.after.every((id) => done.some((one) => one.id === id))) continue;
        go([...done, next], length + apart_m(done.at(-1)?.spot ?? null, next.spot));
      }
    };
    go([], 0);
    return best;
  }

  test("keeps every precedence, says its true length, and names each step once", () => {
    fc.assert(
      fc.property(stepsArbitrary, (steps) => {
        const walk = walkingOrder(steps);
        expect([...walk.order].sort()).toEqual(steps.map(({ id }) => id).sort());
        const at = new Map(walk.order.map((id, i) => [id, i]));
        for (const step of steps)
          for (const before of step.after) expect(at.get(before)!).toBeLessThan(at.get(step.id)!);
        const spots = walk.order.map((id) => steps.find((step) => step.id === id)!.spot);
        const length = spots.slice(1).reduce((sum, spot, i) => sum + apart_m(spots[i]!, spot), 0);
        expect(walk.length_m).toBeCloseTo(length, 6);
      }),
      propertyRuns(200),
    );
  });

  test("is never shorter than the shortest of all orders, and near it on average", () => {
    let [ours, least] = [0, 0];
    fc.assert(
      fc.property(
        stepsArbitrary.filter((steps) => steps.length >= 3).map((steps) => steps.slice(0, 7)),
        (steps) => {
          const best = shortest(steps);
          const walk = walkingOrder(steps);
          expect(walk.length_m).toBeGreaterThanOrEqual(best - 1e-6);
          ours += walk.length_m;
          least += best;
        },
      ),
      propertyRuns(80),
    );
    expect(ours / least).toBeLessThan(1.2);
  });
});
