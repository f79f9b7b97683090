import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import { ENTRY_LIMITS, HOT_WORK_LIMITS, STRICT_ENTRY, type AirLimits } from "../../core/atmosphere/airLimits";
import { testPoints } from "../../core/atmosphere/testPoints";
import { shortfallsNotAccepted, wayOf } from "../../core/plan/deviations";
import type { Plan } from "../../core/plan/plan";
import { jobSchema } from "../../core/request/jobFile";
import { gearFault, personalLockFault } from "../../core/gear/gear";
import type { Role } from "../../core/people/roles";
import { crossChecks } from "../../core/permit/around/crossChecks";
import type { PermitDetails } from "../../core/permit/kinds/details";
import { areaAt, hotWorkZone } from "../../core/permit/around/hotWorkZone";
import { entriesOf } from "../../core/permit/record/permitLog";
import { asAt } from "../../core/permit/life/permitLife";
import type { PermitFacts, PermitLife } from "../../core/permit/record/permitTypes";
import type { RuleProfile } from "../../core/requirement/profile";
import { profileOf } from "../../core/requirement/profiles";
import { settled, setupSchema } from "../../core/schedule/setup";
import type { Tx } from "../db/database";
import { exchanges, holds, isolations, items, jobs, people, permits, steps } from "../db/schema";
import { namesOf } from "../people/signIn";
import { shiftChanges, siteTime } from "../runtime/siteTime";
import { standingNames } from "../box/boxStore";
import { acceptedFor } from "../job/deviationStore";
import { detectorsAt } from "./detectorStore";
import { earthsOf, gasInstruments, gearLookUp } from "../gear/gearStore";
import { hazardsOpenOf } from "../hazard/hazardStore";
import { lazily, once } from "../runtime/lazily";
import { boxesOf, lockHangs } from "../box/locks";
import { permitsInPlace, type InPlace } from "./permitsInPlace";
import { loadPermit, type StoredPermit } from "./permitStore";
import { currentPlant } from "../plant/plantStore";
import { staleOf } from "../isolation/proofStore";
import { litBy } from "../isolation/temporaryStore";

/** A look at the neighbours that is taken when somebody asks for it, and once. */
export type Others = () => readonly InPlace[];

export function othersOf(tx: Tx): Others {
  return once(() => permitsInPlace(tx));
}

/**
 * What the core is told of a permit: everything measured here and now. Each fact is measured when it is first asked for:
 * a general permit asks for few, and a strip of many permits would else read the whole plant for each.
 */
