import { ENTRY_LIMITS, judgeAir } from "../../src/core/atmosphere/airLimits";
import { TEST_ORDER, TEST_SPACING_m, testDepths_m } from "../../src/core/atmosphere/testPoints";
import { permitsRequired } from "../../src/core/hazard/permitsRequired";
import { keepOut } from "../../src/core/energy/gasEnergy";
import { afterWatchState } from "../../src/core/permit/afterwatch/afterWatch";
import { afterWatchRule } from "../../src/core/permit/requirements/hotWork";
import { LIFE } from "../../src/core/permit/life/lifeTable";
import { kindRule } from "../../src/core/permit/kinds/kinds";
import { asksOf } from "../../src/core/permit/requirements/requirements";
import { approachLimit } from "../../src/core/energy/approachLimits";
import { HOT_WORK } from "../../src/core/fire/hotWork";
import { profileOf } from "../../src/core/requirement/profiles";
import { Acting, DETAILS, draftOf, HOUR, idOf, isolationNow, MINUTE, wellFacts } from "../support/permits";

/**
 * Permits against published rules. All quoted figures and sections are from memory: the texts were not at hand. Each test
 * names its source.
 */
const entryAsks = asksOf({ permit: draftOf(DETAILS["confined space entry"]), facts: wellFacts(), now_ms: HOUR });
const asked = (id: string) => entryAsks.find((ask) => ask.id === id)!;

describe("29 CFR 1910.146, permit-required confined spaces, from memory", () => {
  const us = ENTRY_LIMITS["us-style"];
  const air = (oxygen: number, flammable = 0) => judgeAir({ oxygen, flammable, toxics: [] }, us).fit;
  test("(b): oxygen below 19.5 % or above 23.5 % is hazardous, and flammable in excess of 10 % of the lower limit", () => {
    expect([air(0.195), air(0.194), air(0.235), air(0.236)]).toEqual([true, false, true, false]);
    expect([air(0.209, 0.099), air(0.209, 0.101)]).toEqual([true, false]);
  });
  test("(c)(5)(ii)(C): tested in order for oxygen, flammable, toxic", () => {
    expect(TEST_ORDER).toEqual(["oxygen", "flammable", "toxic"]);
  });
  test("appendix B: some 4 ft in the direction of travel and to each side, so no depth is farther apart", () => {
    expect(TEST_SPACING_m).toBeCloseTo(4 * 0.3048, 1);
    for (const depth of [1, 2.4, 6.3]) {
      const depths = testDepths_m(depth);
      for (const [i, at] of depths.slice(1).entries()) expect(at - depths[i]!).toBeLessThanOrEqual(1.2 + 1e-9);
    }
  });
  test("(d)(6), (i): an attendant outside for the duration, (i)(10) with no duty that may interfere", () => {
    expect(asked("watch")).toMatchObject({ unmet: "nobody is", holds: "inside" });
    expect(LIFE["take post"].asks).toBe("no other duty anywhere");
    expect(kindRule("confined space entry").post).toBe("attendant");
  });
  test("(e)(5): evacuation on an alarm; (f): the permit names space, entrants, attendant, tests, rescue, times", () => {
    const details = DETAILS["confined space entry"];
    for (const field of ["space", "most", "rescue", "rehearsed_ms", "talk_min"]) expect(details).toHaveProperty(field);
    expect(Object.keys(LIFE)).toEqual(expect.arrayContaining(["go in", "come out", "read", "stop"]));
  });
  test("(e)(4): the permit is for no longer than the work; here never longer than a shift", () => {
    expect(kindRule("confined space entry").longest_h).toBeLessThanOrEqual(12);
  });
  test("(k)(2)(iv): rescue is practised at least once every 12 months", () => {
    for (const id of ["strict", "us-style", "uk-style"]) {
      expect(profileOf(id).rehearsedWithin_days).toBeLessThanOrEqual(365);
    }
  });
});

