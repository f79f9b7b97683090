import { EVERYWHERE } from "../../core/accounts/appointedFor";
import { inductionMissing } from "../../core/accounts/induction";
import { inOneGo } from "../../core/inOneGo";
import { openEndsOf } from "../../core/permit/around/openEnds";
import { airLimitsFor, airPlaces } from "../../core/permit/air/airPlaces";
import { acceptedUntil_ms, shortfallsNotAccepted, standInsOf, wayOf } from "../../core/plan/deviations";
import { shortfallsSchema } from "../../core/plan/planSchema";
import { parsed } from "../db/jsonColumn";
import { notHeld } from "../../core/isolation/heldNow";
import { gearFault, personalLockFault, sameNumber } from "../../core/gear/gear";
import { drawsAt } from "../../core/permit/air/airTests";
import { badAirOf, gasesAround } from "./airAround";
import { kindRule } from "../../core/permit/kinds/kinds";
import type { PermitDetails } from "../../core/permit/kinds/details";
import { areaAt, hotWorkZone } from "../../core/permit/around/hotWorkZone";
import { asAt } from "../../core/permit/life/permitLife";
import type { PermitFacts, PermitLife } from "../../core/permit/record/permitTypes";
import { profileOf } from "../../core/requirement/profiles";
import { settled } from "../../core/schedule/setup";
import type { Tx } from "../db/database";
import { outsideAppointment } from "../people/appointment";
import { shiftChanges, siteTime } from "../runtime/siteTime";
import { asNow } from "../isolation/verdictStore";
import { drainWatchedBy } from "../isolation/watching";
import { asPosted } from "./detectorStore";
import { gearLookUp } from "../gear/gearStore";
import { hazardsOpenOf, permitsRequiredOf } from "../hazard/hazardStore";
import { lazily, once } from "../runtime/lazily";
import { lockHangs } from "../box/locks";
import { itemAt } from "../plant/plantStore";
import type { InPlace } from "./permitsInPlace";
import { permitSite, type PermitSite } from "./permitSite";
import { loadPermits, type StoredPermit } from "./permitStore";

/** A permit with its facts, as it stands at this moment: what the clock did meanwhile is in it. */
export type PermitNow = StoredPermit &
  Readonly<{
    now: PermitLife;
    facts: PermitFacts;
    /** The other permits that it has to reckon with, as they were found at the same look. */
    others: () => readonly InPlace[];
    /** Number and title of its job. */
    job: () => string;
    title: () => string;
  }>;

export function permitNow(tx: Tx, number: string, now_ms: number): PermitNow | null {
  return permitsNow(tx, [number], now_ms)[0] ?? null;
}

/** Permits as they stand now, by number. Cost: a bounded number of queries, however many there are. */
export function permitsNow(tx: Tx, numbers: readonly string[], now_ms: number): PermitNow[] {
  return inOneGo(permitsNowSteps(tx, numbers, now_ms));
}

/** The same, bit by bit: what is written meanwhile some of them may have seen, and others not. */
export function* permitsNowSteps(tx: Tx, numbers: readonly string[], now_ms: number): Generator<void, PermitNow[]> {
  const stored = loadPermits(tx, numbers);
  yield;
  const site = permitSite(tx, stored, now_ms);
  const found: PermitNow[] = [];
  for (const one of stored) {
    const facts = factsOf(tx, one, now_ms, site);
    const others = () => site.open().filter(({ number }) => number !== one.row.number);
    const job = () => site.job(one.row.jobId).number;
    const title = () => site.job(one.row.jobId).title;
    found.push({ ...one, facts, others, job, title, now: asAt(one.life, facts, now_ms) });
    yield;
  }
  return found;
}

/** What the core is told of a permit: everything measured here and now. */
export function permitFacts(tx: Tx, stored: StoredPermit, now_ms: number): PermitFacts {
  return factsOf(tx, stored, now_ms, permitSite(tx, [stored], now_ms));
}

/**
 * Each fact is worked out when it is first asked for: a general permit asks for few. What needs the database is asked of
 * the site, which has it for all the permits of this look.
 */
