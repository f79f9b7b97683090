/**
 * Acts that one person does at one place, one after the other, and may sign once: each is asked, done and kept as if it had
 * been signed alone, and all of them are done or none. A round joins signatures, it answers nothing: what an act asks is
 * asked in it too. Common practice, no source.
 */
export type RoundKind =
  | "hazards decided"
  | "plan and permits"
  | "permits written"
  | "permits checked"
  | "issued on the spot"
  | "accepted and on"
  | "off and handed back"
  | "inspected and closed"
  | "restoring begun"
  | "handed over and closed"
  | "alone, off and closed";

type Part = Readonly<{ type: string; times: "once" | "perhaps" | "any" | "some" }>;

export type RoundRule = Readonly<{
  /** The parts in their order. */
  parts: readonly Part[];
  /** All parts speak of the same thing: the field that names it. */
  same: "permit" | "job" | null;
  /** Who does it and where, in a few words for the forms and docs. */
  words: string;
}>;

const once = (type: string): Part => ({ type, times: "once" });
const perhaps = (type: string): Part => ({ type, times: "perhaps" });
const any = (type: string): Part => ({ type, times: "any" });
const some = (type: string): Part => ({ type, times: "some" });

export const ROUNDS: Readonly<Record<RoundKind, RoundRule>> = {
  "hazards decided": {
    // What is said of tools may bring hazards of their own: those are decided after it, and not unseen.
    parts: [any("hazard.decide"), perhaps("hazard.conditions")],
    same: "job",
    words: "the hazards of one job, each with its own verdict",
  },
  "plan and permits": {
    parts: [
      any("hazard.decide"),
      perhaps("hazard.conditions"),
      once("isolation.approve"),
      some("permit.draft"),
      any("permit.check"),
    ],
    same: null,
    words: "the hazards of a job, its plan and the permits that they require, at the desk",
  },
  "permits written": {
    parts: [some("permit.draft"), any("permit.check")],
    same: null,
    words: "the permits that a job requires, at the desk",
  },
  "permits checked": { parts: [some("permit.check")], same: null, words: "permits that were read, at the desk" },
  "issued on the spot": {
    parts: [perhaps("permit.authorise"), perhaps("permit.tick"), once("permit.issue")],
    same: "permit",
    words: "what was looked at on the spot, and the permit issued there",
  },
  "accepted and on": {
    parts: [once("permit.accept"), once("permit.sign-on")],
    same: "permit",
    words: "the permit accepted, and its holder the first one on",
  },
  "off and handed back": {
    parts: [perhaps("permit.sign-off"), once("permit.hand-back"), any("permit.return-copy")],
    same: "permit",
    words: "the last one off, the permit handed back, and its copies",
  },
  "inspected and closed": {
    parts: [any("permit.return-copy"), once("permit.inspect"), once("permit.close")],
    same: "permit",
    words: "the place inspected, and the permit closed",
  },
  "restoring begun": {
    parts: [any("box.take-off"), once("return.start")],
    same: null,
    words: "the coordinator's lock off the box, and restoring begun",
  },
  "handed over and closed": {
    parts: [once("step.do"), perhaps("job.close")],
    same: null,
    words: "the plant handed over, and the job closed",
  },
  "alone, off and closed": {
    parts: [once("permit.end-alone"), once("return.start"), some("step.do"), perhaps("job.close")],
    same: null,
    words: "a minor isolation ended: clear, told, the own lock off, and the job closed",
  },
};

export const ROUND_KINDS = Object.keys(ROUNDS) as readonly RoundKind[];

/** More than these nobody reads before they sign. */
export const MOST_IN_A_ROUND = 40;

/** Acts as they come, by type and by what they name; true where they make up such a round. Cost: linear. */
export function isRound(
  kind: RoundKind,
  acts: readonly Readonly<{ type: string; input: Readonly<Record<string, unknown>> }>[],
): boolean {
  const { parts, same } = ROUNDS[kind];
  if (acts.length < 1 || acts.length > MOST_IN_A_ROUND) return false;
  let at = 0;
  for (const { type, times } of parts) {
    const from = at;
    const most = times === "once" || times === "perhaps" ? 1 : Infinity;
    while (at < acts.length && acts[at]!.type === type && at - from < most) at++;
    const isLeast = times === "perhaps" || times === "any";
    if (!isLeast && at === from) return false;
  }
  if (at < acts.length) return false;
  return same === null || acts.every(({ input }) => input[same] !== undefined && input[same] === acts[0]!.input[same]);
}
