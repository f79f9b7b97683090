import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { HOWS } from "../request/jobFile";
import { CARRIERS } from "../plant/carriers";
import { HAZARDS } from "../plant/plant";
import {
  BARRIERS_FOR,
  FAMILIES,
  familyOf,
  GRADES,
  type Grade,
  isGradeOf,
  LADDERS,
  meets,
  oneBetter,
  stricter,
} from "./grades";
import { profileSchema } from "./profile";
import { PROFILES, profileOf } from "./profiles";
import { requiredGrade, type Situation } from "./requiredGrade";

const strict = profileOf("strict");
const water = { fluid: "water", temperature_C: 20, pressure_Pa: 3e5, hazards: [] };
const asked = (rest: Partial<Situation>, profile = strict) =>
  requiredGrade(profile, {
    how: ["open"],
    supplied: "fluid",
    carrier: "fluid",
    direct: true,
    contents: [water],
    voltage_V: 400,
    longerThanShift: false,
    ...rest,
  });

describe("the strict profile asks", () => {
  test.each([
    ["positive where a person enters", { how: ["enter"] }, "positive", "enter"],
    ["proved single to open cold water", {}, "proved single", "open, harmless"],
    [
      "proved double for what is hot",
      { contents: [{ ...water, temperature_C: 51 }] },
      "proved double",
      "open, harmful",
    ],
    ["no more at 50 °C exactly", { contents: [{ ...water, temperature_C: 50 }] }, "proved single", "open, harmless"],
    ["proved double above 10 bar", { contents: [{ ...water, pressure_Pa: 10.1e5 }] }, "proved double", "open, harmful"],
    ["proved double under vacuum", { contents: [{ ...water, pressure_Pa: -1 }] }, "proved double", "open, harmful"],
    ["proved double where nobody wrote the contents down", { contents: [undefined] }, "proved double", "open, harmful"],
    [
      "proved double where the pressure is missing",
      { contents: [{ ...water, pressure_Pa: undefined }] },
      "proved double",
      "open, harmful",
    ],
    [
      "positive for harmful contents above 40 bar",
      { contents: [{ ...water, hazards: ["toxic"], pressure_Pa: 41e5 }] },
      "positive",
      "open, high pressure",
    ],
    [
      "positive for hot work on what may burn",
      { how: ["hot"], contents: [{ ...water, hazards: ["flammable"] }] },
      "positive",
      "hot, harmful",
    ],
    ["proved single for other hot work", { how: ["hot"] }, "proved single", "hot, other"],
    ["one barrier against a push", { direct: false }, "unproved single", "pushed"],
    [
      "separation above 1000 V",
      { supplied: "power", carrier: "power", voltage_V: 11000 },
      "separated",
      "conductors, high voltage",
    ],
    [
      "separation where the voltage is missing",
      { supplied: "power", carrier: "power", voltage_V: undefined },
      "separated",
      "conductors, high voltage",
    ],
    [
      "a locked device at 400 V",
      { supplied: "power", carrier: "power" },
      "locked isolating device",
      "conductors, low voltage",
    ],
    [
      "restraint of what falls",
      { how: ["touch"], supplied: "gravity", carrier: "gravity" },
      "restrained",
      "moving by itself",
    ],
    [
      "the drive's isolation where a weight only drives a generator",
      { how: ["touch"], supplied: "gravity", carrier: "shaft", direct: false },
      "drive isolated only",
      "moving, driven",
    ],
    [
      "the drive's isolation of what a motor moves",
      { how: ["touch"], supplied: "power", carrier: "shaft" },
      "drive isolated only",
      "moving, driven",
    ],
    [
      "restraint of it where a person enters",
      { how: ["enter"], supplied: "power", carrier: "shaft" },
      "restrained",
      "moving, entered",
    ],
    ["cooling", { carrier: "heat" }, "isolated and cooled", "hot parts"],
    [
      "a locked and surveyed shutter",
      { supplied: "radiation", carrier: "radiation" },
      "shutter locked and surveyed",
      "radiation",
    ],
    [
      "one better when the job outlasts a shift",
      { contents: [{ ...water, hazards: ["corrosive"] }], longerThanShift: true },
      "positive",
      "long, hazardous",
    ],
    ["no better for harmless contents", { longerThanShift: true }, "proved single", "open, harmless"],
  ] as [string, Partial<Situation>, string, string][])("%s", (_, situation, grade, row) => {
    expect(asked(situation)).toMatchObject({ grade, row });
  });
});

test("the US profile accepts a double block with the bleed locked open for entry, the UK one blinds from 20 bar", () => {
  expect(asked({ how: ["enter"] }, profileOf("us-style")).grade).toBe("proved double");
  const acid = { ...water, hazards: ["corrosive" as const], pressure_Pa: 25e5 };
  expect(asked({ contents: [acid] }, profileOf("uk-style")).grade).toBe("positive");
  expect(asked({ contents: [acid] }).grade).toBe("proved double");
});

