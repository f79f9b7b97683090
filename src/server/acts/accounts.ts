import "server-only";
import { and, asc, count, desc, gt, max } from "drizzle-orm";
import type { Account } from "../../core/accounts/accountLife";
import { database } from "../db/database";
import { people, sessions } from "../db/schema";
import { shutOut } from "../people/attempts";
import { idle_ms } from "../people/signIn";
import { accountOf } from "./peopleActs";

export type AccountNow = Account & Readonly<{ shutUntil_ms: number | null; signedIn: number; seen_ms: number }>;

/**
 * Everybody, those who may sign in first, with until when wrong tries shut them out and where they are signed in. Cost: a few
 * queries.
 */
export function accountsNow(now_ms: number): AccountNow[] {
  const db = database();
  const all = db.select().from(people).orderBy(desc(people.active), asc(people.name)).all().map(accountOf);
  const shut = shutOut(db, all, now_ms);
  const open = db
    .select({ person: sessions.personId, n: count(), seen_ms: max(sessions.seenAt) })
    .from(sessions)
    .where(and(gt(sessions.expiresAt, now_ms), gt(sessions.seenAt, now_ms - idle_ms())))
    .groupBy(sessions.personId)
    .all();
  const signedIn = new Map(open.map((one) => [one.person, one]));
  return all.map((one) => {
    const left_ms = shut.get(one.id);
    const { n = 0, seen_ms = 0 } = signedIn.get(one.id) ?? {};
    return {
      ...one,
      shutUntil_ms: left_ms === undefined ? null : now_ms + left_ms,
      signedIn: n,
      seen_ms: seen_ms ?? 0,
    };
  });
}
