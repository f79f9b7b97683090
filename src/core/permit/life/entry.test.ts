import {
  Acting,
  DETAILS,
  draftOf,
  HOUR,
  idOf,
  MINUTE,
  seen,
  SHEET,
  wellFacts,
} from "../../../../tests/support/permits";
import { purgeNeed_s } from "../requirements/entry";
import { inside } from "../people/entries";
import type { PermitFacts } from "../record/permitTypes";
import { asksOf } from "../requirements/requirements";

const POINTS = ["top, 0 m down", "bottom, 2.4 m down", "corner 1 low"];
const GASES = ["hydrogen sulphide"];
const details = DETAILS["confined space entry"];

const siteFacts = (more: Partial<PermitFacts> = {}) =>
  wellFacts({ testPoints: POINTS, gases: seen(...GASES), ...more });

function issued(facts = siteFacts()) {
  const acting = new Acting(draftOf(details), facts);
  return acting
    .did("cora", { type: "check" })
    .did("isa", { type: "authorise" })
    .ticked(asksOf({ permit: acting.permit, facts, now_ms: HOUR }))
    .did("isa", { type: "issue", copies: ["at the work"] });
}
function purged(acting: Acting) {
  return acting
    .did("gil", { type: "begin purge" })
    .later(purgeNeed_s(details, seen(...GASES))! * 1000)
    .did("gil", { type: "end purge" })
    .later(1);
}
function ventilated(acting: Acting) {
  return acting.did("gil", { type: "begin ventilation" });
}
function ready() {
  const acting = ventilated(purged(issued()))
    .aired(POINTS, {}, GASES)
    .did("ada", { type: "take post", post: "attendant" });
  acting.did("hal", { type: "accept" });
  for (const [i, name] of ["hal", "wim", "will"].entries()) {
    acting.did(name, { type: "sign on", lock: `L-${i}`, answer: "P-7" });
  }
  return acting;
}
const goIn = (name: string) => ({ type: "go in", person: idOf(name) }) as const;
const comeOut = (name: string) => ({ type: "come out", person: idOf(name) }) as const;