function factsOf(tx: Tx, stored: StoredPermit, now_ms: number, site: PermitSite): PermitFacts {
  const { isolationIds, row, life } = stored;
  const { details } = life;
  const profile = profileOf(row.ruleProfile);
  const rows = once(() => isolationIds.map(site.isolation));
  const job = once(() => site.job(row.jobId));
  const elsewhere = () => site.open().filter(({ number }) => number !== row.number);
  const airLimits = airLimitsFor(details, profile);
  const look = gearLookUp(tx);
  const places = once(() => airPlaces(details));
  const instrumentOf = (number: string) => site.gasInstruments().find((one) => sameNumber(one.number, number));
  const gases = once(() => gasesAround(site, details, job(), site.plantOf(row.jobId)));
  return lazily<PermitFacts>({
    isolations: () =>
      rows().map((one) => ({
        number: one.number,
        notHeld: notHeld(asNow(one, one.state === "proven" ? 0 : site.openSteps(one.id), site.today())),
      })),
    lockHangs: () => lockHangs(tx),
    personalLock: () => (id, lock) => personalLockFault(look("lock", lock), id, lock, site.nameOf),
    firstOn: () => profile.firstOn,
    standingHangs: () => isolationIds.flatMap(site.boxes).every((box) => site.standing(box).length > 0),
    stale: () => isolationIds.flatMap(site.stale),
    muster: () =>
      site.muster(
        details,
        job().job.faces.map(({ place }) => place),
      ),
    litBy: () => site.litBy(job().number),
    exchangeMissing: () => (id) => {
      const firm = site.person(id)?.firm ?? "";
      return firm === "" || site.exchanged(row.jobId, firm) ? null : firm;
    },
    notInducted: () => (id) => {
      const who = site.person(id);
      if (who === undefined || inductionMissing(who, now_ms) === null) return null;
      return { firm: who.firm, since_ms: who.induction?.until_ms ?? null };
    },
    notAppointed: () => (id) => {
      const area = site.area(
        details,
        job().job.faces.map(({ place }) => place),
      );
      return outsideAppointment(site.person(id)?.appointedFor ?? EVERYWHERE, area, now_ms);
    },
    minor: () => {
      const [id] = isolationIds;
      return kindRule(details.kind).alone && id !== undefined ? { ...site.minor(id), crew: job().crew } : null;
    },
    pointsToLock: () =>
      settled(job().setup, "lockSchool") === "on every point" ? [...new Set(isolationIds.flatMap(site.held))] : [],
    crewFault: () => (id) =>
      job().crew.includes(id) || job().holderId === id || row.holderId === id
        ? null
        : { code: "not in the crew", job: job().number },
    rolesOf: () => (id) => site.person(id)?.roles ?? [],
    nameOf: () => site.nameOf,
    timeOf: () => siteTime,
    profile: () => profile,
    places: () => job().job.faces.map(({ place }) => place),
    plannedFor: () => [...new Set(rows().flatMap(({ inputs }) => inputs.faces.flatMap(({ how }) => how)))],
    shortfalls: () =>
      details.kind === "confined space entry"
        ? rows().flatMap(({ shortfalls }) =>
            shortfallsNotAccepted(
              { shortfalls: parsed("plan_json", shortfallsSchema, shortfalls) },
              site.accepted(row.jobId),
            ).map(wayOf),
          )
        : [],
    standIns: () => {
      const accepted = site.accepted(row.jobId);
      if (accepted.length === 0) return [];
      const plans = rows().map(({ shortfalls }) => ({
        shortfalls: parsed("plan_json", shortfallsSchema, shortfalls),
      }));
      return plans.flatMap((plan) => standInsOf(plan, accepted, profile));
    },
    acceptedUntil_ms: () => {
      const accepted = site.accepted(row.jobId);
      if (accepted.length === 0) return null;
      const plans = rows().map(({ shortfalls }) => ({
        shortfalls: parsed("plan_json", shortfallsSchema, shortfalls),
      }));
      return acceptedUntil_ms(plans, accepted);
    },
    hazardsOpen: () => hazardsOpenOf(job(), site.plantOf(row.jobId)),
    required: () => permitsRequiredOf(job(), site.plantOf(row.jobId)),
    ofJob: () => site.ofJob(row.jobId).filter(({ number }) => number !== row.number),
    zone: () =>
      zoneOf(
        site,
        details,
        elsewhere,
        job().job.faces.map(({ place }) => place),
      ),
    watchClass: () => watchClassAt(site, details),
    airLimits: () => airLimits,
    withdrawnInstruments: () =>
      site
        .gasInstruments()
        .filter(({ withdrawn }) => withdrawn)
        .map(({ number }) => number),
    gasSheet: () => (number) => instrumentOf(number)?.sheet ?? null,
    zeroedAt_ms: () => (number) => instrumentOf(number)?.zeroedAt_ms ?? null,
    drawsElsewhere: () => (number) =>
      site.inPlace().find((one) => one.number !== row.number && drawsAt(one.log, number) !== null)?.number ?? null,
    testPoints: () => places().points,
    insidePoints: () => places().inside,
    coverPoint: () => places().cover,
    gases,
    badElsewhere: () => badAirOf(site, row.number, details),
    clashes: () => site.clashes(row.number),
    decidedElsewhere: () => site.decided(row.number),
    detectors: () =>
      site.detectors(row.number).map((one) => {
        const sheet = instrumentOf(one.id)?.sheet ?? null;
        // Only a message of a gas detector is judged by what may be in the air.
        return asPosted(
          one,
          { limits: airLimits, sheet, gases: one.kind === "gas" ? gases().map(({ gas }) => gas) : [] },
          now_ms,
        );
      }),
    earths: () => isolationIds.flatMap(site.earths),
    gearFault: () => (kind, number, needs_V) =>
      gearFault(look(kind, number), {
        kind,
        number,
        at_ms: now_ms,
        job: job().number,
        toRead: true,
        ...(needs_V === undefined ? {} : { needs_V }),
      }),
    atOtherWork: () => (id) =>
      elsewhere().find(({ permit }) => permit.job !== job().number && permit.people.includes(id))?.number ?? null,
    elsewhere: () => (id) =>
      elsewhere().find(({ permit }) => permit.people.includes(id))?.number ?? drainWatchedBy(tx, id),
    shiftChanges_ms: () => (from_ms, to_ms) => shiftChanges(from_ms + 1, to_ms + 1),
  });
}

function zoneOf(
  site: PermitSite,
  details: PermitDetails,
  elsewhere: () => readonly InPlace[],
  faces: readonly string[],
): PermitFacts["zone"] {
  const plant = details.kind === "hot work" ? site.plant() : null;
  if (plant === null || details.kind !== "hot work") return [];
  const own = details.inEquipment ? faces.flatMap((face) => itemAt(plant, face)?.tag ?? []) : [];
  return hotWorkZone(plant.plant, details, { openEnds: openEndsOf(elsewhere()), own });
}

function watchClassAt(site: PermitSite, details: PermitDetails): string | null {
  const plant = details.kind === "hot work" ? site.plant() : null;
  if (plant === null || details.kind !== "hot work") return null;
  return areaAt(plant.plant.areas, details)?.watchClass ?? null;
}
