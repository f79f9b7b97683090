import { Acting, DETAILS, draftOf, HOUR, wellFacts } from "../../../../tests/support/permits";
import type { DetailsOf, PermitDetails } from "./details";
import { detailsSchema } from "./details";
import { KIND_RULES, kindRule, PERMIT_KINDS } from "./kinds";
import { lifeTableMarkdown } from "../life/lifeTable";
import { asksOf, missingWhileLive } from "../requirements/requirements";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { PermitFacts } from "../record/permitTypes";

function unmet(details: PermitDetails, more: Partial<PermitFacts> = {}, now_ms = HOUR): string[] {
  return asksOf({ permit: draftOf(details), facts: wellFacts(more), now_ms })
    .filter((ask) => ask.unmet !== null && ask.id !== "copies")
    .map(({ id }) => id);
}
const known = (details: PermitDetails, more: Partial<PermitFacts> = {}) =>
  asksOf({ permit: draftOf(details), facts: wellFacts(more), now_ms: HOUR })
    .filter((ask) => ask.unmet !== null && !ask.byHand && ask.id !== "copies")
    .map(({ id }) => id);

describe("the kinds of permit", () => {
  test.each(PERMIT_KINDS)("%s: every ask that it lists has its words", (kind) => {
    const asks = asksOf({ permit: draftOf(DETAILS[kind]), facts: wellFacts(), now_ms: HOUR });
    for (const { words } of asks) expect(words).toMatch(/^[A-Z]/);
    expect(new Set(asks.map(({ id }) => id)).size).toBe(asks.length);
  });
  test("hot work lasts a day at most, others a shift, a bypass a week", () => {
    expect(kindRule("hot work").longest_h).toBe(24);
    expect(kindRule("general").longest_h).toBe(12);
    expect(kindRule("safeguard bypass").longest_h).toBe(168);
    const long = { validTo_ms: 25 * HOUR };
    const acting = new Acting(draftOf(DETAILS["hot work"], long), wellFacts({ testPoints: ["a"] }));
    acting.did("cora", { type: "check" }).did("isa", { type: "authorise" });
    acting.ticked(asksOf({ permit: acting.permit, facts: acting.facts, now_ms: HOUR }));
    expect(acting.code("isa", { type: "issue", copies: ["at the work"] })).toBe("validity");
  });
  test("all but a bypass stand on a proven isolation, and entry and line break on one that was planned for them", () => {
    expect(PERMIT_KINDS.filter((kind) => !KIND_RULES[kind].isolation)).toEqual(["safeguard bypass"]);
    const touch = { plannedFor: ["touch"] as const };
    expect(unmet(DETAILS["confined space entry"], touch)).toContain("planned for");
    expect(unmet(DETAILS["line break"], touch)).toContain("planned for");
    expect(unmet({ ...DETAILS["hot work"], inEquipment: true }, touch)).toContain("planned for");
    expect(unmet(DETAILS["hot work"], touch)).not.toContain("planned for");
  });
  test.each(PERMIT_KINDS)("%s stops, and does not begin, while a muster is open where it is", (kind) => {
    expect(unmet(DETAILS[kind], { muster: "M-0001" })).toContain("muster");
    expect(unmet(DETAILS[kind])).not.toContain("muster");
    const facts = wellFacts({ muster: "M-0001" });
    const held = missingWhileLive({ permit: draftOf(DETAILS[kind], { state: "live" }), facts, now_ms: HOUR });
    expect(held.find(({ id }) => id === "muster")).toMatchObject({ cause: "area alarm", before: "accept" });
  });
  test.each(PERMIT_KINDS)("%s waits for the hazards to be decided", (kind) => {
    expect(unmet(DETAILS[kind], { hazardsOpen: null })).toContain("hazards");
    expect(unmet(DETAILS[kind], { hazardsOpen: ["what burns"] })).toContain("hazards");
    expect(unmet(DETAILS[kind])).not.toContain("hazards");
  });
});