describe("a space is entered only when it was made fit", () => {
  test("purged for its time, read at every point from the opening inwards, with an attendant", () => {
    const acting = issued();
    expect(acting.code("hal", { type: "accept" })).toBe("asks unmet");
    acting.did("gil", { type: "begin purge" });
    expect(acting.code("gil", { type: "end purge" })).toBe("purge too short");
    acting.later(purgeNeed_s(details, seen(...GASES))! * 1000 - 1);
    expect(acting.code("gil", { type: "end purge" })).toBe("purge too short");
    acting.later(1).did("gil", { type: "end purge" }).later(1);
    const deep = { type: "begin sample", point: POINTS[1]!, instrument: "GI-1" } as const;
    expect(acting.code("gil", deep)).toBe("point order");
    expect(acting.code("gil", { ...deep, point: "elsewhere" })).toBe("unknown");
    acting.aired(POINTS, {}, GASES);
    expect(acting.code("hal", { type: "accept" })).toBe("asks unmet");
    acting.did("ada", { type: "take post", post: "attendant" });
    expect(acting.code("hal", { type: "accept" })).toBe("asks unmet");
    ventilated(acting);
    expect(acting.code("hal", { type: "accept" })).toBe("accepted");
  });
  test("a reading waits for the hose: 5 m of 4 mm at half a litre a minute, then twice the sensor's T90", () => {
    const acting = purged(issued());
    acting.did("gil", { type: "begin sample", point: POINTS[0]!, instrument: "GI-1" });
    const reading = { oxygen: 0.209, flammable: 0, toxics: [{ gas: GASES[0]!, fraction: 0 }] };
    // 62.8 ml at 8.33 ml/s is 7.5 s, and 60 s for the sensor.
    acting.later(67_000);
    expect(acting.code("gil", { type: "read", point: POINTS[0]!, reading })).toBe("read too early");
    acting.later(1000);
    expect(acting.code("gil", { type: "read", point: POINTS[0]!, reading })).toBe("accepted");
    expect(acting.code("gil", { type: "read", point: POINTS[1]!, reading })).toBe("no sample");
  });
  test("oxygen before what burns before what poisons; every gas named; an instrument in date that can see it", () => {
    const acting = purged(issued());
    const begin = { type: "begin sample", point: POINTS[0]!, instrument: "GI-1" } as const;
    acting.facts = {
      ...acting.facts,
      gearFault: (kind, number) => ({ code: "gear out of date", kind, number }),
    };
    expect(acting.code("gil", begin)).toBe("gear out of date");
    acting.facts = siteFacts();
    expect(acting.code("wim", begin)).toBe("not yours to do");
    acting.did("gil", begin).later(2 * MINUTE);
    const read = (oxygen: number | null, flammable: number | null, toxics: { gas: string; fraction: number }[]) =>
      ({ type: "read", point: POINTS[0]!, reading: { oxygen, flammable, toxics } }) as const;
    expect(acting.code("gil", read(null, 0, []))).toBe("gas order");
    expect(acting.code("gil", read(0.209, null, [{ gas: GASES[0]!, fraction: 0 }]))).toBe("gas order");
    acting.did("gil", read(0.209, 0, []));
    expect(
      asksOf({ permit: acting.permit, facts: acting.facts, now_ms: acting.at_ms }).find(({ id }) => id === "air")
        ?.unmet,
    ).toContain(`${POINTS[0]}: hydrogen sulphide was not read`);
    // A catalytic sensor reads nothing true below some 10 % of oxygen.
    acting
      .did("gil", begin)
      .later(2 * MINUTE)
      .did("gil", read(0.05, 0, [{ gas: GASES[0]!, fraction: 0 }]));
    expect(JSON.stringify(acting.permit.log.at(-1))).toContain("catalytic sensor needs some 10 % oxygen");
    const infrared = siteFacts({ gases: seen("hydrogen"), gasSheet: () => ({ ...SHEET, burns: "infrared" }) });
    const blind = new Acting(acting.permit, infrared, acting.at_ms);
    expect(blind.code("gil", begin)).toBe("sensor blind");
  });
  test("a blower that never gets there is refused", () => {
    expect(purgeNeed_s({ ...details, blower_m3_s: 0.5 }, seen(...GASES))).toBeGreaterThanOrEqual(20 * 60);
    const facts = siteFacts();
    const old = draftOf({ ...details, rehearsed_ms: 0 });
    const late = asksOf({ permit: old, facts, now_ms: 366 * 24 * HOUR }).find(({ id }) => id === "rescue");
    expect(late?.unmet).toMatch(/366 days ago/);
    const short = asksOf({ permit: old, facts: { ...facts, shortfalls: ["S fluid T-1"] }, now_ms: HOUR });
    expect(short.find(({ id }) => id === "positive")?.unmet).toContain("S fluid T-1");
  });
});

