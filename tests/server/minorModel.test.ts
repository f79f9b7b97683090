import { soundReport } from "../../src/core/isolation/soundReport";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { loadPermit } from "../../src/server/permit/permitStore";
import { expectReplay } from "../support/expectReplay";
import { approvedShort, BRIEFED, draftFor, minorSite } from "../support/minorSite";
import { propertyRuns } from "../support/runs";
import { seededRandom } from "../support/seededRandom";
import type { TestSite } from "../support/testSite";

/** Random days of a minor isolation, by everybody, with every act that could come in between. */

let site: TestSite;
beforeEach(async () => {
  site = await minorSite();
});
afterEach(() => site.close());

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
    const made = await approvedShort(site, "DR", "ivo");
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
        ["permit.draft", draftFor(site, job, { details: { kind: random.pick(["general", "minor isolation"]) } })],
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
