import { DETAILS, idOf } from "../../../../tests/support/permits";
import { nearestHelp, proposeHazards, type HazardFacts } from "../../hazard/proposals";
import { NO_HAZARDS, openHazards, type Conditions } from "../../hazard/jobHazards";
import { permitsRequired } from "../../hazard/permitsRequired";
import type { Area, Item, Plant } from "../../plant/plant";
import { approachLimit } from "../../energy/approachLimits";
import { crossChecks, keepOutOf, type PermitInPlace } from "../around/crossChecks";
import { areaAt, placeOf } from "../around/hotWorkZone";

const item = (tag: string, kind: string, more: Partial<Item> = {}): Item => ({
  tag,
  kind,
  area: "Hall",
  parts: [],
  needs: [],
  protects: [],
  sources: [],
  ...more,
});
const area = (name: string, x_m: number, y_m: number, level_m: number, more: Partial<Area> = {}): Area => ({
  name,
  x_m,
  y_m,
  width_m: 20,
  depth_m: 20,
  level_m,
  ...more,
});
const solvent = { fluid: "solvent", hazards: ["flammable"] } as const;

/** A hall at +6 m with openings to a pit below, a yard behind its wall, and a store far off. */
const PLANT: Plant = {
  kinds: [],
  areas: [
    area("Hall", 0, 0, 6, { opensTo: ["Pit"] }),
    area("Pit", 0, 0, 0),
    area("Yard", 20, 0, 6),
    area("Store", 60, 0, 6),
  ],
  items: [
    item("T-1", "tank", { x_m: 12, y_m: 10, contents: solvent }),
    item("BL-1", "bleed", { x_m: 13, y_m: 10, bleed: { safe: false, gauge: false } }),
    item("T-2", "tank", { area: "Store", x_m: 62, y_m: 10, contents: solvent }),
    item("T-3", "tank", { area: "Pit", x_m: 10, y_m: 12, contents: solvent }),
    item("T-4", "tank", { area: "Yard", x_m: 21, y_m: 10, contents: { fluid: "refined oil", hazards: [] } }),
    item("V-9", "vessel", { x_m: 8, y_m: 10 }),
    item("G-1", "drain gully", { x_m: 10, y_m: 14, contents: { fluid: "water", hazards: [] } }),
    item("M-1", "motor", { x_m: 9, y_m: 9 }),
  ],
  links: [{ from: "T-1", to: "BL-1", carries: "fluid", oneWay: false, normal: "none", wall: false, protects: [] }],
} as unknown as Plant;

describe("what sparks can reach", () => {
  test("places: an item's own figures, else the middle of its area; of two floors the nearer one", () => {
    expect(placeOf(item("X", "pump", { area: "Yard" }), PLANT.areas)).toEqual({ x_m: 30, y_m: 10, level_m: 6 });
    expect(placeOf(item("X", "pump", { area: "Nowhere" }), PLANT.areas)).toBeNull();
    expect(areaAt(PLANT.areas, { x_m: 5, y_m: 5, level_m: 1 })?.name).toBe("Pit");
  });
});

