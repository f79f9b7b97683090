import type { PersonId, Role } from "../people/roles";
import { accept, refuse, type Result } from "../refusal/result";

/**
 * An alarm is a row of the ledger that everybody is told of: work has stopped. It stands on every screen until somebody who
 * answers for such things says by name that they see to it, or until something is done about it. The longer nobody does, the
 * louder it is.
 */
export type Alarm = Readonly<{
  /** Its row in the ledger. */
  seq: number;
  /** The permit. */
  subject: string;
  at_ms: number;
  answered: Readonly<{ by: PersonId; at_ms: number }> | null;
}>;

/** Who may say that they see to it. Common practice, no source. */
export const ANSWERING: readonly Role[] = ["coordinator", "issuer", "operator", "approver", "holder"];

/**
 * When an alarm that nobody answers becomes more, in seconds: then whoever silenced it hears it again, and it says for how long
 * nobody has come. Common practice, no source.
 */
const ESCALATES_s: readonly number[] = [120, 300, 900];

/** How often it has become more: 0 at first. */
export function levelOf({ at_ms, answered }: Pick<Alarm, "at_ms" | "answered">, now_ms: number): number {
  return answered !== null ? 0 : ESCALATES_s.filter((after_s) => now_ms - at_ms >= after_s * 1000).length;
}

/** When it next becomes more, in ms; null where it does not. */
export function nextLevel_ms({ at_ms, answered }: Pick<Alarm, "at_ms" | "answered">, now_ms: number): number | null {
  if (answered !== null) return null;
  const next_s = ESCALATES_s.find((after_s) => at_ms + after_s * 1000 > now_ms);
  return next_s === undefined ? null : at_ms + next_s * 1000;
}

/** Acts on a permit by which somebody who may has seen to what stopped it. */
export const SEES_TO_IT: readonly string[] = [
  "permit.resume",
  "permit.hand-back",
  "permit.end-watch",
  "permit.close",
  "permit.cancel",
  "permit.end-alone",
];

/** Somebody sees to it. */
export function answer(
  alarm: Alarm,
  { by, at_ms }: Readonly<{ by: PersonId; at_ms: number }>,
  nameOf: (person: PersonId) => string,
): Result<Alarm> {
  return alarm.answered === null
    ? accept({ ...alarm, answered: { by, at_ms } })
    : refuse({ code: "already done", what: `Answering the alarm of ${alarm.subject}`, by: nameOf(alarm.answered.by) });
}

/** For how long nobody has answered, as it is said: from two minutes on. */
export function unansweredWords(alarm: Pick<Alarm, "at_ms" | "answered">, now_ms: number): string | null {
  if (levelOf(alarm, now_ms) === 0) return null;
  const min = Math.floor((now_ms - alarm.at_ms) / 60_000);
  return `Nobody has answered for ${min < 120 ? `${min} min` : `${Math.floor(min / 60)} h`}.`;
}
