import { soundReport } from "../../src/core/isolation/soundReport";
import { isMinor } from "../../src/core/minor/minorSteps";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { loadPermit } from "../../src/server/permit/permitStore";
import { expectReplay } from "../support/expectReplay";
import { HOUR } from "../support/permits";
import { propertyRuns } from "../support/runs";
import { seededRandom } from "../support/seededRandom";
import { TestSite } from "../support/testSite";
import { importing, peopleTwoJobs } from "../support/twoJobs";

/** The short route on a site: one bench behind one switch, and a second on the same board. */
const ITEMS = `tag,kind,voltage_V,system,needs,source,stops,credit,lockable,effort,stands
NET,incomer,400,,,power,,,,,
BUS,busbar,400,,,,,,,,
Q,isolator,400,,,,power,yes,yes,5,passing
DR,drill,400,3-phase,power,,,,,,
Q-2,isolator,400,,,,power,yes,yes,5,passing
SA,saw,400,3-phase,power,,,,,,
`;
const LINKS = `from,to,carries,walked
NET,BUS,power,2026-09-01
BUS,Q,power,2026-09-01
Q,DR,power,2026-09-01
BUS,Q-2,power,2026-09-01
Q-2,SA,power,2026-09-01
`;
/** Behind it as well, by a line that nobody had drawn. */
const FED_TWICE = `${LINKS}BUS,DR,power,2026-11-01\n`;

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  // Early in a shift, so that a job fits into it.
  site.clock_ms = Date.UTC(2026, 9, 5, 7, 0);
  await peopleTwoJobs(site);
  await importing(site, ITEMS, LINKS);
  await site.stockGear("cora");
  await site.done("cora", "gear.enter", { kind: "lock", number: "I-1", owner: "ivo" });
});
afterEach(() => site.close());

const ask = async (place = "DR", holder = "ivo", hours = 3) =>
  String(
    (
      await site.done("cora", "job.ask", {
        title: `Belt of ${place}`,
        work: "A new belt.",
        faces: [{ place, how: ["touch"] }],
        windowFrom_ms: site.clock_ms,
        windowTo_ms: site.clock_ms + hours * HOUR,
        holder,
        crew: [],
      })
    ).job,
  );
const SHORT = {
  objective: "effort",
  school: "work",
  plantRevision: 1,
  route: "short",
  noOthersAtRisk: true,
  noAccidents: true,
};
const draftFor = (job: string, more: object = {}) => ({
  job,
  words: "A new belt.",
  hazards: "Shock.",
  precautions: "Locked.",
  validFrom_ms: site.clock_ms,
  validTo_ms: site.clock_ms + 2 * HOUR,
  details: { kind: "minor isolation" },
  ...more,
});

/** Asked for, its hazards decided, approved by the short route, its record written and checked. */
async function approvedShort(place = "DR", holder = "ivo") {
  const job = await ask(place, holder);
  await decideAll(job);
  const made = await site.done("cora", "isolation.approve", { job, ...SHORT });
  const { permit } = await site.done("cora", "permit.draft", draftFor(job));
  await site.done("cora", "permit.check", { permit });
  return { job, isolation: String(made.isolation), box: String(made.box), permit: String(permit) };
}
async function decideAll(job: string) {
  const { jobHazards } = await import("../../src/server/hazard/hazardStore");
  for (const { id } of jobHazards(site.db, job)!.proposed) {
    await site.done("cora", "hazard.decide", { job, hazard: id, verdict: "kept" });
  }
  await site.done("cora", "hazard.conditions", { job, weather: "Dry", tools: [], lifts: [] });
}
const walk = (isolation: string, who = "ivo", until?: (step: { kind: string }) => boolean) =>
  walkAlone(isolation, who, until);
async function walkAlone(isolation: string, who: string, until: (step: { kind: string }) => boolean = () => false) {
  for (;;) {
    const next = site.open(isolation)[0];
    if (next === undefined || until(next)) return;
    await site.done(who, "step.do", { isolation, step: next.id, ...soundReport(next, { lock: "I-1" }) });
  }
}
const BRIEFED = { briefed: true };

