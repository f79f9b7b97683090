import { decisionsOf } from "../../../src/core/hazard/jobHazards";
import { BEGUN, overAt_ms, WATCHED } from "../../../src/core/isolation/held";
import { soundBegin, soundReport } from "../../../src/core/isolation/soundReport";
import { loadIsolation } from "../../../src/server/isolation/isolationStore";
import { waitOf } from "../../../src/server/isolation/stepWaits";
import { jobHazards } from "../../../src/server/hazard/hazardStore";
import { locksOnBox, peopleEver } from "../siteRows";
import type { TestSite } from "../testSite";
import { detailsFor, kindsRequired, toTick } from "../writePermit";
import { COORDINATORS, ISOLATORS, ISSUERS, SLOTS, WORKERS, type Slot } from "./place";
import type { Player } from "./player";
import {
  acceptedBelow,
  isOver,
  jobAt,
  onPermit,
  permitsOf,
  revisionNow,
  standingOn,
  testsOf,
  type JobRow,
  type PermitRow,
} from "./rows";

const HOUR_MS = 3_600_000;
export type Pick = Readonly<{ slot: number; who: number; n: number }>;
const one = <T>(of: readonly T[], n: number): T => of[n % of.length]!;

/** What a job asks for at a place. */
export const asked = (site: TestSite, slot: Slot, n = 0) => ({
  title: `Work at ${slot.place}`,
  work: "Open it.",
  faces: [{ place: slot.place, how: [slot.how] }],
  windowFrom_ms: site.clock_ms - HOUR_MS,
  windowTo_ms: site.clock_ms + (7 - (n % 4)) * HOUR_MS,
  longerThanShift: false,
  holder: slot.holder,
  profile: slot.rules ?? "strict",
});

/** What comes next at a place, done by whom it falls to: from a request to the job that is closed, and then the next request. */
export async function goOn(play: Player, pick: Pick): Promise<boolean> {
  const { site } = play;
  const slot = SLOTS[pick.slot]!;
  const cora = one(COORDINATORS, pick.who);
  const found = jobAt(site, slot.place);
  if (found === null) return play.act(cora, "job.ask", { ...asked(site, slot), crew: [...WORKERS] });
  const { job, isolation, box } = found;
  if (isolation === null || box === null) return toApproval(play, found, slot, cora);
  const { life } = loadIsolation(site.db, isolation)!;
  if (life.state === "restored") return play.act(cora, "job.close", { job });
  const [test] = testsOf(site, isolation);
  if (test?.state === "asked") return play.act(cora, "test.start", { test: test.test });
  if (life.state !== "proven") return step(play, found, pick);
  const open = permitsOf(site, found.jobId);
  const standing = standingOn(site, box).filter(({ role }) => role === "coordinator");
  if (open.length === 0 && isOver(site, found.jobId)) {
    const [mine] = standing;
    if (mine) return play.act(mine.person, "box.take-off", { box, lock: mine.lock });
    return play.act(cora, "return.start", { isolation });
  }
  if (standing.length === 0) {
    return play.act(cora, "box.hang", { box, role: "coordinator", lock: `C-${cora}-${box}` });
  }
  const kinds = kindsRequired(site, job);
  const missing = kinds.find((kind) => !open.some((permit) => permit.kind === kind));
  if (missing !== undefined) {
    return play.act(slot.holder, "permit.draft", {
      job,
      words: "Open it.",
      hazards: "Residue.",
      precautions: "Gloves.",
      validFrom_ms: site.clock_ms - HOUR_MS,
      validTo_ms: site.clock_ms + 8 * HOUR_MS,
      details: detailsFor(missing),
    });
  }
  return permitOn(play, one(open, pick.n), found, pick);
}

async function toApproval(play: Player, { job, jobId }: JobRow, slot: Slot, cora: string): Promise<boolean> {
  const { site } = play;
  const hazards = jobHazards(site.db, job)!;
  if (!hazards.begun) return play.act(cora, "hazard.conditions", { job, weather: "dry", tools: [], inspected: [] });
  const decided = decisionsOf(hazards.hazards);
  const left = hazards.proposed.filter(({ id }) => !decided.has(id));
  for (const { id } of left) await play.act(slot.holder, "hazard.decide", { job, hazard: id, verdict: "kept" });
  if (left.length > 0) return true;
  const how = { job, objective: "effort", school: "work" };
  if (slot.below !== undefined && acceptedBelow(site, jobId) === 0) {
    return play.act("ana", "deviation.accept", {
      ...how,
      ways: [slot.below],
      measures: ["watcher", "gauge in view"],
      reason: "supply drained and watched",
    });
  }
  return play.act(cora, "isolation.approve", { ...how, plantRevision: revisionNow(site) });
}