test("where no row fits the strictest of the family is asked", () => {
  const bare = { ...strict, rows: strict.rows.filter((row) => row.family !== "flow") };
  expect(asked({}, bare)).toMatchObject({ grade: "positive", row: "no row fits" });
});

describe("profiles", () => {
  test.each(PROFILES.map((profile) => [profile.id, profile] as const))(
    "%s is well formed, and every row has a source",
    (_, profile) => {
      expect(profileSchema.parse(profile)).toEqual(profile);
      expect(new Set(profile.rows.map((row) => row.id)).size).toBe(profile.rows.length);
      for (const row of profile.rows) expect(row.source).toMatch(/practice|from memory/);
    },
  );
  test("a grade of another family is refused", () => {
    const [row, ...rows] = strict.rows;
    const wrong = { ...strict, rows: [{ ...row!, asks: "separated" }, ...rows] };
    expect(profileSchema.safeParse(wrong).success).toBe(false);
  });
  test("an unknown profile is a broken promise", () => {
    expect(() => profileOf("lax")).toThrow(/no rule profile lax/);
  });
});

const situation: fc.Arbitrary<Situation> = fc.record({
  how: fc.uniqueArray(fc.constantFrom(...HOWS), { minLength: 1 }),
  supplied: fc.constantFrom(...CARRIERS),
  carrier: fc.constantFrom(...CARRIERS),
  direct: fc.boolean(),
  contents: fc.array(
    fc.option(
      fc.record({
        fluid: fc.constant("x"),
        temperature_C: fc.option(fc.integer({ min: -50, max: 400 }), { nil: undefined }),
        pressure_Pa: fc.option(fc.integer({ min: -100_000, max: 10_000_000 }), { nil: undefined }),
        hazards: fc.uniqueArray(fc.constantFrom(...HAZARDS)),
      }),
      { nil: undefined },
    ),
    { minLength: 1, maxLength: 3 },
  ),
  voltage_V: fc.option(fc.integer({ min: 0, max: 40_000 }), { nil: undefined }),
  longerThanShift: fc.boolean(),
});

describe("laws of the table", () => {
  test("more ways of meeting it never ask less", () => {
    fc.assert(
      fc.property(situation, fc.constantFrom(...HOWS), (one, how) => {
        const before = requiredGrade(strict, one);
        const after = requiredGrade(strict, { ...one, how: [...new Set([...one.how, how])] });
        expect(meets(before.family, after.grade!, before.grade!)).toBe(true);
      }),
      propertyRuns(300),
    );
  });
  test("more that may come never asks less, and its order decides nothing", () => {
    fc.assert(
      fc.property(situation, situation, (one, { contents }) => {
        const before = requiredGrade(strict, one);
        const after = requiredGrade(strict, { ...one, contents: [...one.contents, ...contents] });
        expect(meets(before.family, after.grade!, before.grade!)).toBe(true);
        expect(requiredGrade(strict, { ...one, contents: [...contents, ...one.contents] }).grade).toBe(after.grade);
      }),
      propertyRuns(300),
    );
  });
  test("knowing less never asks less", () => {
    fc.assert(
      fc.property(situation, (one) => {
        const known = requiredGrade(strict, one);
        const noVoltage = requiredGrade(strict, { ...one, voltage_V: undefined });
        expect(meets(known.family, noVoltage.grade!, known.grade!)).toBe(true);
        if (known.row !== "open, high pressure" && !known.reason.includes("high pressure")) {
          const nothing = requiredGrade(strict, { ...one, contents: [undefined] });
          expect(meets(known.family, nothing.grade!, known.grade!)).toBe(true);
        }
      }),
      propertyRuns(300),
    );
  });
  test("a longer job never asks less, and the answer is always of the family it arrives in", () => {
    fc.assert(
      fc.property(situation, (one) => {
        const short = requiredGrade(strict, { ...one, longerThanShift: false });
        const long = requiredGrade(strict, { ...one, longerThanShift: true });
        expect(meets(short.family, long.grade!, short.grade!)).toBe(true);
        expect(short.family).toBe(familyOf(one.carrier));
        expect(isGradeOf(short.family, short.grade!)).toBe(true);
        expect(short).toMatchObject(BARRIERS_FOR[short.grade!]);
      }),
      propertyRuns(300),
    );
  });
});

describe("ladders", () => {
  test("every grade has its barriers, and none only asks none", () => {
    for (const grade of GRADES) expect(BARRIERS_FOR[grade].barriers > 0).toBe(grade !== "none");
  });
  test("the better grade meets the worse, and not the other way", () => {
    for (const family of FAMILIES) {
      const ladder: readonly Grade[] = LADDERS[family];
      ladder.forEach((better, i) =>
        ladder.forEach((worse, j) => {
          expect(meets(family, better, worse)).toBe(i <= j);
          expect(stricter(family, better, worse)).toBe(ladder[Math.min(i, j)]);
        }),
      );
    }
    expect(oneBetter("flow", "proved double")).toBe("positive");
    expect(oneBetter("flow", "positive")).toBe("positive");
    expect(() => meets("wire", "positive", "separated")).toThrow(/no grade of wire/);
  });
});
