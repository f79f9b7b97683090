import { and, asc, eq, isNotNull, ne, notInArray } from "drizzle-orm";
import type { Spot } from "../../core/board/tracks";
import type { Work, WorkSpot, WorkZone } from "../../core/conflict/work";
import { HOT_WORK } from "../../core/fire/hotWork";
import { jobHazardsSchema } from "../../core/hazard/jobHazards";
import { keepOutOf, LIFT_CLEAR_m } from "../../core/permit/around/crossChecks";
import type { PermitDetails } from "../../core/permit/kinds/details";
import type { PermitState } from "../../core/permit/record/permitTypes";
import type { How } from "../../core/request/jobFile";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { gear, isolations, jobIsolations, permits } from "../db/schema";
import { planName, planParts, type PlanParts } from "../isolation/planParts";
import { openRows } from "../job/openJobs";
import { currentPlant, type CurrentPlant } from "../plant/plantStore";
import { grouped } from "../runtime/grouped";
import { spotOfWork, spotsOf } from "../plant/spots";

/** Whoever works below keeps so far from under work at height. Common practice, no source. */
const OVERHEAD_CLEAR_m = 6;
const DAY_MS = 86_400_000;

/** What should be over and is not goes on for as long as nobody ends it: it counts as there for another day, and another. */
function lastsUntil(to_ms: number, now_ms: number): number {
  return to_ms > now_ms ? to_ms : to_ms + Math.ceil((now_ms - to_ms + 1) / DAY_MS) * DAY_MS;
}

const OVER: readonly PermitState[] = ["closed", "cancelled", "work done"];
const OUT: readonly PermitState[] = ["live", "suspended", "run out", "watching"];

type PermitRow = Readonly<{
  number: string;
  jobId: string;
  state: PermitState;
  details: PermitDetails;
  from: number;
  to: number;
}>;

/**
 * Every open job as others see it: where it is, what of it reaches others, whom and what it takes. A job whose points nobody
 * has approved yet stops nothing that is known; `unplanned` says how many there are. Cost: six queries, however many.
 */
export function openWorks(tx: Tx, now_ms: number): Readonly<{ works: readonly Work[]; unplanned: number }> {
  const plant = currentPlant(tx);
  const spot = spotsOf(plant);
  const rows = openRows(tx);
  const ids = rows.map(({ id }) => id);
  const { id, number, jobId, state, details, validFrom, validTo } = permits;
  const permitsOf = grouped(
    tx
      .select({ id, number, jobId, state, details, from: validFrom, to: validTo })
      .from(permits)
      .where(and(isAmong(jobId, ids), notInArray(state, [...OVER])))
      .orderBy(asc(number))
      .all(),
    (one) => one.jobId,
  );
  const stands = standing(tx, ids);
  const withJob = grouped(
    tx.select({ number: gear.number, job: gear.withJob }).from(gear).where(isNotNull(gear.withJob)).all(),
    ({ job }) => job,
  );
  const works = rows.map((row): Work => {
    const own = permitsOf(row.id);
    const isolation = stands(row.id);
    const isUnderWay = isolation.length > 0 || own.some((one) => OUT.includes(one.state));
    const to_ms = isUnderWay ? lastsUntil(row.windowTo, now_ms) : row.windowTo;
    const opens = own.some(({ details: { kind } }) => kind === "line break");
    return {
      job: row.number,
      title: row.title,
      from_ms: row.windowFrom,
      to_ms,
      isUnderWay,
      spots: row.job.faces.map(({ place, how }) => asSpot(place, spot(place), opens || how.includes("open"))),
      zones: [
        ...zonesByPermit(own, row.job.faces, { plant, spot, now_ms }),
        ...zonesByPlan(row, to_ms, own, spot),
        ...lifts(row, to_ms, spot),
      ],
      people: row.crew,
      stops: [...new Set(isolation.flatMap(({ points }) => points))],
      loses: [...new Set(isolation.flatMap(({ dark }) => dark))],
      needs: [
        ...row.job.mustPass,
        ...own.flatMap(({ details: one }) =>
          one.kind === "confined space entry" && one.ventilation !== "" ? [one.ventilation] : [],
        ),
      ],
      gear: withJob(row.number).map((one) => one.number),
    };
  });
  return { works, unplanned: rows.filter((row) => stands(row.id).length === 0).length };
}