/** A step of the walk that is open now, by somebody who may, once its wait is over. */
export async function step(play: Player, { isolation, box }: JobRow, pick: Pick): Promise<boolean> {
  const { site } = play;
  if (isolation === null || box === null) return false;
  const open = site.open(isolation);
  if (open.length === 0) return false;
  const next = one(open, pick.n);
  const second = next.secondPerson || next.kind === "prove" || next.kind === "verify";
  const who = next.role === "operator" ? "orla" : second ? "vera" : one(ISOLATORS.slice(0, 2), pick.who);
  if (next.stuck) return play.act("vera", "step.can", { isolation, step: next.id, words: "mended" });
  if (BEGUN.has(next.kind) && next.begun === undefined) {
    const beside = soundBegin(next, WATCHED.has(next.kind) ? one(["wenke", "wanda"], pick.who) : "");
    return play.act(who, "step.begin", { isolation, step: next.id, ...beside });
  }
  const { row, life } = loadIsolation(site.db, isolation)!;
  const over_ms = overAt_ms(life, next, waitOf(site.db, row)(next));
  if (over_ms !== null && pick.n % 7 > 0) site.clock_ms = Math.max(site.clock_ms, over_ms);
  const report = soundReport(next, {
    lock: `L-${isolation}-${next.subject}-${pick.n % 2}`,
    people: peopleEver(site, isolation),
    locks: locksOnBox(site, box),
  });
  return play.act(who, "step.do", { isolation, step: next.id, ...report });
}

/** What comes next for a permit. */
async function permitOn(play: Player, { permit, state }: PermitRow, { jobId }: JobRow, pick: Pick): Promise<boolean> {
  const { site } = play;
  const holder = SLOTS[pick.slot]!.holder;
  const isa = one(ISSUERS, pick.who);
  const on = onPermit(site, permit);
  switch (state) {
    case "draft":
      return play.act("cora", "permit.check", { permit });
    case "checked":
      return play.act(isa, "permit.authorise", { permit });
    case "authorised":
    case "issued": {
      const asks = toTick(site, permit);
      const byHolder = asks.filter((id) => id.startsWith("stand-in"));
      if (byHolder.length > 0)
        return play.act(holder, "permit.tick", { permit, asks: byHolder, words: "Ivo is there." });
      if (asks.length > 0) return play.act("cora", "permit.tick", { permit, asks, words: "seen" });
      return state === "authorised"
        ? play.act(isa, "permit.issue", { permit, copies: ["at the work"] })
        : play.act(holder, "permit.accept", { permit });
    }
    case "live": {
      const off = WORKERS.filter((one) => !on.includes(one));
      if (pick.n < 6 && off.length > 0) {
        // The lock of who leads the party goes on first.
        const who = off.find((each) => each === holder) ?? one(off, pick.who);
        return play.act(who, "permit.sign-on", { permit, lock: `W-${who}` });
      }
      if (on.length > 0) return play.act(one(on, pick.who), "permit.sign-off", { permit });
      return play.act(holder, "permit.hand-back", { permit });
    }
    case "suspended":
      return pick.n % 3 === 0 && on.length > 0
        ? play.act(one(on, pick.who), "permit.sign-off", { permit })
        : play.act(isa, "permit.resume", { permit, words: "Looked at; all is as it was." });
    case "run out":
      if (on.length > 0) return play.act(on[0]!, "permit.sign-off", { permit });
      return pick.n % 2 ? play.act(holder, "permit.hand-back", { permit }) : play.act(isa, "permit.cancel", { permit });
    case "watching":
      return play.act(holder, "permit.end-watch", { permit });
    case "work done":
      if (pick.n % 3 === 0) await play.act(isa, "permit.inspect", { permit, words: "Clean." });
      if (pick.n % 2 === 0) await play.act(holder, "permit.return-copy", { permit, copy: 1 });
      return play.act(isa, "permit.close", { permit });
    default:
      throw new Error(`a permit of ${jobId} that is ${state} is over`);
  }
}
