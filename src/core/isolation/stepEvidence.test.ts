import fc from "fast-check";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import { pairsOf } from "../plant/conductors";
import type { PlannedStep, StepKind } from "../procedure/steps";
import type { PersonId } from "../people/roles";
import type { Gear, GearKind } from "../gear/gear";
import { judgeReport, type EvidenceFacts, type StepReport } from "./stepEvidence";

const by = { person: "ann" as PersonId, at_ms: 50 };
const step = (kind: StepKind, more: Partial<PlannedStep> = {}): PlannedStep => ({
  id: "i1",
  phase: "isolate",
  kind,
  subject: "K-1",
  plate: null,
  words: "",
  competence: null,
  after: [],
  carrier: null,
  limit: null,
  secondPerson: false,
  ...more,
});
const register: Readonly<Record<string, Partial<Gear>>> = {
  "voltage tester VT-1": { rating_V: 1000 },
  "voltage tester VT-OLD": { inDateUntil_ms: 10 },
  "proving unit PU-1": {},
  "proving unit PU-OLD": { inDateUntil_ms: 10 },
  "insulating gloves GL-1": { rating_V: 17_000 },
  "insulating gloves GL-0": { rating_V: 1000 },
  "voltage tester HV-1": { rating_V: 24_000 },
  "portable earth PE-1": {},
  "portable earth PE-2": {},
  "portable earth PE-OLD": { inDateUntil_ms: null },
  "pressure gauge PG-1": { error: 0.02 },
  "pressure gauge PG-9": { error: 0.2 },
  "pressure gauge PG-7": {},
  "thermometer TH-1": { error: 1 },
};
const facts: EvidenceFacts = {
  gear: (kind: GearKind, number: string) => {
    const known = register[`${kind} ${number}`];
    return (
      known && {
        kind,
        number,
        owner: null,
        key: null,
        inDateUntil_ms: 100,
        rating_V: null,
        error: null,
        withdrawn: false,
        withdrawnBy: null,
        bumpedAt_ms: null,
        zeroedAt_ms: null,
        sheet: null,
        withJob: null,
        ...known,
      }
    );
  },
  earthStands: (number) => (number === "PE-2" ? "at K-9, isolation S-2" : undefined),
  job: "J-1",
  earthsAt: () => ["PE-1", "PE-3"],
  crewSize: 3,
  leakTest_min: 10,
};
const code = (one: PlannedStep, report: StepReport) => {
  const judged = judgeReport(one, report, by, facts);
  return judged.ok ? "kept" : judged.refusal.code;
};

