import { Acting, DETAILS, draftOf, HOUR, idOf, MINUTE, wellFacts } from "../../../../tests/support/permits";
import { asAt } from "./permitLife";
import { withClockSet } from "../record/clockSet";
import { afterWatchState } from "../afterwatch/afterWatch";
import { afterWatchRule, watchCovers, watchersNeeded } from "../requirements/hotWork";
import { dueUnder } from "./due";
import type { LogEntry } from "../record/permitLog";
import { asksOf } from "../requirements/requirements";

const POINTS = ["at the work", "at the edge"];
const GONE = {
  id: "GD-1",
  place: "at the edge",
  kind: "gas" as const,
  reads: ["oxygen", "flammable"],
  against: [],
  silent: false,
  silentFrom_ms: Infinity,
} as const;

function issued(details = DETAILS["hot work"], facts = wellFacts({ testPoints: POINTS })) {
  const acting = new Acting(draftOf(details, { validTo_ms: 24 * HOUR }), facts);
  return acting
    .did("cora", { type: "check" })
    .did("isa", { type: "authorise" })
    .ticked(asksOf({ permit: acting.permit, facts, now_ms: HOUR }))
    .did("isa", { type: "issue", copies: ["at the work"] });
}
const live = () =>
  issued().did("fay", { type: "take post", post: "fire watch" }).aired(POINTS).did("hal", { type: "accept" });
const missing = (acting: Acting) =>
  asksOf({ permit: acting.permit, facts: acting.facts, now_ms: acting.at_ms })
    .filter(({ unmet }) => unmet !== null)
    .map(({ id }) => id);