export function permitFacts(tx: Tx, stored: StoredPermit, now_ms: number, others: Others = othersOf(tx)): PermitFacts {
  const { isolationIds, row, life } = stored;
  const { details } = life;
  const rows = once(() =>
    isolationIds.map((id) => {
      const isolation = tx.select().from(isolations).where(eq(isolations.id, id)).get();
      if (isolation === undefined) throw new Error(`isolation ${id} is gone`);
      return isolation;
    }),
  );
  const job = once(() => {
    const found = tx.select().from(jobs).where(eq(jobs.id, row.jobId)).get();
    if (found === undefined) throw new Error(`the job of permit ${row.number} is gone`);
    return found;
  });
  const profile = profileOf(row.ruleProfile);
  const look = gearLookUp(tx);
  const nameOf = once(() => namesOf(tx));
  const person = (id: string) => tx.select().from(people).where(eq(people.id, id)).get();
  const elsewhere = once(() => others().filter(({ number, isOpen }) => number !== row.number && isOpen));
  const airLimits = airLimitsOf(details, profile);
  return lazily<PermitFacts>({
    isolations: () =>
      rows().map(({ id, number, state }) => ({ number, state, openSteps: state === "proven" ? 0 : openSteps(tx, id) })),
    lockHangs: () => lockHangs(tx),
    personalLock: () => (id, lock) => personalLockFault(look("lock", lock), id, lock, nameOf()),
    firstOn: () => profile.firstOn,
    standingHangs: () => boxesOf(tx, isolationIds).every(({ id }) => standingNames(tx, [id]).length > 0),
    stale: () => rows().flatMap((isolation) => staleOf(tx, isolation, now_ms)),
    litBy: () => litBy(tx, job().number),
    exchangeMissing: () => (id) => {
      const firm = person(id)?.firm ?? "";
      if (firm === "") return null;
      const done = tx
        .select({ id: exchanges.id })
        .from(exchanges)
        .where(and(eq(exchanges.jobId, job().id), eq(exchanges.firm, firm)))
        .get();
      return done ? null : firm;
    },
    pointsToLock: () =>
      settled(setupSchema.parse(JSON.parse(job().setup)), "lockSchool") === "on every point"
        ? heldTags(tx, isolationIds)
        : [],
    crewFault: () => (id) =>
      (JSON.parse(job().crew) as string[]).includes(id) || job().holderId === id || row.holderId === id
        ? null
        : { code: "not in the crew", job: job().number },
    rolesOf: () => (id) => JSON.parse(person(id)?.roles ?? "[]") as Role[],
    nameOf,
    timeOf: () => siteTime,
    profile: () => profile,
    places: () => jobSchema.parse(JSON.parse(job().job)).faces.map(({ place }) => place),
    plannedFor: () => [
      ...new Set(rows().flatMap(({ inputs }) => jobSchema.parse(JSON.parse(inputs)).faces.flatMap(({ how }) => how))),
    ],
    shortfalls: () =>
      details.kind === "confined space entry"
        ? rows().flatMap(({ plan }) =>
            shortfallsNotAccepted(JSON.parse(plan) as Plan, acceptedFor(tx, job().id)).map(wayOf),
          )
        : [],
    hazardsOpen: () => hazardsOpenOf(tx, job().number),
    zone: () => zoneOf(tx, details, elsewhere),
    watchClass: () => watchClassAt(tx, details),
    airLimits: () => airLimits,
    withdrawnInstruments: () =>
      gasInstruments(tx)
        .filter(({ withdrawn }) => withdrawn)
        .map(({ number }) => number),
    testPoints: () => pointsOf(details),
    clashes: () => {
      const mine = others().find(({ number }) => number === row.number);
      const rest = elsewhere().map(({ permit }) => permit);
      return mine === undefined ? [] : crossChecks(mine.permit, rest);
    },
    decidedElsewhere: () => elsewhere().flatMap(({ log }) => entriesOf(log, "clash decided")),
    detectors: () => detectorsAt(tx, row.number, airLimits, now_ms),
    earths: () => isolationIds.flatMap((id) => earthsOf(tx, id).map(({ number }) => number)),
    gearFault: () => (kind, number, needs_V) =>
      gearFault(look(kind, number), {
        kind,
        number,
        at_ms: now_ms,
        job: job().number,
        toRead: true,
        ...(needs_V === undefined ? {} : { needs_V }),
      }),
    elsewhere: () => (id) => elsewhere().find(({ permit }) => permit.people.includes(id))?.number ?? null,
    shiftChanges_ms: () => (from_ms, to_ms) => shiftChanges(from_ms + 1, to_ms + 1),
  });
}

function openSteps(tx: Tx, isolationId: string): number {
  return tx
    .select({ step: steps.step })
    .from(steps)
    .where(and(eq(steps.isolationId, isolationId), isNull(steps.doneBy)))
    .all()
    .filter(({ step }) => (JSON.parse(step) as { phase: string }).phase !== "restore").length;
}

/** A permit with its facts, as it stands at this moment: what the clock did meanwhile is in it. */
export type PermitNow = StoredPermit & Readonly<{ now: PermitLife; facts: PermitFacts }>;