describe("electrical work", () => {
  const details: DetailsOf<"electrical work"> = DETAILS["electrical work"];
  test("gloves are named, in date and rated for the voltage", () => {
    expect(known({ ...details, gloves: "" })).toEqual(["gloves"]);
    const rating = {
      gearFault: (kind: string, number: string, needs = 0) =>
        ({ code: "gear rating", kind, number, rating: 1000, needs }) as const,
    };
    expect(known(details, rating)).toEqual(["gloves"]);
    expect(known(details)).toEqual([]);
  });
  test("above a kilovolt it is earthed, unless earths come off for a test, when nobody else works there", () => {
    const high = { ...details, voltage_V: 11_000 };
    expect(known(high)).toEqual(["earths"]);
    expect(known(high, { earths: ["PE-1"] })).toEqual([]);
    expect(known({ ...high, sanction: true })).toEqual([]);
    expect(unmet({ ...high, sanction: true })).toContain("test alone");
  });
  test("live work says why, and an approver decides", () => {
    expect(known({ ...details, live: true })).toEqual(["approval", "live reason"]);
    expect(known({ ...details, live: true, liveReason: "fault-finding only shows under load" })).toEqual(["approval"]);
  });
  test("how near is said by the profile, the farther of the schools under the strict one", () => {
    const words = asksOf({ permit: draftOf({ ...details, voltage_V: 10_000 }), facts: wellFacts(), now_ms: HOUR });
    expect(words.find(({ id }) => id === "screens to live")?.words).toMatch(/0\.7 m only shielded, 1\.5 m for others/);
  });
});

describe("height, pressure, bypass", () => {
  test("above the profile's height every harness is in date, or somebody looked at the rails", () => {
    const height = DETAILS["work at height"];
    expect(unmet(height)).toContain("harness");
    expect(unmet({ ...height, height_m: 1 })).not.toContain("harness");
    const worn = { ...height, harnesses: ["HA-1"] };
    expect(unmet(worn)).not.toContain("harness");
    const old = { gearFault: (kind: string, number: string) => ({ code: "gear out of date", kind, number }) as const };
    expect(known(worn, old)).toEqual(["harness"]);
  });
  test("gas asks for an approver and distance; too much of it in one piece is refused; water for neither", () => {
    const test = DETAILS["pressure test"];
    expect(known(test)).toEqual([]);
    const gas = { ...test, medium: "gas" } as const;
    expect(known(gas)).toEqual(["approval"]);
    // 20 bar in 60 m³ of air: some 170 MJ; in 120 m³ more than 271 MJ.
    expect(known({ ...gas, volume_m3: 60 })).toEqual(["approval"]);
    expect(known({ ...gas, volume_m3: 120 })).toEqual(["approval", "test energy"]);
    const keep = asksOf({ permit: draftOf({ ...gas, volume_m3: 60 }), facts: wellFacts(), now_ms: HOUR });
    expect(keep.find(({ id }) => id === "keep out")?.words).toMatch(/^Cleared and barred for \d+ m around$/);
    const gauge = {
      id: "PT-9",
      place: "at the edge",
      kind: "gauge" as const,
      reads: [],
      against: ["21 bar is above 20.5 bar"],
      silent: false,
      silentFrom_ms: Infinity,
    };
    expect(known(test, { detectors: [gauge] })).toEqual(["live gauge"]);
  });
  test("a bypass has an owner who exists, is not asked for longer than its time, and is approved", () => {
    const bypass = DETAILS["safeguard bypass"];
    expect(known(bypass)).toEqual(["approval"]);
    expect(known({ ...bypass, owner: "nobody" })).toEqual(["approval", "bypass owner"]);
    expect(known({ ...bypass, until_ms: 2 * HOUR })).toEqual(["approval", "bypass owner"]);
  });
  test("a bypass is not closed before the safeguard is back", () => {
    const acting = new Acting(draftOf(DETAILS["safeguard bypass"]), wellFacts({ isolations: [] }));
    acting
      .did("cora", { type: "check" })
      .did("isa", { type: "authorise" })
      .did("ana", { type: "approve", words: "one day" });
    acting.ticked(asksOf({ permit: acting.permit, facts: acting.facts, now_ms: HOUR }));
    acting.did("isa", { type: "issue", copies: ["at the panel"] }).did("hal", { type: "accept" });
    expect(acting.code("wim", { type: "sign on", lock: "L", answer: "P-7" })).toBe("no isolation");
    acting.did("hal", { type: "hand back" }).did("isa", { type: "inspect", words: "seen" });
    expect(acting.code("isa", { type: "close" })).toBe("not back");
    acting.did("hal", { type: "safeguard back", words: "tripped at 82 %" });
    expect(acting.code("isa", { type: "close" })).toBe("not back");
    acting.did("hal", { type: "return copy", copy: 1 });
    expect(acting.code("hal", { type: "return copy", copy: 1 })).toBe("unknown");
    expect(acting.code("isa", { type: "close" })).toBe("accepted");
  });
  test("what was put in comes out before it is closed", () => {
    const acting = new Acting(draftOf({ kind: "general" }), wellFacts());
    acting
      .did("cora", { type: "check" })
      .did("isa", { type: "authorise" })
      .did("isa", { type: "issue", copies: ["at the work"] });
    acting.did("hal", { type: "accept" }).did("hal", { type: "put in", what: "blind", where: "F-12" });
    acting.did("hal", { type: "hand back" }).did("isa", { type: "inspect", words: "seen" });
    expect(acting.code("isa", { type: "close" })).toBe("not back");
    acting.did("hal", { type: "take out", thing: 1 }).did("hal", { type: "return copy", copy: 1 });
    expect(acting.code("isa", { type: "close" })).toBe("accepted");
  });
});