describe("where permits touch", () => {
  const inPlace = (number: string, more: Partial<PermitInPlace> = {}): PermitInPlace => ({
    number,
    job: `J-${number}`,
    details: { kind: "general" },
    isolations: [],
    faces: [{ tag: "T-1", how: ["touch"], x_m: 0, y_m: 0, level_m: 0, known: true }],
    people: [],
    lifts: [],
    loses: [],
    ...more,
  });
  const hot = inPlace("P-1", { details: { ...DETAILS["hot work"], x_m: 0, y_m: 0 }, faces: [] });
  const kinds = (one: PermitInPlace, ...others: PermitInPlace[]) => crossChecks(one, others).map(({ kind }) => kind);
  const face = (x_m: number, how: "open" | "touch" | "enter", known = true) =>
    ({ tag: `F-${x_m}`, how: [how], x_m, y_m: 0, level_m: 0, known }) as const;

  test("the same isolation, place or person; not for two permits of one job, but for the person", () => {
    const [a, b] = [inPlace("P-1", { isolations: ["S-1"] }), inPlace("P-2", { isolations: ["S-1"] })];
    expect(kinds(a, b)).toEqual(["same isolation", "same place"]);
    expect(kinds(a, { ...b, job: a.job })).toEqual([]);
    const person = { people: [idOf("wim")] };
    expect(kinds({ ...a, ...person }, { ...b, ...person, job: a.job })).toEqual(["same person"]);
  });
  test("flame against what is opened within reach, a line break wherever it is met, a purge's exhaust, a place unknown", () => {
    expect(kinds(hot, inPlace("P-2", { faces: [face(10, "open")] }))).toEqual(["flame and open end"]);
    expect(kinds(hot, inPlace("P-2", { faces: [face(11, "open")] }))).toEqual([]);
    expect(kinds(hot, inPlace("P-2", { faces: [face(500, "open", false)] }))).toEqual(["flame and open end"]);
    // From a floor above, sparks get farther down; from one below, no farther up.
    const from = (level_m: number) =>
      inPlace("P-1", { ...hot, details: { ...DETAILS["hot work"], x_m: 0, y_m: 0, level_m } });
    const opened = (x_m: number) => inPlace("P-2", { faces: [face(x_m, "open")] });
    expect(kinds(from(12), opened(25))).toEqual(["flame and open end"]);
    expect(kinds(from(12), opened(60))).toEqual([]);
    expect(kinds(from(-5), opened(11))).toEqual([]);
    const line = inPlace("P-2", { details: DETAILS["line break"], faces: [face(5, "touch")] });
    expect(kinds(line, hot)).toEqual(["flame and open end"]);
    const entry = inPlace("P-2", { details: DETAILS["confined space entry"], faces: [face(5, "enter")] });
    expect(kinds(hot, entry)).toEqual(["flame and purge exhaust"]);
  });
  test("a fan that one job takes away and another breathes by", () => {
    const entry = inPlace("P-1", { details: DETAILS["confined space entry"], faces: [face(100, "enter")] });
    expect(kinds(entry, inPlace("P-2", { loses: ["FAN-1"] }))).toEqual(["ventilation switched off"]);
    expect(kinds(inPlace("P-2", { loses: ["FAN-1"] }), entry)).toEqual(["ventilation switched off"]);
  });
  test("a lift over a crew, and people within the distance of a gas test", () => {
    const lift = inPlace("P-1", { faces: [face(200, "touch")], lifts: [{ what: "gear unit", x_m: 5, y_m: 0 }] });
    expect(kinds(lift, inPlace("P-2", { faces: [face(0, "touch")] }))).toEqual(["lift over people"]);
    const test = inPlace("P-1", {
      details: { ...DETAILS["pressure test"], medium: "gas", x_m: 0, y_m: 0 },
      faces: [face(300, "touch")],
    });
    expect(kinds(test, inPlace("P-2", { faces: [face(29, "touch")] }))).toEqual(["inside the keep-out distance"]);
    expect(kinds(test, inPlace("P-2", { faces: [face(60, "touch")] }))).toEqual([]);
    expect(keepOutOf({ ...DETAILS["pressure test"], medium: "water" }).distance_m).toBe(0);
  });
  test("it has the same id whichever of the two asks", () => {
    const [a, b] = [inPlace("P-2"), inPlace("P-1")];
    expect(crossChecks(a, [b])[0]!.id).toBe(crossChecks(b, [a])[0]!.id);
  });
});

