import { createHash } from "node:crypto";
import { generatedPlant } from "../../tests/support/generatedPlant";
import { canonicalJson } from "../core/ledger/canonicalJson";
import { inOneGo } from "../core/inOneGo";
import { readPlantValue } from "../core/plant/readPlantJson";
import { buildStateGraph } from "../core/trace/stateGraph";
import { registerParts, storedPlantSteps } from "./registerParts";

function plantOf(items: number) {
  const read = readPlantValue(generatedPlant(items, 3).plant, "plant.json");
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
}
const asStored = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;

test.each([100, 2500])("a register of %i items comes back from its parts as it was, and with the same graph", (n) => {
  const plant = plantOf(n);
  const { parts, hash } = registerParts(plant);
  expect(parts.length).toBeGreaterThan(n > 1000 ? 5 : 2);
  const back = inOneGo(storedPlantSteps(parts, hash));
  expect(back).toEqual(asStored(plant));
  const [graph, again] = [buildStateGraph(plant), buildStateGraph(back)];
  expect([...again.out.other]).toEqual([...graph.out.other]);
});

test("one stored whole by an earlier version is read by the hash that it had then", () => {
  const plant = plantOf(100);
  const text = canonicalJson(asStored(plant));
  expect(inOneGo(storedPlantSteps([text], createHash("sha256").update(text).digest("hex")))).toEqual(asStored(plant));
});

test("a part that is changed, missing, twice or out of its place is found", () => {
  const { parts, hash } = registerParts(plantOf(2500));
  const damaged = [
    parts.map((part, i) => (i === 2 ? part.replace("valve", "blind") : part)),
    parts.slice(0, -1),
    [...parts, parts.at(-1)!],
    [parts[0]!, parts[2]!, parts[1]!, ...parts.slice(3)],
  ];
  for (const some of damaged) {
    expect(some).not.toEqual(parts);
    expect(() => inOneGo(storedPlantSteps(some, hash))).toThrow("its hash differs");
  }
});
