import type { NotAppointed } from "../refusal/notAppointed";
import type { Clash } from "../guard/clashes";
import type { PersonId, Role } from "../people/roles";
import type { MinorFault } from "../refusal/minorFault";
import { fitting, shortfallsNotAccepted, wayOf, type Accepted } from "../plan/deviations";
import type { Plan } from "../plan/plan";
import type { Read } from "../plant/problem";
import type { Refusal } from "../refusal/refusal";
import { accept, refuse, type Result } from "../refusal/result";

/**
 * The life of a job.
 *
 *   open ──close (permits over, isolations restored, nothing left in)──▶ closed
 *     └────withdraw (nothing stands for it)──▶ withdrawn
 *
 * While it is open its plan may be changed, accepted and approved, and its crew changed; nothing of a closed job changes.
 */
export const JOB_STATES = ["open", "closed", "withdrawn"] as const;
export type JobState = (typeof JOB_STATES)[number];

export type JobLife = Readonly<{
  number: string;
  state: JobState;
  askedBy: PersonId;
  holder: PersonId;
  crew: readonly PersonId[];
}>;

export type JobCommand =
  /** The plan that was shown, on the register of that revision. */
  | Readonly<{ type: "approve"; shownOn: number; route?: "short" }>
  /** The planner's own wishes for it. */
  | Readonly<{ type: "adjust" }>
  /** Planned without the procedure by which it was asked for. */
  | Readonly<{ type: "leave procedure"; procedure: string | null }>
  /** What it falls short of, accepted by somebody with what is done instead. */
  | Readonly<{
      type: "accept deviation";
      by: PersonId;
      ways: readonly string[];
      measures: readonly string[];
      outside: Outside;
    }>
  /** What was accepted is accepted for longer. */
  | Readonly<{ type: "renew deviations"; by: PersonId; at_ms: number; until_ms: number; outside: Outside }>
  | Readonly<{ type: "change crew"; crew: readonly PersonId[] }>
  /** What is asked is written anew; `replanned` where its plan would be another: other places, or how people meet them. */
  | Readonly<{ type: "change"; holder: PersonId; replanned: boolean }>
  | Readonly<{ type: "withdraw" }>
  | Readonly<{ type: "close"; by: PersonId; roles: readonly Role[] }>;

/** That the appointment of who accepts does not cover the area of the job, or this hour. */
type Outside = NotAppointed | null;

/** What the server measured. The plan is asked for last, for it is dear. */
export type JobFacts = Readonly<{
  revision: number;
  plan: () => Read<Plan>;
  accepted: readonly Accepted[];
  /** Where this plan stops what another live job needs passing, or needs passing what another stops. */
  clashes: (plan: Plan) => readonly Clash[];
  /** Why its plan is no minor isolation; asked where it is to be approved by the short route. */
  minorFaults: (plan: Plan) => readonly MinorFault[];
  /** It was done by the short route: who worked alone closes it. */
  wasMinor: boolean;
  /** Its isolation that is not restored, and whether one of its steps is stuck. */
  standing: Readonly<{ isolation: string; stuck: boolean }> | null;
  isKnown: (person: PersonId) => boolean;
  nameOf: (person: PersonId) => string;
  /** Who is on under any of its permits. */
  peopleOn: readonly PersonId[];
  openPermits: readonly string[];
  openIsolations: readonly string[];
  /** Locks, earths and the like of its isolations that nobody took out, in words. */
  left: readonly string[];
}>;

