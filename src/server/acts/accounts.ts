import "server-only";
import { asc, desc } from "drizzle-orm";
import type { Account } from "../../core/accounts/accountLife";
import { database } from "../db/database";
import { people } from "../db/schema";
import { shutOut } from "../people/attempts";
import { accountOf } from "./peopleActs";

export type AccountNow = Account & Readonly<{ shutUntil_ms: number | null }>;

/** Everybody, those who may sign in first, with until when wrong tries shut them out. Cost: a few queries a person. */
export function accountsNow(now_ms: number): AccountNow[] {
  const db = database();
  const all = db.select().from(people).orderBy(desc(people.active), asc(people.name)).all().map(accountOf);
  const shut = shutOut(db, all, now_ms);
  return all.map((one) => {
    const left_ms = shut.get(one.id);
    return { ...one, shutUntil_ms: left_ms === undefined ? null : now_ms + left_ms };
  });
}
