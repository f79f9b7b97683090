import { BEGUN } from "../../../src/core/isolation/held";
import { soundReport } from "../../../src/core/isolation/soundReport";
import { AUDIT_LOOKS } from "../../../src/core/permit/record/permitLog";
import { clockStepped } from "../../../src/server/permit/clockWatch";
import { keyOf } from "../../../src/core/handover/handover";
import { handoverItems } from "../../../src/server/handover/handoverItems";
import { lastHandover } from "../../../src/server/handover/handoverStore";
import { loadIsolation } from "../../../src/server/isolation/isolationStore";
import { jobHazards } from "../../../src/server/hazard/hazardStore";
import { heldNow, locksOnBox, peopleEver } from "../siteRows";
import { PIN } from "../testSite";
import { COORDINATORS, HOLDERS, ISOLATORS, ISSUERS, REGISTERS, SLOTS, WORKERS } from "./place";
import type { Player } from "./player";
import { jobAt, onPermit, permitsOf, revisionNow, standingOn, testsOf, type JobRow, type PermitRow } from "./rows";
import { ripePermits, ripeSlot } from "./ripe";
import { asked, goOn, step, type Pick } from "./usual";

/** What people do beside the usual course: their mistakes, what breaks, what changes; often at a moment when it may not be. */
export type Trouble = (play: Player, pick: Pick, at: At) => Promise<unknown> | null;
type At = Readonly<{ found: JobRow | null; isolation: string; box: string; permit: PermitRow | null; holder: string }>;

const one = <T>(of: readonly T[], n: number): T => of[n % of.length]!;
const anybody = [...WORKERS, ...COORDINATORS, ...ISSUERS, ...ISOLATORS, "ana", "orla", "wenke"];
const NONE = "none";
const numberOf = (permit: PermitRow | null) => permit?.permit ?? NONE;

const openNow = ({ site }: Player, isolation: string) => (isolation === NONE ? [] : site.open(isolation));

function imported(play: Player, who: number, n: number): Promise<boolean> {
  const { items, links } = one(REGISTERS, n);
  const files = [
    { name: "items.csv", text: items },
    { name: "links.csv", text: links },
  ];
  return play.act(one(COORDINATORS, who), "plant.import", { files });
}

/** Everybody off at a place, the lead last, as it is asked before points are moved. */
async function allOff(play: Player, found: JobRow | null): Promise<void> {
  for (const { permit } of permitsOf(play.site, found?.jobId ?? NONE)) {
    const on = onPermit(play.site, permit);
    const leadLast = [...on].sort((a, b) => Number(a === found?.holder) - Number(b === found?.holder));
    for (const worker of leadLast) await play.act(worker, "permit.sign-off", { permit });
  }
}

/** What comes next at a place, a few times over. */
const goesOn =
  (times: number): Trouble =>
  async (play, pick) => {
    for (let i = 0; i < times; i++) if (!(await goOn(play, { ...pick, n: pick.n + i }))) return null;
    return null;
  };