export function permitNow(tx: Tx, number: string, now_ms: number, others: Others = othersOf(tx)): PermitNow | null {
  const stored = loadPermit(tx, number);
  if (stored === null) return null;
  const facts = permitFacts(tx, stored, now_ms, others);
  return { ...stored, facts, now: asAt(stored.life, facts, now_ms) };
}

/** Every permit of a kind of states, as it stands now; the look at its neighbours is taken once for all. */
export function permitsNow(tx: Tx, numbers: readonly string[], now_ms: number): PermitNow[] {
  const others = othersOf(tx);
  return numbers.flatMap((number) => permitNow(tx, number, now_ms, others) ?? []);
}

/** Numbers of the permits that the clock may still move. */
export function runningPermits(tx: Tx): string[] {
  return tx
    .select({ number: permits.number })
    .from(permits)
    .where(inArray(permits.state, ["issued", "live", "suspended"]))
    .orderBy(asc(permits.number))
    .all()
    .map(({ number }) => number);
}

function airLimitsOf(details: PermitDetails, profile: RuleProfile): AirLimits {
  const entry = profile.id in ENTRY_LIMITS ? ENTRY_LIMITS[profile.id as keyof typeof ENTRY_LIMITS] : STRICT_ENTRY;
  if (details.kind !== "hot work") return entry;
  if (details.inEquipment) return HOT_WORK_LIMITS;
  return { ...HOT_WORK_LIMITS, flammableBelow: profile.openHotBelow };
}

/** The places where air is read, in the order in which they are read. */
export function pointsOf(details: PermitDetails): string[] {
  if (details.kind === "hot work") return [...details.points];
  if (details.kind !== "confined space entry") return [];
  const metres = (value: number) => `${Number(value.toFixed(1))} m`;
  return testPoints(details).map(({ where, depth_m, travel_m }) =>
    where.startsWith("corner") || where.startsWith("duct")
      ? where
      : `${where}, ${metres(depth_m)} down${travel_m > 0 ? `, ${metres(travel_m)} in` : ""}`,
  );
}

function zoneOf(tx: Tx, details: PermitDetails, elsewhere: Others): PermitFacts["zone"] {
  const plant = details.kind === "hot work" ? currentPlant(tx) : null;
  if (plant === null || details.kind !== "hot work") return [];
  const openEnds = elsewhere().flatMap(({ number, permit }) =>
    permit.faces
      .filter(({ how }) => permit.details.kind === "line break" || how.includes("open"))
      .map(({ tag }) => ({ tag, permit: number })),
  );
  return hotWorkZone(plant.plant, details, { openEnds, settled: (tag) => emptiedAndProven(tx, tag) });
}

/** A vessel is no danger to a flame once it was opened up for work and proven so; being shut off alone leaves it full. */
function emptiedAndProven(tx: Tx, tag: string): string | null {
  const found = tx
    .select({ number: isolations.number, inputs: isolations.inputs })
    .from(isolations)
    .where(eq(isolations.state, "proven"))
    .all()
    .find(({ inputs }) =>
      jobSchema
        .parse(JSON.parse(inputs))
        .faces.some(
          ({ place, how }) =>
            (place === tag || place.startsWith(`${tag}.`)) &&
            how.some((one) => one === "open" || one === "enter" || one === "hot"),
        ),
    );
  return found ? `isolated and proven empty by ${found.number}` : null;
}

function watchClassAt(tx: Tx, details: PermitDetails): string | null {
  if (details.kind !== "hot work") return null;
  const plant = currentPlant(tx);
  return plant === null ? null : (areaAt(plant.plant.areas, details)?.watchClass ?? null);
}

/** Tags of the devices that these isolations hold now. */
function heldTags(tx: Tx, isolationIds: readonly string[]): string[] {
  const rows = tx
    .select({ tag: items.tag })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .where(and(inArray(holds.isolationId, [...isolationIds]), isNull(holds.liftedAt)))
    .orderBy(asc(items.tag))
    .all();
  return [...new Set(rows.map(({ tag }) => tag))];
}
