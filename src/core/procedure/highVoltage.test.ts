import { HARMLESS, SmallPlant } from "../../../tests/support/smallPlant";
import { stepsOf } from "./sequence";
import { isHighVoltage } from "./highVoltage";
import { competenceMissing } from "./competent";

test.each([
  [1000, ["power"], false],
  [1001, ["power"], true],
  [11_000, ["control"], true],
  [230, ["control"], false],
  [undefined, ["power"], true],
  [undefined, ["power", "control"], true],
  [undefined, ["control"], false],
  [undefined, ["fluid"], false],
] as const)("%s V, %j: high voltage %s", (voltage_V, carriers, high) => {
  expect(isHighVoltage(voltage_V, carriers)).toBe(high);
});

test.each([
  [{ competence: null }, [], null],
  [{ competence: "electrical" }, [], "electrical"],
  [{ competence: "electrical" }, ["electrical"], null],
  [{ competence: "electrical", highVoltage: true }, ["electrical"], "high-voltage"],
  [{ competence: "electrical", highVoltage: true }, ["high-voltage"], "electrical"],
  [{ competence: "electrical", highVoltage: true }, ["electrical", "high-voltage"], null],
] as const)("%j by somebody who has %j misses %s", (step, has, missing) => {
  expect(competenceMissing(step, has)).toBe(missing);
});

describe("steps at high voltage say so, and those beside them do not", () => {
  const plant = (voltage_V: number | undefined) =>
    new SmallPlant()
      .source("NET", "power")
      .item("CB", "isolator", {
        voltage_V,
        device: { stops: ["power"], credit: true, lockable: true, effort: 5, stands: "passing" },
      })
      .item("M", "motor", { voltage_V, system: "3-phase" })
      .item("P", "pump")
      .source("S", "fluid", HARMLESS)
      .device("V", "fluid")
      .line("power", "NET", "CB", "M")
      .line("shaft", "M", "P")
      .line("fluid", "S", "V", "P")
      .bleed("BP", "P");
  const faces = [
    { place: "M", how: ["touch" as const] },
    { place: "P", how: ["open" as const] },
  ];
  const highAt = (voltage_V: number | undefined) => {
    const made = plant(voltage_V);
    const steps = stepsOf(made.plan(faces), made.graph, faces);
    return {
      high: steps
        .filter(({ highVoltage }) => highVoltage)
        .map(({ phase, kind, subject }) => `${phase} ${kind} ${subject}`),
      low: steps.filter(({ competence, highVoltage }) => competence === "electrical" && !highVoltage).length,
      others: steps.filter(({ competence, highVoltage }) => competence !== "electrical" && highVoltage).length,
    };
  };

  test.each([11_000, 1001, undefined])("%s V", (voltage_V) => {
    const { high, low, others } = highAt(voltage_V);
    expect(high).toEqual(expect.arrayContaining(["isolate lock CB", "isolate prove M", "restore unlock CB"]));
    expect({ low, others }).toEqual({ low: 0, others: 0 });
  });
  test.each([1000, 400])("%s V", (voltage_V) => expect(highAt(voltage_V)).toMatchObject({ high: [], others: 0 }));
});
