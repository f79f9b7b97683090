import { HARMLESS, SmallPlant } from "../../../tests/support/smallPlant";
import { plan } from "../plan/plan";
import { readJobValue } from "../request/jobFile";
import { stepsOf } from "./sequence";

type Face = Readonly<{ place: string; how: readonly ("open" | "enter" | "hot" | "touch" | "near")[] }>;
const ACID = { fluid: "acid", hazards: ["corrosive" as const] };

function stepsAt(small: SmallPlant, ...faces: Face[]) {
  const { graph } = small;
  const job = {
    format: "heavy-lantern/job",
    version: 1,
    title: "Work",
    faces: faces.map((f) => ({ ...f, how: [...f.how] })),
  };
  const read = readJobValue(job, "job");
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const made = plan(graph, read.value);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return stepsOf(made.value, graph, read.value.faces);
}
const line = (contents: typeof HARMLESS | typeof ACID, kind = "vessel") =>
  new SmallPlant()
    .source("H", "fluid", contents)
    .device("V-1", "fluid")
    .item("S-1", "pipe")
    .bleed("BL-1", "S-1")
    .device("V-2", "fluid")
    .item("T", kind, { contents })
    .bleed("BL-T", "T")
    .line("fluid", "H", "V-1", "S-1", "V-2", "T");
const kinds = (steps: readonly { kind: string }[]) => steps.map(({ kind }) => kind);

describe("barriers and signs", () => {
  test("stand round what is opened where harmful contents may come out, and are taken away at the end", () => {
    const steps = stepsAt(line(ACID), { place: "T", how: ["open"] });
    expect(steps.find(({ kind }) => kind === "bar off")).toMatchObject({ subject: "T", phase: "isolate" });
    expect(steps.find(({ kind }) => kind === "take barriers away")).toMatchObject({ subject: "T", phase: "restore" });
  });
  test("are not asked round water, nor where nothing is opened", () => {
    expect(kinds(stepsAt(line(HARMLESS), { place: "T", how: ["open"] }))).not.toContain("bar off");
    expect(kinds(stepsAt(line(ACID), { place: "T", how: ["touch"] }))).not.toContain("bar off");
  });
  test("are not asked round a motor that is opened: nothing flows there, whatever nobody wrote down", () => {
    const motor = new SmallPlant()
      .source("NET", "power")
      .device("Q", "power")
      .item("M", "motor", { voltage_V: 400 })
      .line("power", "NET", "Q", "M");
    expect(kinds(stepsAt(motor, { place: "M", how: ["open"] }))).not.toContain("bar off");
  });
  test("are not asked round a machine for a weight that hangs elsewhere and could only feed back over a shared bus", () => {
    const machine = (tag: string, of: SmallPlant) =>
      of
        .device(`Q-${tag}`, "power")
        .item(`M-${tag}`, "motor", { voltage_V: 400 })
        .line("power", "BUS", `Q-${tag}`, `M-${tag}`);
    const site = new SmallPlant()
      .source("NET", "power")
      .item("BUS", "busbar", { voltage_V: 400 })
      .line("power", "NET", "BUS");
    const hoist = machine("1", machine("2", site)).item("HO", "hoist", {
      source: [{ carrier: "gravity", feeding: false, stored: { form: "raised mass", mass_kg: 300, height_m: 2 } }],
    });
    const both = hoist.line("shaft", "M-1", "HO").line("gravity", "HO", "HO-HOOK").item("HO-HOOK", "hook");
    expect(kinds(stepsAt(both, { place: "M-2", how: ["touch"] }))).not.toContain("bar off");
    expect(kinds(stepsAt(both, { place: "HO", how: ["touch"] }))).toContain("bar off");
  });
  test("are not asked round a motor that is opened for what flows to a pump elsewhere", () => {
    const pumps = new SmallPlant()
      .source("NET", "power")
      .item("BUS", "busbar", { voltage_V: 400 })
      .line("power", "NET", "BUS")
      .source("H", "fluid", ACID)
      .item("P", "pump")
      .item("M-1", "motor", { voltage_V: 400 })
      .item("M-2", "motor", { voltage_V: 400 })
      .device("Q-1", "power")
      .device("Q-2", "power")
      .line("fluid", "H", "P")
      .line("shaft", "M-1", "P")
      .line("power", "BUS", "Q-1", "M-1")
      .line("power", "BUS", "Q-2", "M-2");
    expect(kinds(stepsAt(pumps, { place: "M-2", how: ["open"] }))).not.toContain("bar off");
  });
  test("stand where a weight hangs that may come down, and at high voltage", () => {
    const hung = line(HARMLESS).item("HO", "hoist", {
      source: [{ carrier: "gravity", feeding: false, stored: { form: "raised mass", mass_kg: 300, height_m: 2 } }],
    });
    expect(kinds(stepsAt(hung, { place: "HO", how: ["touch"] }))).toContain("bar off");
    const volts = (voltage_V: number) =>
      new SmallPlant()
        .source("NET", "power")
        .device("Q", "power")
        .item("B", "busbar", { voltage_V })
        .line("power", "NET", "Q", "B");
    expect(kinds(stepsAt(volts(6600), { place: "B", how: ["touch"] }))).toContain("bar off");
    expect(kinds(stepsAt(volts(400), { place: "B", how: ["touch"] }))).not.toContain("bar off");
  });
});