describe("job hazards", () => {
  const facts = (more: Partial<HazardFacts> = {}): HazardFacts => ({
    faces: [],
    arriving: [],
    stored: [],
    profile: { id: "strict", hotAbove_C: 50, fallAbove_m: 1.2 },
    conditions: null,
    ...more,
  });
  const said = (more: Partial<Conditions> = {}): Conditions => ({
    weather: "dry",
    wind_m_s: null,
    thunder: false,
    ice: false,
    tools: [],
    inspected: [],
    lifts: [],
    by: "hal",
    at_ms: 0,
    ...more,
  });
  const at = (place: string, how: HazardFacts["faces"][number]["how"], one: Item | null = null) => ({
    place,
    how,
    item: one,
    area: PLANT.areas[0]!,
  });
  const ids = (given: HazardFacts) => proposeHazards(given).map(({ id }) => id);
  const required = (given: HazardFacts) => permitsRequired(given).map(({ kind }) => kind);

  test("are found from how people meet it, from what arrives, from what is in it and from tools", () => {
    const tank = at("T-1", ["enter", "open"], PLANT.items[0]!);
    const arriving = [
      { source: "NET", carrier: "power", face: "T-1", tier: 1 },
      { source: "S-1", carrier: "fluid", face: "T-1", tier: 1 },
    ] as const;
    expect(ids(facts({ faces: [tank], arriving }))).toEqual(["shock", "pressure", "fire", "no air", "engulfed"]);
    expect(ids(facts({ conditions: said({ tools: ["angle grinder"], wind_m_s: 14, thunder: true }) }))).toEqual([
      "sparks",
      "weather",
    ]);
    // A tank of which nobody wrote down what is in it may burn, poison and eat.
    expect(ids(facts({ faces: [at("V-9", ["touch"], PLANT.items[5]!)] }))).toEqual(["fire", "poison", "burn by acid"]);
  });
  test("ask for permits, each with its rule; a general one where nothing does", () => {
    expect(required(facts({ faces: [at("M-1", ["near"])] }))).toEqual(["general"]);
    expect(required(facts({ faces: [at("T-1", ["enter", "open"], PLANT.items[0]!)] }))).toEqual([
      "confined space entry",
      "line break",
    ]);
    const motor = at("M-1", ["touch"], PLANT.items[7]!);
    const live = [{ source: "NET", carrier: "power", face: "M-1", tier: 1 }] as const;
    expect(required(facts({ faces: [motor], arriving: live }))).toEqual(["electrical work"]);
    const high = at("P-1", ["touch"], item("P-1", "pump", { level_m: 8 }));
    expect(required(facts({ faces: [high] }))).toEqual(["work at height"]);
    const tools = ["welding set", "test pump, pressure test", "jumper for the trip"];
    expect(required(facts({ conditions: said({ tools }) }))).toEqual(["hot work", "pressure test", "safeguard bypass"]);
    for (const { rule } of permitsRequired(facts({ faces: [motor], arriving: live }))) expect(rule).not.toBe("");
  });
  test("stay open until each is decided, questions answered, tools looked at, and no lift is too heavy", () => {
    const proposed = proposeHazards(facts({ faces: [at("T-1", ["hot"])] }));
    expect(openHazards(NO_HAZARDS, proposed)).toHaveLength(2);
    const decision = {
      id: "sparks",
      verdict: "kept",
      hazard: "",
      controls: [],
      owner: "holder",
      reason: "",
      by: "hal",
      at_ms: 0,
    } as const;
    const all = { decisions: [{ ...decision, controls: [] }], questions: [], conditions: said() };
    expect(openHazards(all, proposed)).toEqual([]);
    const lifts = [{ what: "gear unit", mass_kg: 46, people: 2, place: "T-1" }];
    expect(openHazards({ ...all, conditions: said({ lifts }) }, proposed)).toEqual([
      "gear unit: 46 kg is too much for 2 people by hand",
    ]);
    expect(openHazards({ ...all, conditions: said({ lifts: [{ ...lifts[0]!, mass_kg: 45 }] }) }, proposed)).toEqual([]);
    expect(openHazards({ ...all, conditions: said({ tools: ["ladder"] }) }, proposed)).toEqual(["ladder looked at"]);
    const questions = [{ id: "q", words: "Who has the key?", by: "wim", at_ms: 0, answer: null }];
    expect(openHazards({ ...all, questions }, proposed)).toEqual(["answer to “Who has the key?”"]);
  });
  test("one way out is not enough, and what nobody wrote down is said", () => {
    expect(
      nearestHelp(area("Hall", 0, 0, 0, { exits: ["gate 1"] })).find(({ what }) => what === "Two ways out")?.where,
    ).toBeNull();
    expect(nearestHelp(area("Hall", 0, 0, 0, { exits: ["gate 1", "gate 2"], phone: "desk" }))[1]?.where).toBe(
      "gate 1; gate 2",
    );
    expect(nearestHelp(null).every(({ where }) => where === null)).toBe(true);
  });
});

describe("how near to what is live", () => {
  test("by voltage and profile, the farther of both schools under the strict one, none above the last band", () => {
    expect(approachLimit("us-style", 480)).toMatchObject({ restricted_m: 0.3, limited_m: 1.07 });
    expect(approachLimit("uk-style", 10_000)).toMatchObject({ restricted_m: 0.7 });
    expect(approachLimit("strict", 10_000)).toMatchObject({ restricted_m: 0.7, limited_m: 1.5 });
    expect(approachLimit("us-style", 48)).toBeNull();
    expect(approachLimit("strict", 110_000)).toBeNull();
  });
});
