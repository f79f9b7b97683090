import fc from "fast-check";
import { HARMFUL, HARMLESS, SmallPlant } from "../../../tests/support/smallPlant";
import { propertyRuns } from "../../../tests/support/runs";
import { stepsOf } from "./sequence";
import type { PlannedStep } from "./steps";

const spaded = () =>
  new SmallPlant()
    .source("S", "fluid", HARMFUL)
    .device("V-1", "fluid")
    .item("SP-1", "pipe")
    .device("V-2", "fluid")
    .device("SPADE", "fluid", { kind: "blind", positive: true })
    .item("T", "vessel")
    .item("M", "motor", { voltage_V: 400 })
    .source("NET", "power")
    .device("Q", "power", { kind: "isolator" })
    .item("P", "pump")
    .line("fluid", "S", "V-1", "SP-1", "V-2", "SPADE", "T")
    .line("fluid", "P", "T")
    .line("power", "NET", "Q", "M")
    .line("shaft", "M", "P")
    .bleed("BL", "SP-1")
    .bleed("BW", "T");

/** Every step that must be done before this one, near and far. */
function before(steps: readonly PlannedStep[], step: PlannedStep): Set<string> {
  const found = new Set<string>();
  const queue = [...step.after];
  for (const id of queue) {
    if (found.has(id)) continue;
    found.add(id);
    queue.push(...steps.find((one) => one.id === id)!.after);
  }
  return found;
}

describe("the order of the steps", () => {
  const plant = spaded();
  const steps = stepsOf(plant.plan([{ place: "T", how: ["enter"] }]), plant.graph, [{ place: "T", how: ["enter"] }]);
  const step = (kind: string, subject: string) => {
    const found = steps.find((one) => one.kind === kind && one.subject === subject);
    if (!found) throw new Error(`no step ${kind} ${subject}`);
    return found;
  };
  const comesBefore = (first: PlannedStep, second: PlannedStep) => before(steps, second).has(first.id);

  test("drives are isolated before their lines", () => {
    expect(comesBefore(step("lock", "Q"), step("lock", "V-1"))).toBe(true);
  });
  test("a blind is fitted only behind locked valves and an open bleed, and proved after", () => {
    for (const valve of ["V-1", "V-2"]) expect(comesBefore(step("lock", valve), step("lock", "SPADE"))).toBe(true);
    expect(comesBefore(step("bleed", "BL"), step("lock", "SPADE"))).toBe(true);
    for (const proof of steps.filter((one) => one.kind === "prove")) {
      expect(comesBefore(step("lock", "SPADE"), proof)).toBe(true);
    }
  });
  test("the way back runs the other way: blind out, bleeds shut, valves, drives last", () => {
    expect(comesBefore(step("unlock", "SPADE"), step("close bleed", "BL"))).toBe(true);
    expect(comesBefore(step("close bleed", "BL"), step("unlock", "V-2"))).toBe(true);
    expect(comesBefore(step("unlock", "V-1"), step("unlock", "Q"))).toBe(true);
  });
  test("every lock has one unlock, and the box closes after every proof", () => {
    const of = (kind: string) =>
      steps
        .filter((one) => one.kind === kind)
        .map((one) => one.subject)
        .sort();
    expect(of("lock")).toEqual(of("unlock"));
    const box = steps.find((one) => one.kind === "close box")!;
    for (const one of steps.filter((other) => other.phase === "isolate" && other !== box)) {
      expect(comesBefore(one, box)).toBe(true);
    }
  });
  test("nothing waits for itself, and ids are unique, for any job on this plant", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("T", "P", "M", "SP-1"),
        fc.subarray(["open", "touch", "enter", "hot"] as const, { minLength: 1 }),
        (place, how) => {
          const made = stepsOf(plant.plan([{ place, how }]), plant.graph, [{ place, how }]);
          expect(new Set(made.map((one) => one.id)).size).toBe(made.length);
          for (const one of made) expect(before(made, one).has(one.id)).toBe(false);
        },
      ),
      propertyRuns(40),
    );
  });
});

test("a plan without points still tells, stops, proves and closes the box", () => {
  const plant = new SmallPlant().source("S", "fluid", HARMLESS).item("P", "vessel").line("fluid", "S", "P");
  const kinds = stepsOf(plant.plan([{ place: "P", how: ["near"] }]), plant.graph).map((step) => step.kind);
  expect(kinds).toEqual(expect.arrayContaining(["tell", "stop", "prove", "close box", "hand over"]));
});