describe("going in and out", () => {
  test("only the attendant lets in, only who is signed on, and no more than the permit says", () => {
    const acting = ready();
    expect(acting.code("hal", goIn("wim"))).toBe("not on post");
    expect(acting.code("ada", goIn("cora"))).toBe("not on");
    acting.did("ada", goIn("hal")).did("ada", goIn("wim"));
    expect(acting.code("ada", goIn("wim"))).toBe("still inside");
    expect(acting.code("ada", goIn("will"))).toBe("space full");
    expect(acting.code("wim", { type: "sign off" })).toBe("still inside");
    expect(acting.code("ada", { type: "leave post", post: "attendant" })).toBe("post needed");
    expect(acting.code("hal", { type: "hand back" })).toBe("people on");
    acting.did("wim", comeOut("wim"));
    expect(acting.code("ada", comeOut("wim"))).toBe("not inside");
  });
  test("a second attendant takes over without a gap, then the first may go", () => {
    const acting = ready().did("ada", goIn("hal")).did("amy", { type: "take post", post: "attendant" });
    acting.did("ada", { type: "leave post", post: "attendant" });
    expect(acting.code("amy", { type: "leave post", post: "attendant" })).toBe("post needed");
    expect(acting.permit.state).toBe("live");
  });
  test("nobody spoken to in time is an alarm: everybody out", () => {
    const acting = ready().did("ada", goIn("hal"));
    acting
      .later(9 * MINUTE)
      .did("ada", { type: "talk" })
      .later(9 * MINUTE)
      .did("ada", { type: "talk" });
    acting.later(11 * MINUTE);
    expect(acting.code("ada", goIn("wim"))).toBe("work stopped");
    acting.did("ada", comeOut("hal"));
    expect(acting.permit.log.find(({ type }) => type === "stopped")).toMatchObject({
      cause: "watch missing",
      evacuate: true,
    });
  });
  test("everybody out means purge and test again before the next goes in", () => {
    const acting = ready().did("ada", goIn("hal")).did("hal", comeOut("hal"));
    expect(acting.permit.state).toBe("live");
    expect(acting.code("ada", goIn("hal"))).toBe("asks unmet");
    purged(acting);
    expect(acting.code("ada", goIn("hal"))).toBe("asks unmet");
    acting.aired(POINTS, {}, GASES);
    expect(acting.code("ada", goIn("hal"))).toBe("accepted");
  });
  test("a pocket in a corner: everybody out, accounted for, blown out, purged, tested, and only then in again", () => {
    const acting = ready().did("ada", goIn("hal")).did("ada", goIn("wim"));
    acting.did("gil", { type: "begin sample", point: POINTS[2]!, instrument: "GI-1" });
    acting.later(2 * MINUTE);
    const toxics = [{ gas: GASES[0]!, fraction: 0 }];
    acting.did("gil", { type: "read", point: POINTS[2]!, reading: { oxygen: 0.2, flammable: 0.18, toxics } });
    expect(acting.permit.state).toBe("suspended");
    expect(acting.permit.log.at(-1)).toMatchObject({ type: "stopped", cause: "gas", evacuate: true });
    expect(acting.code("isa", { type: "resume", words: "fine" })).toBe("still inside");
    expect(acting.code("gil", { type: "begin purge" })).toBe("still inside");
    acting.did("ada", comeOut("hal")).did("wim", comeOut("wim"));
    expect(inside(acting.permit.log)).toEqual([]);
    expect(acting.code("isa", { type: "resume", words: "fine" })).toBe("asks unmet");
    expect(acting.code("gil", { type: "flush", point: POINTS[2]!, held_s: 30 })).toBe("flush too short");
    expect(acting.code("gil", { type: "flush", point: POINTS[0]!, held_s: 90 })).toBe("no pocket");
    acting.did("gil", { type: "flush", point: POINTS[2]!, held_s: 90 });
    acting.did("gil", { type: "find cause", point: POINTS[2]!, cause: "pocket", words: "behind the baffle" });
    purged(acting);
    expect(acting.code("isa", { type: "resume", words: "purged" })).toBe("asks unmet");
    acting.aired(POINTS, {}, GASES);
    // The rescue kit and all that was looked at before may have gone with whatever called them out.
    expect(acting.code("isa", { type: "resume", words: "purged, every point read" })).toBe("asks unmet");
    acting.ticked(asksOf({ permit: acting.permit, facts: acting.facts, now_ms: acting.at_ms }));
    acting.did("isa", { type: "resume", words: "purged, every point read, looked at again" });
    expect(acting.code("ada", goIn("hal"))).toBe("accepted");
  });
  test("an instrument inside that falls silent, or reads over its limit, brings everybody out", () => {
    for (const detector of [
      {
        id: "GD-1",
        place: "at head height",
        kind: "gas" as const,
        reads: ["oxygen", "flammable"],
        against: [],
        silent: true,
        silentFrom_ms: 0,
      },
      {
        id: "GD-1",
        place: "at head height",
        kind: "gas" as const,
        reads: ["oxygen", "flammable"],
        against: ["oxygen 18 % is below 19.5 %"],
        silent: false,
        silentFrom_ms: Infinity,
      },
    ]) {
      const acting = ready().did("ada", goIn("hal"));
      acting.facts = { ...acting.facts, detectors: [detector] };
      expect(acting.code("ada", goIn("wim"))).toBe("work stopped");
      acting.did("ada", comeOut("hal"));
      expect(acting.permit.log.find(({ type }) => type === "stopped")).toMatchObject({
        cause: detector.silent ? "silent detector" : "gas",
        evacuate: true,
      });
    }
  });
});
