import { randomUUID } from "node:crypto";
import { eq } from "drizzle-orm";
import { z } from "zod";
import type { AppointedFor } from "../../core/accounts/appointedFor";
import { isSignIn, SIGN_IN_ASKED } from "../../core/accounts/peopleList";
import { decideAccount, type Account, type AccountCommand, type AccountFacts } from "../../core/accounts/accountLife";
import { COMPETENCES, ROLES, type Competence, type PersonId } from "../../core/people/roles";
import type { Tx } from "../db/database";
import { knownDevices, people, sessions } from "../db/schema";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import { line } from "../job/jobActs";
import { revokeAllOf } from "../access/accessStore";
import { tiesOf } from "../box/tiesOf";
import { forgive } from "../people/attempts";
import { hashPassword, hashPin, newSecrets as secretsToHand } from "../people/secrets";

/** Long rather than mixed, as OWASP's ASVS asks of level 2 (2.1.1, from memory). */
const PASSWORD_LEAST = 12;

const COORDINATORS = ["coordinator"] as const;

export const accountOf = (row: typeof people.$inferSelect): Account => ({
  id: row.id as PersonId,
  name: row.name,
  signIn: row.signIn,
  roles: row.roles,
  competences: row.competences,
  appointed: row.appointed,
  firm: row.firm,
  induction: row.induction,
  appointedFor: row.appointedFor,
  active: row.active,
});

export function accountFacts(tx: Tx): AccountFacts {
  const all = tx.select().from(people).all().map(accountOf);
  return {
    find: (person) => all.find(({ id }) => id === person),
    isTaken: (signIn) => all.some((one) => one.signIn === signIn),
    otherCoordinators: (person) =>
      all.filter(({ id, active, roles }) => id !== person && active && roles.includes("coordinator")).length,
    ties: (person) => tiesOf(tx, person),
  };
}

/** Password and PIN as they are handed over: shown once, and kept only as hashes. */
export async function madeSecrets() {
  const { password, pin } = secretsToHand();
  const [passwordHash, pinHash] = await Promise.all([hashPassword(password), hashPin(pin)]);
  return { password, pin, passwordHash, pinHash };
}
export type Secrets = Awaited<ReturnType<typeof madeSecrets>>;

function changed(
  { tx, person, now_ms }: ActContext,
  said: CommandOf,
  write: (account: Account) => Readonly<{ did: string; once?: Readonly<Record<string, string>> }>,
): ActOutcome {
  const command = { ...said, by: person.id, now_ms } as AccountCommand;
  const facts = accountFacts(tx);
  const decided = decideAccount(command, facts);
  const subject = command.type === "enter" ? command.account.signIn : (facts.find(command.person)?.signIn ?? "");
  if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
  const { did, once } = write(decided.value);
  return { ok: true, subject, answer: { person: decided.value.id, did }, ...(once ? { once } : {}) };
}
type CommandOf = AccountCommand extends infer One ? (One extends unknown ? Omit<One, "by" | "now_ms"> : never) : never;

const of = { person: z.string() };
/** The last moment of the last day; null for no end. */
const until = z
  .number("Until when: a day")
  .int("Until when: a day")
  .min(0, "Until when: a day")
  .max(8.64e15, "Until when: a day")
  .nullish();
const rights = {
  roles: z.array(z.enum(ROLES)).min(1, "choose at least one role"),
  competences: z.array(z.enum(COMPETENCES)).default([]),
  firm: z.string().trim().max(80, "at most 80 characters").default(""),
  electricalUntil_ms: until,
  "high-voltageUntil_ms": until,
  mechanicalUntil_ms: until,
  processUntil_ms: until,
  /** Where and when an issuer or approver is appointed; empty for everywhere and always. */
  areas: z
    .array(z.string().trim().min(1, "name an area").max(120, "at most 120 characters"))
    .max(100, "at most 100 areas")
    .default([]),
  shifts: z
    .array(z.number("a shift: the hour at which it begins").int("a whole hour").min(0, "from 0").max(23, "to 23"))
    .max(24, "at most 24 shifts")
    .default([]),
  /** Of somebody of another firm; null where nobody showed them the site. */
  inductedUntil_ms: until,
};
type Rights = Readonly<{ [Field in `${Competence}Until_ms`]?: number | null }>;
const appointedForOf = ({ areas, shifts }: Pick<AppointedFor, "areas" | "shifts">) => ({
  areas: [...new Set(areas)],
  shifts: [...new Set(shifts)].sort((a, b) => a - b),
});
const inducted = ({ inductedUntil_ms = null }: Readonly<{ inductedUntil_ms?: number | null }>) => ({
  inductedUntil_ms,
});
const untilOf = (input: Rights) => Object.fromEntries(COMPETENCES.map((one) => [one, input[`${one}Until_ms`] ?? null]));