test("one person locks, proves, works and takes the lock off, alone, and the ledger played again comes to the same", async () => {
  const { job, isolation, permit } = await approvedShort();
  expect(isMinor(loadIsolation(site.db, isolation)!.life.steps)).toBe(true);
  expect(await site.refused("ivo", "permit.begin-alone", { permit, ...BRIEFED })).toMatch(/not proven|steps/i);
  await walk(isolation);
  expect(await site.refused("hal", "permit.begin-alone", { permit, ...BRIEFED })).toMatch(/Only its holder, ivo/);
  await site.done("ivo", "permit.begin-alone", { permit, ...BRIEFED });
  const on = loadPermit(site.db, permit)!.life;
  expect(on).toMatchObject({ state: "live", signOns: [{ person: "ivo", lock: "I-1", off_ms: null }] });

  // Anybody stops it; only the issuer, who looked, lets it go on.
  await site.done("wim", "permit.stop", { permit, cause: "stop-work", reason: "It smells." });
  expect(await site.refused("ivo", "permit.resume", { permit, words: "Looked." })).not.toBe("done");
  await site.done("isa", "permit.resume", { permit, words: "Looked." });

  const back = loadIsolation(site.db, isolation)!.life.steps.filter(({ phase }) => phase === "restore");
  const entries = [
    { type: "permit.end-alone", input: { permit } },
    { type: "return.start", input: { isolation } },
    ...back.map((step) => ({ type: "step.do", input: { isolation, step: step.id, ...soundReport(step) } })),
    { type: "job.close", input: { job } },
  ];
  // One step of it left out, or the lock first: none of it is done.
  const without = await site.round("ivo", "alone, off and closed", [...entries.slice(0, 2), ...entries.slice(3)]);
  expect(without).toMatchObject({ ok: false, code: "out of order" });
  expect(loadPermit(site.db, permit)!.life.state).toBe("live");
  expect(await site.round("ivo", "alone, off and closed", entries)).toMatchObject({ ok: true });
  expect(loadIsolation(site.db, isolation)!.life.state).toBe("restored");
  expect(loadPermit(site.db, permit)!.life).toMatchObject({ state: "closed", closedBy: "ivo" });
  await expectReplay(site);
});

test("nobody else comes in between, and it is not made into anything else", async () => {
  const { job, isolation, box, permit } = await approvedShort();
  const [tell] = site.open(isolation);
  for (const who of ["ines", "cora"]) {
    expect(await site.refused(who, "step.do", { isolation, step: tell!.id, ...soundReport(tell!) })).toMatch(
      /ivo works alone/i,
    );
  }
  const more: readonly [string, string, object, RegExp][] = [
    ["isa", "permit.authorise", { permit }, /alone/],
    ["cora", "permit.draft", draftFor(job, { details: { kind: "general" }, holder: "hal" }), /alone/],
    ["cora", "permit.draft", draftFor(job, { holder: "hal" }), /alone/],
    ["cora", "job.crew", { job, crew: ["ivo", "wim"] }, /alone/],
    ["cora", "box.hang", { box, role: "coordinator", lock: "C-1" }, /open/],
    ["cora", "isolation.re-plan", { isolation, plantRevision: 1 }, /./],
  ];
  for (const [who, type, input, why] of more) {
    const said = await site.refused(who, type, input);
    expect({ type, said }).toEqual({ type, said: expect.stringMatching(why) });
    expect(said).not.toBe("done");
  }
  await walk(isolation);
  await site.done("ivo", "permit.begin-alone", { permit, ...BRIEFED });
  const now: readonly [string, string, object, RegExp][] = [
    ["ivo", "permit.sign-off", { permit }, /alone/],
    ["wim", "permit.sign-on", { permit, lock: "W-1" }, /alone/],
    ["ivo", "permit.hand-back", { permit }, /alone/],
    ["cora", "return.start", { isolation }, /Still signed on: ivo/],
    ["cora", "permit.end-alone", { permit }, /Still signed on: ivo/],
    ["ines", "point.swap", { isolation, from: "Q", to: "Q-2", plate: "Q-2", lock: "L-9", reason: "Try." }, /alone/],
  ];
  for (const [who, type, input, why] of now) {
    expect({ type, said: await site.refused(who, type, input) }).toEqual({ type, said: expect.stringMatching(why) });
  }
  await expectReplay(site);
});