describe("a part that is turned until its hatch can be reached", () => {
  const drum = (turned: boolean) =>
    line(HARMLESS)
      .item("M", "motor")
      .source("NET", "power")
      .device("Q", "power")
      .line("power", "NET", "Q", "M")
      .item("DR", "vessel", { contents: HARMLESS, ...(turned ? { space: { turned } } : {}) })
      .line("shaft", "M", "DR");
  test("is positioned under control before its drive is locked for good", () => {
    const steps = stepsAt(drum(true), { place: "DR", how: ["enter"] });
    const position = steps.find(({ kind }) => kind === "position")!;
    expect(position).toMatchObject({ subject: "DR" });
    expect(steps.find(({ kind, subject }) => kind === "lock" && subject === "Q")!.after).toContain(position.id);
  });
  test("and is not turned where nobody wrote that down, or nobody goes in", () => {
    expect(kinds(stepsAt(drum(false), { place: "DR", how: ["enter"] }))).not.toContain("position");
    expect(kinds(stepsAt(drum(true), { place: "DR", how: ["touch"] }))).not.toContain("position");
  });
});

describe("trying to start", () => {
  const tried = (small: SmallPlant, place: string) =>
    stepsAt(small, { place, how: ["touch"] }).find(({ kind }) => kind === "try start")!;
  test("is of what starts; a transformer and a tank are tried at the handles of their points", () => {
    const grid = new SmallPlant()
      .source("NET", "power")
      .device("Q", "power")
      .item("TR", "transformer", { voltage_V: 400 })
      .line("power", "NET", "Q", "TR");
    expect(tried(grid, "TR")).toMatchObject({ ways: ["the handle of Q"] });
    expect(tried(grid, "TR").words).toMatch(/Nothing at TR starts by itself/);
    expect(tried(line(HARMLESS), "T").ways).toEqual(
      expect.arrayContaining([expect.stringMatching(/^the handle of V-/)]),
    );
  });
  test("a motor, and a vessel that something turns, are started at every desk", () => {
    const motor = new SmallPlant()
      .source("NET", "power")
      .device("Q", "power")
      .item("M", "motor")
      .line("power", "NET", "Q", "M");
    expect(tried(motor, "M").ways).toContain("from the control room");
    const stirred = motor.item("V", "vessel", { contents: HARMLESS }).line("shaft", "M", "V");
    expect(tried(stirred, "V").ways).toContain("from the control room");
  });
});
