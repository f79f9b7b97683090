import { ANSWERING, levelOf, nextLevel_ms, unansweredWords } from "@/core/alarm/alarm";
import { database } from "@/server/db/database";
import { recentAlarms } from "@/server/ledger/alarms";
import { currentPerson } from "@/server/people/session";
import { namesOf } from "@/server/people/signIn";
import { now_ms } from "@/server/runtime/clock";

export const dynamic = "force-dynamic";

/** Who answered is told for so long. */
const TOLD_MS = 60_000;

/** Alarms that stand, and those that somebody has just answered. */
export async function GET(): Promise<Response> {
  const person = await currentPerson();
  if (person === null) return new Response(null, { status: 401 });
  const db = database();
  const now = now_ms();
  const nameOf = namesOf(db);
  const shown = recentAlarms(db).filter(({ answered }) => answered === null || now - answered.at_ms < TOLD_MS);
  const next = shown.flatMap((one) => nextLevel_ms(one, now) ?? (one.answered ? [one.answered.at_ms + TOLD_MS] : []));
  return Response.json({
    mayAnswer: person.roles.some((role) => ANSWERING.includes(role)),
    // Looked at again then: something becomes more, or is told no longer.
    again_ms: next.length === 0 ? null : Math.max(1000, Math.min(...next) - now),
    alarms: shown.map((one) => ({
      seq: one.seq,
      subject: one.subject,
      level: levelOf(one, now),
      words: unansweredWords(one, now),
      answeredBy: one.answered === null ? null : nameOf(one.answered.by),
    })),
  });
}