test("it begins with one's own lock only, never over a shift change, and never after it once was not dead", async () => {
  const late = await ask("DR", "ivo", 9);
  await decideAll(late);
  expect(await site.refused("cora", "isolation.approve", { job: late, ...SHORT })).toMatch(/within one shift/);
  const { isolation, permit } = await approvedShort();
  await walk(isolation, "ivo", ({ kind }) => kind === "lock");
  const [lock] = site.open(isolation);
  await site.done("cora", "gear.enter", { kind: "lock", number: "SITE-1" });
  for (const number of ["SITE-1"]) {
    const said = await site.refused("ivo", "step.do", { isolation, step: lock!.id, plate: lock!.plate, lock: number });
    expect(said).not.toBe("done");
  }
  await walk(isolation, "ivo", ({ kind }) => kind === "prove");
  const [prove] = site.open(isolation);
  const live = { ...soundReport(prove!), readings: Object.fromEntries(prove!.pairs!.map((pair) => [pair, 230])) };
  await site.done("ivo", "step.do", { isolation, step: prove!.id, ...live });
  expect(await site.refused("ivo", "permit.begin-alone", { permit, ...BRIEFED })).not.toBe("done");
  // Given up: the lock comes off, and whoever asks for the same machine again is told.
  await site.done("ivo", "permit.cancel", { permit });
  await site.done("ivo", "return.start", { isolation });
  await walk(isolation);
  const again = await ask();
  await decideAll(again);
  expect(await site.refused("cora", "isolation.approve", { job: again, ...SHORT })).toMatch(/against expectation/);
  await expectReplay(site);
});

test("whose lock hangs and who is not there: it is taken off by the removal of a lock, before they are on, on, or off", async () => {
  for (const [day, when] of (["locked", "on", "off"] as const).entries()) {
    site.clock_ms = Date.UTC(2026, 9, 6 + day, 7, 0);
    const { isolation, permit } = await approvedShort();
    await walk(isolation, "ivo", ({ kind }) => when === "locked" && kind === "prove");
    if (when !== "locked") await site.done("ivo", "permit.begin-alone", { permit, ...BRIEFED });
    if (when === "off") await site.done("ivo", "permit.end-alone", { permit });
    const unlock = loadIsolation(site.db, isolation)!.life.steps.find(({ kind }) => kind === "unlock")!;
    expect(await site.refused("ines", "removal.open", { permit, owner: "ivo", reason: "Gone home." })).not.toBe("done");
    const { removal } = await site.done("cora", "removal.open", { permit, owner: "ivo", reason: "Gone home." });
    await site.done("cora", "removal.looked-for", { removal, words: "Gate log, workshop." });
    for (const words of ["Called.", "Called again."]) await site.done("cora", "removal.tried", { removal, words });
    await site.done("ana", "removal.authorise", { removal, words: "May be cut." });
    await site.done("ines", "removal.cut", { removal });
    // It is off: it is not cut twice, and nobody begins behind it.
    expect(await site.refused("cora", "removal.open", { permit, owner: "ivo", reason: "Again." })).not.toBe("done");
    const { state, signOns } = loadPermit(site.db, permit)!.life;
    expect(signOns.every(({ off_ms }) => off_ms !== null)).toBe(true);
    if (state === "live" || state === "suspended") await site.done("cora", "permit.end-alone", { permit });
    else if (state !== "closed") await site.done("cora", "permit.cancel", { permit });
    await site.done("cora", "return.start", { isolation });
    await walk(isolation, "ines", ({ kind }) => kind === "unlock");
    await site.done("ines", "step.do", { isolation, step: unlock.id, ...soundReport(unlock) });
    expect(loadIsolation(site.db, isolation)!.life.state).toBe("restored");
    await site.done("ivo", "removal.read", { removal });
  }
  await expectReplay(site);
});

test("a line that nobody had drawn stops it at once, and the lock still comes off", async () => {
  const { isolation, permit } = await approvedShort();
  await walk(isolation);
  await site.done("ivo", "permit.begin-alone", { permit, ...BRIEFED });
  await importing(site, ITEMS, FED_TWICE);
  const { settleNumbers } = await import("../../src/server/permit/settlePermits");
  site.db.transaction((tx) => settleNumbers(tx, [permit], site.clock_ms));
  expect(loadPermit(site.db, permit)!.life.state).toBe("suspended");
  expect(await site.refused("isa", "permit.resume", { permit, words: "Looked." })).not.toBe("done");
  await site.done("ivo", "permit.end-alone", { permit });
  await site.done("ivo", "return.start", { isolation });
  await walk(isolation);
  expect(loadIsolation(site.db, isolation)!.life.state).toBe("restored");
});

