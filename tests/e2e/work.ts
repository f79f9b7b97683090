import Database from "better-sqlite3";
import type { Page } from "@playwright/test";
import { join } from "node:path";
import type { PlannedStep } from "../../src/core/procedure/steps";
import { soundBegin, soundReport } from "../../src/core/isolation/soundReport";
import { BEGUN, overAt_ms } from "../../src/core/isolation/held";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { waitOf } from "../../src/server/isolation/stepWaits";
import type { PermitKind } from "../../src/core/permit/kinds/kinds";
import { undecided } from "../../src/core/permit/requirements/clashDecisions";
import { asksOf } from "../../src/core/permit/requirements/requirements";
import { openDatabase, type Db } from "../../src/server/db/database";
import { jobHazards } from "../../src/server/hazard/hazardStore";
import { permitNow } from "../../src/server/permit/permitFacts";
import { DETAILS } from "../support/permits";
import { clockOf } from "./clock";
import { expect, post, type Site } from "./site";

type As = (name: string) => Promise<Page>;
const HOUR_MS = 3_600_000;

/** What the database of a site says; read only. */
export function read<T>(site: Site, sql: string, ...values: unknown[]): T[] {
  const db = new Database(join(site.data, "heavy-lantern.db"), { readonly: true });
  const rows = db.prepare(sql).all(...values) as T[];
  db.close();
  return rows;
}

export function idOf(site: Site, name: string): string {
  return read<{ id: string }>(site, "SELECT id FROM people WHERE name = ?", name)[0]!.id;
}

/** The steps of an isolation, with whether each is done. */
export function stepsOf(site: Site, isolation: string): (PlannedStep & { done: boolean })[] {
  return read<{ step: string; done: number }>(
    site,
    `SELECT s.step_json AS step, s.done_at_ms IS NOT NULL AS done FROM steps s
     JOIN isolations i ON i.id = s.isolation_id WHERE i.number = ? ORDER BY s.position`,
    isolation,
  ).map((row) => ({ ...(JSON.parse(row.step) as PlannedStep), done: row.done === 1 }));
}

export async function done(page: Page, type: string, input: unknown): Promise<Record<string, string>> {
  const { status, body } = await post(page, type, input);
  expect({ type, status, said: body.sentence }).toEqual({ type, status: 200, said: undefined });
  return body.answer!;
}

/** A job asked for and approved by posts. */
export async function approvedJob(
  as: As,
  site: Site,
  p: Readonly<{ title: string; face: object; lead: string; crew: readonly string[] }>,
): Promise<{ job: string; isolation: string; box: string }> {
  const maren = await as("Maren Tolve");
  const { job } = await done(maren, "job.ask", {
    title: p.title,
    work: `${p.title}.`,
    faces: [p.face],
    longerThanShift: false,
    windowFrom_ms: Date.now(),
    windowTo_ms: Date.now() + 7 * HOUR_MS,
    holder: idOf(site, p.lead),
    crew: p.crew.map((name) => idOf(site, name)),
  });
  const revision = read<{ r: number }>(site, "SELECT max(revision) AS r FROM plant_revisions")[0]!.r;
  const { isolation, box } = await done(maren, "isolation.approve", { job, school: "work", plantRevision: revision });
  return { job: job!, isolation: isolation!, box: box! };
}

/** Every step that may be done, by posts: Jonas and Sunniva lock, Odalys looks and proves. */
export async function walkByPost(
  as: As,
  site: Site,
  isolation: string,
  phase: "isolate" | "test" | "restore" = "isolate",
  until: (step: PlannedStep) => boolean = () => false,
): Promise<void> {
  for (;;) {
    const steps = stepsOf(site, isolation);
    const finished = new Set(steps.filter((step) => step.done).map(({ id }) => id));
    const next = steps.find((step) => step.phase === phase && !step.done && step.after.every((id) => finished.has(id)));
    if (!next || until(next)) return;
    const second = next.secondPerson || next.kind === "prove" || next.kind === "verify";
    const who =
      next.role === "operator"
        ? "Ruth Amberley"
        : second
          ? "Odalys Brenn"
          : next.competence === "electrical"
            ? "Jonas Ekeberg"
            : "Sunniva Rask";
    const [{ people }] = read<{ people: number }>(
      site,
      `SELECT count(DISTINCT l.person_id) AS people FROM personal_locks l
       JOIN permit_isolations p ON p.permit_id = l.permit_id JOIN isolations i ON i.id = p.isolation_id WHERE i.number = ?`,
      isolation,
    ) as [{ people: number }];
    const report = soundReport(next, { lock: `${isolation}-${next.id}`, people });
    if (BEGUN.has(next.kind)) {
      const beside = soundBegin(next, idOf(site, "Ruth Amberley"));
      await done(await as(who), "step.begin", { isolation, step: next.id, ...beside });
    }
    await waited(site, isolation, next.id);
    await done(await as(who), "step.do", { isolation, step: next.id, ...report });
  }
}

