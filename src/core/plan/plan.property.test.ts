import fc from "fast-check";
import { BruteForce } from "../../../tests/support/bruteForce";
import { engineCase, smallCase, type SmallCase } from "../../../tests/support/plantArbitrary";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import { check } from "./check";
import { plan, type Plan } from "./plan";

function planOf(small: SmallCase): Plan {
  const { graph, job } = engineCase(small);
  const read = plan(graph, job);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

describe("a plan, against trying everything", () => {
  test("reaches min(required, available) for every pair, and depths are as defined", () => {
    fc.assert(
      fc.property(smallCase, (small) => {
        const brute = new BruteForce(small);
        const made = planOf(small);
        const chosen = made.points.map((point) => point.device);
        expect(made.routes).toHaveLength(brute.pairs.length);
        for (const pair of brute.pairs) {
          const route = made.routes.find(
            (row) => row.source === pair.source && row.carrier === pair.carrier && row.face === pair.face,
          );
          expect(route).toMatchObject({
            required: pair.required,
            available: brute.depth(pair, brute.devices),
            depth: brute.depth(pair, chosen),
          });
          expect(route!.depth).toBeGreaterThanOrEqual(Math.min(pair.required, route!.available));
        }
      }),
      propertyRuns(250),
    );
  });

  test("no cheaper set holds the requirement, and exact is said only when that is so", () => {
    let exact = 0;
    let total = 0;
    fc.assert(
      fc.property(smallCase, (small) => {
        const made = planOf(small);
        const best = new BruteForce(small).cheapest();
        total++;
        if (made.exact) {
          exact++;
          expect(made.cost).toBeCloseTo(best, 6);
        }
        expect(made.bound).toBeLessThanOrEqual(best + 1e-9);
        expect(made.cost).toBeGreaterThanOrEqual(best - 1e-9);
      }),
      propertyRuns(150),
    );
    // Small plants are always proved; if not, the search has lost its way.
    expect(exact).toBe(total);
  });

  test("says infeasible exactly when some pair has too few devices, and names its tags", () => {
    let short = 0;
    fc.assert(
      fc.property(smallCase, (small) => {
        const brute = new BruteForce(small);
        const made = planOf(small);
        const lacking = brute.pairs.filter((pair) => brute.depth(pair, brute.devices) < pair.required);
        short += lacking.length > 0 ? 1 : 0;
        expect(made.feasible).toBe(lacking.length === 0);
        expect(made.shortfalls.map(({ source, face }) => `${source} ${face}`).sort()).toEqual(
          lacking.map(({ source, face }) => `${source} ${face}`).sort(),
        );
      }),
      propertyRuns(150),
    );
    expect(short).toBeGreaterThan(metAtLeast(10));
  });

  test("removing any point of a one-barrier plan lights the work", () => {
    let points = 0;
    fc.assert(
      fc.property(smallCase, (small) => {
        const once = { ...small, job: { ...small.job, require: { fluid: 1, power: 1 } } };
        const made = planOf(once);
        for (const { device } of made.points) {
          points++;
          const others = made.points.map((point) => point.device).filter((tag) => tag !== device);
          const { graph, job } = engineCase({ ...once, job: { ...once.job, isolated: others } });
          const without = check(graph, job);
          if (!without.ok) throw new Error("check refused");
          const before = made.routes.filter((route) => route.depth === 0).length;
          expect(without.value.routes.filter((route) => route.depth === 0).length).toBeGreaterThan(before);
        }
      }),
      propertyRuns(150),
    );
    expect(points).toBeGreaterThan(metAtLeast(50));
  });

  test("both schools cost the same, and the same files give the same plan", () => {
    fc.assert(
      fc.property(smallCase, (small) => {
        const work = planOf({ ...small, job: { ...small.job, school: "work" } });
        const supply = planOf({ ...small, job: { ...small.job, school: "supply" } });
        expect(work.cost).toBeCloseTo(supply.cost, 9);
        expect(planOf({ ...small, job: { ...small.job, school: "work" } })).toEqual(work);
      }),
      propertyRuns(100),
    );
  });
});
