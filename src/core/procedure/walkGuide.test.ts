import { SmallPlant } from "../../../tests/support/smallPlant";
import { stepsOf } from "./sequence";
import { guideOf } from "./walkGuide";

const plant = new SmallPlant()
  .source("NET", "power")
  .device("Q", "power", { kind: "breaker" })
  .item("M", "motor", { voltage_V: 400 })
  .source("S", "fluid")
  .device("V", "fluid", { bore_m: 0.08 })
  .device("BIG", "fluid", { bore_m: 0.3 })
  .device("BARE", "fluid", { lockable: false })
  .item("P", "pump")
  .line("power", "NET", "Q", "M")
  .line("shaft", "M", "P")
  .line("fluid", "S", "V", "P");
const item = (tag: string) => plant.graph.plant.items.find((one) => one.tag === tag);
const steps = stepsOf(plant.plan([{ place: "P", how: ["open", "touch"] }]), plant.graph);
const guide = (kind: string, subject: string) =>
  guideOf(
    steps.find((step) => step.kind === kind && step.subject === subject)!,
    item(subject),
  );

describe("how a step is done on the spot", () => {
  test("a switch is thrown from the side, its blades looked at, and clamped", () => {
    expect(guide("lock", "Q").stand).toMatch(/side.*face turned away/);
    expect(guide("lock", "Q").position).toMatch(/every blade/);
    expect(guide("lock", "Q").holdsLock).toBe("breaker clamp");
  });
  test("a valve is shut beside its stem, under a cover that fits or a chain", () => {
    expect(guide("lock", "V").stand).toMatch(/never over it/);
    expect(guide("lock", "V").holdsLock).toBe("valve cover, DN 80");
    const lock = steps.find((step) => step.kind === "lock" && step.subject === "V")!;
    expect(guideOf({ ...lock, subject: "BIG" }, item("BIG")).holdsLock).toBe("chain");
    const bare = { ...lock, subject: "BARE", words: "Shut BARE, and at once tag it: it takes no lock." };
    expect(guideOf(bare, item("BARE")).holdsLock).toBeNull();
  });
  test("what is easily taken for a proof is said where it is", () => {
    expect(guide("prove", "P").mind).toBeNull();
    expect(guideOf({ ...steps[0]!, kind: "prove", limit: { most: 5, unit: "V" } }, undefined).mind).toMatch(
      /never proof/,
    );
  });
});
