import { HARMFUL, HARMLESS, SmallPlant } from "../../../tests/support/smallPlant";

const open = (place: string) => [{ place, how: ["open" as const] }];

/** What is short of a plan by the strict rules, and whether that is proved impossible. */
function shorts(plant: SmallPlant, faces: Parameters<SmallPlant["plan"]>[0]) {
  return plant.plan(faces).shortfalls.map(({ source, requiredGrade, proved }) => [source, requiredGrade, proved]);
}

describe("what no choice of points could hold is said to be impossible", () => {
  test("two barriers face to face have no space that anything drains", () => {
    const plant = new SmallPlant()
      .source("H", "fluid", HARMFUL)
      .device("V-1", "fluid")
      .device("V-2", "fluid")
      .item("P", "vessel", { contents: HARMFUL })
      .line("fluid", "H", "V-1", "V-2", "P")
      .bleed("BL", "P");
    expect(shorts(plant, open("P"))).toContainEqual(["H", "proved double", "impossible"]);
  });

  test("a space that a bleed drains between them makes it possible, and then it is held", () => {
    const plant = new SmallPlant()
      .source("H", "fluid", HARMFUL)
      .device("V-1", "fluid")
      .item("SP", "pipe")
      .device("V-2", "fluid")
      .item("P", "vessel", { contents: HARMFUL })
      .line("fluid", "H", "V-1", "SP", "V-2", "P")
      .bleed("BL-1", "SP")
      .bleed("BL", "P");
    expect(shorts(plant, open("P"))).toEqual([]);
  });

  test("one barrier and a face that nothing drains", () => {
    const plant = new SmallPlant()
      .source("H", "fluid", HARMLESS)
      .device("V-1", "fluid")
      .item("P", "vessel", { contents: HARMLESS })
      .line("fluid", "H", "V-1", "P");
    expect(shorts(plant, open("P"))).toContainEqual(["H", "proved single", "impossible"]);
  });

  test("a conductor with nothing on the way that isolates and takes a lock", () => {
    const plant = new SmallPlant()
      .source("INC", "power")
      .device("Q", "power", { kind: "switch" })
      .item("M", "motor", { voltage_V: 400 })
      .line("power", "INC", "Q", "M");
    const touched = [{ place: "M", how: ["touch" as const] }];
    expect(shorts(plant, touched)).toContainEqual(["INC", "locked isolating device", "impossible"]);
    const isolator = new SmallPlant()
      .source("INC", "power")
      .device("Q", "power", { kind: "isolator" })
      .item("M", "motor", { voltage_V: 400 })
      .line("power", "INC", "Q", "M");
    expect(shorts(isolator, touched)).toEqual([]);
  });
});
