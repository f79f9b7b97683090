import { DETAILS } from "../../../../tests/support/permits";
import { askedDetailsSchema, detailsSchema } from "./details";
import { PERMIT_KINDS } from "./kinds";

const without = (details: object, name: string) =>
  Object.fromEntries(Object.entries(details).filter(([key]) => key !== name));
const faults = (raw: unknown) =>
  askedDetailsSchema.safeParse(raw).error?.issues.map(({ path }) => path.join(".")) ?? [];

test.each(PERMIT_KINDS)("%s: what is said in full is taken as it is kept", (kind) => {
  expect(askedDetailsSchema.parse(DETAILS[kind])).toEqual(detailsSchema.parse(DETAILS[kind]));
});

test.each(["inEquipment", "outOfSight", "height_m", "welders", "levels"])(
  "hot work: %s is asked, and never taken as the kinder answer",
  (name) => {
    expect(faults(without(DETAILS["hot work"], name))).toEqual([name]);
    expect(faults({ ...DETAILS["hot work"], [name]: "" })).toEqual([name]);
    // A permit of before, which never said it, is read all the same.
    expect(detailsSchema.safeParse(without(DETAILS["hot work"], name)).success).toBe(true);
  },
);

test.each(["corners", "ducts", "travel_m", "width_m", "depth_m", "volume_m3", "bends", "blower_m3_s"])(
  "confined space entry: %s is asked",
  (name) => {
    expect(faults(without(DETAILS["confined space entry"], name))).toEqual([name]);
  },
);

const SPACE_HAZARDS = ["badAir", "engulfing", "trapping", "otherHazard"];

test.each(SPACE_HAZARDS)(
  "confined space entry: %s is there until somebody says that it is not, each by itself",
  (name) => {
    const denied = Object.fromEntries(SPACE_HAZARDS.map((one) => [one, false]));
    const others = { ...DETAILS["confined space entry"], ...denied };
    expect(askedDetailsSchema.parse(without(others, name))).toMatchObject({ ...denied, [name]: true });
    expect(askedDetailsSchema.parse(others)).toMatchObject(denied);
  },
);

test("everything that is wrong is named at once", () => {
  const { welders: _, works: __, ...rest } = DETAILS["hot work"];
  expect(faults({ ...rest, x_m: "far" }).sort()).toEqual(["welders", "works", "x_m"]);
});

test("a permit of before that said nothing of them is read as it was", () => {
  const { inEquipment: _, outOfSight: __, ...before } = DETAILS["hot work"];
  expect(detailsSchema.parse(before)).toMatchObject({ inEquipment: false, outOfSight: false });
});