describe("proving dead", () => {
  const pairs = pairsOf("3-phase");
  const dead = step("prove", { carrier: "power", limit: { most: 5, unit: "V" }, pairs, system_V: 400 });
  const sound: StepReport = {
    readings: Object.fromEntries(pairs.map((pair) => [pair, 0])),
    tester: "VT-1",
    provingUnit: "PU-1",
    provedBefore: true,
    provedAfter: true,
  };
  test("takes every pair, with a tester in date, rated, and proved before and after", () => {
    expect(code(dead, sound)).toBe("kept");
    expect(code(dead, { ...sound, tester: " " })).toBe("reading missing");
    expect(code(dead, { ...sound, tester: "VT-9" })).toBe("gear unknown");
    expect(code(dead, { ...sound, tester: "VT-OLD" })).toBe("gear out of date");
    expect(code({ ...dead, system_V: 1001 }, sound)).toBe("gear rating");
    expect(code(dead, { ...sound, provedBefore: false })).toBe("tester not proved");
    expect(code(dead, { ...sound, provedAfter: undefined })).toBe("tester not proved");
  });
  test("says what it was proved on: a unit in date, or a live source whose voltage is known", () => {
    const bare = { ...sound, provingUnit: null };
    expect(code(dead, bare)).toBe("reading missing");
    expect(code(dead, { ...sound, provingUnit: "PU-OLD" })).toBe("gear out of date");
    expect(code(dead, { ...bare, knownSource: "socket by the door" })).toBe("reading missing");
    expect(code(dead, { ...bare, knownSource: "socket by the door", knownSource_V: 3 })).toBe("reading missing");
    expect(code(dead, { ...bare, knownSource: "socket by the door", knownSource_V: 230 })).toBe("kept");
  });
  test("asks for gloves above low voltage, rated for it", () => {
    const high = { ...dead, system_V: 11_000 };
    expect(code(high, { ...sound, tester: "HV-1" })).toBe("reading missing");
    expect(code(high, { ...sound, tester: "HV-1", gloves: "GL-0" })).toBe("gear rating");
    expect(code(high, { ...sound, tester: "HV-1", gloves: "GL-1" })).toBe("kept");
  });
  test("one pair alive or not read is enough to refuse, whichever it is", () => {
    let alive = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...pairs),
        fc.oneof(
          fc.integer({ min: -400, max: 400 }).map((n) => n / 10),
          fc.constant(null),
        ),
        (pair, volts) => {
          const readings = { ...sound.readings } as Record<string, number>;
          if (volts === null) delete readings[pair];
          else readings[pair] = volts;
          const expected = volts === null ? "reading missing" : Math.abs(volts) > 5 ? "reading not safe" : "kept";
          if (expected === "reading not safe") alive++;
          expect(code(dead, { ...sound, readings })).toBe(expected);
        },
      ),
      propertyRuns(200),
    );
    expect(alive).toBeGreaterThan(metAtLeast(50));
  });
  test("the highest reading is what is kept, with all of them beside it", () => {
    const judged = judgeReport(
      dead,
      { ...sound, readings: { ...sound.readings, "L1–E": -3.5, "L2–L3": 1 } },
      by,
      facts,
    );
    expect(judged).toMatchObject({ ok: true, value: { reading: 3.5, evidence: { tester: "VT-1" } } });
  });
});

describe("a reading of an instrument", () => {
  const empty = step("prove", { carrier: "fluid", limit: { most: 0.05, unit: "bar" } });
  test("is judged with the instrument's error on top, which the register knows and nobody types", () => {
    expect(code(empty, { reading: 0, instrument: "PG-1" })).toBe("kept");
    expect(code(empty, { reading: 0.02, instrument: "PG-1" })).toBe("kept");
    expect(code(empty, { reading: 0.021, instrument: "PG-1" })).toBe("not zero");
    expect(code(empty, { reading: -0.021, instrument: "PG-1" })).toBe("not zero");
    expect(code(empty, { reading: 0.04, instrument: "PG-1" })).toBe("reading not safe");
    expect(code(empty, { reading: 0, instrument: "PG-9" })).toBe("reading not safe");
  });
  test("is not taken without a numbered instrument, nor from one whose error nobody wrote down", () => {
    expect(code(empty, { instrument: "PG-1" })).toBe("reading missing");
    expect(code(empty, { reading: NaN, instrument: "PG-1" })).toBe("reading missing");
    expect(code(empty, { reading: 0 })).toBe("reading missing");
    expect(code(empty, { reading: 0, instrument: " " })).toBe("reading missing");
    expect(code(empty, { reading: 0, instrument: "PG-7" })).toBe("gear error unknown");
  });
  test("a vacuum is no more empty than a pressure", () => {
    expect(code(empty, { reading: -0.4, instrument: "PG-1" })).toBe("reading not safe");
  });
});

