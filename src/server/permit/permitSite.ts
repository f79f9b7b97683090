import { and, asc, count, eq, isNull, ne, sql } from "drizzle-orm";
import { clashFinder } from "../../core/permit/around/clashFinder";
import type { PermitClash } from "../../core/permit/around/crossChecks";
import { entriesOf, type LogEntry } from "../../core/permit/record/permitLog";
import type { MinorNow, PermitFacts } from "../../core/permit/record/permitTypes";
import { covers } from "../../core/muster/muster";
import type { PermitDetails } from "../../core/permit/kinds/details";
import type { Gear } from "../../core/gear/gear";
import { standingByBox } from "../box/boxStore";
import { heldTags } from "../box/heldTags";
import { boxesOf } from "../box/locks";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { earthsOn, exchanges, isolations, jobIsolations, jobs, people, permits, steps } from "../db/schema";
import { gasInstruments } from "../gear/gearStore";
import { staleOfAll } from "../isolation/proofStore";
import { minorHangs } from "../isolation/minorStore";
import { litBy } from "../isolation/temporaryStore";
import { planName, planParts } from "../isolation/planParts";
import { acceptedForAll, type StoredDeviation } from "../job/deviationStore";
import { openMusters } from "../muster/musterStore";
import { spotOfWork, spotsOf } from "../plant/spots";
import { currentPlant, plantsAt, type CurrentPlant } from "../plant/plantStore";
import { grouped } from "../runtime/grouped";
import { once } from "../runtime/lazily";
import { detectorRows, type DetectorRow } from "./detectorStore";
import { permitsInPlace, type InPlace } from "./permitsInPlace";
import type { StoredPermit } from "./permitStore";

type JobRow = typeof jobs.$inferSelect;
type PersonRow = typeof people.$inferSelect;
/** An isolation without its plan, which is large; its shortfalls as JSON. */
type IsolationRow = Pick<
  typeof isolations.$inferSelect,
  "id" | "number" | "state" | "inputs" | "approvedAt" | "ruleProfile" | "plantRevision" | "verdict" | "lockCheck"
> &
  Readonly<{ shortfalls: string }>;

/** Everything around some permits that their facts are made of. */
export type PermitSite = Readonly<{
  isolation: (id: string) => IsolationRow;
  openSteps: (isolationId: string) => number;
  job: (id: string) => JobRow;
  person: (id: string) => PersonRow | undefined;
  nameOf: (id: string) => string;
  /** Ids of the lock boxes of an isolation. */
  boxes: (isolationId: string) => readonly string[];
  standing: (boxId: string) => readonly string[];
  held: (isolationId: string) => readonly string[];
  stale: (isolationId: string) => readonly string[];
  /** Of minor isolations: what hangs, and what failed. */
  minor: (isolationId: string) => Omit<MinorNow, "crew">;
  earths: (isolationId: string) => readonly string[];
  litBy: (job: string) => string | null;
  accepted: (jobId: string) => readonly StoredDeviation[];
  exchanged: (jobId: string, firm: string) => boolean;
  detectors: (permit: string) => readonly DetectorRow[];
  /** Every gas instrument of the register. */
  gasInstruments: () => readonly Gear[];
  plant: () => CurrentPlant | null;
  /** The revision of the register of today. */
  today: () => number;
  /** The register that a job was planned on; today's while it is not. */
  plantOf: (jobId: string) => CurrentPlant | null;
  /** Every permit of a job, whatever became of it. */
  ofJob: (jobId: string) => PermitFacts["ofJob"];
  /** Every permit that is not over, drafts among them. */
  inPlace: () => readonly InPlace[];
  /** Permits that others have to reckon with. */
  open: () => readonly InPlace[];
  clashes: (permit: string) => readonly PermitClash[];
  /** The area where a permit's work is, by its name; empty where nobody knows. */
  area: (details: PermitDetails, places: readonly string[]) => string;
  /** The muster for which all work of a permit is stopped; null where there is none. */
  muster: (details: PermitDetails, places: readonly string[]) => string | null;
  /** What was decided of clashes under the other permits. */
  decided: (permit: string) => readonly LogEntry[];
}>;

/**
 * Looks at the site for many permits at once: what one of them asks for is loaded for all, and only when one asks.
 * Cost: at most some twenty queries, however many permits.
 */
