import type { NotAppointed } from "../../refusal/notAppointed";
import type { InstrumentKind } from "../../gear/instrumentKinds";
import type { AirLimits } from "../../atmosphere/airLimits";
import type { How } from "../../request/jobFile";
import type { GearKind } from "../../gear/gear";
import type { PersonId, Role } from "../../people/roles";
import type { StandIn } from "../../plan/deviations";
import type { NotHeld } from "../../refusal/notHeld";
import type { Refusal } from "../../refusal/refusal";
import type { RuleProfile } from "../../requirement/profile";
import type { PermitClash } from "../around/crossChecks";
import type { PermitDetails } from "../kinds/details";
import type { ZoneItem } from "../around/hotWorkZone";
import type { PermitRequired } from "../../hazard/permitsRequired";
import type { PermitKind, Post } from "../kinds/kinds";
import type { AuditFinding, AuditLook, BadAirCause, LogEntry, OddAirCause, StopCause } from "./permitLog";
import type { GasSheet } from "../../gear/gasSheet";

export const PERMIT_STATES = [
  "draft",
  "checked",
  "authorised",
  "issued",
  "live",
  "suspended",
  "run out",
  "watching",
  "work done",
  "closed",
  "cancelled",
] as const;
export type PermitState = (typeof PERMIT_STATES)[number];

/** A permit to work: what it allows, who answers for it, who is on it, and all that happened under it. */
export type PermitLife = Readonly<{
  number: string;
  details: PermitDetails;
  state: PermitState;
  holder: PersonId;
  issuer: PersonId | null;
  closedBy: PersonId | null;
  validFrom_ms: number;
  validTo_ms: number;
  signOns: readonly SignOn[];
  log: readonly LogEntry[];
}>;

export type SignOn = Readonly<{
  person: PersonId;
  /** The lock on the box, or the first of those on the points. */
  lock: string;
  /** Under the school of a lock on every point: which lock hangs on which point. */
  points: Readonly<Record<string, string>>;
  on_ms: number;
  off_ms: number | null;
}>;

/** One person comes on in the place of another: the new lock is on before the old one is off. */
export type HandOver = Readonly<{
  from: PersonId;
  to: PersonId;
  lock: string;
  points?: Readonly<Record<string, string>>;
}>;

/** What somebody read at a point, oxygen first, then what burns, then what poisons. */
export type TypedReading = Readonly<{
  oxygen: number | null;
  flammable: number | null;
  toxics: readonly Readonly<{ gas: string; fraction: number | null }>[];
}>;

/** A later end, with what the issuer saw and did before they gave it. */
export type Extension = Readonly<{
  until_ms: number;
  words: string;
  /** Whom they asked and found still there, each. */
  stillOn: readonly PersonId[];
  /** Numbers of the copies on which they wrote the new end. */
  marked: readonly number[];
}>;

