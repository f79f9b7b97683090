import { SmallPlant } from "../../../tests/support/smallPlant";
import { standInsOf, wayOf } from "../plan/deviations";
import { plan } from "../plan/plan";
import { profileOf } from "../requirement/profiles";
import { readJobValue } from "../request/jobFile";
import { stepsOf } from "./sequence";

const ALWAYS: ReadonlySet<string> = new Set(["tell", "stop", "bar off", "prove", "try start"]);
type Contents = NonNullable<Parameters<SmallPlant["source"]>[2]>;

/** A tank between two lines, each with two valves and a bleed; with a drain of its own, or none. */
function tank(p: {
  contents?: Contents;
  kind?: string;
  drain?: boolean;
  how: readonly ("open" | "enter" | "hot" | "touch")[];
}) {
  const { contents, kind = "tank", drain = true, how } = p;
  const small = new SmallPlant()
    .source("H", "fluid", { fluid: "oil", hazards: [] })
    .device("V-1", "fluid")
    .item("S-1", "pipe")
    .bleed("BL-1", "S-1")
    .device("V-2", "fluid")
    .item("T", kind, contents === undefined ? {} : { contents })
    .line("fluid", "H", "V-1", "S-1", "V-2", "T");
  if (drain) small.bleed("BL-T", "T");
  const graph = small.graph;
  const read = readJobValue(
    { format: "heavy-lantern/job", version: 1, title: "Work", faces: [{ place: "T", how: [...how] }] },
    "job",
  );
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const made = plan(graph, read.value);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  const steps = stepsOf(made.value, graph, read.value.faces);
  return {
    plan: made.value,
    kinds: steps
      .filter(({ subject, phase, kind }) => subject === "T" && phase === "isolate" && !ALWAYS.has(kind))
      .map((step) => step.kind),
    steps,
    shut: made.value.shortfalls.filter(({ noWayOut }) => noWayOut),
  };
}

const OIL: Contents = { fluid: "oil", temperature_C: 90, volume_m3: 10, phase: "liquid", hazards: ["flammable"] };

describe("what is done with what is in a vessel", () => {
  test("entered: cooled, emptied, cleaned, certified, then inert and air", () => {
    const { kinds, shut } = tank({ contents: OIL, how: ["enter"] });
    expect(kinds).toEqual(["cool", "empty", "clean", "certify", "inert", "purge", "test air"]);
    expect(shut).toEqual([]);
  });
  test("cold, then empty under somebody's eyes, and only then is its drain left open", () => {
    const { steps } = tank({ contents: OIL, how: ["open"] });
    const of = (kind: string, subject: string) => steps.find((step) => step.kind === kind && step.subject === subject)!;
    expect(of("bleed", "BL-T").after).toEqual(expect.arrayContaining([of("cool", "T").id, of("empty", "T").id]));
    expect(of("empty", "T").after).toContain(of("cool", "T").id);
    expect(of("bleed", "BL-1").after).not.toContain(of("empty", "T").id);
  });
  test("unknown contents of a space that is entered are there, hot and dirty", () => {
    expect(tank({ how: ["enter"] }).kinds).toEqual(expect.arrayContaining(["cool", "empty", "clean", "certify"]));
  });
  test("opened only: emptied and, where it is hot, cooled; nobody goes in, so nothing is certified", () => {
    expect(tank({ contents: OIL, how: ["open"] }).kinds).toEqual(["cool", "empty"]);
    const cold = { ...OIL, temperature_C: 43 };
    expect(tank({ contents: cold, how: ["open"] }).kinds).toEqual(["empty"]);
    expect(tank({ contents: { ...OIL, temperature_C: 43.1 }, how: ["open"] }).kinds).toContain("cool");
  });
  test("a flame at a vessel asks that it is clean, whatever feeds it", () => {
    expect(tank({ contents: OIL, how: ["hot"] }).kinds).toEqual(expect.arrayContaining(["empty", "clean", "certify"]));
  });
  test("a gas leaves by itself, and written down as empty is empty: neither is emptied", () => {
    const steam: Contents = { fluid: "steam", temperature_C: 20, phase: "gas", hazards: [] };
    expect(tank({ contents: steam, how: ["enter"] }).kinds).not.toContain("empty");
    expect(tank({ contents: steam, how: ["enter"] }).kinds).not.toContain("clean");
    expect(tank({ contents: { ...steam, hazards: ["toxic"] }, how: ["enter"] }).kinds).toContain("certify");
    const empty = tank({ contents: { ...OIL, volume_m3: 0 }, how: ["enter"] }).kinds;
    expect([empty.includes("empty"), empty.includes("certify")]).toEqual([false, true]);
  });
  test("touched only: what is in it stays in it", () => {
    expect(tank({ contents: OIL, how: ["touch"] }).kinds).not.toContain("empty");
  });
});

describe("a vessel with contents and no way to drain", () => {
  const shut = tank({ contents: OIL, drain: false, how: ["open"] });

  test("falls short, and names the ways out", () => {
    expect(shut.plan.held).toBe(false);
    expect(shut.shut).toMatchObject([{ face: "T", available: 0, proved: "impossible" }]);
    const { measures } = profileOf(shut.plan.profile);
    for (const id of shut.shut[0]!.measures) expect(measures.map((one) => one.id)).toContain(id);
  });
  test("what is accepted for it is a step like any other", () => {
    const [one] = shut.shut;
    const accepted = [
      {
        way: wayOf(one!),
        requiredGrade: "",
        acceptedGrade: "none",
        acceptedDepth: 0,
        measures: ["suction lorry"],
      },
    ];
    expect(standInsOf(shut.plan, accepted, profileOf(shut.plan.profile))).toMatchObject([
      { measure: "suction lorry", face: "T" },
    ]);
  });
  test.each([
    ["with a drain", { contents: OIL, how: ["open"] }],
    ["written down as empty", { contents: { ...OIL, volume_m3: 0 }, drain: false, how: ["open"] }],
    ["full of gas", { contents: { ...OIL, phase: "gas" }, drain: false, how: ["open"] }],
    ["a sump, open above", { contents: OIL, kind: "sump", drain: false, how: ["open"] }],
    ["only touched", { contents: OIL, drain: false, how: ["touch"] }],
  ] satisfies [string, Parameters<typeof tank>[0]][])("not so: %s", (_, p) => {
    expect(tank(p).shut).toEqual([]);
  });
});

test("no step of emptying asks for less than words, and an emptied vessel for a level", async () => {
  const { asksOf } = await import("../isolation/stepAsks");
  const { steps } = tank({ contents: OIL, how: ["enter"] });
  for (const kind of ["empty", "clean", "certify"] as const) {
    expect(asksOf(steps.find((step) => step.kind === kind)!).words).not.toBeNull();
  }
  expect(asksOf(steps.find(({ kind }) => kind === "empty")!).reading).toMatchObject({ most: 0 });
});