/** The only way a job changes. */
export function decideJob(job: JobLife, command: JobCommand, facts: JobFacts): Result<JobLife> {
  if (job.state !== "open") {
    return command.type === "close"
      ? refuse({ code: "already done", what: `Closing ${job.number}` })
      : refuse({ code: "wrong state", what: `Job ${job.number}`, state: job.state, needs: "open" });
  }
  switch (command.type) {
    case "approve": {
      if (facts.revision !== command.shownOn) {
        return refuse({ code: "plant changed", planned: command.shownOn, now: facts.revision });
      }
      if (facts.standing) {
        return refuse({ code: "already done", what: `Isolation ${facts.standing.isolation} of this job` });
      }
      const made = facts.plan();
      if (!made.ok) return refuse({ code: "unknown", what: "place", name: made.problems[0]?.tag ?? "" });
      const fault = planFault(made.value, facts);
      if (fault) return refuse(fault);
      const against = command.route === "short" ? facts.minorFaults(made.value) : [];
      return against.length > 0 ? refuse({ code: "not minor", job: job.number, faults: against }) : accept(job);
    }
    case "adjust": {
      const no = notPlanned(facts, false);
      if (no) return no;
      const made = facts.plan();
      const why = made.ok ? null : (made.problems[0]?.message ?? "it cannot be used");
      return why === null ? accept(job) : refuse({ code: "device not usable", why });
    }
    case "leave procedure":
      if (command.procedure === null) return refuse({ code: "by no procedure", job: job.number });
      return notPlanned(facts, false) ?? accept(job);
    case "accept deviation": {
      const no = notPlanned(facts, true);
      if (no) return no;
      if (job.askedBy === command.by) return refuse({ code: "accepting one's own deviation" });
      if (command.outside) return outsideFault(command, facts);
      const made = facts.plan();
      if (!made.ok) return refuse({ code: "unknown", what: "place", name: job.number });
      const strange = command.ways.find((way) => !made.value.shortfalls.some((one) => wayOf(one) === way));
      if (strange !== undefined) return refuse({ code: "no such shortfall", way: strange });
      const bare = made.value.shortfalls.find(
        (one) => command.ways.includes(wayOf(one)) && fitting(one, command.measures).length === 0,
      );
      return bare === undefined
        ? accept(job)
        : refuse({ code: "measure does not fit", way: wayOf(bare), fit: bare.measures });
    }
    case "renew deviations":
      if (job.askedBy === command.by) return refuse({ code: "accepting one's own deviation" });
      if (command.outside) return outsideFault(command, facts);
      if (facts.accepted.length === 0)
        return refuse({ code: "unknown", what: "accepted deviation of", name: job.number });
      return command.until_ms > command.at_ms
        ? accept(job)
        : refuse({ code: "validity", reason: "it would be over before it is signed" });
    case "change crew": {
      const crew = [...new Set(command.crew)];
      const strange = crew.find((id) => !facts.isKnown(id));
      if (strange !== undefined) return refuse({ code: "unknown", what: "person", name: strange });
      if (isAlone(facts) && crew.some((id) => id !== job.holder)) return shortRoute(job);
      const gone = facts.peopleOn.filter((id) => !crew.includes(id) && id !== job.holder);
      if (gone.length > 0) return refuse({ code: "people on", people: gone.map(facts.nameOf) });
      return accept({ ...job, crew });
    }
    case "change": {
      if (!facts.isKnown(command.holder)) return refuse({ code: "unknown", what: "person", name: command.holder });
      const no = command.replanned ? notPlanned(facts, false) : null;
      if (no) return no;
      if (isAlone(facts) && command.holder !== job.holder) return shortRoute(job);
      return command.holder !== job.holder && facts.peopleOn.includes(job.holder)
        ? refuse({ code: "people on", people: [facts.nameOf(job.holder)] })
        : accept({ ...job, holder: command.holder });
    }
    case "withdraw":
      if (facts.openPermits.length > 0) return refuse({ code: "permits open", permits: facts.openPermits });
      if (facts.openIsolations.length > 0) return refuse({ code: "isolations open", isolations: facts.openIsolations });
      return accept({ ...job, state: "withdrawn" });
    case "close":
      if (!command.roles.includes("coordinator") && !(facts.wasMinor && command.by === job.holder)) {
        return refuse({ code: "not yours to do", act: "close a job", needs: ["coordinator"] });
      }
      if (facts.openPermits.length > 0) return refuse({ code: "permits open", permits: facts.openPermits });
      if (facts.openIsolations.length > 0) return refuse({ code: "isolations open", isolations: facts.openIsolations });
      if (facts.left.length > 0) return refuse({ code: "still in place", things: facts.left });
      return accept({ ...job, state: "closed" });
  }
}

/** One person works alone under what stands for it. */
const isAlone = ({ standing, wasMinor }: JobFacts) => standing !== null && wasMinor;
const shortRoute = ({ number }: JobLife) => refuse({ code: "short route", what: number, isMinor: true });

/** A plan is changed only while nothing stands on it, but for what is planned anew because a step is stuck. */
function notPlanned({ standing }: JobFacts, orStuck: boolean) {
  return standing === null || (orStuck && standing.stuck)
    ? null
    : refuse({ code: "already done", what: `Approving isolation ${standing.isolation} of this job` });
}

/** Why nobody may work to this plan as it stands; null when they may. */
export function planFault(plan: Plan, facts: Pick<JobFacts, "accepted" | "clashes">): Refusal | null {
  if (plan.unlinked.length > 0) return { code: "nothing known of", places: plan.unlinked };
  const open = shortfallsNotAccepted(plan, facts.accepted);
  if (open.length > 0) return { code: "plan falls short", ways: open.map(wayOf) };
  const [clash] = facts.clashes(plan);
  if (clash === undefined) return null;
  const { device } = clash;
  const relief = clash.why === "relief";
  return plan.points.some((point) => point.device === device)
    ? { code: "must stay passing", device, job: clash.neededBy, relief }
    : { code: "stopped elsewhere", device, job: clash.stoppedBy, relief };
}

const outsideFault = (
  { by, outside }: Readonly<{ by: PersonId; outside: Outside }>,
  { nameOf }: Pick<JobFacts, "nameOf">,
) => refuse({ code: "not appointed", who: nameOf(by), act: "accept a deviation", ...outside! });
