import { createHash, randomBytes } from "node:crypto";
import { and, count, desc, eq, gt, isNull } from "drizzle-orm";
import { counts, type Access } from "../../core/access/access";
import type { Db, Tx } from "../db/database";
import { accessTokens, people } from "../db/schema";
import { toPerson, type Person } from "../people/signIn";

const hashOf = (token: string) => createHash("sha256").update(token).digest("hex");

/** Long enough that nobody guesses one, in letters that stand in an address. */
export const newToken = () => randomBytes(24).toString("base64url");

type Row = typeof accessTokens.$inferSelect;
const toAccess = ({ number, ownerId, name, rights, acts, until, revokedAt }: Row): Access => ({
  number,
  owner: ownerId,
  name,
  rights,
  acts,
  until_ms: until,
  revoked_ms: revokedAt,
});

/** Writes a new one and answers its number. */
export function addAccess(
  tx: Tx,
  { owner, name, rights, acts, until_ms }: Omit<Access, "number" | "revoked_ms">,
  token: string,
  now_ms: number,
): string {
  const { n } = tx.select({ n: count() }).from(accessTokens).get()!;
  const number = `T-${String(n + 1).padStart(4, "0")}`;
  tx.insert(accessTokens)
    .values({
      number,
      tokenHash: hashOf(token),
      ownerId: owner,
      name,
      rights: [...rights],
      acts: [...acts],
      madeAt: now_ms,
      until: until_ms,
      revokedAt: null,
    })
    .run();
  return number;
}

export function accessNumbered(tx: Tx, number: string): Access | null {
  const row = tx.select().from(accessTokens).where(eq(accessTokens.number, number)).get();
  return row === undefined ? null : toAccess(row);
}

export function revoke(tx: Tx, number: string, now_ms: number): void {
  tx.update(accessTokens).set({ revokedAt: now_ms }).where(eq(accessTokens.number, number)).run();
}

/** Who has left leaves no door open. */
export function revokeAllOf(tx: Tx, owner: string, now_ms: number): void {
  tx.update(accessTokens)
    .set({ revokedAt: now_ms })
    .where(and(eq(accessTokens.ownerId, owner), isNull(accessTokens.revokedAt)))
    .run();
}

/** Those that still count, the newest first: of one person, or of everybody. */
export function accessNow(tx: Tx, now_ms: number, owner?: string): Access[] {
  const alive = and(isNull(accessTokens.revokedAt), gt(accessTokens.until, now_ms));
  return tx
    .select()
    .from(accessTokens)
    .where(owner === undefined ? alive : and(alive, eq(accessTokens.ownerId, owner)))
    .orderBy(desc(accessTokens.number))
    .all()
    .map(toAccess);
}

/** For whom a token speaks, and what it opens; null where it does not count, or they are here no more. */
export function personOfToken(
  db: Db,
  token: string,
  now_ms: number,
): Readonly<{ person: Person; access: Access }> | null {
  const row = db
    .select({ access: accessTokens, person: people })
    .from(accessTokens)
    .innerJoin(people, eq(people.id, accessTokens.ownerId))
    .where(and(eq(accessTokens.tokenHash, hashOf(token)), eq(people.active, true)))
    .get();
  if (row === undefined) return null;
  const access = toAccess(row.access);
  return counts(access, now_ms) ? { person: toPerson(row.person, now_ms), access } : null;
}
