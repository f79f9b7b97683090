import { nextChange_ms } from "./nextChange";
import fc from "fast-check";
import { propertyRuns } from "../../../../tests/support/runs";
import type { NotHeld } from "../../refusal/notHeld";
import {
  command,
  CREW,
  DETAILS,
  draftOf,
  HOUR,
  idOf,
  isolationNow,
  MINUTE,
  wellFacts,
  WATCH_READY,
} from "../../../../tests/support/permits";
import { inside } from "../people/entries";
import { checkPermit } from "./checkPermit";
import { asAt, decidePermit, stillOut } from "./permitLife";
import {
  AUDIT_LOOKS,
  copiesOf,
  entriesOf,
  lastOf,
  putInOf,
  signedBy,
  type AuditFinding,
  type LogEntry,
} from "../record/permitLog";
import { MAY_STOP } from "../acts/stopped";
import { peopleOn, PERMIT_STATES, type PermitAct, type PermitFacts, type PermitLife } from "../record/permitTypes";
import { onPost } from "../people/posts";
import { profileOf } from "../../requirement/profiles";
import { asksOf } from "../requirements/requirements";

type Doing = Readonly<{ what: number; who: number; wait: number; careless: boolean; upset: number }>;

const PEOPLE = Object.keys(CREW);
const KINDS = ["general", "hot work", "confined space entry", "safeguard bypass"] as const;
const POINTS = ["top", "corner 1 low"];
const GASES = ["hydrogen sulphide"];
/** Short and long waits: a sample, a purge, half an hour, a shift. */
const WAITS_MS = [0, 2 * MINUTE, 4 * MINUTE, 21 * MINUTE, 30 * MINUTE, 31 * MINUTE, 3 * HOUR];

/** Everything that somebody might do, sensible or not. */
function anyAct({ what, who }: Doing, permit: PermitLife): [string, PermitAct] {
  const person = PEOPLE[who % PEOPLE.length]!;
  const point = POINTS[what % 2]!;
  const bad = what % 5 === 0;
  const reading = {
    oxygen: bad ? 0.17 : 0.209,
    flammable: 0,
    toxics: GASES.map((gas) => ({ gas, fraction: bad ? 50e-6 : 0 })),
  };
  const acts: readonly PermitAct[] = [
    { type: "check" },
    { type: "authorise" },
    { type: "approve", words: "on these terms" },
    { type: "issue", copies: what % 3 === 0 ? ["at the gate"] : [] },
    { type: "accept" },
    { type: "sign on", lock: `L-${what % 4}`, answer: what % 7 === 0 ? "P-8" : "P-7" },
    { type: "sign off" },
    { type: "stop", cause: "stop-work", reason: "it smells" },
    { type: "resume", words: "looked" },
    { type: "begin break" },
    { type: "end break" },
    { type: "revalidate", words: "looked" },
    {
      type: "extend",
      until_ms: permit.validTo_ms + (what % 40) * HOUR,
      words: "looked",
      stillOn: what % 3 === 0 ? [] : peopleOn(permit).map((one) => one.person),
      marked: copiesOf(permit.log).map(({ copy }) => copy),
    },
    { type: "begin sample", point, instrument: "GI-1" },
    { type: "read", point, reading },
    { type: "flush", point, held_s: 90 },
    { type: "begin purge" },
    { type: "end purge" },
    { type: "take post", post: permit.details.kind === "hot work" ? "fire watch" : "attendant" },
    { type: "leave post", post: permit.details.kind === "hot work" ? "fire watch" : "attendant" },
    { type: "go in", person: idOf(["hal", "wim", "will"][what % 3]!) },
    { type: "come out", person: idOf(["hal", "wim", "will"][what % 3]!) },
    { type: "talk" },
    { type: "watch check", words: "cold" },
    { type: "final check", words: "cold" },
    { type: "tell control room", who: "Ines" },
    { type: "end watch" },
    { type: "hang copy", where: "in the cabin", second: what % 2 === 0 },
    { type: "return copy", copy: 1 + (what % 3) },
    { type: "put in", what: "cap", where: "vent" },
    { type: "take out", thing: 1 + (what % 3) },
    { type: "safeguard back", words: "tried" },
    { type: "hand back" },
    { type: "inspect", words: "clean" },
    { type: "close" },
    { type: "cancel" },
    {
      type: "hand over",
      pairs: [{ from: idOf("hal"), to: idOf("hob"), lock: `L-${what % 4}` }],
    },
    { type: "tick", ask: "floor", words: "" },
    { type: "report fire", where: "the floor", what: "a rag", out: "stamped on" },
    { type: "note refusal", who: "a rigger", what: "sign on", words: "No time." },
    { type: "audit", found: found(what % 7 === 0 ? "not as written" : "as written"), words: "Seen." },
    { type: "decide clash", clash: CLASH.id, decision: what % 2 ? "wait" : "go on", reason: "said by radio" },
  ];
  return [person, acts[what % acts.length]!];
}

