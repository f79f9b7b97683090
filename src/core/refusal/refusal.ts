import type { NotAppointed } from "./notAppointed";
import type { MinorFault } from "./minorFault";
import type { NotHeld } from "./notHeld";
import type { SwapFault } from "./swapFault";

/** Whom lifting a lock would reach, and by what. */
export type LiftHarm = Readonly<{
  job: string;
  face: string;
  source: string;
  /** Barriers that would be left, and what that is worth; missing in rows of before. */
  depth?: number;
  grade?: string | null;
  people: readonly string[];
}>;

/**
 * Why the domain says no: a code and its evidence. What a person has to read or count for themselves is never in it: who is
 * told the answer writes it down without looking. Sentences are made of it in words/en.
 */
export type Refusal =
  | { code: "not yours to do"; act: string; needs: readonly string[] }
  | { code: "not competent"; step: string; needs: string }
  | { code: "out of order"; step: string; first: readonly string[] }
  | { code: "already done"; what: string; by?: string }
  | { code: "wrong state"; what: string; state: string; needs: string }
  | { code: "wrong plate"; seen: string }
  | { code: "lock missing"; step: string }
  | { code: "lock in use"; lock: string; where: string }
  | { code: "reading missing"; step: string; what: string }
  | { code: "reading not safe"; step: string; reading: number; error: number; limit: number; unit: string }
  | { code: "not zero"; step: string; reading: number; error: number; unit: string }
  | { code: "it started"; step: string }
  | { code: "cause first"; step: string }
  | { code: "same hands"; step: string }
  | { code: "nothing failed"; step: string }
  | { code: "another takes it back"; step: string; by: string }
  | { code: "needs another plan"; step: string; why: string }
  | { code: "another frees it"; step: string; by: string }
  | { code: "tester not proved"; step: string }
  | { code: "second person needed"; step: string }
  | { code: "isolation not proven"; isolation: string; open: number }
  | { code: "not held"; why: Exclude<NotHeld, { code: "not proven" }> }
  | { code: "no isolation" }
  /** Of what is done alone: another act is asked of it; of what is not: it may not be begun alone. */
  | { code: "short route"; what: string; isMinor: boolean }
  | { code: "not minor"; job: string; faults: readonly MinorFault[] }
  | { code: "works alone"; step: string; who: string }
  /** It was said to fit into one shift, and its window is longer than any. */
  | { code: "outlasts a shift"; window_h: number; shift_h: number }
  | { code: "nobody there"; permit: string }
  | { code: "not of the roll"; who: string; permit: string }
  /** A crew signs on with whoever leads or issued the work beside them, and nobody else. */
  | { code: "not present at crew"; permit: string; may: readonly string[] }
  | { code: "crew round of another"; crew: string; lead: string; permit: string }
  | { code: "crew round over"; crew: string; lead: string; idle: boolean }
  /** A screen that stands at the box for a crew does nothing else. */
  | { code: "crew screen"; act: string; crew: string }
  | { code: "issuing to oneself" }
  | { code: "authorised apart"; permit: string; why: string }
  | { code: "own procedure"; procedure: string }
  | { code: "two people"; procedure: string }
  | { code: "nobody watched"; procedure: string }
  | { code: "inspecting oneself"; procedure: string }
  | { code: "procedure not usable"; procedure: string; why: string }
  | {
      code: "procedure unsafe";
      procedure: string;
      lost: readonly string[];
      short: readonly string[];
      otherWork: boolean;
    }
  | { code: "procedure differs"; procedure: string }
  | { code: "by no procedure"; job: string }
  | { code: "closing one's own permit" }
  | { code: "not the holder"; holder: string }
  | { code: "run out"; permit: string; at: string }
  | { code: "validity"; reason: string }
  | { code: "already signed on"; permit: string }
  | { code: "at other work"; who: string; permit: string }
  | { code: "not signed on"; permit: string }
  | { code: "people on"; people: readonly string[] }
  | { code: "not all seen"; people: readonly string[] }
  | { code: "permits open"; permits: readonly string[] }
  | { code: "isolations open"; isolations: readonly string[] }
  | { code: "plan falls short"; ways: readonly string[] }
  | { code: "nothing known of"; places: readonly string[] }
  | { code: "accepting one's own deviation" }
  | { code: "no such shortfall"; way: string }
  | { code: "measure does not fit"; way: string; fit: readonly string[] }
  | { code: "device not usable"; why: string }
  | {
      code: "would light";
      device: string;
      harms: readonly LiftHarm[];
    }
  | { code: "swap not proved"; fault: SwapFault }
  | { code: "own step first"; point: string; isolation: string }
  | { code: "say what was found"; looks: readonly string[] }
  | { code: "paper order"; why: string }
  | { code: "must stay passing"; device: string; job: string; relief: boolean }
  | { code: "stopped elsewhere"; device: string; job: string; relief: boolean }
  | { code: "plant changed"; planned: number; now: number }
  | { code: "changed meanwhile" }
  | { code: "bad register"; first: string; more: number }
  | { code: "bad list"; first: string; more: number }
  | { code: "not in the crew"; job: string }
  | { code: "unknown"; what: string; name: string }
  | { code: "review too late"; hours: number; most: number }
  | { code: "own lock"; lock: string }
  | { code: "not read"; lock: string; permit: string; who?: string }
  | { code: "own account" }
  | { code: "sign-in taken"; signIn: string }
  | { code: "last coordinator"; who: string }
  | { code: "still on site"; who: string; where: readonly string[] }
  | { code: "no figure"; calculator: string; field: string; why: string }
  | { code: "count differs"; counted: number }
  | { code: "people differ"; counted: number }
  | { code: "gear unknown"; kind: string; number: string }
  | { code: "gear withdrawn"; kind: string; number: string }
  | { code: "another returns it"; kind: string; number: string; by: string }
  | { code: "date too far"; years: number; what?: string }
  | { code: "date over"; what: string }
  | { code: "gear out of date"; kind: string; number: string }
  | { code: "gear not bumped"; number: string; hours: number }
  | { code: "gear elsewhere"; kind: string; number: string; job: string }
  | { code: "gear error unknown"; kind: string; number: string }
  | { code: "gear rating"; kind: string; number: string; rating: number | null; needs: number }
  | { code: "lock of another"; lock: string; owner: string }
  | { code: "lock of the site"; lock: string }
  | { code: "same key"; key: string; lock: string; owner: string }
  | { code: "ways not tried"; step: string; left: readonly string[] }
  | { code: "earths differ"; step: string; left: readonly string[]; strange: readonly string[] }
  | { code: "earth in use"; number: string; where: string }
  | { code: "not between earths"; step: string; bare: readonly string[] }
  | { code: "held too short"; step: string; held: number; least: number }
  | { code: "gauge too coarse"; step: string; error: number; pressure: number }
  | { code: "register came in"; revision: number }
  | { code: "door may fly"; step: string; hidden: number; opening_m: number; force_N: number }
  | { code: "leaks"; step: string; lost: number; error: number }
  | { code: "stuck"; step: string; why: string; by: string }
  | { code: "nothing stuck"; isolation: string }
  | { code: "box locked"; people: readonly string[] }
  | { code: "last off"; people: readonly string[] }
  | { code: "lead first"; lead: string }
  | { code: "coordinator first" }
  | { code: "nobody to hand over"; permit: string }
  | { code: "not on"; who: string; permit: string }
  | { code: "handed over twice"; who: string }
  | { code: "not a lead"; who: string }
  | { code: "lead issued it" }
  | { code: "no exchange"; firm: string }
  | ({ code: "not appointed"; who: string; act: string } & NotAppointed)
  | { code: "not inducted"; who: string; firm: string; since: string | null }
  | { code: "prove again"; proofs: readonly string[] }
  | { code: "under test"; isolation: string }
  | { code: "held by others"; step: string; held: readonly Readonly<{ point: string; by: readonly string[] }>[] }
  | { code: "not agreed"; jobs: readonly string[] }
  | { code: "still in place"; things: readonly string[] }
  | { code: "asks unmet"; permit: string; asks: readonly string[] }
  | { code: "work stopped"; permit: string; why: string }
  | { code: "one's own permit" }
  | { code: "checked by oneself"; permit: string }
  | { code: "no approval needed"; permit: string }
  | { code: "issuer resumes"; permit: string }
  | { code: "air not fresh"; permit: string }
  | { code: "not extended"; permit: string; why: string }
  | { code: "not all asked"; permit: string; notAsked: readonly string[]; notOn: readonly string[] }
  | { code: "copy says otherwise"; permit: string; copies: readonly string[] }
  | { code: "points not read"; points: readonly string[] }
  | { code: "work left"; left: readonly Readonly<{ permit: string; words: string }>[] }
  | { code: "watch not over"; permit: string; left: readonly string[] }
  | { code: "before its cause"; said: string; what: string; at: string }
  | { code: "not begun"; step: string }
  | { code: "wait not over"; step: string; left_s: number; least_s: number; because: string | null }
  | { code: "clock is right" }
  | { code: "handing over to oneself" }
  | { code: "not for a shift"; who: string; needs: readonly string[] }
  | { code: "not gone through"; left: readonly string[]; gone: readonly string[] }
  | { code: "nothing changed"; permit: string }
  | { code: "last copy"; permit: string }
  | { code: "not back"; permit: string; things: readonly string[] }
  | { code: "not inspected"; permit: string }
  | { code: "was live"; permit: string }
  | { code: "wrong answer"; permit: string }
  | { code: "still inside"; people: readonly string[] }
  | { code: "not inside"; who: string }
  | { code: "other duty"; who: string; where: string }
  | { code: "not of this kind"; permit: string; kind: string }
  | { code: "not on post"; permit: string; post: string }
  | { code: "post needed"; permit: string; why: string }
  | { code: "no look due"; next: string | null }
  | { code: "space full"; most: number; people: readonly string[] }
  | { code: "not by hand"; words: string; unmet: string | null }
  | { code: "sensor blind"; why: string }
  | { code: "no sample"; point: string }
  | { code: "read too early"; point: string; wait_s: number }
  | { code: "gas order"; point: string; first: string }
  | { code: "point order"; point: string; first: string; why: string }
  | { code: "no pocket"; point: string }
  | { code: "flush too short"; held_s: number; least_s: number }
  | { code: "purge never ends"; space: string }
  | { code: "no purge"; permit: string }
  | { code: "purge too short"; wait_s: number }
  | { code: "detector elsewhere"; detector: string; permit: string }
  | { code: "detector place"; place: string }
  | { code: "detector silent"; detector: string }
  | { code: "sheet missing"; number: string }
  | { code: "instrument busy"; number: string; where: string }
  | { code: "from inside"; point: string }
  | { code: "corners first"; wants: readonly string[] }
  | { code: "opens nothing" }
  | { code: "token too long"; days: number }
  | { code: "too many tokens"; most: number }
  | { code: "not for a program"; what: string }
  | { code: "too many bends"; bends: number; most: number; to: string }
  | { code: "no bad reading"; point: string }
  | { code: "nothing odd"; point: string }
  | { code: "second instrument needed"; point: string }
  | { code: "issuer decides"; point: string }
  | { code: "purging"; permit: string }
  | { code: "not ventilated"; permit: string }
  | { code: "blower stands"; why: string }
  | { code: "break not over"; permit: string }
  | { code: "online only"; act: string }
  | { code: "device clock"; why: string };
