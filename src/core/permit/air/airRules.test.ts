import { Acting, DETAILS, draftOf, HOUR, idOf, MINUTE, seen, SHEET } from "../../../../tests/support/permits";
import { STRICT_ENTRY, HOT_WORK_LIMITS } from "../../atmosphere/airLimits";
import type { PermitFacts } from "../record/permitTypes";
import { asAt } from "../life/permitLife";
import { purgeNeed_s } from "../requirements/entry";
import { withEntries } from "../record/permitLog";
import { asksOf } from "../requirements/requirements";
import { airState } from "./airTests";
import { AIR_RULES, without, type AirRule } from "./airRules";
import { againstSent, missingFrom } from "./instruments";

import {
  GAS,
  HOT,
  SPACE,
  CORNER,
  COVER,
  entry,
  SENDER,
  hotFacts,
  spaceFacts,
  prepared,
  hot,
  draw,
  blownOut,
  space,
  go,
  out,
  is,
  lacks,
  fitAt,
  againstOf,
  detector,
  message,
} from "../../../../tests/support/airPermits";

/** One test a rule: it must hold, and it must fail with the rule taken out, or it tests something else. */

const PROBES: Readonly<Record<AirRule, () => void>> = {
  point: () => is(fitAt(draw(hot(), HOT[0]!)), false),
  gases: () => {
    const acting = hot(hotFacts({ gases: seen(GAS) }));
    for (const point of HOT) draw(acting, point, { h2s: null });
    is(fitAt(acting), false);
  },
  age: () => {
    const acting = hot();
    for (const point of HOT) draw(acting, point);
    is(fitAt(acting.later(121 * MINUTE)), false);
  },
  "start age": () => {
    const acting = hot();
    for (const [i, point] of HOT.entries()) draw(acting, point, { instrument: `GI-${i}` });
    is(acting.code("hal", { type: "accept" }), "accepted");
    is(acting.later(31 * MINUTE).code("hal", { type: "accept" }), "asks unmet");
  },
  round: () => {
    const acting = hot();
    draw(acting, HOT[0]!).later(20 * MINUTE);
    draw(acting, HOT[1]!);
    is(lacks(acting), ["air"]);
    // Split over two instruments it stands.
    const split = hot();
    draw(split, HOT[0]!).later(20 * MINUTE);
    draw(split, HOT[1]!, { instrument: "GI-2" });
    is(lacks(split), []);
    // A gas read too early in the round is not made young by a later reading that left it out.
    const early = hot(hotFacts({ gases: seen(GAS) }));
    draw(early, HOT[0]!).later(20 * MINUTE);
    draw(early, HOT[1]!);
    draw(early, HOT[0]!, { h2s: null });
    is(lacks(early), ["air"]);
    draw(early, HOT[0]!);
    is(lacks(early), []);
  },
  break: () => {
    const acting = hot();
    for (const point of HOT) draw(acting, point);
    acting.did("hal", { type: "accept" }).later(1).did("hal", { type: "begin break" }).later(1);
    for (const point of HOT) draw(acting, point);
    acting.later(1).did("hal", { type: "end break" }).later(1);
    is(acting.code("hal", { type: "go on" }), "asks unmet");
    for (const point of HOT) draw(acting, point);
    is(acting.code("hal", { type: "go on" }), "accepted");
  },
  stop: () => {
    const acting = hot();
    for (const point of HOT) draw(acting, point);
    acting.did("hal", { type: "accept" }).later(1);
    acting.did("wim", { type: "stop", cause: "stop-work", reason: "sparks fly" }).later(1);
    is(acting.code("isa", { type: "resume", words: "looked" }), "asks unmet");
  },
  clock: () => {
    // Read, and blown out, by a clock that was ahead, and that a coordinator set right since.
    const set = (acting: Acting) => {
      acting.permit = withEntries(
        acting.permit,
        { at_ms: acting.later(1).at_ms, by: idOf("cora") },
        { type: "clock set", back_s: 600, words: "the radio" },
      );
      return acting.later(1);
    };
    const read = hot();
    for (const point of HOT) draw(read, point);
    is(lacks(read), []);
    is(lacks(set(read)), ["air"]);
    for (const point of HOT) draw(read, point);
    is(lacks(read), []);
    const blown = set(blownOut(prepared(new Acting(draftOf(entry), spaceFacts()))));
    is(lacks(blown).includes("purge"), true);
    // One that still runs goes on, and counts when it is over.
    const runs = prepared(new Acting(draftOf(entry), spaceFacts()));
    draw(runs, COVER).later(1).did("gil", { type: "begin purge" });
    set(runs).later((purgeNeed_s(entry, runs.facts.gases) ?? 0) * 1000);
    is(lacks(runs.did("gil", { type: "end purge" })).includes("purge"), false);
  },
  purge: () => {
    const acting = prepared(new Acting(draftOf(entry), spaceFacts({ coverPoint: null, insidePoints: [] })));
    for (const point of [...SPACE, CORNER]) draw(acting, point);
    acting
      .later(1)
      .did("gil", { type: "begin purge" })
      .later(30 * MINUTE)
      .did("gil", { type: "end purge" });
    is(fitAt(acting.later(1), { entry: true }), false);
  },
  empty: () => {
    const acting = space();
    acting.did("ada", go("hal")).later(1).did("hal", out("hal")).later(1);
    is(
      airState(acting.facts, acting.permit.log, {
        every_min: 120,
        now_ms: acting.at_ms,
        entry: true,
        only: (point) => SPACE.includes(point),
      }).fit,
      false,
    );
  },
  "same air": () => {
    const acting = hot();
    draw(acting, HOT[0]!).later(1);
    draw(acting, HOT[1]!, { flammable: 0.3 }).later(1);
    draw(acting, HOT[1]!, { instrument: "GI-2" });
    is(fitAt(acting), false);
    draw(acting, HOT[0]!);
    is(fitAt(acting), true);
  },
  "other permits": () => {
    const acting = space();
    acting.facts = { ...acting.facts, badElsewhere: [{ at_ms: acting.at_ms, permit: "P-9", point: "top" }] };
    is(acting.later(1).code("ada", go("hal")), "asks unmet");
  },
  "begun before": () => {
    const acting = hot();
    for (const point of HOT) draw(acting, point);
    acting.did("hal", { type: "accept" }).later(1);
    acting.did("gil", { type: "begin sample", point: HOT[0]!, instrument: "GI-1" });
    acting.did("gil", { type: "begin sample", point: HOT[1]!, instrument: "GI-2" }).later(2 * MINUTE);
    acting.did("wim", { type: "stop", cause: "stop-work", reason: "sparks fly" }).later(1);
    for (const point of HOT) {
      acting.did("gil", { type: "read", point, reading: { oxygen: 0.209, flammable: 0, toxics: [] } });
    }
    is(fitAt(acting), false);
  },
  "one place": () => {
    const acting = hot().did("gil", { type: "begin sample", point: HOT[0]!, instrument: "GI-1" });
    is(acting.code("gil", { type: "begin sample", point: HOT[1]!, instrument: "gi-1" }), "instrument busy");
    is(acting.code("gil", { type: "begin sample", point: HOT[1]!, instrument: "GI-2" }), "accepted");
    const other = hot(hotFacts({ drawsElsewhere: () => "P-9" }));
    is(other.code("gil", { type: "begin sample", point: HOT[0]!, instrument: "GI-1" }), "instrument busy");
  },
  withdrawn: () => {
    const acting = hot();
    for (const point of HOT) draw(acting, point);
    acting.facts = { ...acting.facts, withdrawnInstruments: ["GI-1"] };
    is(fitAt(acting), false);
  },
  sheet: () =>
    is(
      hot(hotFacts({ gasSheet: () => null })).code("gil", {
        type: "begin sample",
        point: HOT[0]!,
        instrument: "GI-1",
      }) === "sheet missing",
      true,
    ),
  error: () => {
    // 19.6 % shown by an instrument that may be off by 0.2 % may be 19.4 %.
    const acting = hot();
    draw(acting, HOT[0]!, { oxygen: 0.196 });
    is(againstOf(acting), ["oxygen 19.6 % (may be off by 0.2 %) is below 19.5 %"]);
  },
  true: () => {
    // 4 % of a sensor calibrated on methane may be 10.8 % of hexane, or of what nobody knows; of methane it is 4 %.
    const shown = (gases: string[], more: Partial<typeof SHEET> = {}) => {
      const acting = hot(hotFacts({ gases: seen(...gases), gasSheet: () => ({ ...SHEET, ...more }) }));
      draw(acting, HOT[0]!, { flammable: 0.04 });
      return againstOf(acting)!.length;
    };
    is([shown(["hexane"]), shown([]), shown(["hexane"], { calibrated: null })], [1, 1, 1]);
    is([shown(["methane"]), shown(["hexane"], { calibrated: "hexane" })], [0, 0]);
    is(shown(["hexane"], { burns: "infrared" }), 0);
    // One that sends by itself likewise, and where the register says nothing of it as the worst there is.
    const sent = (gases: string[], sheet: typeof SENDER.sheet) =>
      againstSent(message({ flammable: 0.04 }), STRICT_ENTRY, { kind: "gas", sheet, gases }).length;
    is([sent(["hexane"], SHEET), sent([], SHEET), sent(["hexane"], null), sent([], null)], [1, 1, 1, 1]);
    is(
      [sent(["methane"], SHEET), sent(["methane"], null), sent(["hexane"], { ...SHEET, calibrated: "hexane" })],
      [0, 0, 0],
    );
  },
  nil: () => {
    for (const more of [
      { gasSheet: () => ({ ...SHEET, zero: { flammable: 0.03, toxic: null } }) },
      { gasSheet: () => ({ ...SHEET, zero: { flammable: null, toxic: null } }) },
      { zeroedAt_ms: () => null },
      { zeroedAt_ms: () => 0, shiftChanges_ms: () => [30 * MINUTE] },
    ]) {
      const acting = hot(hotFacts({ airLimits: HOT_WORK_LIMITS, ...more }));
      draw(acting, HOT[0]!);
      is(againstOf(acting), ["flammable: this instrument cannot show that there is none"]);
    }
  },
  sees: () => {
    const blind = hotFacts({ gases: seen("hydrogen"), gasSheet: () => ({ ...SHEET, burns: "infrared" }) });
    is(hot(blind).code("gil", { type: "begin sample", point: HOT[0]!, instrument: "GI-1" }), "sensor blind");
  },
  "not seen": () => {
    const facts = hotFacts({ gases: [{ gas: "vapour of resin", why: "T-9 holds resin", seen: false }] });
    const acting = new Acting(draftOf({ ...DETAILS["hot work"], points: HOT }), facts);
    is(lacks(acting, "issue").includes("gases seen"), true);
    is(acting.code("hal", { type: "replace reading", gas: "vapour of resin", words: "set" }), "not yours to do");
    acting.did("ana", { type: "replace reading", gas: "vapour of resin", words: "air-fed mask, tubes every 10 min" });
    is(lacks(acting, "issue").includes("gases seen"), false);
  },
  explained: () => {
    const acting = hot();
    draw(acting, HOT[0]!, { oxygen: 0.205 });
    draw(acting, HOT[1]!);
    is(lacks(acting), ["explained"]);
    acting.did("gil", { type: "explain", point: HOT[0]!, cause: "humid", words: "steam from the trap" });
    is(lacks(acting), []);
    const rich = hot();
    draw(rich, HOT[0]!, { oxygen: 0.217 });
    draw(rich, HOT[1]!);
    is(lacks(rich), ["explained"]);
  },
  cause: () => {
    const acting = hot();
    draw(acting, HOT[1]!, { flammable: 0.3 }).later(1);
    for (const point of HOT) draw(acting, point, { instrument: "GI-2" });
    is(lacks(acting), ["cause"]);
    const because = (cause: "source" | "not found" | "instrument fault", name = "gil") =>
      acting.code(name, { type: "find cause", point: HOT[1]!, cause, words: "seen" });
    is(because("not found"), "issuer decides");
    is(because("not found", "isa"), "accepted");
    is(because("instrument fault"), "accepted");
    is(because("source"), "accepted");
    const alone = draw(hot(), HOT[1]!, { flammable: 0.3 });
    is(
      alone.code("gil", { type: "find cause", point: HOT[1]!, cause: "instrument fault", words: "drift" }),
      "second instrument needed",
    );
  },
  "stands there": () => {
    const acting = hot(hotFacts({ gases: seen(GAS) }));
    draw(acting, HOT[1]!, { flammable: 0.3 }).later(1);
    for (const point of HOT) draw(acting, point, { instrument: "GI-2" });
    acting.did("isa", { type: "find cause", point: HOT[1]!, cause: "not found", words: "nothing to be seen" });
    is(lacks(acting), ["cause"]);
    const stands = (more: Parameters<typeof detector>[0]) => {
      acting.facts = { ...acting.facts, detectors: [detector(more)] };
      return lacks(acting);
    };
    const reads = ["oxygen", "flammable", GAS];
    is(stands({ place: HOT[0]!, reads }), ["cause"]);
    is(stands({ place: HOT[1]!, reads: ["oxygen"] }), ["cause"]);
    is(stands({ place: HOT[1]!, reads, silent: true }).includes("cause"), true);
    is(stands({ place: HOT[1]!, reads }), []);
  },
  evacuated: () => {
    const acting = space().did("ada", go("hal"));
    acting.did("wim", { type: "stop", cause: "stop-work", reason: "it smells" });
    acting.did("ada", { type: "come out", person: idOf("hal") });
    const byHand = asksOf({ permit: acting.permit, facts: acting.facts, now_ms: acting.at_ms }).filter(
      (one) => one.byHand,
    );
    is(byHand.length > 0 && byHand.every(({ unmet }) => unmet !== null), true);
    acting.ticked(byHand);
    const open = asksOf({ permit: acting.permit, facts: acting.facts, now_ms: acting.at_ms });
    is(open.filter((one) => one.byHand && one.unmet !== null).length, 0);
  },
  "purged anew": () => {
    const again = (cause: "source" | "instrument fault") => {
      const acting = blownOut(prepared(new Acting(draftOf(entry), spaceFacts())));
      draw(acting, SPACE[0]!, { oxygen: 0.18 }).later(1);
      for (const point of SPACE) draw(acting, point, { instrument: "GI-2" });
      acting.did("gil", { type: "find cause", point: SPACE[0]!, cause, words: "a valve passed" });
      return lacks(acting).includes("purge");
    };
    is(again("source"), true);
    // The second instrument showed that there was none.
    is(again("instrument fault"), false);
  },
  detector: () => {
    const aged = (more: Partial<PermitFacts["detectors"][number]>, gases: PermitFacts["gases"] = []) => {
      const acting = hot(hotFacts({ gases, detectors: [detector(more), detector({ id: "GD-2", place: HOT[0]! })] }));
      for (const point of HOT) draw(acting, point);
      return fitAt(acting.later(3 * HOUR));
    };
    is(aged({}), true);
    is(aged({ place: "at head height" }), false);
    is(aged({ kind: "gauge" }), false);
    is(aged({}, seen(GAS)), false);
    // Never the first test.
    is(fitAt(hot(hotFacts({ detectors: HOT.map((place) => detector({ place })) }))), false);
  },
  "judged as air": () =>
    is(againstSent(message({ oxygen: 0.17, pressure_Pa: 1e5 }), STRICT_ENTRY, SENDER), [
      "oxygen 17 % (may be off by 0.2 %) is below 19.5 %",
    ]),
  "missing gases": () => {
    is(missingFrom(message(), "gas", ["oxygen", "flammable", GAS]), [GAS]);
    is(missingFrom(message({ oxygen: null, pressure_Pa: 1e5 }), "gas", ["oxygen", "flammable"]), ["oxygen"]);
    is(missingFrom(message(), "blower", []), ["whether it runs"]);
  },
  ventilated: () => {
    const acting = space();
    acting.did("ada", go("hal")).later(1).did("gil", { type: "end ventilation" });
    is(
      [acting.permit.state, acting.permit.log.at(-1)],
      ["suspended", expect.objectContaining({ type: "stopped", cause: "ventilation", evacuate: true })],
    );
    const never = prepared(new Acting(draftOf(entry), spaceFacts()));
    is(lacks(never).includes("ventilated"), true);
    const stands = space();
    const blower = detector({ id: "BL-7", kind: "blower", reads: [], against: ["the blower stands"] });
    stands.facts = { ...stands.facts, detectors: [blower] };
    is(stands.code("ada", go("hal")), "asks unmet");
  },
  "blower heard": () => {
    // Before anybody went in, in a permit that is not even live: the blower trips and runs again by itself.
    const acting = blownOut(prepared(new Acting(draftOf(entry), spaceFacts()))).later(1);
    is(lacks(acting).includes("purge"), false);
    const calm = acting.facts;
    const blower = detector({ id: "BL-7", kind: "blower", reads: [], against: ["the blower stands"] });
    acting.facts = { ...calm, detectors: [blower] };
    is(acting.code("gil", { type: "begin ventilation" }), "blower stands");
    acting.permit = asAt(acting.permit, acting.facts, acting.at_ms);
    acting.facts = { ...calm, detectors: [detector({ id: "BL-7", kind: "blower", reads: [], against: [] })] };
    is([lacks(acting).includes("ventilated"), lacks(acting).includes("purge")], [true, true]);
  },
  bends: () => {
    const acting = prepared(new Acting(draftOf({ ...entry, bends: 2 }), spaceFacts()));
    is(acting.code("gil", { type: "begin purge" }), "too many bends");
    is(acting.code("gil", { type: "begin ventilation" }), "accepted");
    const three = prepared(new Acting(draftOf({ ...entry, bends: 3 }), spaceFacts()));
    is(three.code("gil", { type: "begin ventilation" }), "too many bends");
  },
  "first entrant": () => {
    const acting = space().did("ada", go("hal"));
    is(acting.code("ada", go("wim")), "corners first");
    draw(acting, CORNER);
    is(acting.code("ada", go("wim")), "accepted");
  },
  "from inside": () => {
    const acting = space();
    is(acting.code("gil", { type: "begin sample", point: CORNER, instrument: "GI-1" }), "from inside");
  },
  cover: () => {
    const acting = prepared(new Acting(draftOf(entry), spaceFacts()));
    is(acting.code("gil", { type: "begin sample", point: SPACE[0]!, instrument: "GI-1" }), "point order");
    is(lacks(acting).includes("first test"), true);
  },
};

describe.each(Object.entries(AIR_RULES))("%s: %s", (id) => {
  const rule = id as AirRule;
  test("is kept", () => PROBES[rule]());
  test("is what this test looks for: taken out, the test fails", () => {
    expect(() => without(rule, () => PROBES[rule]())).toThrow();
  });
});