describe("hot work is lit only when everything around it is dealt with", () => {
  test("neither without a watch on post nor in air that was not read", () => {
    const acting = issued();
    expect(acting.code("hal", { type: "accept" })).toBe("asks unmet");
    expect(missing(acting)).toEqual(["watch", "watch ready", "air"]);
    acting.did("fay", { type: "take post", post: "fire watch" }).aired(POINTS);
    expect(acting.code("hal", { type: "accept" })).toBe("accepted");
  });
  test("air that was read by a clock that was ahead counts no more once that is set right", () => {
    const acting = live();
    acting.later(-HOUR).did("cora", { type: "stop", cause: "clock", reason: "an hour ahead" });
    acting.later(MINUTE);
    expect(missing(acting)).toContain("air");
    expect(acting.code("isa", { type: "resume", words: "looked" })).toBe("asks unmet");
    acting.aired(POINTS);
    expect(acting.code("isa", { type: "resume", words: "looked" })).toBe("accepted");
  });
  test("air with anything flammable in it is not fit, and a reading while live stops the work at once", () => {
    const acting = issued()
      .did("fay", { type: "take post", post: "fire watch" })
      .aired(POINTS, { "at the edge": 0.02 });
    // In the open the strict profile takes the entry limits of its facts here: 2 % is below them, and has to be explained.
    expect(missing(acting)).toEqual(["explained"]);
    expect(acting.code("gil", { type: "explain", point: "at the edge", cause: "drift", words: "x" })).toBe(
      "second instrument needed",
    );
    acting.did("gil", { type: "explain", point: "at the edge", cause: "gas", words: "the filler breathes; downwind" });
    expect(acting.code("hal", { type: "accept" })).toBe("accepted");
    const bad = live();
    bad.aired(["at the edge"], { "at the edge": 0.3 });
    expect(bad.permit.state).toBe("suspended");
    expect(bad.permit.log.at(-1)).toMatchObject({ type: "stopped", cause: "gas", evacuate: false });
  });
  test("the air is read again in time, or an instrument at the edge reads it all the while", () => {
    const acting = live();
    acting.later(116 * MINUTE);
    expect(acting.code("hal", { type: "begin break" })).toBe("accepted");
    acting.later(5 * MINUTE);
    expect(acting.code("hal", { type: "begin break" })).toBe("work stopped");
    const watched = live();
    watched.facts = { ...watched.facts, detectors: [GONE] };
    watched.later(5 * HOUR);
    // It keeps the point fresh where it stands, and no other.
    expect(watched.code("hal", { type: "begin break" })).toBe("work stopped");
    const both = live();
    both.facts = { ...both.facts, detectors: POINTS.map((place, i) => ({ ...GONE, id: `GD-${i}`, place })) };
    both.later(5 * HOUR);
    expect(both.code("hal", { type: "begin break" })).toBe("accepted");
  });
  test("a break asks for the air to be read again, and the watch stays through it", () => {
    const acting = live()
      .did("hal", { type: "begin break" })
      .later(20 * MINUTE);
    expect(acting.permit.state).toBe("suspended");
    expect(acting.code("fay", { type: "leave post", post: "fire watch" })).toBe("post needed");
    acting.aired(POINTS);
    expect(acting.code("hal", { type: "go on" })).toBe("break not over");
    acting.later(MINUTE).did("hal", { type: "end break" });
    // What was read during the break says nothing of the air after it.
    expect(acting.permit.state).toBe("suspended");
    expect(acting.code("hal", { type: "go on" })).toBe("asks unmet");
    acting.later(MINUTE).aired(POINTS);
    expect(acting.code("hal", { type: "go on" })).toBe("accepted");
  });
  test("after a stop it is the issuer who lets work go on, not the holder", () => {
    const acting = live().did("wim", { type: "stop", cause: "stop-work", reason: "sparks fall through the grating" });
    acting.later(MINUTE).aired(POINTS);
    expect(acting.code("hal", { type: "end break" })).toBe("issuer resumes");
    expect(acting.code("isa", { type: "resume", words: "plate laid" })).toBe("accepted");
  });
  test("a vessel within reach that may hold what burns asks for an approver, and for somebody who looks: no lock settles it", () => {
    const item = {
      id: "zone holds what burns T-1",
      what: "holds what burns",
      tag: "T-1",
      words: "Tank: solvent",
      distance_m: 4,
      level_m: 0,
      demand: "Gas-free by a test",
    } as const;
    const near = wellFacts({ testPoints: POINTS, zone: [item] });
    const acting = new Acting(draftOf(DETAILS["hot work"]), near).did("cora", { type: "check" });
    expect(missing(acting)).toContain("approval");
    expect(acting.code("hal", { type: "approve", words: "x" })).toBe("not yours to do");
    acting.did("ana", { type: "approve", words: "blanked and blown out" });
    expect(missing(acting)).not.toContain("approval");
    expect(missing(acting)).toContain(item.id);
    acting.did("hal", { type: "tick", ask: item.id, words: "tested at its vent, 0 %" });
    expect(missing(acting)).not.toContain(item.id);
  });
  test("several flames on one permit ask for an approver; cylinders stand far off", () => {
    const facts = wellFacts({ testPoints: POINTS });
    const many = new Acting(draftOf({ ...DETAILS["hot work"], welders: 2 }), facts);
    expect(missing(many)).toContain("approval");
    const close = new Acting(draftOf({ ...DETAILS["hot work"], noCylinders: false, cylinders_m: 5 }), facts);
    expect(missing(close)).toContain("cylinders");
    const far = new Acting(draftOf({ ...DETAILS["hot work"], noCylinders: false, cylinders_m: 8 }), facts);
    expect(missing(far)).not.toContain("cylinders");
  });
  test("each level that sparks reach has its own watch, and the part out of sight one more", () => {
    expect(watchersNeeded({ levels: 1, outOfSight: false })).toBe(1);
    expect(watchersNeeded({ levels: 2, outOfSight: true })).toBe(3);
    const acting = issued({ ...DETAILS["hot work"], levels: 2 }).did("fay", { type: "take post", post: "fire watch" });
    expect(missing(acting)).toContain("watch");
    acting.did("fin", { type: "take post", post: "fire watch" });
    expect(missing(acting)).not.toContain("watch");
  });
  test("a watch has no other duty, here or anywhere", () => {
    const acting = issued();
    acting.facts = { ...acting.facts, elsewhere: (id) => (id === "fay" ? "P-9" : null) };
    expect(acting.code("fay", { type: "take post", post: "fire watch" })).toBe("other duty");
    expect(acting.code("gil", { type: "take post", post: "fire watch" })).toBe("not yours to do");
    expect(acting.code("fin", { type: "take post", post: "fire watch" })).toBe("accepted");
    expect(acting.code("ada", { type: "take post", post: "attendant" })).toBe("not of this kind");
  });
  test("the watch afterwards is no shorter than the area or the profile asks; an area nobody classed counts as class 3", () => {
    expect(watchCovers(afterWatchRule("class 3"), afterWatchRule("60 min"))).toBe(true);
    expect(watchCovers(afterWatchRule("class 2"), afterWatchRule("class 3"))).toBe(false);
    const short = { ...DETAILS["hot work"], afterWatch: "class 2" };
    expect(missing(new Acting(draftOf(short), wellFacts({ testPoints: POINTS })))).toContain("after-watch class");
    const unknown = wellFacts({ testPoints: POINTS, watchClass: null });
    expect(missing(new Acting(draftOf(short), unknown))).toContain("after-watch class");
  });
});

