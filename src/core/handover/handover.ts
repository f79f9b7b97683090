import type { PersonId, Role } from "../people/roles";
import type { Refusal } from "../refusal/refusal";
import { accept, refuse, type Result } from "../refusal/result";

/**
 * One shift hands over to the next: everything that stands, is stopped, watched, lifted or not as planned is gone through
 * together, item by item. Who comes ticks each, or asks; both sign. What was signed is what was so at that moment.
 */
export type HandoverItem = Readonly<{
  /** Where it is; empty where the register does not say. */
  area: string;
  /** What it is about: a job, an isolation, a permit, a lock. */
  subject: string;
  words: string;
  /** What may hurt somebody. */
  bold: boolean;
}>;

export type AskedItem = Readonly<{
  item: string;
  words: string;
  answer: Readonly<{ by: PersonId; at_ms: number; words: string }> | null;
}>;

export type Handover = Readonly<{
  at_ms: number;
  going: PersonId;
  coming: PersonId;
  items: readonly HandoverItem[];
  asked: readonly AskedItem[];
  remarks: string;
}>;

/** They answer for a shift. Common practice, no source. */
export const ANSWER_FOR_A_SHIFT: readonly Role[] = ["coordinator", "issuer", "operator"];

/** An item by what it says: what says something else is another one. */
export const keyOf = ({ subject, words }: HandoverItem): string => `${subject}: ${words}`;

export type HandOverShift = Readonly<{
  by: PersonId;
  roles: readonly Role[];
  at_ms: number;
  coming: PersonId;
  /** Keys of what was gone through and understood. */
  read: readonly string[];
  asked: readonly Readonly<{ item: string; words: string }>[];
  remarks: string;
}>;

type Facts = Readonly<{
  items: readonly HandoverItem[];
  rolesOf: (person: PersonId) => readonly Role[];
  nameOf: (person: PersonId) => string;
}>;

/** Everything that is so now was gone through, nothing that is not, by two people who answer for a shift. */
export function handOverShift(command: HandOverShift, facts: Facts): Result<Handover> {
  const { by, at_ms, coming, read, asked, remarks } = command;
  if (coming === by) return refuse({ code: "handing over to oneself" });
  const fault = notForAShift(command.roles, "") ?? notForAShift(facts.rolesOf(coming), facts.nameOf(coming));
  if (fault) return refuse(fault);
  const now = new Set(facts.items.map(keyOf));
  const seen = new Set([...read, ...asked.map(({ item }) => item)]);
  const left = [...now].filter((key) => !seen.has(key));
  const gone = [...seen].filter((key) => !now.has(key));
  if (left.length + gone.length > 0) return refuse({ code: "not gone through", left, gone });
  return accept({
    at_ms,
    going: by,
    coming,
    items: facts.items,
    asked: asked.map((one) => ({ ...one, answer: null })),
    remarks,
  });
}

function notForAShift(roles: readonly Role[], who: string): Refusal | null {
  if (roles.some((role) => ANSWER_FOR_A_SHIFT.includes(role))) return null;
  return who === ""
    ? { code: "not yours to do", act: "hand over a shift", needs: [...ANSWER_FOR_A_SHIFT] }
    : { code: "not for a shift", who, needs: [...ANSWER_FOR_A_SHIFT] };
}

/** What was asked at a handover is answered, once. */
export function answerAsked(
  handover: Handover,
  command: Readonly<{ by: PersonId; at_ms: number; item: string; words: string }>,
): Result<Handover> {
  const { by, at_ms, item, words } = command;
  if (!handover.asked.some((one) => one.item === item && one.answer === null)) {
    return refuse({ code: "unknown", what: "open question of the handover", name: item });
  }
  const asked = handover.asked.map((one) => (one.item === item ? { ...one, answer: { by, at_ms, words } } : one));
  return accept({ ...handover, asked });
}
