import type { PersonId } from "../people/roles";
import type { Plan } from "../plan/plan";
import type { Read } from "../plant/problem";
import { decideJob, type JobCommand, type JobFacts, type JobLife } from "./jobLife";

const id = (name: string) => name as PersonId;
const JOB: JobLife = { number: "J-1", state: "open", askedBy: id("cora"), holder: id("hal"), crew: [id("hal")] };
const planned = (more: Partial<Plan> = {}): Read<Plan> => ({
  ok: true,
  warnings: [],
  value: { points: [{ device: "V-1" }], unlinked: [], shortfalls: [], ...more } as Plan,
});
const shortfall = {
  source: "H",
  carrier: "fluid",
  face: "P",
  required: 2,
  available: 1,
  requiredGrade: "proved double",
  grade: "unproved single",
  because: [],
  proved: "impossible" as const,
  measures: ["watcher"],
} as const;
const ACCEPTED = {
  way: "H fluid P",
  requiredGrade: "proved double",
  acceptedGrade: "unproved single",
  acceptedDepth: 1,
  measures: ["watcher"],
};
const FACTS: JobFacts = {
  revision: 3,
  plan: () => planned(),
  accepted: [],
  clashes: () => [],
  minorFaults: () => [],
  wasMinor: false,
  standing: null,
  isKnown: (person) => person !== id("nobody"),
  nameOf: (person) => person,
  peopleOn: [],
  openPermits: [],
  openIsolations: [],
  left: [],
};
const code = (command: JobCommand, facts: Partial<JobFacts> = {}, job = JOB) => {
  const decided = decideJob(job, command, { ...FACTS, ...facts });
  return decided.ok ? decided.value.state : decided.refusal.code;
};
const approve = { type: "approve", shownOn: 3 } as const;
const CLOSE: JobCommand = { type: "close", by: id("cora"), roles: ["coordinator"] };
const standing = { isolation: "S-1", stuck: false };

