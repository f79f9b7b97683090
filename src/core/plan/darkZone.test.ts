import { SmallPlant } from "../../../tests/support/smallPlant";

const air = (rest: object) => ({ fluid: "air", phase: "gas" as const, hazards: [], ...rest });
const trappedIn = (contents: object) =>
  new SmallPlant()
    .source("S", "fluid", air({ pressure_Pa: 7e5 }))
    .device("V-1", "fluid")
    .item("R", "vessel", { contents: air(contents) })
    .line("fluid", "S", "V-1", "R")
    .bleed("BL", "R")
    .plan([{ place: "R", how: ["open"] }])
    .darkZone.trapped.find((row) => row.place === "R")!;

test("what a trapped gas gives out is computed from the register, between its bounds", () => {
  const { energy } = trappedIn({ volume_m3: 4, pressure_Pa: 7e5 });
  expect(energy!.energy_J! / 1e6).toBeCloseTo(3.575, 2);
  // P·V·ln(P/Pₐ) with 8.013 bar absolute, by hand.
  expect(energy!.most_J! / 1e6).toBeCloseTo(8.01325 * 0.4 * Math.log(8.01325 / 1.01325), 4);
});

test("what the register does not say is asked for, and there is no figure until it is known", () => {
  expect(trappedIn({ pressure_Pa: 7e5 }).energy).toMatchObject({ energy_J: null, missing: ["volume_m3"] });
});

test("a liquid is no spring: no figure is given for it", () => {
  const plan = new SmallPlant()
    .source("S", "fluid", { fluid: "water", hazards: [] })
    .device("V-1", "fluid")
    .item("R", "vessel", { contents: { fluid: "water", phase: "liquid", volume_m3: 1, hazards: [] } })
    .line("fluid", "S", "V-1", "R")
    .plan([{ place: "R", how: ["open"] }]);
  expect(plan.darkZone.trapped.find((row) => row.place === "R")!.energy).toBeNull();
});