const enteredSchema = z.object({
  name: line("The name", 80),
  signIn: z
    .string()
    .trim()
    .toLowerCase()
    .max(40, `The sign-in name: ${SIGN_IN_ASKED}`)
    .refine(isSignIn, `The sign-in name: ${SIGN_IN_ASKED}`),
  ...rights,
});
/** What a row of the ledger entered somebody with. */
export function enteredRights(input: unknown) {
  const { name, signIn, roles, competences, firm, ...ends } = enteredSchema.parse(input);
  return {
    account: { name, signIn, roles, competences, firm, appointedFor: appointedForOf(ends) },
    until: untilOf(ends),
    ...inducted(ends),
  };
}

const enterPerson = defineAct({
  type: "person.enter",
  words: "enter a person",
  roles: COORDINATORS,
  pin: true,
  input: enteredSchema,
  prepare: () => madeSecrets(),
  run: (context, input, made: Secrets) => {
    const { name, signIn, roles, competences, firm } = input;
    const id = randomUUID() as PersonId;
    const account = { id, active: true, name, signIn, roles, competences, firm, appointedFor: appointedForOf(input) };
    return changed(context, { type: "enter", account, until: untilOf(input), ...inducted(input) }, (entered) => {
      const { passwordHash, pinHash, password, pin } = made;
      context.tx
        .insert(people)
        .values({ ...entered, passwordHash, pinHash })
        .run();
      return { did: `${entered.name} entered: ${entered.roles.join(", ")}.`, once: { password, pin } };
    });
  },
});

const changePerson = defineAct({
  type: "person.change",
  words: "change what somebody may do",
  roles: COORDINATORS,
  pin: true,
  input: z.object({ ...of, ...rights }),
  run: (context, input) =>
    changed(
      context,
      { type: "change", ...input, until: untilOf(input), ...inducted(input), appointedFor: appointedForOf(input) },
      (account) => {
        const { id, name, roles, competences, appointed, firm, induction, appointedFor } = account;
        const rights = { roles, competences, appointed, firm, induction, appointedFor };
        context.tx.update(people).set(rights).where(eq(people.id, id)).run();
        return { did: `${name} is now: ${[...roles, ...competences].join(", ")}.` };
      },
    ),
});

const leave = defineAct({
  type: "person.leave",
  words: "say that somebody has left",
  roles: COORDINATORS,
  pin: true,
  input: z.object({ ...of, words: line("Why", 300) }),
  run: (context, { person, words }) =>
    changed(context, { type: "leave", person }, ({ id, name }) => {
      context.tx.update(people).set({ active: false }).where(eq(people.id, id)).run();
      context.tx.delete(sessions).where(eq(sessions.personId, id)).run();
      revokeAllOf(context.tx, id, context.now_ms);
      return { did: `${name} signs in no more: ${words}` };
    }),
});

const comeBack = defineAct({
  type: "person.come-back",
  words: "let somebody sign in again",
  roles: COORDINATORS,
  pin: true,
  input: z.object(of),
  run: (context, { person }) =>
    changed(context, { type: "come back", person }, ({ id, name }) => {
      context.tx.update(people).set({ active: true }).where(eq(people.id, id)).run();
      return { did: `${name} may sign in again.` };
    }),
});

