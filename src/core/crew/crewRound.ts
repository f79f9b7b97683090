import { MANNED_STATES } from "../permit/life/lifeTable";
import { signedBy } from "../permit/record/permitLog";
import type { PermitLife } from "../permit/record/permitTypes";
import type { PersonId } from "../people/roles";
import { accept, refuse, type Result } from "../refusal/result";
import type { Refusal } from "../refusal/refusal";

/**
 * A crew signs on at one screen at the box, each with their own PIN and lock. Whoever leads or issued the work is there, asks
 * where it is, and has signed for being there once; without anybody coming or going that ends by itself.
 */
export type CrewRound = Readonly<{
  number: string;
  permit: string;
  /** Named present: the permit's holder, or who issued it. */
  lead: PersonId;
  begun_ms: number;
  /** When somebody last came, went, or was called. */
  last_ms: number;
  ended_ms: number | null;
}>;

/** Without anybody coming or going a crew round ends after this. */
export const CREW_IDLE_MS = 10 * 60_000;

/** Until when a round goes on if nobody comes or goes any more, in ms UTC. */
export const crewRoundUntil_ms = ({ last_ms, ended_ms }: CrewRound): number => ended_ms ?? last_ms + CREW_IDLE_MS;

/** An age below zero is a clock that was set: nobody knows how long ago it was, so it is over. */
export function isCrewRoundOpen(round: CrewRound, now_ms: number): boolean {
  return round.ended_ms === null && now_ms >= round.last_ms && now_ms < crewRoundUntil_ms(round);
}

/** Who may stand at the box for a permit: who leads it, who issued it, and who revalidated it last. */
export function crewLeads({ holder, issuer, log }: Pick<PermitLife, "holder" | "issuer" | "log">): PersonId[] {
  const revalidated = signedBy(log, "revalidate")?.by ?? null;
  return [...new Set([holder, issuer, revalidated].filter((one) => one !== null))];
}

type Who = Readonly<{ by: PersonId; at_ms: number; nameOf: (person: PersonId) => string }>;

/** A crew round as it begins; its number is the server's to give. */
export function beginCrewRound(permit: PermitLife, { by, at_ms, nameOf }: Who): Result<Omit<CrewRound, "number">> {
  const leads = crewLeads(permit);
  if (!leads.includes(by)) {
    return refuse({ code: "not present at crew", permit: permit.number, may: leads.map(nameOf) });
  }
  if (!MANNED_STATES.includes(permit.state)) {
    const what = `Permit ${permit.number}`;
    return refuse({ code: "wrong state", what, state: permit.state, needs: MANNED_STATES.join(" or ") });
  }
  return accept({ permit: permit.number, lead: by, begun_ms: at_ms, last_ms: at_ms, ended_ms: null });
}

/** Why nobody signs in this round at this screen now, whatever their PIN; null where they do. */
export function crewRoundFault(round: CrewRound, asked: Who & Readonly<{ permit: string }>): Refusal | null {
  const lead = asked.nameOf(round.lead);
  if (round.permit !== asked.permit || round.lead !== asked.by) {
    return { code: "crew round of another", crew: round.number, lead, permit: round.permit };
  }
  if (isCrewRoundOpen(round, asked.at_ms)) return null;
  return { code: "crew round over", crew: round.number, lead, idle: round.ended_ms === null };
}