describe("what a kind says of its work", () => {
  const raw = (kind: PermitDetails["kind"], more: object = {}) =>
    detailsSchema.safeParse({ ...DETAILS[kind], ...more });
  test.each(PERMIT_KINDS)("%s reads back as it was written", (kind) => {
    const read = raw(kind);
    expect(read.success && read.data).toEqual(DETAILS[kind]);
  });
  test("every fault names its field, all of them at once", () => {
    const read = raw("hot work", { x_m: "4,5", welders: 0, works: [], points: [] });
    const faults = read.success ? [] : read.error.issues.map(({ path, message }) => `${path.join(".")}: ${message}`);
    expect(faults).toHaveLength(4);
    expect(faults.join("\n")).toMatch(/x_m: Where it is, x holds a comma/);
    expect(faults.join("\n")).toMatch(/welders: People with a flame or arc must be at least 1/);
    expect(raw("confined space entry", { volume_m3: "" }).success).toBe(false);
    expect(raw("confined space entry", { gases: ["phlogiston"] }).success).toBe(false);
    expect(raw("pressure test", { gamma: 1 }).success).toBe(false);
  });
  test("a bound is said in both systems of units, for a figure may have been typed in either", () => {
    const said = (kind: PermitDetails["kind"], more: object) => raw(kind, more).error?.issues[0]?.message;
    expect(said("hot work", { bore_m: 0.06 })).toBe("The hose's bore must be at most 50 mm (1.97 in)");
    expect(said("confined space entry", { depth_m: 201 })).toBe("The depth must be at most 200 m (656.2 ft)");
    expect(said("electrical work", { voltage_V: 900_000 })).toBe("The voltage must be at most 800000 V");
    expect(said("confined space entry", { most: 51 })).toBe("Entrants at a time must be at most 50");
  });
});

describe("docs/permit-life.md", () => {
  test("holds the table of the code", () => {
    const page = readFileSync(join(__dirname, "../../../../docs/permit-life.md"), "utf8");
    // Prettier pads the cells of a table.
    const plain = (text: string) => text.replace(/-{3,}/g, "---").replace(/ +/g, " ");
    expect(plain(page)).toContain(plain(lifeTableMarkdown()).trim());
  });
});
