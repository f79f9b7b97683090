import type { PersonId, Role } from "../../core/people/roles";
import { decidePermit } from "../../core/permit/life/permitLife";
import type { PermitAct, PermitCommand } from "../../core/permit/record/permitTypes";
import { entriesOf } from "../../core/permit/record/permitLog";
import { permitFacts } from "./permitFacts";
import { loadPermit, savePermit } from "./permitStore";
import { settlePermit } from "./settlePermits";
import type { ActContext, ActOutcome } from "../act/act";

/** Adds who and when to what is asked of a permit. */
export function commandOf({ person, now_ms }: ActContext, act: PermitAct): PermitCommand {
  const who: Readonly<{ by: PersonId; roles: readonly Role[]; at_ms: number }> = {
    by: person.id,
    roles: person.roles,
    at_ms: now_ms,
  };
  return { ...act, ...who } as PermitCommand;
}

/**
 * Loads, decides, saves. What the clock has done meanwhile is written down first, as the clock's own act, even when
 * the person's is then refused.
 */
export function changePermit(context: ActContext, number: string, ...acts: readonly PermitAct[]): ActOutcome {
  const { tx, now_ms } = context;
  settlePermit(tx, number, now_ms);
  const stored = loadPermit(tx, number);
  if (stored === null) {
    return { ok: false, subject: number, refusal: { code: "unknown", what: "permit", name: number } };
  }
  const facts = permitFacts(tx, stored, now_ms);
  let { life } = stored;
  for (const act of acts) {
    const decided = decidePermit(life, commandOf(context, act), facts);
    if (!decided.ok) return { ok: false, subject: number, refusal: decided.refusal };
    life = decided.value;
  }
  savePermit(tx, stored, life);
  // Work that an act stopped is told of like any other stop: see ledger/alarms.
  const stop = entriesOf(life.log.slice(stored.life.log.length), "stopped").at(-1);
  return {
    ok: true,
    subject: number,
    answer: { permit: number, state: life.state, ...(stop ? { stopped: stop.cause } : {}) },
  };
}
