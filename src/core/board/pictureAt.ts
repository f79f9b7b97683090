import { LIFT_CLEAR_m } from "../permit/around/crossChecks";
import type { PermitKind } from "../permit/kinds/kinds";
import type { PermitState } from "../permit/record/permitTypes";
import { valueAt, type JobTrack, type PermitTrack, type SiteTracks, type Spot } from "./tracks";

/** How work stands on the picture: what is only planned never looks like what goes on. */
export type Phase = "planned" | "issued" | "active" | "stopped" | "expired" | "after-watch";

export type PicturedWork = Readonly<{
  /** The permit's number, or the job's while no permit of it is out. */
  number: string;
  job: string;
  title: string;
  /** Null for a job that has no permit out. */
  kind: PermitKind | null;
  phase: Phase;
  spot: Spot;
  on: number;
  inside: number;
}>;

export type PicturedZone = Readonly<{
  what: "flame" | "keep-out" | "exhaust" | "lift";
  by: string;
  words: string;
  spot: Spot;
  reach_m: number;
  /** Somebody plans it; nothing reaches anybody yet. */
  isPlanned: boolean;
}>;

export type SitePicture = Readonly<{
  at_ms: number;
  works: readonly PicturedWork[];
  zones: readonly PicturedZone[];
  /** Ends that stand open. */
  openEnds: readonly Readonly<{ tag: string; by: string; spot: Spot }>[];
  locked: readonly Readonly<{ tag: string; spot: Spot }>[];
  /** People who were on, on post or inside, each once. */
  heads: number;
  inside: number;
}>;

const PHASES: Readonly<Partial<Record<PermitState, Phase>>> = {
  issued: "issued",
  live: "active",
  suspended: "stopped",
  "run out": "expired",
  watching: "after-watch",
};

/** Its flame, pressure or open end is there: the work goes on, or it only rests. */
const IN_FORCE: readonly Phase[] = ["active", "stopped", "expired"];

/**
 * The site at a moment. Up to now it is what the record says was so; after now what is planned: permits that are not over
 * within their validity, jobs within their window, and what is locked now. Who will be on or inside nobody knows.
 *
 * Cost: linear in the tracks.
 */
export function pictureAt(tracks: SiteTracks, at_ms: number, now_ms: number): SitePicture {
  const isPast = at_ms <= now_ms;
  const works: PicturedWork[] = [];
  const zones: PicturedZone[] = [];
  const openEnds: { tag: string; by: string; spot: Spot }[] = [];
  const withPermit = new Set<string>();
  const lifting = new Set<string>();
  for (const permit of tracks.permits) {
    const phase = isPast ? recordedPhase(permit, at_ms) : plannedPhase(permit, at_ms, now_ms);
    if (phase === null) continue;
    const { number, job, title, kind, spot, reaches, opens } = permit;
    withPermit.add(job);
    const inForce = isPast && IN_FORCE.includes(phase);
    if (inForce) lifting.add(job);
    works.push({
      number,
      job,
      title,
      kind,
      phase,
      spot,
      on: isPast ? (valueAt(permit.on, at_ms) ?? 0) : 0,
      inside: isPast ? (valueAt(permit.inside, at_ms) ?? 0) : 0,
    });
    for (const { what, reach_m } of reaches) {
      // What smoulders after hot work reaches no further than the flame did.
      const stands = what === "exhaust" ? valueAt(permit.purging, at_ms) === true : inForce || phase === "after-watch";
      if (isPast && !stands) continue;
      zones.push({ what, by: number, words: title, spot, reach_m, isPlanned: !isPast });
    }
    if (inForce) for (const tag of opens) openEnds.push({ tag, by: number, spot });
  }
  for (const job of tracks.jobs) {
    if (!isOpenAt(job, at_ms)) continue;
    const isIn = job.from_ms <= at_ms && at_ms < job.to_ms;
    if (isIn && !withPermit.has(job.number)) {
      const { number, title, spot } = job;
      works.push({ number, job: number, title, kind: null, phase: "planned", spot, on: 0, inside: 0 });
    }
    if (isPast ? lifting.has(job.number) : isIn) {
      for (const { what, spot } of job.lifts) {
        zones.push({ what: "lift", by: job.number, words: what, spot, reach_m: LIFT_CLEAR_m, isPlanned: !isPast });
      }
    }
  }
  const lockedAt_ms = Math.min(at_ms, now_ms);
  return {
    at_ms,
    works,
    zones,
    openEnds,
    locked: tracks.locks
      .filter(({ hung }) =>
        hung.some(([from_ms, to_ms]) => from_ms <= lockedAt_ms && (to_ms ?? Infinity) > lockedAt_ms),
      )
      .map(({ tag, spot }) => ({ tag, spot })),
    heads: isPast ? (valueAt(tracks.heads, at_ms) ?? 0) : 0,
    inside: works.reduce((sum, { inside }) => sum + inside, 0),
  };
}

function isOpenAt({ asked_ms, over_ms }: JobTrack, at_ms: number): boolean {
  return asked_ms <= at_ms && (over_ms === null || over_ms > at_ms);
}

function recordedPhase(permit: PermitTrack, at_ms: number): Phase | null {
  const state = valueAt(permit.states, at_ms);
  return (state && PHASES[state]) ?? null;
}

const OVER: readonly PermitState[] = ["work done", "closed", "cancelled"];

/** What is not over goes on to the end of its time; what has expired is not planned to go on, and shows until it is over. */
function plannedPhase(permit: PermitTrack, at_ms: number, now_ms: number): Phase | null {
  const state = valueAt(permit.states, now_ms);
  if (state === undefined || OVER.includes(state)) return null;
  return permit.validFrom_ms <= at_ms && at_ms < permit.validTo_ms ? "planned" : null;
}