export type PermitAct =
  | Readonly<{ type: "check" | "authorise" | "accept" | "sign off" | "end watch" | "close" | "cancel" }>
  /** `left`: what of the work is left to do, where only part of it is done. */
  | Readonly<{ type: "hand back"; left?: string }>
  | Readonly<{ type: "approve" | "revalidate" | "resume" | "inspect"; words: string }>
  | Readonly<{ type: "send back"; words: string }>
  /** The draft written anew, under its number and of its kind; `what` names the parts that are other. */
  | Readonly<{
      type: "change";
      what: readonly string[];
      holder: PersonId;
      validFrom_ms: number;
      validTo_ms: number;
      details: PermitDetails;
    }>
  /** By the short route: on, behind one's own lock; and off, the permit ended with it. */
  | Readonly<{ type: "begin alone"; also?: string }>
  | Readonly<{ type: "end alone" }>
  | Readonly<{ type: "issue"; copies: readonly string[] }>
  | (Readonly<{ type: "extend" }> & Extension)
  | Readonly<{
      type: "sign on";
      lock: string;
      points?: Readonly<Record<string, string>>;
      /** Where the work is, as the person says when the holder asks. */
      answer: string;
      /** The permit of other work that they say they are on as well. */
      also?: string;
    }>
  /** Many at once at shift change, or one. */
  | Readonly<{ type: "hand over"; pairs: readonly HandOver[] }>
  /** Everybody who is there by the record is called by name; who answered. */
  | Readonly<{ type: "call roll"; seen: readonly PersonId[] }>
  /** By a forced removal only: the lock of somebody who is not there is off. */
  | Readonly<{ type: "lock cut"; of: PersonId }>
  | Readonly<{ type: "tick"; ask: string; words: string }>
  | Readonly<{ type: "decide clash"; clash: string; decision: "go on" | "wait"; reason: string }>
  | Readonly<{ type: "stop"; cause: StopCause; reason: string }>
  | Readonly<{ type: "begin break" | "end break" | "go on" | "begin purge" | "end purge" | "talk" }>
  | Readonly<{ type: "begin ventilation" | "end ventilation" }>
  | Readonly<{ type: "begin sample"; point: string; instrument: string }>
  | Readonly<{ type: "find cause"; point: string; cause: BadAirCause; words: string }>
  | Readonly<{ type: "explain"; point: string; cause: OddAirCause; words: string }>
  | Readonly<{ type: "replace reading"; gas: string; words: string }>
  | Readonly<{ type: "read"; point: string; reading: TypedReading }>
  /** Drawn and read while the server was down, written on paper, and typed in now by whoever sends it. */
  | Readonly<{
      type: "enter paper reading";
      point: string;
      instrument: string;
      reading: TypedReading;
      reader: PersonId;
      drawn_ms: number;
      read_ms: number;
    }>
  | Readonly<{ type: "report fire"; where: string; what: string; out: string }>
  | Readonly<{ type: "note refusal"; who: string; what: string; words: string }>
  | Readonly<{ type: "audit"; found: Readonly<Record<AuditLook, AuditFinding>>; words: string }>
  | Readonly<{ type: "flush"; point: string; held_s: number }>
  | Readonly<{ type: "take post" | "leave post"; post: Post }>
  | Readonly<{ type: "go in" | "come out"; person: PersonId }>
  | Readonly<{ type: "watch check" | "final check" | "safeguard back"; words: string }>
  | Readonly<{ type: "tell control room"; who: string }>
  | Readonly<{ type: "hang copy"; where: string; second: boolean }>
  | Readonly<{ type: "return copy"; copy: number }>
  | Readonly<{ type: "put in"; what: string; where: string }>
  | Readonly<{ type: "take out"; thing: number }>;

/** Null as `by` is the clock or an instrument: it may stop work, and nothing else. */
type By = Readonly<{ by: PersonId | null; roles: readonly Role[]; at_ms: number }>;
type ActOf<T extends PermitAct["type"], A extends PermitAct = PermitAct> = A extends unknown
  ? T extends A["type"]
    ? Omit<A, "type"> & Readonly<{ type: T }>
    : never
  : never;

export type CommandOf<T extends PermitAct["type"]> = ActOf<T> & By;
export type PermitCommand = { [T in PermitAct["type"]]: CommandOf<T> }[PermitAct["type"]];

/** An instrument that was posted at the work and sends by itself. */
export type PostedDetector = Readonly<{
  id: string;
  place: string;
  kind: InstrumentKind;
  /** What it reads: oxygen, flammable, and toxic gases by name. */
  reads: readonly string[];
  /** What is against its last reading, or against itself; empty while all is well. */
  against: readonly string[];
  silent: boolean;
  /** From when on it is silent, if it sends nothing more. */
  silentFrom_ms: number;
}>;

/** A minor isolation as it hangs. */
export type MinorNow = Readonly<{
  /** The lock on its one point, and who hung it; null while none hangs. */
  lock: Readonly<{ number: string; by: PersonId }> | null;
  /** Steps of it at which something was not dead, or started. */
  failed: readonly string[];
  crew: readonly PersonId[];
}>;

