import { HARMFUL, SmallPlant } from "../../../tests/support/smallPlant";

/** Two valves with a bled space between; the space holds an energy of its own. */
function withStored(regenerating: boolean): SmallPlant {
  return new SmallPlant()
    .source("H", "fluid", HARMFUL)
    .device("V-1", "fluid")
    .item("SP", "pipe", {
      source: [
        {
          carrier: "fluid",
          feeding: false,
          regenerating,
          stored: { form: "trapped pressure", volume_m3: 0.1, pressure_Pa: 5e5 },
        },
      ],
    })
    .device("V-2", "fluid")
    .item("P", "vessel", { contents: HARMFUL })
    .line("fluid", "H", "V-1", "SP", "V-2", "P")
    .bleed("BL-1", "SP")
    .bleed("BL", "P");
}

describe("what stands behind isolated devices", () => {
  const grade = (regenerating: boolean) =>
    withStored(regenerating)
      .check([{ place: "P", how: ["open"] }], ["V-1", "V-2"])
      .routes.find(({ source }) => source === "H")!.grade;

  test("what is stored once is released by the bleed: the space proves", () => {
    expect(grade(false)).toBe("proved double");
  });
  test("what comes back by itself keeps the space live: only the face behind it proves anything", () => {
    expect(grade(true)).toBe("proved single");
  });
});