/** What isolations that are not restored hold, and what stops because of them. Cost: two queries, one where all are known. */
function standing(tx: Tx, jobIds: readonly string[]): (jobId: string) => readonly PlanParts[] {
  const rows = tx
    .select({ jobId: jobIsolations.jobId, id: isolations.id, planName })
    .from(jobIsolations)
    .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
    .where(and(isAmong(jobIsolations.jobId, jobIds), ne(isolations.state, "restored")))
    .all();
  const partsOf = planParts(tx, rows);
  const ofJob = grouped(rows, ({ jobId }) => jobId);
  return (jobId) => ofJob(jobId).map(({ id }) => partsOf(id));
}

function asSpot(tag: string, { x_m, y_m, level_m, isKnown }: Spot, isOpened: boolean): WorkSpot {
  return { tag, x_m, y_m, level_m, isKnown, isOpened };
}

const place = ({ x_m, y_m, level_m, isKnown }: Spot) => ({ x_m, y_m, level_m, isKnown });

type Faces = readonly Readonly<{ place: string; how: readonly How[] }>[];
type SpotOf = (place: string) => Spot;

function zonesByPermit(
  own: readonly PermitRow[],
  faces: Faces,
  { plant, spot, now_ms }: Readonly<{ plant: CurrentPlant | null; spot: SpotOf; now_ms: number }>,
): WorkZone[] {
  const places = faces.map((face) => face.place);
  return own.flatMap(({ number, details, state, from, to }): WorkZone[] => {
    const reach = reachOf(details);
    if (reach === null) return [];
    return [
      {
        ...reach,
        ...place(spotOfWork(plant, spot, details, places)),
        by: number,
        name: details.kind === "confined space entry" ? details.space : number,
        from_ms: from,
        to_ms: OUT.includes(state) ? lastsUntil(to, now_ms) : to,
      },
    ];
  });
}

function reachOf(details: PermitDetails): Pick<WorkZone, "what" | "reach_m"> | null {
  switch (details.kind) {
    case "hot work":
      return { what: "flame", reach_m: HOT_WORK.clear_m };
    case "confined space entry":
      return { what: "exhaust", reach_m: 0 };
    case "work at height":
      return { what: "overhead", reach_m: OVERHEAD_CLEAR_m };
    case "pressure test": {
      const { distance_m } = keepOutOf(details);
      return distance_m > 0 ? { what: "keep-out", reach_m: distance_m } : null;
    }
    case "general":
    case "line break":
    case "electrical work":
    case "safeguard bypass":
    case "minor isolation":
      return null;
  }
}

type Planned = Readonly<{ number: string; job: Readonly<{ faces: Faces }>; hazards: string; windowFrom: number }>;

/** What a job asks for and has no permit of that kind yet: its flame or its exhaust is anywhere within its window. */
function zonesByPlan(row: Planned, to_ms: number, own: readonly PermitRow[], spot: SpotOf): WorkZone[] {
  const has = (kind: PermitDetails["kind"]) => own.some(({ details }) => details.kind === kind);
  const time = { by: row.number, from_ms: row.windowFrom, to_ms };
  return row.job.faces.flatMap(({ place: tag, how }): WorkZone[] => [
    ...(how.includes("hot") && !has("hot work")
      ? [{ what: "flame" as const, reach_m: HOT_WORK.clear_m, name: tag, ...place(spot(tag)), ...time }]
      : []),
    ...(how.includes("enter") && !has("confined space entry")
      ? [{ what: "exhaust" as const, reach_m: 0, name: tag, ...place(spot(tag)), ...time }]
      : []),
  ]);
}

function lifts({ number, hazards, windowFrom }: Planned, to_ms: number, spot: SpotOf): WorkZone[] {
  const said = hazards === "" ? null : jobHazardsSchema.parse(JSON.parse(hazards)).conditions;
  return (said?.lifts ?? []).map(({ what, place: tag }) => ({
    what: "lift" as const,
    reach_m: LIFT_CLEAR_m,
    by: number,
    name: what,
    ...place(spot(tag)),
    from_ms: windowFrom,
    to_ms,
  }));
}
