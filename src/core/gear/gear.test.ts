import fc from "fast-check";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import type { PersonId } from "../people/roles";
import {
  entryFault,
  GEAR_KINDS,
  gearFault,
  isDated,
  personalLockFault,
  sameNumber,
  siteLockFault,
  type Gear,
} from "./gear";

const [NELL, OTTO] = ["nell", "otto"] as [PersonId, PersonId];
const nameOf = (id: string) => id;
const gear = (rest: Partial<Gear> = {}): Gear => ({
  kind: "voltage tester",
  number: "VT-1",
  owner: null,
  key: null,
  inDateUntil_ms: 100,
  rating_V: 1000,
  error: null,
  withdrawn: false,
  withdrawnBy: null,
  bumpedAt_ms: null,
  zeroedAt_ms: null,
  sheet: null,
  withJob: null,
  ...rest,
});
const fault = (one: Gear | undefined, more: object = {}) =>
  gearFault(one, { kind: "voltage tester", number: "VT-1", at_ms: 99, job: "J-1", ...more })?.code ?? null;

describe("what may be picked", () => {
  test("a thing in date, not withdrawn, not with another job and rated for the voltage", () => {
    expect(fault(gear())).toBeNull();
    expect(fault(gear({ withJob: "J-1" }))).toBeNull();
    expect(fault(gear(), { needs_V: 1000 })).toBeNull();
  });
  test("never what the register does not know, or does not know enough of", () => {
    expect(fault(undefined)).toBe("gear unknown");
    expect(fault(gear({ withdrawn: true }))).toBe("gear withdrawn");
    expect(fault(gear({ inDateUntil_ms: null }))).toBe("gear out of date");
    expect(fault(gear(), { needs_V: 1001 })).toBe("gear rating");
    expect(fault(gear({ rating_V: null }), { needs_V: 50 })).toBe("gear rating");
    expect(fault(gear({ withJob: "J-2" }))).toBe("gear elsewhere");
    expect(fault(gear({ withJob: "J-2" }), { job: null })).toBe("gear elsewhere");
  });
  test("out of date to the millisecond", () => {
    expect(fault(gear(), { at_ms: 99 })).toBeNull();
    expect(fault(gear(), { at_ms: 100 })).toBe("gear out of date");
  });
  test("a gas instrument is read from only within a day of a bump test; to hand it out none is needed", () => {
    const DAY_MS = 86_400_000;
    const instrument = { kind: "gas instrument" as const, number: "GI-1", inDateUntil_ms: 3 * DAY_MS, rating_V: null };
    const at = (bumpedAt_ms: number | null, at_ms: number, toRead = true) =>
      gearFault(gear({ ...instrument, bumpedAt_ms }), { ...instrument, at_ms, job: null, toRead })?.code ?? null;
    expect(at(null, 5)).toBe("gear not bumped");
    expect(at(null, 5, false)).toBeNull();
    expect(at(5, 5)).toBeNull();
    expect(at(5, 4 + DAY_MS)).toBeNull();
    expect(at(5, 5 + DAY_MS)).toBe("gear not bumped");
    expect(fault(gear(), { toRead: true })).toBeNull();
  });
  test("a hasp needs no date; everything that measures or protects does", () => {
    expect(isDated("hasp")).toBe(false);
    expect(GEAR_KINDS.filter(isDated)).toEqual([
      "portable earth",
      "voltage tester",
      "proving unit",
      "insulating gloves",
      "gas instrument",
      "pressure gauge",
      "thermometer",
      "survey meter",
      "harness",
    ]);
  });
});

describe("whose a lock is", () => {
  const lock = (owner: PersonId | null, rest: Partial<Gear> = {}) =>
    gear({ kind: "lock", number: "L-1", owner, inDateUntil_ms: null, rating_V: null, ...rest });
  test("a person hangs their own, and one that nobody entered; never another's, the site's or one withdrawn", () => {
    expect(personalLockFault(lock(NELL), NELL, "L-1", nameOf)).toBeNull();
    expect(personalLockFault(undefined, NELL, "L-1", nameOf)).toBeNull();
    expect(personalLockFault(lock(OTTO), NELL, "L-1", nameOf)).toMatchObject({
      code: "lock of another",
      owner: "otto",
    });
    expect(personalLockFault(lock(null), NELL, "L-1", nameOf)?.code).toBe("lock of the site");
    expect(personalLockFault(lock(NELL, { withdrawn: true }), NELL, "L-1", nameOf)?.code).toBe("gear withdrawn");
  });
  test("a point takes the site's lock, never a person's", () => {
    expect(siteLockFault(lock(null), "L-1", nameOf)).toBeNull();
    expect(siteLockFault(undefined, "L-1", nameOf)).toBeNull();
    expect(siteLockFault(lock(NELL), "L-1", nameOf)?.code).toBe("lock of another");
    expect(siteLockFault(lock(null, { withdrawn: true }), "L-1", nameOf)?.code).toBe("gear withdrawn");
  });
  test("numbers are read as people read them", () => {
    expect(sameNumber(" l-1 ", "L-1")).toBe(true);
    expect(sameNumber("L-1", "L-11")).toBe(false);
  });

  test("whatever is entered in whatever order: no key fits the locks of two owners, no lock changes hands in use", () => {
    let [taken, refused] = [0, 0];
    const entry = fc.record({
      number: fc.constantFrom("L-1", "L-2", "l-3", "L-4"),
      owner: fc.constantFrom(null, NELL, OTTO),
      key: fc.constantFrom(null, "K-1", "k-1", "K-2"),
    });
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 12 }), (entries) => {
        const register: Gear[] = [];
        for (const one of entries) {
          const made = lock(one.owner, { number: one.number, key: one.key });
          if (entryFault(made, register, nameOf)) {
            refused++;
            continue;
          }
          taken++;
          const was = register.findIndex((other) => sameNumber(other.number, made.number));
          if (was >= 0) {
            const { owner } = register[was]!;
            expect(owner === null || owner === made.owner).toBe(true);
            register[was] = made;
          } else register.push(made);
          for (const a of register)
            for (const b of register)
              if (a.key !== null && b.key !== null && a !== b && sameNumber(a.key, b.key)) {
                expect(a.owner).toBe(b.owner);
                expect(a.owner).not.toBeNull();
              }
        }
      }),
      propertyRuns(300),
    );
    expect(taken).toBeGreaterThan(metAtLeast(300));
    expect(refused).toBeGreaterThan(metAtLeast(300));
  });
});
