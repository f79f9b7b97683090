import { z } from "zod";
import { decideAccess, READ_RIGHTS } from "../../core/access/access";
import { mayRead } from "../../core/people/mayRead";
import { defineAct, type Act } from "../act/act";
import { accessNow, accessNumbered, addAccess, newToken, revoke } from "./accessStore";

const DAY_MS = 86_400_000;

/** Making and revoking tokens; `find` is every act that there is. */
export function accessActs(find: (type: string) => Act | undefined): Act[] {
  const make = defineAct({
    type: "access.make",
    words: "make a token",
    roles: [],
    pin: true,
    input: z.object({
      name: z.string().trim().min(3, "What it is for: say so").max(80, "What it is for: at most 80 characters"),
      rights: z.array(z.enum(READ_RIGHTS)).max(READ_RIGHTS.length, "what is read: each once").default([]),
      acts: z.array(z.string().max(60, "an act: at most 60 characters")).max(200, "at most 200 acts").default([]),
      days: z.coerce
        .number("For how many days: a number")
        .int("For how many days: a whole number")
        .min(1, "For how many days: at least 1")
        .max(10_000, "For how many days: fewer"),
    }),
    prepare: () => Promise.resolve(newToken()),
    run: ({ tx, person, now_ms }, { name, rights, acts, days }, token: string) => {
      const asked = { name, rights, acts, until_ms: now_ms + days * DAY_MS };
      const decided = decideAccess(
        asked,
        {
          alive: accessNow(tx, now_ms, person.id).length,
          mayTakeOut: mayRead("files", person),
          rolesOf: (act) => find(act)?.roles ?? null,
          wordsOf: (act) => find(act)?.words ?? act,
          ownRoles: person.roles,
        },
        now_ms,
      );
      if (!decided.ok) return { ok: false, subject: person.signIn, refusal: decided.refusal };
      const number = addAccess(tx, { ...decided.value, name, owner: person.id }, token, now_ms);
      return {
        ok: true,
        subject: number,
        answer: { token: number, did: `Token ${number} for ${name} counts for ${days} days.` },
        once: { secret: token },
      };
    },
  });
  const end = defineAct({
    type: "access.revoke",
    words: "revoke a token",
    roles: [],
    pin: false,
    input: z.object({ token: z.string().trim().max(20, "at most 20 characters") }),
    run: ({ tx, person, now_ms }, { token: number }) => {
      const access = accessNumbered(tx, number);
      const isTheirs = access?.owner === person.id || person.roles.includes("coordinator");
      // Whose it is nobody else learns.
      if (access === null || !isTheirs) {
        return { ok: false, subject: number, refusal: { code: "unknown", what: "token of yours", name: number } };
      }
      if (access.revoked_ms !== null) {
        return { ok: false, subject: number, refusal: { code: "already done", what: `Revoking ${number}` } };
      }
      revoke(tx, number, now_ms);
      return { ok: true, subject: number, answer: { token: number, did: `Token ${number} opens nothing any more.` } };
    },
  });
  return [make as Act, end as Act];
}