/** What people who know their work would do next; one of it is chosen. */
function sensibleAct(doing: Doing, permit: PermitLife, facts: PermitFacts, now_ms: number): [string, PermitAct] {
  const { kind } = permit.details;
  const post = kind === "hot work" ? "fire watch" : "attendant";
  const watcher = post === "fire watch" ? ["fay", "fin"] : ["ada", "amy"];
  const open = asksOf({ permit, facts, now_ms }).filter(({ unmet }) => unmet !== null);
  const hand = open.find(({ byHand, only }) => byHand && !only);
  const has = (id: string) => open.some((ask) => ask.id === id);
  const acts: [string, PermitAct][] = [];
  const add = (name: string, act: PermitAct) => acts.push([name, act]);
  const air = () => {
    const begun = lastOf(permit.log, "sample begun");
    const read = lastOf(permit.log, "air");
    if (begun && (!read || read.at_ms < begun.at_ms || read.point !== begun.point)) {
      const toxics = GASES.map((gas) => ({ gas, fraction: 0 }));
      add("gil", { type: "read", point: begun.point, reading: { oxygen: 0.209, flammable: 0, toxics } });
    }
    for (const point of POINTS) {
      add("gil", { type: "begin sample", point, instrument: "GI-1" });
    }
  };
  if (hand) add("cora", { type: "tick", ask: hand.id, words: "" });
  if (has("clashes")) add("cora", { type: "decide clash", clash: CLASH.id, decision: "go on", reason: "a screen" });
  if (has("approval")) add("ana", { type: "approve", words: "as written" });
  if (has("purge")) {
    add("gil", { type: "begin purge" });
    add("gil", { type: "end purge" });
  }
  if (has("air")) air();
  if (has("watch")) add(watcher[doing.who % 2]!, { type: "take post", post });
  if (has("watch ready")) for (const name of watcher) add(name, WATCH_READY);
  switch (permit.state) {
    case "draft":
      add("cora", { type: "check" });
      break;
    case "checked":
      add("isa", { type: "authorise" });
      break;
    case "authorised":
      add("isa", { type: "issue", copies: doing.who % 2 === 0 ? ["at the gate"] : [] });
      if (doing.what % 9 === 0) add("isa", { type: "cancel" });
      break;
    case "issued":
      add("hal", { type: "accept" });
      break;
    case "live": {
      // Somebody comes by and looks; what they find, or what is decided of other work, stops it.
      if (doing.wait % 61 === 0) return ["ana", { type: "audit", found: found("not as written"), words: "Seen." }];
      if (doing.wait % 55 === 0) {
        return ["cora", { type: "decide clash", clash: CLASH.id, decision: "wait", reason: "said by radio" }];
      }
      for (const name of ["hal", "wim", "will"]) {
        add(name, { type: "sign on", lock: `L-${name}`, answer: "P-7" });
        add(watcher[0]!, { type: "go in", person: idOf(name) });
        add(name, { type: "come out", person: idOf(name) });
        add(name, { type: "sign off" });
      }
      add("ada", { type: "talk" });
      const stillOn = peopleOn(permit).map(({ person }) => person);
      const marked = copiesOf(permit.log).map(({ copy }) => copy);
      add("isa", { type: "extend", until_ms: permit.validTo_ms + 3 * HOUR, words: "looked", stillOn, marked });
      add("hal", { type: "put in", what: "cap", where: "vent" });
      add("hal", { type: "begin break" });
      add("hal", { type: "hand back" });
      add("hal", { type: "hand back" });
      break;
    }
    case "suspended":
    case "run out": {
      for (const name of ["hal", "wim", "will"]) {
        add(name, { type: "come out", person: idOf(name) });
        add(name, { type: "sign off" });
      }
      add("isa", { type: "resume", words: "looked" });
      add("hal", { type: "end break" });
      add("hal", { type: "hand back" });
      break;
    }
    case "watching":
      add("fay", { type: "watch check", words: "cold" });
      add("ana", { type: "final check", words: "cold" });
      add("fay", { type: "tell control room", who: "Ines" });
      add("fay", { type: "end watch" });
      break;
    case "work done":
    case "closed":
    case "cancelled":
      for (const thing of putInOf(permit.log)) add("hal", { type: "take out", thing: thing.thing });
      add("hal", { type: "return copy", copy: 1 });
      add("hal", { type: "safeguard back", words: "tried" });
      add("isa", { type: "inspect", words: "clean" });
      add("isa", { type: "close" });
  }
  return acts[doing.what % acts.length]!;
}

