import { HARMLESS, SmallPlant } from "../../../tests/support/smallPlant";
import { compare } from "./compare";
import { shortfallsNotAccepted, wayOf } from "./deviations";

/** One header valve that stops three consumers, or a dear valve at the work itself. */
const plant = new SmallPlant()
  .source("H", "fluid", HARMLESS)
  .device("HV", "fluid", { effort: 2 })
  .item("HD", "header")
  .device("V-1", "fluid", { effort: 9 })
  .item("P", "vessel", { contents: HARMLESS })
  .item("C-1", "vessel", { needs: ["fluid"] })
  .item("C-2", "vessel", { needs: ["fluid"], criticality: 5 })
  .line("fluid", "H", "HV", "HD", "V-1", "P")
  .line("fluid", "HD", "C-1")
  .line("fluid", "HD", "C-2")
  .bleed("BW", "P")
  .bleed("BH", "HD");

function compared() {
  const made = compare(plant.graph, plant.job([{ place: "P", how: ["open"] }]));
  if (!made.ok) throw new Error("refused");
  return made.value;
}

describe("plans side by side", () => {
  test("each set is shown once, and the least of each figure is marked", () => {
    const { comparison } = compared();
    expect(comparison.alternatives.map((one) => one.devices)).toEqual([["V-1"], ["HV"]]);
    expect(comparison.alternatives[0]).toMatchObject({ dark: [], locks: 1, best: ["fewest locks", "least outage"] });
    expect(comparison.alternatives[1]).toMatchObject({ dark: ["C-1", "C-2"], criticality: 6, minutes: 2 });
    expect(comparison.alternatives[1]!.best).toEqual(["fewest locks", "quickest"]);
  });
  test("the recommendation weighs what goes dark, and says what it costs", () => {
    const { comparison } = compared();
    expect(comparison.recommended).toBe(0);
    expect(comparison.reason).toBe("It takes 7 min more than the quickest, and nothing else is cut off.");
  });
  test("without the penalty the cheapest cut stops everybody", () => {
    const effort = compared().plans.find((one) => one.objective === "effort")!;
    expect(effort.points.map((point) => point.device)).toEqual(["HV"]);
    expect(effort.goesDark.map((loss) => loss.tag)).toEqual(["C-1", "C-2"]);
  });
});

describe("deviations", () => {
  const short = plant.plan([{ place: "P", how: ["enter"] }]);
  const [first] = short.shortfalls;
  const accepted = {
    way: wayOf(first!),
    requiredGrade: first!.requiredGrade!,
    acceptedGrade: first!.grade,
    acceptedDepth: first!.available,
    measures: ["watcher"],
  };

  test("a shortfall is open until it is accepted as it is", () => {
    expect(short.shortfalls).toHaveLength(1);
    expect(shortfallsNotAccepted(short, [])).toHaveLength(1);
    expect(shortfallsNotAccepted(short, [accepted])).toHaveLength(0);
  });
  test.each([
    ["without measures", { measures: [] }],
    ["for another grade", { acceptedGrade: "unproved single" }],
    ["for what asked less", { requiredGrade: "proved single" }],
    ["with more barriers than there are now", { acceptedDepth: 9 }],
    ["for another way", { way: "H fluid Q" }],
  ])("an acceptance %s does not cover it", (_, other) => {
    expect(shortfallsNotAccepted(short, [{ ...accepted, ...other }])).toHaveLength(1);
  });
});
