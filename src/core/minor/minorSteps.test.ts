import { SmallPlant } from "../../../tests/support/smallPlant";
import { plannedStepSchema } from "../procedure/stepSchema";
import { stepsOf } from "../procedure/sequence";
import { isMinor, minorSteps } from "./minorSteps";

const small = new SmallPlant()
  .source("NET", "power")
  .device("Q", "power")
  .item("DR", "drill", { voltage_V: 400 })
  .line("power", "NET", "Q", "DR");
const faces = [{ place: "DR", how: ["touch" as const] }];
const full = stepsOf(small.plan(faces), small.graph, faces);
const short = minorSteps(full);

test("lock, tag, proof and try remain; box, counting of others, start and watch do not", () => {
  expect(short.map(({ kind }) => kind)).toEqual([
    ...["tell", "stop", "lock", "prove", "try start"],
    ...["clear", "guards", "tell all", "unlock"],
  ]);
  for (const kind of ["lock", "prove", "try start", "unlock"]) {
    const was = full.find((step) => step.kind === kind)!;
    const { pairs, system_V, limit, plate, competence, ways } = was;
    // The same is asked of it as in full.
    expect(short.find((step) => step.kind === kind)).toMatchObject({ plate, competence, limit });
    expect(short.find((step) => step.kind === kind)).toEqual(
      expect.objectContaining(JSON.parse(JSON.stringify({ pairs, system_V, ways }))),
    );
  }
});

test("what came before something in full comes before it still", () => {
  const before = (steps: typeof full) => {
    const all = new Map<string, Set<string>>();
    for (const { id, after } of steps) all.set(id, new Set(after.flatMap((one) => [one, ...(all.get(one) ?? [])])));
    return all;
  };
  const [then, now] = [before(full), before(short)];
  const kept = new Set(short.map(({ id }) => id));
  for (const { id } of short) {
    expect([...now.get(id)!].sort()).toEqual([...then.get(id)!].filter((one) => kept.has(one)).sort());
  }
});

test("each says that it is done alone, and is kept so", () => {
  expect(isMinor(short)).toBe(true);
  expect(isMinor(full)).toBe(false);
  for (const step of short) expect(plannedStepSchema.parse(JSON.parse(JSON.stringify(step)))).toEqual(step);
});