describe("29 CFR 1910.147, control of hazardous energy, from memory", () => {
  test("(d)(6): isolation is verified before work starts: no permit of that kind is issued on one that is not proven", () => {
    const facts = wellFacts({
      isolations: [isolationNow({ code: "not proven", isolation: "S-1", state: "isolating", openSteps: 1 })],
    });
    for (const kind of ["general", "line break", "electrical work", "work at height", "pressure test"] as const) {
      const acting = new Acting(draftOf(DETAILS[kind]), facts);
      acting.did("cora", { type: "check" }).did("isa", { type: "authorise" });
      expect(acting.code("isa", { type: "issue", copies: ["at the work"] })).toBe("isolation not proven");
    }
  });
  test("(f)(3)(ii)(D), (f)(4): each has a lock of their own, and at shift change protection does not lapse", () => {
    const acting = new Acting(draftOf({ kind: "general" }), wellFacts());
    acting
      .did("cora", { type: "check" })
      .did("isa", { type: "authorise" })
      .did("isa", { type: "issue", copies: ["at the work"] });
    acting.did("hal", { type: "accept" }).did("wim", { type: "sign on", lock: "L-1", answer: "P-7" });
    acting.did("cora", { type: "hand over", pairs: [{ from: idOf("wim"), to: idOf("will"), lock: "L-2" }] });
    const [was, is] = acting.permit.signOns;
    expect(is!.on_ms).toBeLessThanOrEqual(was!.off_ms!);
  });
});

describe("29 CFR 1910.252(a) and NFPA 51B, hot work, from memory", () => {
  test("(a)(2)(vii): combustibles within 35 ft are moved or covered", () => {
    expect(HOT_WORK.clear_m).toBeCloseTo(35 * 0.3048, 3);
  });
  test("(a)(2)(iii): a fire watch for at least half an hour after; NFPA 51B since 2019: one hour", () => {
    const hours = (id: string) => afterWatchRule(id).continuous_s / 3600;
    expect([hours("30 min"), hours("60 min")]).toEqual([0.5, 1]);
    const watch = (id: string, minutes: number) =>
      afterWatchState(
        afterWatchRule(id),
        [
          { type: "post taken", post: "fire watch", person: idOf("fay"), at_ms: 0, by: idOf("fay") },
          { type: "control room told", who: "Ines", at_ms: HOUR + minutes * MINUTE, by: idOf("fay") },
        ],
        HOUR,
        HOUR + minutes * MINUTE,
        String,
      ).left.length === 0;
    expect([watch("30 min", 29), watch("30 min", 30), watch("60 min", 59), watch("60 min", 60)]).toEqual([
      false,
      true,
      false,
      true,
    ]);
  });
  test("(a)(2)(iv): the area is inspected and the work authorised, by a written permit, by somebody responsible", () => {
    expect(LIFE.issue).toMatchObject({ who: ["issuer"], from: ["authorised"] });
    expect(kindRule("hot work").asks).toEqual(expect.arrayContaining(["zone", "floor", "extinguisher", "watch"]));
  });
  test("hot work in the trade's practice: at most 24 h on one permit", () => {
    expect(kindRule("hot work").longest_h * 3600).toBe(HOT_WORK.longest_s);
  });
  test("what welds, cuts or grinds asks for the permit", () => {
    const conditions = {
      weather: "",
      wind_m_s: null,
      thunder: false,
      ice: false,
      inspected: [],
      lifts: [],
      by: "",
      at_ms: 0,
    };
    const kinds = (tool: string) =>
      permitsRequired({
        faces: [],
        arriving: [],
        stored: [],
        profile: profileOf("us-style"),
        conditions: { ...conditions, tools: [tool] },
      }).map(({ kind }) => kind);
    for (const tool of ["welding set", "cutting torch", "grinder"]) expect(kinds(tool)).toEqual(["hot work"]);
  });
});

describe("others, from memory", () => {
  test("NFPA 70E table 130.4: 480 V, restricted 1 ft, limited 3 ft 6 in; 13.8 kV, restricted 2 ft 2 in, limited 5 ft", () => {
    const metres = (feet: number, inches = 0) => (feet * 12 + inches) * 0.0254;
    const near = (volts: number) => approachLimit("us-style", volts)!;
    expect(near(480).restricted_m).toBeCloseTo(metres(1), 1);
    expect(near(480).limited_m).toBeCloseTo(metres(3, 6), 1);
    expect(near(13_800).restricted_m).toBeCloseTo(metres(2, 2), 1);
    expect(near(13_800).limited_m).toBeCloseTo(metres(5), 1);
  });
  test("ASME PCC-2, pressure test with gas: 30 m to 135.5 MJ, 60 m to 271 MJ, above that in parts", () => {
    expect(keepOut(1e6).distance_m).toBe(30);
    expect(keepOut(200e6).distance_m).toBeGreaterThanOrEqual(60);
    expect([keepOut(271e6).split, keepOut(272e6).split]).toEqual([false, true]);
  });
  test("29 CFR 1910.28(b)(1): held against falling from 4 ft", () => {
    expect(profileOf("us-style").fallAbove_m).toBeCloseTo(4 * 0.3048, 1);
  });
});