const newSecrets = defineAct({
  type: "person.new-secrets",
  words: "make somebody's password and PIN anew",
  roles: COORDINATORS,
  pin: true,
  input: z.object(of),
  prepare: () => madeSecrets(),
  run: (context, { person }, { passwordHash, pinHash, password, pin }: Secrets) =>
    changed(context, { type: "new secrets", person }, ({ id, name, signIn }) => {
      context.tx.update(people).set({ passwordHash, pinHash }).where(eq(people.id, id)).run();
      context.tx.delete(sessions).where(eq(sessions.personId, id)).run();
      forgive(context.tx, { id, signIn });
      return {
        did: `${name} has a new password and a new PIN, and is signed out everywhere.`,
        once: { password, pin },
      };
    }),
});

const letIn = defineAct({
  type: "person.let-in",
  words: "forgive wrong tries",
  roles: COORDINATORS,
  pin: true,
  input: z.object(of),
  run: (context, { person }) =>
    changed(context, { type: "let in", person }, ({ id, name, signIn }) => {
      const forgiven = forgive(context.tx, { id, signIn });
      return { did: `${name} may try again: ${forgiven} wrong ${forgiven === 1 ? "try" : "tries"} forgiven.` };
    }),
});

/** One's own PIN, signed with the one of before. */
const ownPin = defineAct({
  type: "person.own-pin",
  words: "choose a new PIN",
  roles: [],
  pin: true,
  input: z.object({ next: z.string().regex(/^\d{4,12}$/, "The new PIN: 4 to 12 figures") }),
  forLedger: () => ({}),
  prepare: async (_, { next }) => ({ pinHash: await hashPin(next) }),
  run: ({ tx, person }, _, { pinHash }: Readonly<{ pinHash: string }>) => {
    tx.update(people).set({ pinHash }).where(eq(people.id, person.id)).run();
    return { ok: true, subject: person.signIn, answer: { did: `${person.name} chose a new PIN.` } };
  },
});

/** One's own password, signed with the PIN. Whoever else knew the old one is signed out. */
const ownPassword = defineAct({
  type: "person.own-password",
  words: "choose a new password",
  roles: [],
  pin: true,
  input: z.object({
    next: z
      .string()
      .min(PASSWORD_LEAST, `The new password: at least ${PASSWORD_LEAST} characters`)
      .max(200, "The new password: at most 200 characters"),
  }),
  forLedger: () => ({}),
  prepare: async (_, { next }) => ({ passwordHash: await hashPassword(next) }),
  run: ({ tx, person }, _, { passwordHash }: Readonly<{ passwordHash: string }>) => {
    tx.update(people).set({ passwordHash }).where(eq(people.id, person.id)).run();
    tx.delete(sessions).where(eq(sessions.personId, person.id)).run();
    const did = `${person.name} chose a new password and is signed out everywhere.`;
    return { ok: true, subject: person.signIn, answer: { did } };
  },
});

/** A phone was lost, or a tablet left signed in: everything that is signed in as somebody is signed out. */
const signOutEverywhere = defineAct({
  type: "person.sign-out-everywhere",
  words: "sign somebody out everywhere",
  roles: [],
  pin: true,
  input: z.object({ person: z.string().default("") }),
  run: ({ tx, person }, input) => {
    const whose = input.person === "" ? person.id : input.person;
    const row = tx.select().from(people).where(eq(people.id, whose)).get();
    const subject = row?.signIn ?? "";
    if (row === undefined) return { ok: false, subject, refusal: { code: "unknown", what: "person", name: whose } };
    if (row.id !== person.id && !person.roles.includes("coordinator")) {
      const refusal = { code: "not yours to do", act: "sign somebody else out", needs: COORDINATORS } as const;
      return { ok: false, subject, refusal };
    }
    const ended = tx.delete(sessions).where(eq(sessions.personId, row.id)).run().changes;
    tx.delete(knownDevices).where(eq(knownDevices.personId, row.id)).run();
    const did = `${row.name} is signed out everywhere: ${ended} ${ended === 1 ? "sign-in" : "sign-ins"} ended.`;
    return { ok: true, subject, answer: { did } };
  },
});

export const PEOPLE_ACTS = [
  enterPerson,
  changePerson,
  leave,
  comeBack,
  newSecrets,
  letIn,
  ownPin,
  ownPassword,
  signOutEverywhere,
];