export function permitSite(tx: Tx, stored: readonly StoredPermit[], now_ms: number): PermitSite {
  const isolationIds = [...new Set(stored.flatMap((one) => one.isolationIds))];
  const jobIds = [...new Set(stored.map(({ row }) => row.jobId))];
  const rows = once(() => {
    const found = tx
      .select({
        id: isolations.id,
        number: isolations.number,
        state: isolations.state,
        inputs: isolations.inputs,
        approvedAt: isolations.approvedAt,
        ruleProfile: isolations.ruleProfile,
        plantRevision: isolations.plantRevision,
        verdict: isolations.verdict,
        lockCheck: isolations.lockCheck,
        planName,
      })
      .from(isolations)
      .where(isAmong(isolations.id, isolationIds))
      .all();
    const partsOf = planParts(tx, found);
    return new Map(found.map((row) => [row.id, { ...row, shortfalls: partsOf(row.id).shortfalls }]));
  });
  const isolation = (id: string): IsolationRow => {
    const row = rows().get(id);
    if (row === undefined) throw new Error(`isolation ${id} is gone`);
    return row;
  };
  const jobRows = once(
    () =>
      new Map(
        tx
          .select()
          .from(jobs)
          .where(isAmong(jobs.id, jobIds))
          .all()
          .map((row) => [row.id, row]),
      ),
  );
  const peopleRows = once(
    () =>
      new Map(
        tx
          .select()
          .from(people)
          .all()
          .map((row) => [row.id, row]),
      ),
  );
  const openSteps = once(
    () =>
      new Map(
        tx
          .select({ id: steps.isolationId, n: count() })
          .from(steps)
          .where(
            and(
              isAmong(steps.isolationId, isolationIds),
              isNull(steps.doneBy),
              ne(sql`json_extract(${steps.step}, '$.phase')`, "restore"),
            ),
          )
          .groupBy(steps.isolationId)
          .all()
          .map(({ id, n }) => [id, n]),
      ),
  );
  const boxes = once(() => boxesOf(tx, isolationIds));
  const boxOf = once(() => grouped(boxes(), ({ isolationId }) => isolationId));
  const standing = once(() =>
    standingByBox(
      tx,
      boxes().map(({ id }) => id),
    ),
  );
  const held = once(() => heldTags(tx, isolationIds));
  const minor = once(() => minorHangs(tx, isolationIds));
  const stale = once(() => staleOfAll(tx, [...rows().values()], now_ms));
  const earths = once(() =>
    grouped(
      tx
        .select({ id: earthsOn.isolationId, number: earthsOn.number })
        .from(earthsOn)
        .where(and(isAmong(earthsOn.isolationId, isolationIds), isNull(earthsOn.offAt)))
        .all(),
      ({ id }) => id,
    ),
  );
  const accepted = once(() => acceptedForAll(tx, jobIds));
  const exchanged = once(
    () =>
      new Set(
        tx
          .select({ jobId: exchanges.jobId, firm: exchanges.firm })
          .from(exchanges)
          .where(isAmong(exchanges.jobId, jobIds))
          .all()
          .map(({ jobId, firm }) => `${jobId} ${firm}`),
      ),
  );
  const ofJobs = once(() => grouped(permitsOfJobs(tx, jobIds), ({ jobId }) => jobId));
  const posted = once(() => grouped(detectorRows(tx), ({ permit }) => permit));
  const plant = once(() => currentPlant(tx));
  const planned = once(() => plannedRevisions(tx, jobIds));
  // A job that was planned was planned on a register.
  const plants = once(() => plantsAt(tx, plant()!));
  const inPlace = once(() => permitsInPlace(tx, stored));
  const open = once(() => inPlace().filter(({ isOpen }) => isOpen));
  const finder = once(() => clashFinder(open().map(({ permit }) => permit)));
  const musters = once(() => openMusters(tx));
  const spot = once(() => spotsOf(plant()));
  const byNumber = once(() => new Map(inPlace().map((one) => [one.number, one])));
  const decided = once(() =>
    open().flatMap(({ number, log }) => {
      const entries: readonly LogEntry[] = entriesOf(log, "clash decided");
      return entries.length === 0 ? [] : [{ number, entries }];
    }),
  );
  return {
    isolation,
    openSteps: (id) => openSteps().get(id) ?? 0,
    job: (id) => {
      const row = jobRows().get(id);
      if (row === undefined) throw new Error(`job ${id} is gone`);
      return row;
    },
    person: (id) => peopleRows().get(id),
    nameOf: (id) => peopleRows().get(id)?.name ?? "somebody unknown",
    boxes: (id) => boxOf()(id).map((box) => box.id),
    standing: (id) => standing()(id).map(({ name }) => name),
    held: (id) => held()(id),
    stale: (id) => stale()(id),
    minor: (id) => minor()(id),
    earths: (id) => earths()(id).map(({ number }) => number),
    litBy: litBy(tx),
    accepted: (id) => accepted()(id),
    ofJob: (id) => ofJobs()(id),
    exchanged: (jobId, firm) => exchanged().has(`${jobId} ${firm}`),
    detectors: (number) => posted()(number),
    gasInstruments: once(() => gasInstruments(tx)),
    plant,
    plantOf: (jobId) => {
      const revision = planned()(jobId);
      return revision === undefined ? plant() : plants()(revision);
    },
    today: () => plant()?.revision ?? 0,
    inPlace,
    open,
    clashes: (number) => {
      const mine = byNumber().get(number);
      return mine === undefined ? [] : finder()(mine.permit);
    },
    area: (details, places) => spotOfWork(plant(), spot(), details, places).area,
    muster: (details, places) => {
      const open = musters();
      if (open.length === 0) return null;
      const { area } = spotOfWork(plant(), spot(), details, places);
      return open.find((muster) => covers(muster, area))?.number ?? null;
    },
    decided: (number) => decided().flatMap((one) => (one.number === number ? [] : one.entries)),
  };
}

function permitsOfJobs(tx: Tx, jobIds: readonly string[]) {
  return tx
    .select({
      jobId: permits.jobId,
      number: permits.number,
      state: permits.state,
      kind: permits.kind,
    })
    .from(permits)
    .where(isAmong(permits.jobId, jobIds))
    .all();
}

/** The revision of the register that each job's latest isolation was planned on. Cost: one query. */
export function plannedRevisions(tx: Tx, jobIds: readonly string[]): (jobId: string) => number | undefined {
  if (jobIds.length === 0) return () => undefined;
  const latest = new Map(
    tx
      .select({ jobId: jobIsolations.jobId, revision: isolations.plantRevision })
      .from(jobIsolations)
      .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
      .where(isAmong(jobIsolations.jobId, jobIds))
      .orderBy(asc(isolations.approvedAt), asc(isolations.number))
      .all()
      .map(({ jobId, revision }) => [jobId, revision]),
  );
  return (jobId) => latest.get(jobId);
}
