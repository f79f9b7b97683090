import { randomBytes, randomUUID } from "node:crypto";
import { eq } from "drizzle-orm";
import { z } from "zod";
import { INSTRUMENT_KINDS } from "../../core/gear/instrumentKinds";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import { detectors } from "../db/schema";
import { tokenHash } from "./detectorStore";

/** Instruments that send by themselves: entered, given another token, shut out. A token is told once and kept as a hash. */

const COORDINATORS = ["coordinator"] as const;
const id = z
  .string("the instrument is missing")
  .trim()
  .regex(/^[\w-]{1,20}$/, "its number: letters, figures and hyphens, at most 20");

/** In place of the hash of a token: nothing hashes to it. */
const REVOKED = "revoked ";
export const isRevoked = (hash: string) => hash.startsWith(REVOKED);

const madeToken = () => Promise.resolve(randomBytes(24).toString("base64url"));

export const enterInstrument = defineAct({
  type: "instrument.enter",
  words: "enter an instrument that sends by itself",
  roles: COORDINATORS,
  pin: true,
  input: z.object({
    id,
    kind: z.enum(INSTRUMENT_KINDS, "say what it is"),
    /** Of a gas detector, beside oxygen and what burns. */
    gases: z
      .union([z.string().max(400, "at most 400 characters"), z.array(z.string().max(80)).max(40)])
      .default("")
      // As the ledger keeps it, it is read again.
      .transform((said) => (typeof said === "string" ? said.split(/[,;\n]/) : said))
      .transform((all) => [...new Set(all.map((one) => one.trim().toLowerCase()))].filter(Boolean)),
  }),
  prepare: madeToken,
  run: ({ tx }, { id: number, kind, gases }, token: string): ActOutcome => {
    if (tx.select().from(detectors).where(eq(detectors.id, number)).get()) {
      return { ok: false, subject: number, refusal: { code: "already done", what: `Entering ${number}` } };
    }
    const reads = kind === "gas" ? ["oxygen", "flammable", ...gases] : [];
    tx.insert(detectors)
      .values({ id: number, kind, reads, tokenHash: tokenHash(token) })
      .run();
    return {
      ok: true,
      subject: number,
      answer: { instrument: number, did: `${number} entered: ${kind}.` },
      once: { token },
    };
  },
});

export const newToken = defineAct({
  type: "instrument.new-token",
  words: "give an instrument a new token",
  roles: COORDINATORS,
  pin: true,
  input: z.object({ id }),
  prepare: madeToken,
  run: (context, { id: number }, token: string) =>
    changeToken(context, number, tokenHash(token), {
      did: `${number} has a new token; the one before sends nothing more.`,
      once: { token },
    }),
});

/** Lost, stolen or lent: what it sends is refused from now on, and where it is posted it is silent. */
export const revokeToken = defineAct({
  type: "instrument.revoke",
  words: "shut an instrument out",
  roles: COORDINATORS,
  pin: true,
  input: z.object({ id, words: z.string().trim().min(3, "write why").max(300, "at most 300 characters") }),
  run: (context, { id: number, words }) =>
    changeToken(context, number, REVOKED + randomUUID(), {
      did: `${number} is shut out, and what it sends is refused: ${words}`,
    }),
});

function changeToken(
  { tx }: ActContext,
  number: string,
  hash: string,
  { did, once }: Readonly<{ did: string; once?: Readonly<Record<string, string>> }>,
): ActOutcome {
  const row = tx.select().from(detectors).where(eq(detectors.id, number)).get();
  if (row === undefined) {
    return { ok: false, subject: number, refusal: { code: "unknown", what: "instrument", name: number } };
  }
  if (isRevoked(hash) && isRevoked(row.tokenHash)) {
    return { ok: false, subject: number, refusal: { code: "already done", what: `Shutting ${number} out` } };
  }
  tx.update(detectors).set({ tokenHash: hash }).where(eq(detectors.id, number)).run();
  // The page of the permit where it is posted shows it.
  const about: Readonly<Record<string, string>> = row.permit === null ? {} : { permit: row.permit };
  return { ok: true, subject: number, answer: { instrument: number, did, ...about }, ...(once ? { once } : {}) };
}