describe("the life of a job", () => {
  test("nothing of a closed job changes", () => {
    const closed: JobLife = { ...JOB, state: "closed" };
    expect(code(approve, {}, closed)).toBe("wrong state");
    expect(code({ type: "adjust" }, {}, closed)).toBe("wrong state");
    expect(code({ type: "change crew", crew: [id("hal")] }, {}, closed)).toBe("wrong state");
    expect(code({ type: "accept deviation", by: id("ana"), ways: [], measures: [], outside: null }, {}, closed)).toBe(
      "wrong state",
    );
    expect(code(CLOSE, {}, closed)).toBe("already done");
  });
  test("a plan is approved as it was shown, once, holding what is asked or accepted, and against nobody's need", () => {
    expect(code(approve)).toBe("open");
    expect(code({ ...approve, shownOn: 2 })).toBe("plant changed");
    expect(code(approve, { standing })).toBe("already done");
    expect(code(approve, { plan: () => ({ ok: false, problems: [{ file: "job", message: "gone", tag: "P" }] }) })).toBe(
      "unknown",
    );
    const short = () => planned({ shortfalls: [shortfall] });
    expect(code(approve, { plan: short })).toBe("plan falls short");
    expect(code(approve, { plan: short, accepted: [ACCEPTED] })).toBe("open");
    expect(code(approve, { plan: short, accepted: [{ ...ACCEPTED, measures: [] }] })).toBe("plan falls short");
    expect(code(approve, { plan: short, accepted: [{ ...ACCEPTED, measures: ["survey"] }] })).toBe("plan falls short");
    const why = "asked" as const;
    const stops = { device: "V-1", stoppedBy: JOB.number, neededBy: "J-2", why };
    expect(code(approve, { clashes: () => [stops] })).toBe("must stay passing");
    const needs = { device: "V-9", stoppedBy: "J-2", neededBy: JOB.number, why: "relief" as const };
    expect(code(approve, { clashes: () => [needs] })).toBe("stopped elsewhere");
  });
  test("a plan that stands is changed only while one of its steps is stuck, and only by accepting", () => {
    expect(code({ type: "adjust" })).toBe("open");
    expect(code({ type: "adjust" }, { standing: { ...standing, stuck: true } })).toBe("already done");
    expect(
      code({ type: "adjust" }, { plan: () => ({ ok: false, problems: [{ file: "job", message: "no device" }] }) }),
    ).toBe("device not usable");
    const accepting = {
      type: "accept deviation",
      outside: null,
      by: id("ana"),
      ways: ["H fluid P"],
      measures: ["watcher", "survey"],
    } as const;
    const short = () => planned({ shortfalls: [shortfall] });
    expect(code(accepting, { plan: short })).toBe("open");
    expect(code(accepting, { plan: short, standing })).toBe("already done");
    expect(code(accepting, { plan: short, standing: { ...standing, stuck: true } })).toBe("open");
    expect(code({ ...accepting, by: id("cora") }, { plan: short })).toBe("accepting one's own deviation");
    const outside = { far: "area", area: "Unit 2", areas: ["Unit 1"] } as const;
    expect(code({ ...accepting, outside }, { plan: short })).toBe("not appointed");
    const renewing = { type: "renew deviations", by: accepting.by, at_ms: 1, until_ms: 2, outside } as const;
    expect(code(renewing, { plan: short })).toBe("not appointed");
    expect(code({ ...accepting, ways: ["H fluid Q"] }, { plan: short })).toBe("no such shortfall");
    // A survey holds no valve shut.
    expect(code({ ...accepting, measures: ["survey"] }, { plan: short })).toBe("measure does not fit");
  });
  test("nobody is taken out of the crew while they are on; the holder stays whatever the list says", () => {
    const change = (...crew: string[]): JobCommand => ({ type: "change crew", crew: crew.map(id) });
    expect(code(change("wim", "wim"))).toBe("open");
    expect(code(change("nobody"))).toBe("unknown");
    expect(code(change("wim"), { peopleOn: [id("will")] })).toBe("people on");
    expect(code(change("wim"), { peopleOn: [id("hal")] })).toBe("open");
    const decided = decideJob(JOB, change("wim", "wim"), FACTS);
    expect(decided.ok && decided.value.crew).toEqual(["wim"]);
  });
  test("it closes when its permits are over, its isolations restored and nothing is left in", () => {
    expect(code(CLOSE)).toBe("closed");
    expect(code(CLOSE, { openPermits: ["P-1"] })).toBe("permits open");
    expect(code(CLOSE, { openIsolations: ["S-1"] })).toBe("isolations open");
    expect(code(CLOSE, { left: ["lock L-1 on V-1"] })).toBe("still in place");
  });
});

describe("changing one's mind", () => {
  const change = (more: object = {}) =>
    ({ type: "change", holder: id("hal"), replanned: false, ...more }) as JobCommand;
  test("words, window and holder change while it is open; places only while nothing stands for it", () => {
    expect(code(change())).toBe("open");
    expect(code(change({ replanned: true }))).toBe("open");
    expect(code(change({ replanned: true }), { standing })).toBe("already done");
    expect(code(change(), { standing })).toBe("open");
    expect(code(change({ holder: id("nobody") }))).toBe("unknown");
    expect(code(change({ holder: id("hob") }), { peopleOn: [id("hal")] })).toBe("people on");
    expect(code(change({ holder: id("hob") }), { peopleOn: [id("wim")] })).toBe("open");
    expect(code(change(), {}, { ...JOB, state: "withdrawn" })).toBe("wrong state");
  });
  test("it is withdrawn while nothing stands for it", () => {
    expect(code({ type: "withdraw" })).toBe("withdrawn");
    expect(code({ type: "withdraw" }, { openIsolations: ["S-1"] })).toBe("isolations open");
    expect(code({ type: "withdraw" }, { openPermits: ["P-1"] })).toBe("permits open");
    expect(code({ type: "withdraw" }, {}, { ...JOB, state: "closed" })).toBe("wrong state");
  });
});