/** They come back when the time of a step that runs is over. */
export async function waited(site: Site, isolation: string, step: string): Promise<void> {
  const clock = clockOf(site);
  const left_ms = asked(site, (db) => {
    const { row, life } = loadIsolation(db, isolation)!;
    const next = life.steps.find(({ id }) => id === step)!;
    const over_ms = overAt_ms(life, next, waitOf(db, row)(next));
    return over_ms === null ? 0 : over_ms - clock.now_ms;
  });
  if (left_ms > 0) await clock.on(left_ms);
}

/** What the server itself would answer of a site's database. */
function asked<T>(site: Site, question: (db: Db) => T): T {
  const db = openDatabase(join(site.data, "heavy-lantern.db"));
  try {
    return question(db);
  } finally {
    db.$client.close();
  }
}

/** The hazards of a job, all kept by the coordinator; answers the kinds of permit that the job requires. */
export async function hazardsDecided(as: As, site: Site, job: string): Promise<PermitKind[]> {
  const maren = await as("Maren Tolve");
  await done(maren, "hazard.conditions", { job, weather: "Dry", tools: [], inspected: [] });
  for (const { id } of asked(site, (db) => jobHazards(db, job))!.proposed) {
    await done(maren, "hazard.decide", { job, hazard: id, verdict: "kept" });
  }
  return asked(site, (db) => jobHazards(db, job))!.required.map(({ kind }) => kind);
}

/** Checked, authorised, looked at and issued with a copy at the work, by whom it takes. */
export async function signedToIssue(as: As, site: Site, permit: string): Promise<void> {
  const maren = await as("Maren Tolve");
  await done(maren, "permit.check", { permit });
  await done(await as("Idris Halloway"), "permit.authorise", { permit });
  const asks = asked(site, (db) => {
    const { now, facts } = permitNow(db, permit, Date.now())!;
    return asksOf({ permit: now, facts, now_ms: Date.now() })
      .filter(({ byHand, only, unmet }) => byHand && !only && unmet !== null)
      .map(({ id }) => id);
  });
  if (asks.length > 0) await done(maren, "permit.tick", { permit, asks, words: "Seen on the spot." });
  // Tests share a site in no order that can be told beforehand: what another left live is decided, as people would.
  for (const { id } of asked(site, (db) => {
    const { now, facts } = permitNow(db, permit, Date.now())!;
    return undecided(facts.clashes, [...now.log, ...facts.decidedElsewhere]);
  })) {
    await done(maren, "permit.decide-clash", { permit, clash: id, decision: "go on", reason: "They take turns." });
  }
  await done(await as("Idris Halloway"), "permit.issue", { permit, copies: ["at the work"] });
}

/** Signs on as somebody who was briefed. */
export async function on(page: Page, permit: string, place: string, lock: string): Promise<void> {
  const input = { permit, lock, answer: place, briefed: true };
  const { body } = await post(page, "permit.sign-on", input);
  // In the demo's day some are at work already, and say so.
  if (body.code === "at other work") {
    await done(page, "permit.sign-on", { ...input, also: /P-\d+/.exec(body.sentence ?? "")![0] });
  } else expect(body, body.sentence).toMatchObject({ ok: true });
}

/** A job whose isolation is proven, with the coordinator's lock on its box and a live permit. */
export async function workAt(
  as: As,
  site: Site,
  p: Parameters<typeof approvedJob>[2],
): Promise<{ job: string; isolation: string; box: string; permit: string }> {
  const made = await approvedJob(as, site, p);
  await walkByPost(as, site, made.isolation);
  await done(await as("Maren Tolve"), "box.hang", { box: made.box, role: "coordinator", lock: `C-${made.box}` });
  const lead = await as(p.lead);
  const written = async (kind: PermitKind) => {
    const { permit } = await done(lead, "permit.draft", {
      job: made.job,
      words: p.title,
      hazards: "Neighbouring cubicles stay live.",
      precautions: "Screens up.",
      validFrom_ms: Date.now() - 1000,
      validTo_ms: Date.now() + 8 * HOUR_MS,
      details: { ...DETAILS[kind], ...(kind === "electrical work" ? { gloves: "GL-11" } : {}) },
    });
    await signedToIssue(as, site, permit!);
    return permit!;
  };
  const [first, ...others] = await hazardsDecided(as, site, made.job);
  for (const kind of others) await written(kind);
  const permit = await written(first!);
  await done(lead, "permit.accept", { permit });
  return { ...made, permit };
}