export const TROUBLES: Readonly<Record<string, Trouble>> = {
  "approved and begun": goesOn(4),
  "something that runs for a time": async (play, pick, { found, isolation }) => {
    for (let i = 0; i < 14 && found !== null; i++) {
      const begins = openNow(play, isolation).findIndex(({ kind, begun }) => BEGUN.has(kind) && !begun);
      const n = begins === -1 ? pick.n + i : begins;
      if (!(await step(play, found, { ...pick, n })) || begins !== -1) return null;
    }
    return null;
  },
  "a permit brought on": goesOn(5),
  "a permit brought to its end": goesOn(4),
  "a step by anybody, in any order": (play, { who, n }, { isolation, box }) => {
    const life = loadIsolation(play.site.db, isolation)?.life;
    const next = life?.steps[(who * 12 + n) % Math.max(1, life.steps.length)];
    if (!next) return null;
    const report = soundReport(next, {
      lock: `L-${n}`,
      people: peopleEver(play.site, isolation),
      locks: locksOnBox(play.site, box),
    });
    return play.act(one(anybody, who + n), "step.do", { isolation, step: next.id, ...report });
  },
  "a step before its turn": (play, { who, n }, { isolation }) => {
    const steps = loadIsolation(play.site.db, isolation)?.life.steps ?? [];
    const early = steps.filter(({ done, after }) => !done && steps.some(({ id, done }) => after.includes(id) && !done));
    if (early.length === 0) return null;
    const next = one(early, n);
    return play.act(one(ISOLATORS, who), "step.do", {
      isolation,
      step: next.id,
      ...soundReport(next, { lock: `L-${n}` }),
    });
  },
  "a lock that hangs elsewhere": (play, { who, n }, { isolation }) => {
    const next = openNow(play, isolation).find(({ kind }) => kind === "lock");
    const hung = heldNow(play.site);
    if (!next || hung.length === 0) return null;
    // Typed as people type it.
    const lock = one(hung, n).lock.toLowerCase().replace("-", " ");
    return play.act(one(ISOLATORS, who), "step.do", { isolation, step: next.id, ...soundReport(next, { lock }) });
  },
  "a proof that fails": async (play, { who, n }, { isolation }) => {
    const life = loadIsolation(play.site.db, isolation)?.life;
    const proofs = (life?.steps ?? []).filter(({ kind, limit, done }) => kind === "prove" && limit !== null && done);
    if (proofs.length === 0) return null;
    const proof = one(proofs, n);
    const at = { isolation, step: proof.id };
    const bad = { ...soundReport(proof), reading: 9e9, readings: { [proof.pairs?.[0] ?? ""]: 230 } };
    await play.act("vera", "step.prove-again", { ...at, ...bad });
    if (who % 3 === 0) return play.act("ines", "step.entered-in-error", { ...at, words: "The gauge was upside down." });
    if (who % 3 === 1) return play.act("vera", "step.do", { ...at, ...soundReport(proof) });
    await play.act("cora", "step.cause", { ...at, words: "A bleed was plugged; rodded clear." });
    return play.act("ines", "step.do", { ...at, ...soundReport(proof) });
  },
  "proved again": (play, { n }, { isolation }) => {
    const life = loadIsolation(play.site.db, isolation)?.life;
    const proofs = (life?.steps ?? []).filter(({ kind, done }) => kind === "prove" && done);
    if (proofs.length === 0) return null;
    const proof = one(proofs, n);
    return play.act("vera", "step.prove-again", { isolation, step: proof.id, ...soundReport(proof) });
  },
  "a step that cannot be done": async (play, { who, n }, { isolation }) => {
    const [next] = openNow(play, isolation);
    if (!next) return null;
    const why = one(["broken", "cannot be reached", "missing"], n);
    await play.act(one(ISOLATORS, who), "step.cannot", { isolation, step: next.id, why, words: "does not move" });
    if (n % 3) return play.act("vera", "step.can", { isolation, step: next.id, words: "mended" });
    return play.act("cora", "isolation.re-plan", { isolation, plantRevision: revisionNow(play.site) });
  },
  "planned anew": async (play, { who, n }, { found, isolation }) => {
    if (n % 3 === 0) await imported(play, who, n);
    const [next] = openNow(play, isolation);
    if (n % 3 && next) {
      await play.act("ivo", "step.cannot", { isolation, step: next.id, why: "broken", words: "does not move" });
    }
    if (n % 4) await allOff(play, found);
    return play.act(one(COORDINATORS, who), "isolation.re-plan", { isolation, plantRevision: revisionNow(play.site) });
  },
  "another register": (play, { who, n }) => imported(play, who, n),
  "a point swapped": async (play, { who, n }, { found, isolation }) => {
    const tags = heldNow(play.site).flatMap((hold) => (hold.isolation === isolation ? [hold.tag] : []));
    // Two valves in one line may stand in for each other; now and then something that may not is tried.
    const [from, to] =
      n % 4 === 0
        ? [tags[0] ?? "V-1", one(["V-1", "V-2", "Q"], who)]
        : tags.includes("V-5")
          ? ["V-5", "V-1"]
          : ["V-1", "V-5"];
    if (n % 4) await allOff(play, found);
    const how = { plate: to, lock: `X-${n}`, reason: "as asked" };
    return play.act(one(ISOLATORS, who), "point.swap", { isolation, from, to, ...how });
  },
  "a temporary de-isolation": async (play, { who, n }, { found, isolation, holder }) => {
    const { site } = play;
    if (n % 4) await allOff(play, found);
    const held = heldNow(site).filter((hold) => hold.isolation === isolation);
    if (held.length === 0) return null;
    const lift = [one(held, n).tag];
    await play.act(holder, "test.ask", { isolation, lift, purpose: "turn it once" });
    const test = testsOf(site, isolation).at(-1)?.test ?? NONE;
    for (const slot of SLOTS) {
      const job = jobAt(site, slot.place)?.job;
      if (job && n % 4) await play.act(slot.holder, "test.agree", { test, job });
    }
    return (
      (await play.act(one(COORDINATORS, who), "test.start", { test })) || play.act("cora", "test.call-off", { test })
    );
  },
  "accepted below the rules": (play, { who, slot }, { found }) => {
    const of = SLOTS[slot]!;
    return play.act(one(["ana", "ana", "cora"], who), "deviation.accept", {
      job: found?.job ?? NONE,
      objective: "effort",
      school: "work",
      ways: [of.below ?? `S fluid ${of.place}`],
      measures: ["watcher", "gauge in view"],
      reason: "supply drained and watched",
    });
  },
  "accepted for longer": (play, { n }, { found }) =>
    play.act("ana", "deviation.renew", {
      job: found?.job ?? NONE,
      until_ms: play.site.clock_ms + (n - 3) * 3_600_000,
      reason: "it is still watched",
    }),
  "a job asked for otherwise": (play, { slot, n }, { found, holder }) =>
    play.act(holder, "job.change", { job: found?.job ?? NONE, ...asked(play.site, one(SLOTS, n % 4 ? slot : n), n) }),
  "a job withdrawn": async (play, pick, { found, holder }) => {
    if (found === null) await goOn(play, pick);
    const job = jobAt(play.site, SLOTS[pick.slot]!.place)?.job ?? NONE;
    return play.act(one([holder, "cora"], pick.who), "job.withdraw", { job, words: "Not wanted any more." });
  },
  "another crew": (play, { n }, { found, holder }) =>
    play.act(holder, "job.crew", { job: found?.job ?? NONE, crew: WORKERS.filter((_, i) => i !== n) }),
  "a draft sent back, changed or cancelled": async (play, { who, n }, { permit, holder }) => {
    const number = numberOf(permit);
    if (n % 4 === 0) return play.act(one([holder, "isa"], who), "permit.cancel", { permit: number });
    // Sent back first, where it is no draft any more: now and then that is forgotten.
    if (permit?.state !== "draft" && n % 4 > 1) {
      const said = { permit: number, words: "Where does it go?" };
      if (!(await play.act(one(ISSUERS, who), "permit.send-back", said)) && n % 4 === 2) return null;
    }
    const row = play.site.db.$client
      .prepare("SELECT details_json details, valid_from_ms from_ms, valid_to_ms to_ms FROM permits WHERE number = ?")
      .get(number) as { details: string; from_ms: number; to_ms: number } | undefined;
    if (!row) return null;
    return play.act(holder, "permit.change", {
      permit: number,
      words: `Open it, ${n}.`,
      hazards: "Residue.",
      precautions: "Gloves.",
      details: JSON.parse(row.details) as object,
      validFrom_ms: row.from_ms,
      validTo_ms: row.to_ms,
    });
  },
  "a second draft": async (play, { who }, { found, permit, holder }) =>
    found && permit
      ? play.act(one([holder, "cora"], who), "permit.draft", {
          job: found.job,
          words: "Open it as well.",
          hazards: "Residue.",
          precautions: "Gloves.",
          validFrom_ms: play.site.clock_ms,
          validTo_ms: play.site.clock_ms + 3_600_000,
          details: { kind: "general" },
        })
      : null,
  "signed on with any lock": (play, { who, n }, { permit }) => {
    const worker = one(WORKERS, who);
    const lock = one([`W-${worker}`, "W-hal", "H-STRAY", `w ${worker}`], n);
    return play.act(worker, "permit.sign-on", { permit: numberOf(permit), lock });
  },
  "signed off by anybody": (play, { who }, { permit }) =>
    play.act(one(anybody, who), "permit.sign-off", { permit: numberOf(permit) }),
  "work stopped": (play, { who, n }, { permit }) =>
    play.act(one(anybody, who), "permit.stop", {
      permit: numberOf(permit),
      cause: one(["stop-work", "weather", "clash"], n),
      reason: "Something drips.",
    }),
  "gone on by anybody": async (play, { who }, { permit }) => {
    const number = numberOf(permit);
    if (permit?.state === "live") await play.act("wolf", "permit.stop", { permit: number, reason: "Something drips." });
    const may = one([...ISSUERS, ...ISSUERS, "cora", "hal"], who);
    return play.act(may, "permit.resume", { permit: number, words: "Looked at." });
  },
  "handed back in part": (play, { n }, { permit, holder }) =>
    play.act(holder, "permit.hand-back", {
      permit: numberOf(permit),
      ...(n % 2 ? { work: "part", left: "The gland is out." } : { work: "done" }),
    }),
  "closed at once": (play, { who }, { permit }) =>
    play.act(one(ISSUERS, who), "permit.close", { permit: numberOf(permit) }),
  "an end put later": (play, { n }, { permit }) => {
    const number = numberOf(permit);
    return play.act(one(ISSUERS, n), "permit.extend", {
      permit: number,
      until_ms: (permit?.validTo_ms ?? 0) + (n + 1) * 1_800_000,
      words: "The bolts are rusted in.",
      stillOn: n % 4 ? onPermit(play.site, number) : [],
      marked: [1],
    });
  },
  "seen again by the new shift": (play, { who }, { permit }) =>
    play.act(one(ISSUERS, who), "permit.revalidate", { permit: numberOf(permit), words: "Seen, nothing changed." }),
  "one for another": (play, { who, n }, { permit, holder }) => {
    const number = numberOf(permit);
    const on = onPermit(play.site, number);
    const from = n % 4 && on.length > 0 ? one(on, n) : one(WORKERS, who);
    const may = from === holder && n % 6 > 0 ? HOLDERS : WORKERS;
    const others = may.filter((worker) => n % 4 === 0 || !on.includes(worker));
    const to = one(others.length > 0 ? others : WORKERS, who + n);
    const pair = { from, to, lock: `W-${to}`, fromPin: PIN, toPin: n === 5 ? "0000" : PIN };
    return play.act(holder, "permit.hand-over", { permit: number, pairs: [pair] });
  },
  "a lock on the box": (play, { who, n }, { box }) => {
    const coordinator = one(COORDINATORS, who);
    return n % 3
      ? play.act(coordinator, "box.hang", { box, role: "coordinator", lock: `C-${coordinator}-${box}` })
      : play.act(coordinator, "box.hang", { box, role: "department", lock: "D-1" });
  },
  "a lock off the box": (play, { who, n }, { box }) => {
    const [hangs] = standingOn(play.site, box).slice(n % 2);
    return play.act(one(COORDINATORS, who), "box.take-off", { box, lock: hangs?.lock ?? "C-1" });
  },
  "put back and closed": goesOn(12),
  "put back too early": (play, { who, n }, { isolation }) =>
    play.act(one(COORDINATORS, who), "return.start", { isolation, ...(n % 4 ? {} : { leftSafe: "Hand tight." }) }),
  "a job closed too early": (play, { who }, { found }) =>
    play.act(one(COORDINATORS, who), "job.close", { job: found?.job ?? NONE }),
  "something burned": (play, { who, n }, { permit }) =>
    play.act(one(anybody, who + n), "permit.report-fire", {
      permit: numberOf(permit),
      where: "the floor",
      what: "a rag",
      out: "stamped on",
    }),
  "an audit on the spot": (play, { who, n }, { permit, holder }) =>
    play.act(one(["ana", "ana", ...ISSUERS, "cora", holder], who), "permit.audit", {
      permit: numberOf(permit),
      found: Object.fromEntries(AUDIT_LOOKS.map((look, i) => [look, i === n ? "not as written" : "as written"])),
      words: n % 5 === 0 ? "" : "A tag is gone.",
    }),
  "somebody would not sign": (play, { who }, { permit }) =>
    play.act(one(anybody, who), "permit.note-refusal", {
      permit: numberOf(permit),
      who: "a rigger",
      what: "sign on",
      words: "No time.",
    }),
  "locks read by the crew": (play, { who, n }, { isolation }) => {
    const held = heldNow(play.site).filter((hold) => hold.isolation === isolation);
    const found = held.map((each, i) => ({ point: each.tag, lock: n === 11 && i === 0 ? "L-STRAY" : each.lock }));
    return found.length > 0 ? play.act(one(WORKERS, who), "isolation.check-locks", { isolation, found }) : null;
  },
  "the clock jumps": ({ site }, { n }) => {
    const by_ms = (n + 2) * 300_000;
    site.clock_ms += by_ms;
    clockStepped(site.db, site.headFile, by_ms, site.clock_ms);
    return null;
  },
  "locks read again": async (play, { who, n }, { isolation }) => {
    const { site } = play;
    const held = heldNow(site).filter((hold) => hold.isolation === isolation);
    if (held.length === 0) return null;
    const wrong = n % 3 === 0 ? one(held, n) : undefined;
    const found = held.map((each) => ({ point: each.tag, lock: each === wrong ? "L-STRAY" : each.lock }));
    await play.act(one(ISOLATORS, who), "isolation.check-locks", { isolation, found });
    if (wrong && n !== 6) {
      await play.act("ivo", "isolation.rehang", { isolation, point: wrong.tag, lock: `R-${wrong.tag}-${isolation}` });
    }
    const hung = heldNow(site).filter((hold) => hold.isolation === isolation);
    const right = hung.map(({ tag, lock }) => ({ point: tag, lock }));
    return play.act(one(ISOLATORS, who + 1), "isolation.check-locks", { isolation, found: right });
  },
  "the shift handed over": (play, { who, n }) => {
    const { site } = play;
    const items = handoverItems(site.db, site.clock_ms, lastHandover(site.db)?.at_ms ?? 0);
    const read = items.map(keyOf).slice(n === 0 ? 1 : 0);
    const live = SLOTS.flatMap(({ place }) => jobAt(site, place) ?? []).flatMap(({ jobId }) => permitsOf(site, jobId));
    const revalidate = n % 3 ? [] : live.filter(({ state }) => state === "live").map(({ permit }) => permit);
    return play.act(one(COORDINATORS, who), "shift.hand-over", {
      coming: one(ISSUERS, who),
      comingPin: n === 7 ? "0000" : PIN,
      read,
      asked: [],
      revalidate,
    });
  },
  "the clock ahead": async (play, { who, n }, { box }) => {
    const { site } = play;
    const ahead_ms = (n + 1) * 120_000;
    site.clock_ms += ahead_ms;
    await play.act("cora", "box.hang", { box, role: "coordinator", lock: `C-cora-${box}` });
    site.clock_ms -= ahead_ms;
    return who % 4 ? play.act("cora", "clock.settle", { words: "the radio" }) : null;
  },
  "hours later": (play, { n }) => {
    play.site.clock_ms += n * 1_200_000;
    return null;
  },
  "a hazard answered otherwise": (play, { n, slot }, { found }) => {
    const proposed = found ? (jobHazards(play.site.db, found.job)?.proposed ?? []) : [];
    if (!found || proposed.length === 0) return null;
    const hazard = one(proposed, n).id;
    return play.act(one(HOLDERS, slot), "hazard.decide", {
      job: found.job,
      hazard,
      ...(n % 2 ? { verdict: "kept" } : { verdict: "rejected", reason: "It is not there." }),
    });
  },
};

export const USUAL = "what comes next";
export const STEPS = "some steps";

/** Plays one thing. */
export async function playOne(play: Player, what: string, pick: Pick): Promise<void> {
  const { site } = play;
  if (what === USUAL) return void (await goOn(play, pick));
  if (what === STEPS) {
    const found = jobAt(site, SLOTS[pick.slot]!.place);
    for (let i = 0; i < 4 && found !== null; i++) {
      if (!(await step(play, found, { ...pick, n: pick.n + i }))) return;
    }
    return;
  }
  // Now and then where there is nothing of the kind: what is refused there must be refused too. Else people get on with it.
  const slot = pick.n === 7 ? pick.slot : ripeSlot(site, what, pick.slot);
  if (slot === null) return void (await goOn(play, pick));
  const found = jobAt(site, SLOTS[slot]!.place);
  const open = ripePermits(site, what, { slot, found, open: permitsOf(site, found?.jobId ?? NONE) });
  const at = { ...pick, slot };
  await TROUBLES[what]!(play, at, {
    found,
    isolation: found?.isolation ?? NONE,
    box: found?.box ?? NONE,
    permit: open.length > 0 ? one(open, pick.n) : null,
    holder: SLOTS[slot]!.holder,
  });
}