/** A clash with other work that was decided there: both go on, until this permit is said to wait. */
const CLASH: PermitFacts["clashes"][number] = {
  id: "c",
  kind: "same place",
  with: "P-2",
  words: "P-2 is at the same place.",
};
const GO_ON: LogEntry = {
  type: "clash decided",
  clash: CLASH.id,
  words: CLASH.words,
  decision: "go on",
  reason: "a screen stands",
  at_ms: 0,
  by: idOf("isa"),
};
const found = (finding: AuditFinding) =>
  Object.fromEntries(AUDIT_LOOKS.map((look) => [look, finding])) as Record<(typeof AUDIT_LOOKS)[number], AuditFinding>;

/** What must be true, said again and apart from the code that keeps it. */
function expectSafe(permit: PermitLife, facts: PermitFacts, now_ms: number): void {
  checkPermit(permit, facts, now_ms);
  const within = inside(permit.log);
  if (permit.state === "live") {
    expect(facts.muster).toBeNull();
    expect(now_ms).toBeLessThan(permit.validTo_ms);
    if (permit.details.kind === "hot work") {
      expect(onPost(permit.log).some(({ post }) => post === "fire watch")).toBe(true);
    }
    if (permit.details.kind !== "safeguard bypass") expect(facts.isolations[0]!.notHeld).toBeNull();
    for (const asked of permit.details.kind === "hot work" || within.length > 0 ? POINTS : []) {
      const read = entriesOf(permit.log, "air")
        .filter(({ point }) => point === asked)
        .at(-1)!;
      expect(read.against).toEqual([]);
      expect(now_ms - read.at_ms).toBeLessThan(2 * HOUR);
    }
    if (within.length > 0) {
      expect(onPost(permit.log).some(({ post }) => post === "attendant")).toBe(true);
      expect(within.length).toBeLessThanOrEqual(2);
    }
  }
  const extended = entriesOf(permit.log, "extended");
  expect(extended.length).toBeLessThanOrEqual(1);
  for (const { at_ms, from_ms, to_ms } of extended) {
    expect(at_ms).toBeLessThan(from_ms);
    const issued = entriesOf(permit.log, "signed").find(({ act }) => act === "issue")!.at_ms;
    if (permit.details.kind !== "safeguard bypass") expect(to_ms - issued).toBeLessThanOrEqual(24 * HOUR);
    expect(permit.validTo_ms).toBe(to_ms);
  }
  if (now_ms >= permit.validTo_ms) expect(["live", "issued", "suspended"]).not.toContain(permit.state);
  if (permit.state === "closed") {
    expect(peopleOn(permit)).toEqual([]);
    expect(within).toEqual([]);
    expect(stillOut(permit)).toEqual([]);
    expect(signedBy(permit.log, "inspect")).toBeDefined();
    if (permit.details.kind === "hot work" && signedBy(permit.log, "accept")) {
      const back = signedBy(permit.log, "hand back")!.at_ms;
      expect(signedBy(permit.log, "end watch")!.at_ms - back).toBeGreaterThanOrEqual(6 * HOUR - 10 * MINUTE);
    }
  }
  const times = permit.log.map(({ at_ms }) => at_ms);
  expect(times).toEqual([...times].sort((a, b) => a - b));
}

/** Who sleeps until the moment that is named misses nothing that time alone does; at the end of a permit it is named. */
function expectStillUntilNextChange(permit: PermitLife, facts: PermitFacts, now_ms: number): void {
  const next_ms = nextChange_ms({ permit, facts, now_ms });
  expect(next_ms).toBeGreaterThan(now_ms);
  const end_ms = Number.isFinite(next_ms) ? next_ms : now_ms + 48 * HOUR;
  for (const at_ms of [now_ms + 1, (now_ms + end_ms) / 2, end_ms - 1]) {
    if (at_ms > now_ms && at_ms < end_ms) expect(asAt(permit, facts, at_ms)).toBe(permit);
  }
}