/** What the server measured, and no browser may send. */
export type PermitFacts = Readonly<{
  isolations: readonly Readonly<{
    number: string;
    /** Why nobody may count on it now; null while it is held. */
    notHeld: NotHeld | null;
  }>[];
  lockHangs: (lock: string) => string | undefined;
  /** Why this person may not hang this lock as their own; null when they may. */
  personalLock: (person: PersonId, lock: string) => Refusal | null;
  /** Whose lock goes on before any other, by the rules. */
  firstOn: readonly ("coordinator" | "lead")[];
  /** A coordinator's or department's lock hangs on every box of it. */
  standingHangs: boolean;
  /** Proofs that must be done again before anybody goes on, and why. */
  stale: readonly string[];
  /** The muster for which all work here is stopped; null where there is none. */
  muster: string | null;
  /** An isolation under test that may light this work now. */
  litBy: string | null;
  /** The firm whose procedures were not exchanged with ours yet; null when there is nothing to exchange. */
  exchangeMissing: (person: PersonId) => string | null;
  /** Of whom of another firm was not shown this site, or too long ago: the firm, and since when it counts no more. */
  notInducted: (person: PersonId) => Readonly<{ firm: string; since_ms: number | null }> | null;
  /** That this person's appointment does not cover the area of this permit, or this hour; null where it covers both. */
  notAppointed: (person: PersonId) => NotAppointed | null;
  /** Points that each person locks themselves; empty where locks hang on the box. */
  pointsToLock: readonly string[];
  /** Null when the person may work under it. */
  crewFault: (person: PersonId) => Refusal | null;
  rolesOf: (person: PersonId) => readonly Role[];
  nameOf: (person: PersonId) => string;
  timeOf: (at_ms: number) => string;

  profile: RuleProfile;
  /** Places of the job; the answer to "where do you work?". */
  places: readonly string[];
  /** How people meet the job's faces, as its isolation was planned. */
  plannedFor: readonly How[];
  /** Ways to the faces that are held worse than asked and that nobody accepted. */
  shortfalls: readonly string[];
  /** What was accepted in place of barriers that are not there, for the work locations of its isolations. */
  standIns: readonly StandIn[];
  /** Until when what was accepted below the rules holds; null where nothing was. */
  acceptedUntil_ms: number | null;
  /** What is left to decide of the job's hazards; null when nobody has begun. */
  hazardsOpen: readonly string[] | null;
  /** The kinds of permit that the job's hazards require; null where there is no register to ask. */
  required: readonly PermitRequired[] | null;
  /** The other permits of its job. */
  ofJob: readonly Readonly<{ number: string; kind: PermitKind; state: PermitState }>[];
  /** Hot work: what lies within reach of its sparks. */
  zone: readonly ZoneItem[];
  /** Hot work: the class of watch that the area asks for; null where nobody wrote it down. */
  watchClass: string | null;
  airLimits: AirLimits;
  /** Gas instruments that somebody withdrew, by number. */
  withdrawnInstruments: readonly string[];
  /** What the register knows of a gas instrument; null where nobody wrote it down. */
  gasSheet: (number: string) => GasSheet | null;
  /** When it was last zeroed in fresh air; null where nobody did. */
  zeroedAt_ms: (number: string) => number | null;
  /** Another permit under which it is drawing now. */
  drawsElsewhere: (number: string) => string | null;
  testPoints: readonly string[];
  /** Those of them that are read from inside, by the first who goes in. */
  insidePoints: readonly string[];
  /** Where the first test is taken before a cover comes off; null where there is none. */
  coverPoint: string | null;
  /** Gases that may be there, by the register and by the work, and whether any instrument here sees them. */
  gases: readonly Readonly<{ gas: string; why: string; seen: boolean }>[];
  /** Bad readings in the same air under other permits. */
  badElsewhere: readonly Readonly<{ at_ms: number; permit: string; point: string }>[];
  clashes: readonly PermitClash[];
  /** What was decided under the other permits: a clash is decided once for both. */
  decidedElsewhere: readonly LogEntry[];
  detectors: readonly PostedDetector[];
  /** Portable earths that stand for its isolations. */
  earths: readonly string[];
  /** Why a numbered thing may not be used; null when it may. */
  gearFault: (kind: GearKind, number: string, needs_V?: number) => Refusal | null;
  /** A permit of another job where this person is on, on post or inside. */
  atOtherWork: (person: PersonId) => string | null;
  /** Another permit where this person is on, on post or inside. */
  elsewhere: (person: PersonId) => string | null;
  /** Of a minor isolation: its lock, and what made it one no more; null for every other permit. */
  minor: MinorNow | null;
  /** Shift changes after the first moment and up to the second. */
  shiftChanges_ms: (from_ms: number, to_ms: number) => readonly number[];
}>;

export function peopleOn(permit: Pick<PermitLife, "signOns">): SignOn[] {
  return permit.signOns.filter((signOn) => signOn.off_ms === null);
}
