import fc from "fast-check";
import { BOUNDS, figureFault, type Bound } from "./setup";
import { setupSchema } from "./setupSchema";

const keys = Object.keys(BOUNDS) as (keyof typeof BOUNDS)[];

test("a figure is taken where nothing is wrong with it, and what is wrong is said at its name", () => {
  const value = fc.oneof(
    fc.double(),
    fc.integer({ min: -100, max: 200 }),
    fc.constantFrom("4", null, true, Number.NaN),
  );
  fc.assert(
    fc.property(fc.constantFrom(...keys), value, (key, given) => {
      const read = setupSchema.safeParse({ [key]: given });
      const fault = figureFault(given, BOUNDS[key]);
      expect(read.success).toBe(fault === null);
      const [first] = read.error?.issues ?? [];
      expect(first && [first.path.join("."), first.message]).toEqual(fault === null ? undefined : [key, fault]);
    }),
  );
});

test.each<[unknown, Bound, string | null]>([
  [0, { above: 0, most: 10 }, "must be above 0"],
  [10, { above: 0, most: 10 }, null],
  [10.5, { above: 0, most: 10 }, "must be at most 10"],
  [0, { least: 0, most: 10, whole: true }, null],
  [1.5, { least: 0, most: 10, whole: true }, "must be a whole number"],
  ["2", { least: 0, most: 10, whole: true }, "must be a whole number"],
  [-61, { least: -60, most: 60 }, "must be at least -60"],
  [Number.POSITIVE_INFINITY, { least: -60, most: 60 }, "must be a number"],
])("%p within %p: %p", (value, bound, said) => {
  expect(figureFault(value, bound)).toBe(said);
});

test("nothing said is a set-up; what it does not know is refused; hands are counted in whole people", () => {
  expect(setupSchema.parse({})).toEqual({});
  expect(setupSchema.parse({ crews: { electrical: 2 }, lockSchool: "on the box", people: 3 })).toEqual({
    crews: { electrical: 2 },
    lockSchool: "on the box",
    people: 3,
  });
  expect(setupSchema.safeParse({ speed: 3 }).success).toBe(false);
  expect(setupSchema.safeParse({ crews: { electrical: 0 } }).error?.issues[0]?.message).toBe("must be at least 1");
  expect(setupSchema.safeParse({ crews: { nobody: 1 } }).success).toBe(false);
});
