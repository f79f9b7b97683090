import fc from "fast-check";
import { engineCase, smallCase, type SmallCase } from "../../../tests/support/plantArbitrary";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import { HOWS, PROFILE_IDS } from "../request/jobFile";
import { check } from "./check";
import { plan, type Plan } from "./plan";

/** A small plant whose job is judged by a profile instead of plain numbers, with positive devices and bleeds on it. */
const byRules = fc
  .record({
    small: smallCase,
    profile: fc.constantFrom(...PROFILE_IDS),
    how: fc.uniqueArray(fc.constantFrom(...HOWS), { minLength: 1 }),
    positive: fc.array(fc.boolean(), { minLength: 9, maxLength: 9 }),
    bleeds: fc.uniqueArray(fc.nat(5), { maxLength: 4 }),
  })
  .map(({ small, profile, how, positive, bleeds }): SmallCase => {
    const plain = small.plant.items.filter((item) => !item.device);
    const at = bleeds.flatMap((n) => plain[n % plain.length]?.tag ?? []);
    return {
      plant: {
        ...small.plant,
        items: [
          ...small.plant.items.map((item, i) =>
            item.device ? { ...item, device: { ...item.device, positive: positive[i % 9], lockable: true } } : item,
          ),
          ...[...new Set(at)].map((tag) => ({ tag: `BL-${tag}`, kind: "bleed", bleed: { safe: true, gauge: true } })),
        ],
        links: [
          ...small.plant.links,
          ...[...new Set(at)].map((tag) => ({ from: tag, to: `BL-${tag}`, carries: "fluid" as const })),
        ],
      },
      job: { ...small.job, require: undefined, profile, faces: small.job.faces.map((face) => ({ ...face, how })) },
    };
  });

function planOf(one: SmallCase): Plan {
  const { graph, job } = engineCase(one);
  const made = plan(graph, job);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.value;
}
const withJob = (one: SmallCase, rest: Partial<SmallCase["job"]>): SmallCase => ({
  ...one,
  job: { ...one.job, ...rest },
});
const tags = (made: Plan) => made.points.map((point) => point.device);

describe("a plan by the rules of a profile", () => {
  test("is judged alike by check, way by way", () => {
    fc.assert(
      fc.property(byRules, (one) => {
        const made = planOf(one);
        const { graph, job } = engineCase(withJob(one, { isolated: tags(made) }));
        const checked = check(graph, job);
        if (!checked.ok) throw new Error("check refused");
        expect(checked.value.routes).toEqual(made.routes);
        expect(checked.value.cavities).toEqual(made.cavities);
      }),
      propertyRuns(120),
    );
  });

  test("says held exactly when no way falls short, and every way short is listed with what may stand in", () => {
    let held = 0;
    let short = 0;
    fc.assert(
      fc.property(byRules, (one) => {
        const made = planOf(one);
        expect(made.held).toBe(made.shortfalls.length + made.unlinked.length === 0);
        const missed = made.routes
          .filter((route) => !route.held)
          .map(({ source, carrier, face }) => ({ source, carrier, face }));
        for (const way of missed) expect(made.shortfalls).toContainEqual(expect.objectContaining(way));
        for (const one of made.shortfalls) expect(one.measures.length).toBeGreaterThan(0);
        if (made.held) held++;
        else short++;
      }),
      propertyRuns(120),
    );
    expect(held).toBeGreaterThan(metAtLeast(15));
    expect(short).toBeGreaterThan(metAtLeast(15));
  });

  test("never names a struck device, always a pinned one, and costs no less with one pinned", () => {
    let pinnedAny = 0;
    fc.assert(
      fc.property(byRules, fc.nat(), (one, pick) => {
        const devices = one.plant.items.filter((item) => item.device).map((item) => item.tag);
        const tag = devices[pick % devices.length]!;
        expect(tags(planOf(withJob(one, { struck: [tag] })))).not.toContain(tag);
        const pinned = planOf(withJob(one, { pinned: [tag] }));
        expect(tags(pinned)).toContain(tag);
        expect(pinned.bound).toBeLessThanOrEqual(pinned.cost + 1e-9);
        pinnedAny++;
      }),
      propertyRuns(80),
    );
    expect(pinnedAny).toBeGreaterThan(metAtLeast(50));
  });

  test("a way with a positive grade has an isolated positive device on its way, and blinds come with valves to fit them", () => {
    let positive = 0;
    fc.assert(
      fc.property(byRules, (one) => {
        const made = planOf(one);
        const points = new Map(made.points.map((point) => [point.device, point]));
        for (const route of made.routes.filter(({ grade }) => grade === "positive")) {
          positive++;
          expect(route.via.some((place) => points.get(place)?.positive)).toBe(true);
        }
        for (const point of made.points.filter(({ stage }) => stage === 2)) expect(point.positive).toBe(true);
      }),
      propertyRuns(120),
    );
    expect(positive).toBeGreaterThan(metAtLeast(20));
  });

  test("adding a device to the isolated set never lights anything nor lowers a depth", () => {
    fc.assert(
      fc.property(byRules, fc.nat(), (one, pick) => {
        const devices = one.plant.items.filter((item) => item.device).map((item) => item.tag);
        const some = devices.filter((_, i) => (pick >> (i % 16)) & 1);
        const more = [...new Set([...some, devices[pick % devices.length]!])];
        const routes = (isolated: string[]) => {
          const { graph, job } = engineCase(withJob(one, { isolated }));
          const checked = check(graph, job);
          if (!checked.ok) throw new Error("check refused");
          return checked.value;
        };
        const [few, many] = [routes(some), routes(more)];
        expect(many.lit.length).toBeLessThanOrEqual(few.lit.length);
      }),
      propertyRuns(120),
    );
  });
});