describe("the watch after hot work", () => {
  const rule = afterWatchRule("class 3");
  const clock = (at: number) => `${at / HOUR}`;
  const taken = (person: string, at_ms: number): LogEntry => ({
    type: "post taken",
    post: "fire watch",
    person: idOf(person),
    at_ms,
    by: idOf(person),
  });
  const left = (person: string, at_ms: number): LogEntry => ({
    type: "post left",
    post: "fire watch",
    person: idOf(person),
    to: null,
    at_ms,
    by: idOf(person),
  });
  const look = (at_ms: number): LogEntry => ({
    type: "watch check",
    due_ms: at_ms,
    words: "cold",
    at_ms,
    by: idOf("fay"),
  });
  const from = 10 * HOUR;

  test("lasts three hours without a break, then a look every half hour for three more, then a final check", () => {
    const state = afterWatchState(rule, [taken("fay", 9 * HOUR)], from, from, clock);
    expect(state.continuousUntil_ms).toBe(13 * HOUR);
    expect(state.until_ms).toBe(16 * HOUR);
    expect(state.checks.map(({ due_ms }) => due_ms / HOUR)).toEqual([13.5, 14, 14.5, 15, 15.5, 16]);
    expect(state.left).toContain("the final check by safety");
  });
  test("is over when every look was made at its time, safety has checked and the control room knows", () => {
    const log: LogEntry[] = [
      taken("fay", 9 * HOUR),
      ...[13.5, 14, 14.5, 15, 15.5, 16].map((h) => look(h * HOUR + 5 * MINUTE)),
      { type: "control room told", who: "Ines", at_ms: 16 * HOUR, by: idOf("fay") },
      { type: "final check", words: "cold", at_ms: 16 * HOUR, by: idOf("ana") },
    ];
    expect(afterWatchState(rule, log, from, 16.2 * HOUR, clock).left).toEqual([]);
    expect(afterWatchState(rule, log.slice(0, -1), from, 16.2 * HOUR, clock).left).toEqual([
      "the final check by safety",
    ]);
  });
  test("a look that was missed adds one at the end, and a late one does not count", () => {
    const log = [taken("fay", 9 * HOUR), look(13.5 * HOUR), look(14 * HOUR + 11 * MINUTE)];
    const state = afterWatchState(rule, log, from, 14.3 * HOUR, clock);
    expect(state.checks.map(({ missed }) => missed)).toEqual([false, true, false, false, false, false, false]);
    expect(state.until_ms).toBe(16.5 * HOUR);
  });
  test("a gap of one second in the continuous part starts it anew from when somebody is back", () => {
    const log = [taken("fay", 9 * HOUR), left("fay", 11 * HOUR), taken("fin", 11 * HOUR + 1000)];
    expect(afterWatchState(rule, log, from, 12 * HOUR, clock).from_ms).toBe(11 * HOUR + 1000);
    const handed = [taken("fay", 9 * HOUR), taken("fin", 11 * HOUR), left("fay", 11 * HOUR)];
    expect(afterWatchState(rule, handed, from, 12 * HOUR, clock).from_ms).toBe(from);
    const gone = [taken("fay", 9 * HOUR), left("fay", 11 * HOUR)];
    expect(afterWatchState(rule, gone, from, 12 * HOUR, clock)).toMatchObject({ gap_ms: 11 * HOUR });
  });
  test("by acts: handed back it watches, nobody ends it early, the watch may go only after the continuous part", () => {
    const acting = live();
    const sure = () => dueUnder({ permit: acting.permit, facts: acting.facts, now_ms: acting.at_ms });
    expect(sure().map(({ what }) => what)).toContain("retest");
    acting.did("hal", { type: "hand back" });
    expect(acting.permit.state).toBe("watching");
    expect(sure().map(({ what }) => what)).toContain("look");
    expect(acting.code("fay", { type: "end watch" })).toBe("watch not over");
    expect(acting.code("fay", { type: "leave post", post: "fire watch" })).toBe("post needed");
    expect(acting.code("fay", { type: "tell control room", who: "Ines" })).toBe("watch not over");
    expect(acting.code("fay", { type: "watch check", words: "cold" })).toBe("no look due");
    acting.later(3 * HOUR);
    expect(acting.code("fay", { type: "leave post", post: "fire watch" })).toBe("accepted");
    for (let look = 0; look < 6; look++) acting.later(30 * MINUTE).did("fay", { type: "watch check", words: "cold" });
    acting.did("ana", { type: "final check", words: "cold to the hand" });
    acting.did("fay", { type: "tell control room", who: "Ines Calder" }).did("fay", { type: "end watch" });
    expect(acting.permit.state).toBe("work done");
    acting.did("hal", { type: "return copy", copy: 1 });
    expect(acting.code("isa", { type: "close" })).toBe("not inspected");
  });
  test("a watch that was waited for by a clock that was ahead is kept anew, and the place looked at anew", () => {
    const acting = live();
    acting.did("hal", { type: "hand back" });
    const kept = () => {
      acting.later(3 * HOUR);
      for (let look = 0; look < 6; look++) acting.later(30 * MINUTE).did("fay", { type: "watch check", words: "cold" });
      acting.did("ana", { type: "final check", words: "cold to the hand" });
      acting.did("fay", { type: "tell control room", who: "Ines Calder" }).did("fay", { type: "end watch" });
      return acting.did("isa", { type: "inspect", words: "cold" });
    };
    kept().did("hal", { type: "return copy", copy: 1 });
    // All that took ten minutes, for the clock had jumped by six hours.
    acting.later(-6 * HOUR + 10 * MINUTE);
    const stamp = { at_ms: acting.at_ms, by: idOf("cora") };
    const told = withClockSet(acting.permit, stamp, { back_s: 6 * 3600, words: "the radio" });
    acting.permit = asAt(told, acting.facts, acting.at_ms);
    expect(acting.permit.state).toBe("watching");
    expect(acting.code("isa", { type: "close" })).toBe("wrong state");
    acting.later(3 * HOUR - 5 * MINUTE);
    expect(acting.code("fay", { type: "end watch" })).toBe("watch not over");
    expect(acting.code("fay", { type: "leave post", post: "fire watch" })).toBe("post needed");
    acting.later(-3 * HOUR + 5 * MINUTE);
    kept();
    expect(acting.code("isa", { type: "close" })).toBe("accepted");
  });
  test("looked at before the clock was set right, a place is looked at again before its permit is closed", () => {
    const acting = new Acting(draftOf(DETAILS["line break"]), wellFacts());
    acting.did("cora", { type: "check" }).did("isa", { type: "authorise" });
    acting.ticked(asksOf({ permit: acting.permit, facts: acting.facts, now_ms: HOUR }));
    acting.did("isa", { type: "issue", copies: ["at the work"] });
    acting
      .did("hal", { type: "accept" })
      .did("hal", { type: "hand back" })
      .did("hal", { type: "return copy", copy: 1 });
    acting.did("isa", { type: "inspect", words: "tight" });
    acting.permit = withClockSet(
      acting.permit,
      { at_ms: acting.at_ms, by: idOf("cora") },
      { back_s: 600, words: "the radio" },
    );
    expect(acting.permit.state).toBe("work done");
    expect(acting.code("isa", { type: "close" })).toBe("not inspected");
    acting.did("isa", { type: "inspect", words: "tight" });
    expect(acting.code("isa", { type: "close" })).toBe("accepted");
  });
});