/** Under test, on a register that nobody judged it on, and on one where it does not hold. */
const NOT_HELD: readonly NotHeld[] = [
  { code: "not proven", isolation: "S-1", state: "testing", openSteps: 0 },
  { code: "not judged", isolation: "S-1", revision: 2 },
  {
    code: "plan fell",
    isolation: "S-1",
    revision: 2,
    missingFaces: [],
    lostPoints: ["V-1"],
    short: [{ source: "H-1", face: "P-1", depth: 0 }],
  },
];

test("over any sequence of acts, waits and upsets a permit keeps its promises, and every state is reached", () => {
  const reached = new Set<string>();
  const doing = fc.record({
    what: fc.nat(1000),
    who: fc.nat(1000),
    wait: fc.nat(1000),
    careless: fc.integer({ min: 0, max: 5 }).map((n) => n === 0),
    upset: fc.nat(60),
  });
  fc.assert(
    fc.property(fc.constantFrom(...KINDS), fc.array(doing, { minLength: 150, maxLength: 220 }), (kind, all) => {
      let now_ms = HOUR;
      const profile = profileOf(all[0]!.who % 4 === 0 ? "strict" : "uk-style");
      let facts = wellFacts({ testPoints: POINTS, profile });
      const details = kind === "hot work" ? { ...DETAILS[kind], points: POINTS } : DETAILS[kind];
      let permit = draftOf(details, { validTo_ms: 9 * HOUR });
      for (const one of all) {
        now_ms += one.careless ? WAITS_MS[one.wait % WAITS_MS.length]! : one.wait % 3 === 0 ? 4 * MINUTE : MINUTE;
        if (permit.state === "watching" || lastOf(permit.log, "purge begun", "purge ended")?.type === "purge begun") {
          now_ms += 9 * MINUTE;
        }
        // Now and then all work is stopped, the isolation is lifted, or an instrument falls silent, and later it is well again.
        const sick = one.upset === 0;
        facts = {
          ...facts,
          muster: one.upset === 2 ? "M-0001" : null,
          clashes: one.wait % 5 === 0 ? [CLASH] : [],
          decidedElsewhere: [GO_ON],
          isolations: [isolationNow(sick ? NOT_HELD[one.wait % NOT_HELD.length]! : null)],
          detectors:
            one.upset === 1
              ? [
                  {
                    id: "GD-1",
                    place: "at the edge",
                    kind: "gas" as const,
                    reads: ["oxygen", "flammable"],
                    against: [],
                    silent: true,
                    silentFrom_ms: 0,
                  },
                ]
              : [],
        };
        permit = asAt(permit, facts, now_ms);
        expectSafe(permit, facts, now_ms);
        const [name, act] = one.careless ? anyAct(one, permit) : sensibleAct(one, permit, facts, now_ms);
        const hung = new Set(peopleOn(permit).map(({ lock }) => lock));
        const known = { ...facts, lockHangs: (lock: string) => (hung.has(lock) ? "on the box" : undefined) };
        const decided = decidePermit(permit, command(name, now_ms, act), known);
        // Whatever stops work that went on is told of: by itself, or as what it was. A break is nobody's alarm.
        const stops = decided.ok && permit.state === "live" && decided.value.state === "suspended";
        if (stops && act.type !== "begin break") {
          expect([...MAY_STOP]).toContain(act.type);
          reached.add(`stopped by ${act.type}`);
        }
        if (decided.ok) permit = decided.value;
        reached.add(permit.state);
        if (permit.log.some(({ type }) => type === "extended")) reached.add("extended");
        expectSafe(permit, facts, now_ms);
        expectStillUntilNextChange(permit, facts, now_ms);
      }
    }),
    { ...propertyRuns(80), endOnFailure: true },
  );
  const stoppedBy = [...reached].filter((one) => one.startsWith("stopped by "));
  expect([...reached].filter((one) => !stoppedBy.includes(one)).sort()).toEqual([...PERMIT_STATES, "extended"].sort());
  for (const type of ["stop", "report fire", "audit", "decide clash"])
    expect(stoppedBy).toContain(`stopped by ${type}`);
});