/** What must be so of every minor isolation at every moment, read off the tables. */
function promises(): void {
  const all = <T>(sql: string) => site.db.$client.prepare(sql).all() as T[];
  const minor = `(SELECT DISTINCT isolation_id FROM steps WHERE json_extract(step_json, '$.alone') = 1)`;
  const cut = `(SELECT pi.isolation_id FROM forced_removals r JOIN permit_isolations pi ON pi.permit_id = r.permit_id
    WHERE r.state IN ('cut', 'told'))`;
  // Nobody else's hand on a lock, but by a removal.
  expect(
    all(`SELECT * FROM holds WHERE isolation_id IN ${minor} AND isolation_id NOT IN ${cut}
      AND lifted_by IS NOT NULL AND lifted_by <> locked_by`),
  ).toEqual([]);
  // Whoever is on, is on behind the lock that they hung, and it hangs.
  expect(
    all(`SELECT l.* FROM personal_locks l JOIN permits p ON p.id = l.permit_id JOIN permit_isolations pi ON pi.permit_id = p.id
      WHERE p.kind = 'minor isolation' AND l.off_at_ms IS NULL AND NOT EXISTS (SELECT 1 FROM holds h
        WHERE h.isolation_id = pi.isolation_id AND h.lock = l.lock AND h.locked_by = l.person_id AND h.lifted_at_ms IS NULL)`),
  ).toEqual([]);
  // Nobody but its one person ever was.
  expect(
    all(`SELECT l.* FROM personal_locks l JOIN permits p ON p.id = l.permit_id JOIN jobs j ON j.id = p.job_id
      WHERE p.kind = 'minor isolation' AND l.person_id <> j.holder_id`),
  ).toEqual([]);
  // Nothing is put back over anybody, and no job ends over a lock.
  expect(
    all(`SELECT i.number FROM isolations i JOIN permit_isolations pi ON pi.isolation_id = i.id
      JOIN personal_locks l ON l.permit_id = pi.permit_id
      WHERE i.id IN ${minor} AND i.state IN ('restoring', 'restored') AND l.off_at_ms IS NULL`),
  ).toEqual([]);
  expect(
    all(`SELECT j.number FROM jobs j JOIN job_isolations ji ON ji.job_id = j.id JOIN holds h ON h.isolation_id = ji.isolation_id
      WHERE j.state = 'closed' AND h.lifted_at_ms IS NULL`),
  ).toEqual([]);
  // Live only over what is proven.
  expect(
    all(`SELECT p.number FROM permits p JOIN permit_isolations pi ON pi.permit_id = p.id JOIN isolations i ON i.id = pi.isolation_id
      WHERE p.kind = 'minor isolation' AND p.state = 'live' AND i.state <> 'proven'`),
  ).toEqual([]);
}

