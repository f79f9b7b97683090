import fc from "fast-check";
import { EVERYWHERE, notAppointed, shiftAt } from "./appointedFor";

test("the shift of an hour is the last that began before it, past midnight that of the evening", () => {
  const at = (starts: readonly number[]) => [0, 5, 6, 13, 14, 21, 22, 23].map((hour) => shiftAt(hour, starts));
  expect(at([6, 14, 22])).toEqual([22, 22, 6, 6, 14, 14, 22, 22]);
  expect(at([18, 6])).toEqual([18, 18, 6, 6, 6, 18, 18, 18]);
  expect(at([])).toEqual([null, null, null, null, null, null, null, null]);
});

test("it covers what it names, and where it names nothing everything", () => {
  const day = { areas: ["Unit 1"], shifts: [6] };
  expect(notAppointed(EVERYWHERE, { area: "", shift: null })).toBeNull();
  expect(notAppointed(day, { area: "Unit 1", shift: 6 })).toBeNull();
  expect(notAppointed(day, { area: "Unit 2", shift: 6 })).toBe("area");
  expect(notAppointed(day, { area: "Unit 1", shift: 14 })).toBe("shift");
  // Nobody knows where it is, or which shift runs.
  expect(notAppointed(day, { area: "", shift: 6 })).toBe("area");
  expect(notAppointed(day, { area: "Unit 1", shift: null })).toBe("shift");
});

test("naming more areas or shifts, where some are named, takes nothing away", () => {
  const names = fc.subarray(["Unit 1", "Unit 2", "Yard"], { minLength: 1 });
  const hours = fc.subarray([6, 14, 22], { minLength: 1 });
  const at = fc.record({
    area: fc.constantFrom("", "Unit 1", "Unit 2", "Yard"),
    shift: fc.constantFrom(null, 6, 14, 22),
  });
  fc.assert(
    fc.property(names, names, hours, hours, at, (areas, moreAreas, shifts, moreShifts, where) => {
      if (notAppointed({ areas, shifts }, where) !== null) return;
      const more = { areas: [...areas, ...moreAreas], shifts: [...shifts, ...moreShifts] };
      expect(notAppointed(more, where)).toBeNull();
    }),
  );
});
