import type { Refusal } from "../../refusal/refusal";
import { refusalSentence } from "../../words/en/refusals";
import type { Post } from "../kinds/kinds";
import { keeps } from "../air/airRules";
import { sinceEvacuated, tickOf, type StopCause } from "../record/permitLog";
import type { PermitFacts, PermitLife } from "../record/permitTypes";

/** Something that must be true for a permit, as it stands at one moment. */
export type Ask = Readonly<{
  id: string;
  words: string;
  source: string;
  /** Settled by somebody who looks and ticks; otherwise the program knows. */
  byHand: boolean;
  /** Only whoever stands on this post may say so, for it is asked of them. */
  only?: Post;
  /** The first act that is refused without it. */
  before: "issue" | "accept";
  /** When it must hold while the permit is live: all the time, while somebody is inside, or whenever work begins. */
  holds: "always" | "inside" | "beginning";
  /** What is missing; null when it is met. */
  unmet: string | null;
  /** What kind of stop it is when this holds no more. */
  cause: StopCause;
}>;

export type AskContext = Readonly<{
  permit: PermitLife;
  facts: PermitFacts;
  now_ms: number;
  /** Work begins now: what was tested is fresh, and not only within its time. */
  begins?: boolean;
}>;

/** One id may stand for several things to settle, or for none. */
export type AskMaker = (context: AskContext) => Ask | readonly Ask[] | null;

export const PRACTICE = "practice";

type More = Partial<Pick<Ask, "source" | "before" | "holds" | "cause" | "only">>;

const USUAL = { source: PRACTICE, before: "issue", holds: "always", cause: "requirement" } as const;

/** What the program knows. */
export function known(id: string, words: string, unmet: string | null, more: More = {}): Ask {
  return { ...USUAL, id, words, byHand: false, unmet, ...more };
}

/** What only somebody on the spot can know. */
export function looked({ permit }: AskContext, id: string, words: string, more: More = {}): Ask {
  return { ...USUAL, id, words, byHand: true, unmet: notLooked(permit.log, id), ...more };
}

/** What people saw to before everybody was called out may have gone with whatever called them out. */
function notLooked(log: PermitLife["log"], id: string): string | null {
  if (tickOf(log, id) === undefined) return "nobody has looked yet";
  if (!keeps("evacuated") || tickOf(sinceEvacuated(log), id) !== undefined) return null;
  return "nobody has looked again since everybody was called out";
}

export function saidOf(refusal: Refusal | null): string | null {
  return refusal === null ? null : refusalSentence(refusal);
}