describe("what else a step asks", () => {
  test("every way of starting is tried", () => {
    const tried = step("try start", { ways: ["at the machine", "from the control room"] });
    expect(code(tried, {})).toBe("ways not tried");
    expect(code(tried, { tried: ["at the machine"] })).toBe("ways not tried");
    expect(code(tried, { tried: ["from the control room", "at the machine"] })).toBe("kept");
  });
  test("earths stand at the work, or at every way in by power", () => {
    const earth = step("earth", { entrances: ["Q-1", "Q-2"] });
    expect(code(earth, {})).toBe("reading missing");
    expect(code(earth, { earths: { "PE-1": "K-1" } })).toBe("kept");
    expect(code(earth, { earths: { "PE-1": "Q-1" } })).toBe("not between earths");
    // One of two, of which nobody says where it stands.
    expect(code(earth, { earths: { "PE-1": "K-1", "PE-3": " " } })).toBe("reading missing");
    expect(code(earth, { earths: { "PE-2": "K-1" } })).toBe("earth in use");
    expect(code(earth, { earths: { "PE-OLD": "K-1" } })).toBe("gear out of date");
    expect(code(earth, { earths: { "PE-8": "K-1" } })).toBe("gear unknown");
  });
  test("every earth that went on comes off, and no other", () => {
    const off = step("remove earth");
    expect(code(off, { earths: { "PE-1": "K-1", "PE-3": "Q-2" } })).toBe("kept");
    expect(code(off, { earths: { "PE-1": "K-1" } })).toBe("earths differ");
    expect(code(off, { earths: { "PE-1": "", "PE-3": "", "PE-4": "" } })).toBe("earths differ");
    expect(code(off, {})).toBe("earths differ");
  });
  test("as many people come out as went in", () => {
    expect(code(step("count people"), {})).toBe("reading missing");
    expect(code(step("count people"), { peopleCounted: 2 })).toBe("people differ");
    expect(code(step("count people"), { peopleCounted: 3 })).toBe("kept");
  });
  test("zero on a gauge is no leave to let a door go that what it hides would throw", () => {
    const door = (opening_m: number) =>
      step("prove", { carrier: "fluid", limit: { most: 0.05, unit: "bar" }, opening_m });
    const zero = { reading: 0, instrument: "PG-1" };
    // 0.02 bar on 0.6 m: 2000 Pa on 0.283 m², 565 N; on 0.39 m 239 N.
    expect(code(door(0.6), zero)).toBe("door may fly");
    expect(code(door(0.39), zero)).toBe("kept");
    expect(code(door(0.41), zero)).toBe("door may fly");
    expect(code(door(0.6), { ...zero, words: "  " })).toBe("door may fly");
    expect(code(door(0.6), { ...zero, words: "two long bolts left in" })).toBe("kept");
    expect(judgeReport(door(0.6), { ...zero, words: "two long bolts left in" }, by, facts)).toMatchObject({
      value: { evidence: { words: "two long bolts left in", error: 0.02 } },
    });
    // What it shows counts as well as what it hides, and no words make up for a gauge that is not at zero.
    expect(code(door(0.39), { ...zero, reading: 0.01 })).toBe("door may fly");
    expect(code(door(0.6), { reading: 0.03, instrument: "PG-1", words: "bolts" })).toBe("not zero");
  });
  test("a leak test is long enough, on a fine enough gauge, and loses no more than the gauge may be off", () => {
    const sound = { pressure_bar: 6, held_min: 10, lost_bar: 0.01, instrument: "PG-1" };
    const test = step("leak test");
    expect(code(test, sound)).toBe("kept");
    expect(code(test, { ...sound, pressure_bar: 0 })).toBe("reading missing");
    expect(code(test, { ...sound, lost_bar: null })).toBe("reading missing");
    expect(code(test, { ...sound, instrument: null })).toBe("reading missing");
    expect(code(test, { ...sound, instrument: "PG-7" })).toBe("gear error unknown");
    expect(code(test, { ...sound, held_min: 9 })).toBe("held too short");
    expect(code(test, { ...sound, instrument: "PG-9" })).toBe("gauge too coarse");
    expect(code(test, { ...sound, lost_bar: 0.03 })).toBe("leaks");
    expect(code(test, { ...sound, lost_bar: -0.03 })).toBe("leaks");
  });
  test("who was told and what holds a thing is written down; a guard only done", () => {
    expect(code(step("tell"), { words: " " })).toBe("reading missing");
    expect(code(step("tell"), { words: "the shift" })).toBe("kept");
    expect(code(step("restrain"), {})).toBe("reading missing");
    expect(code(step("guards"), {})).toBe("kept");
  });
});