/** The removal of a lock, act by act, by who may. */
const REMOVAL = [
  ["removal.looked-for", "cora"],
  ["removal.tried", "cora"],
  ["removal.tried", "isa"],
  ["removal.authorise", "ana"],
  ["removal.cut", "ines"],
] as const;
const RUNS = propertyRuns(12).numRuns;
test(`whatever people do, in ${RUNS} days of random acts, its promises hold`, async () => {
  const counts = new Map<string, number>();
  for (let run = 0; run < RUNS; run++) {
    const random = seededRandom(20261130 + run);
    site.clock_ms = Date.UTC(2026, 9, 6 + run, 7, 0);
    const made = await approvedShort("DR", "ivo");
    const { job, isolation, box, permit } = made;
    const PEOPLE = ["ivo", "ivo", "ivo", "ines", "cora", "isa", "hal", "ana"];
    let removal = "";
    let last = "";
    for (let n = 0; n < 60; n++) {
      const who = random.pick(PEOPLE);
      const steps = loadIsolation(site.db, isolation)!.life.steps;
      const next = random.chance(0.8) ? (site.open(isolation)[0] ?? random.pick(steps)) : random.pick(steps);
      const sound = soundReport(next, { lock: random.chance(0.8) ? "I-1" : "L-7" });
      const acts: readonly (readonly [string, object])[] = [
        ...Array.from({ length: 8 }, () => ["step.do", { isolation, step: next.id, ...sound }] as const),
        ["permit.begin-alone", { permit, ...BRIEFED }],
        ["permit.begin-alone", { permit, ...BRIEFED }],
        ["permit.end-alone", { permit }],
        ["return.start", { isolation }],
        ["permit.sign-off", { permit }],
        ["permit.sign-on", { permit, lock: "W-2" }],
        ["permit.stop", { permit, cause: "stop-work", reason: "It smells." }],
        ["permit.resume", { permit, words: "Looked." }],
        ["permit.cancel", { permit }],
        ["permit.send-back", { permit, words: "Not so." }],
        ["permit.check", { permit }],
        ["job.crew", { job, crew: [random.pick(["ivo", "hal"])] }],
        ["job.close", { job }],
        ["box.hang", { box, role: "coordinator", lock: "C-9" }],
        ["point.swap", { isolation, from: "Q", to: "Q-2", plate: "Q-2", lock: "L-9", reason: "Try." }],
        ["isolation.re-plan", { isolation, plantRevision: 1 }],
        ["step.cannot", { isolation, step: next.id, why: "broken", words: "It is bent." }],
        ["step.can", { isolation, step: next.id, words: "Bent back." }],
        ["permit.draft", draftFor(job, { details: { kind: random.pick(["general", "minor isolation"]) } })],
        ["removal.open", { permit, owner: "ivo", reason: "Gone home." }],
        ["removal.looked-for", { removal, words: "Gate log." }],
        ["removal.tried", { removal, words: "Called." }],
        ["removal.tried", { removal, words: "Called again." }],
        ["removal.authorise", { removal, words: "May be cut." }],
        ["removal.cut", { removal }],
        ["removal.read", { removal }],
      ];
      // Half of it is what people who know their work would do next.
      const { life } = loadPermit(site.db, permit)!;
      const cut = REMOVAL[Math.max(0, REMOVAL.findIndex(([type]) => type === last) + 1) % REMOVAL.length]!;
      const sensible: readonly (readonly [string, string, object])[] =
        life.state === "live" && random.chance(0.5)
          ? [["ivo", "permit.end-alone", { permit }]]
          : life.state === "suspended"
            ? [["isa", "permit.resume", { permit, words: "Looked." }]]
            : life.state === "closed"
              ? [["ivo", "return.start", { isolation }]]
              : [["ivo", "permit.begin-alone", { permit, ...BRIEFED }]];
      const isSensible = random.chance(0.5);
      const open = site.open(isolation)[0];
      const [by, type, input] = !isSensible
        ? ([who, ...random.pick(acts)] as const)
        : removal === "" && random.chance(0.08)
          ? (["cora", "removal.open", { permit, owner: "ivo", reason: "Gone home." }] as const)
          : removal !== "" && random.chance(0.6)
            ? ([cut[1], cut[0], { removal, words: "As it was." }] as const)
            : open !== undefined
              ? (["ivo", "step.do", { isolation, step: open.id, ...soundReport(open, { lock: "I-1" }) }] as const)
              : random.pick(sensible);
      const answer = await site.act(by, type, input);
      if (answer.ok && REMOVAL.some(([one]) => one === type)) last = type;
      if (answer.ok) counts.set(type, (counts.get(type) ?? 0) + 1);
      if (answer.ok && type === "removal.open") [removal, last] = [String(answer.answer.removal), ""];
      promises();
    }
    // Whatever came of it, it can be ended: by its one person, or after a removal by others.
    await ended(made, removal);
    promises();
  }
  const never = [
    "step.do",
    "permit.begin-alone",
    "permit.end-alone",
    "return.start",
    "job.close",
    "removal.open",
    "removal.cut",
  ].filter((type) => !counts.has(type));
  expect({ never, counts: [...counts] }).toEqual({ never: [], counts: expect.anything() });
  await expectReplay(site);
}, 300_000);

/** Brought to its end, so that the next begins on a free machine. */
async function ended({ job, isolation, permit }: { job: string; isolation: string; permit: string }, removal: string) {
  for (const cut of site.db.$client.prepare("SELECT id FROM forced_removals WHERE state = 'cut'").pluck().all()) {
    await site.done("ivo", "removal.read", { removal: cut });
  }
  if (removal !== "") await site.act("cora", "removal.call-off", { removal, words: "Came back." });
  await site.act("ivo", "permit.end-alone", { permit });
  await site.act("cora", "permit.end-alone", { permit });
  const others = site.db.$client
    .prepare("SELECT number FROM permits WHERE state NOT IN ('closed', 'cancelled')")
    .pluck()
    .all() as string[];
  for (const number of others) await site.act("isa", "permit.cancel", { permit: number });
  for (const { id } of loadIsolation(site.db, isolation)!.life.steps) {
    await site.act("cora", "step.can", { isolation, step: id, words: "Bent back." });
    await site.act("ivo", "step.can", { isolation, step: id, words: "Bent back." });
  }
  await site.act("cora", "return.start", { isolation });
  for (let n = 0; n < 12; n++) {
    const next = site.open(isolation)[0];
    if (next === undefined || loadIsolation(site.db, isolation)!.life.state !== "restoring") break;
    for (const who of ["ivo", "ines"]) {
      await site.act(who, "step.do", { isolation, step: next.id, ...soundReport(next) });
    }
  }
  expect({ job, state: loadIsolation(site.db, isolation)!.life.state }).toEqual({ job, state: "restored" });
  await site.act("cora", "job.close", { job });
  const said = await site.refused("cora", "job.close", { job });
  expect(said).toMatch(/already done/);
}
