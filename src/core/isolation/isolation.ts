import type { Competence, PersonId, Role } from "../people/roles";
import type { PlannedStep } from "../procedure/steps";
import { refuse } from "../refusal/result";
import type { Evidence, EvidenceFacts, StepReport } from "./stepEvidence";

/** What an isolation is, and what may be asked of it; how it changes is in isolationLife. */
export type IsolationLife = Readonly<{
  number: string;
  state: "isolating" | "proven" | "testing" | "restoring" | "restored";
  steps: readonly WalkStep[];
}>;

export type WalkStep = PlannedStep &
  Readonly<{
    done: Done | null;
    stuck: Stuck | null;
    /** Who turned on what it runs for a time with, and when; missing where nobody did, or nothing runs. */
    begun?: Begun;
    /** What failed at it, oldest first; missing where nothing did. */
    failures?: readonly Failure[];
  }>;

/** What runs since when; where somebody has to watch it, who, and by which way it goes. */
export type Begun = Readonly<{ by: PersonId; at_ms: number; watcher?: PersonId; how?: EmptiedHow }>;

export const EMPTIED_HOW = ["drained", "pumped"] as const;
export type EmptiedHow = (typeof EMPTIED_HOW)[number];

/** What somebody says of something that was found, and when. */
type Said = Readonly<{ by: PersonId; at_ms: number; words: string }>;

/** A proof that failed: what was seen, by whom, with what. It is never taken out of the record. */
export type Failure = Readonly<{
  what: "not safe" | "leaks" | "started";
  /** In `unit`; null where nothing is measured. */
  reading: number | null;
  unit: string | null;
  instrument: string | null;
  by: PersonId;
  at_ms: number;
  /** What it came from. */
  cause: Said | null;
  /** It was never so: another person looked at the instrument. */
  inError: Said | null;
  /** When it was done again, well. */
  settled_ms: number | null;
}>;

export type Done = Readonly<{
  by: PersonId;
  at_ms: number;
  lock: string | null;
  reading: number | null;
  /** Restore steps of points that never were locked are passed over, not done. */
  skipped: boolean;
  evidence: Evidence | null;
}>;

export const STUCK_WHYS = [
  "broken",
  "missing",
  "other plate",
  "locked by others",
  "cannot be reached",
  "blocked",
  "passes",
  "creeps",
] as const;
/** These say that the plan does not do what it says: only another plan answers them. Common practice, no source. */
export const ASKS_ANOTHER_PLAN: ReadonlySet<string> = new Set(["blocked", "passes", "creeps"]);
/** Steps at a device or a bleed that no plan counts on while they cannot be done: a blocked drain is not planned again. */
export const STRIKES_OUT: ReadonlySet<PlannedStep["kind"]> = new Set(["lock", "verify", "bleed"] as const);

/** A step that cannot be done as planned: the engine plans again, and nobody skips it. */
export type Stuck = Readonly<{ why: (typeof STUCK_WHYS)[number]; words: string; by: PersonId; at_ms: number }>;

type By = Readonly<{
  by: PersonId;
  at_ms: number;
  /** The time is a device's, which kept it while it had no network; else it is the server's. */
  kept?: boolean;
}>;
export type StepCommand = By &
  StepReport &
  Readonly<{
    type: "do step" | "prove again";
    step: string;
    competences: readonly Competence[];
    roles: readonly Role[];
  }>;

export type IsolationCommand =
  | StepCommand
  | (By & Readonly<{ type: "cannot"; step: string; why: Stuck["why"]; words: string }>)
  /** The step can be done after all: it was found, mended, freed. */
  | (By & Readonly<{ type: "can"; step: string; words: string }>)
  /** A step that runs for a time is turned on. */
  | (By &
      Readonly<{
        type: "begin step";
        step: string;
        competences: readonly Competence[];
        watcher?: PersonId | null;
        how?: EmptiedHow | null;
      }>)
  /** It was turned off before its time: whoever watched was called away, or it failed. */
  | (By & Readonly<{ type: "stop step"; step: string; words: string }>)
  /** What a failed proof came from; or that it was never so, by another who looked. */
  | (By & Readonly<{ type: "find cause" | "entered in error"; step: string; words: string }>)
  /** A new plan in place of the old: what stands of the old stays. */
  | (By & Readonly<{ type: "re-plan"; steps: readonly PlannedStep[] }>)
  /** Points lifted for a while, for a test; faces named here are proved again afterwards. */
  | (By & Readonly<{ type: "start test"; lift: readonly string[]; proveAgain: readonly string[] }>)
  | (By &
      Readonly<{
        type: "start return";
        roles: readonly Role[];
        /** Where work is left to do: how it was made safe to be put back as it is. */
        leftSafe?: string;
      }>);

/** What the server measured, and no browser may send. */
export type IsolationFacts = EvidenceFacts &
  Readonly<{
    /** Where a lock hangs now, in words; missing when it hangs nowhere. */
    lockHangs: (lock: string) => string | undefined;
    /** Names of the people whose personal locks hang on this isolation's box or points. */
    peopleOn: readonly string[];
    /** Names on the coordinator's and department's locks on the box. */
    standingOn: readonly string[];
    /** Numbers of permits on this isolation that are not closed. */
    openPermits: readonly string[];
    /** Work on it that was handed back part done, and what of it is left. */
    workLeft: readonly Readonly<{ permit: string; words: string }>[];
    /** Other isolations whose locks hang on this point now. */
    heldByOthers: (point: string) => readonly string[];
    /** When its plan was approved. */
    approvedAt_ms: number;
    timeOf: (at_ms: number) => string;
    /** How long a step lasts at the least, in seconds, and how that came about. */
    waitOf: (step: PlannedStep) => Readonly<{
      least_s: number;
      because: string | null;
      /** Figures that the register does not have stand in it. */
      isAssumed: boolean;
    }>;
    /** What else a person watches or is on post for, in words; null when nothing. */
    watches: (person: PersonId) => string | null;
    /** On today's register its plan does not do what was approved. */
    planFell: boolean;
    /** Who works alone under this minor isolation; null where it is none, or their lock was taken off without them. */
    alone: PersonId | null;
    nameOf: (person: PersonId) => string;
  }>;

export function wrongState(life: IsolationLife, needs: string) {
  return refuse({ code: "wrong state", what: `Isolation ${life.number}`, state: life.state, needs });
}

/** The state in which steps of a phase are done. */
export function phaseState(phase: PlannedStep["phase"]): "isolating" | "testing" | "restoring" {
  return phase === "isolate" ? "isolating" : phase === "test" ? "testing" : "restoring";
}

/** A planned step that nobody has done yet. */
export function open(step: PlannedStep): WalkStep {
  return { ...step, done: null, stuck: null };
}

/** Capitals, spaces and hyphens are read differently off a dirty plate; letters and digits are not. */
export function samePlate(seen: string | null | undefined, plate: string): boolean {
  const bare = (text: string) => text.toUpperCase().replace(/[\s.\-–_]/g, "");
  return seen != null && bare(seen) === bare(plate);
}
