import { randomUUID } from "node:crypto";
import { z } from "zod";
import { decideAccount, type Account } from "../../core/accounts/accountLife";
import { EVERYWHERE } from "../../core/accounts/appointedFor";
import { readPeopleList, type Listed } from "../../core/accounts/peopleList";
import { COMPETENCES, type PersonId } from "../../core/people/roles";
import { problemLine, type Read } from "../../core/plant/problem";
import { defineAct } from "../act/act";
import { people } from "../db/schema";
import { dayEnd_ms } from "../runtime/siteDay";
import { accountFacts, madeSecrets, type Secrets } from "./peopleActs";

/** The last moment of a day by the site's clock; null for none. */
const lastOf = (day: string | null): number | null => (day === null ? null : dayEnd_ms(day));

/** As a form of one person would say it. */
export const asEntered = ({ name, signIn, roles, competences, until, firm, inductedUntil }: Listed) => ({
  account: { name, signIn, roles, competences, firm, appointedFor: EVERYWHERE },
  until: Object.fromEntries(COMPETENCES.map((one) => [one, lastOf(until[one] ?? null)])),
  inductedUntil_ms: lastOf(inductedUntil),
});

/** Everybody of a list, or nobody: one whose row cannot be is a reason to look at the whole list again. */
export const enterList = defineAct({
  type: "person.enter-list",
  words: "enter a list of people",
  roles: ["coordinator"],
  pin: true,
  input: z.object({
    list: z
      .string()
      .min(1, "The list: paste its rows, or choose its file")
      .max(60_000, "The list: at most 60,000 characters"),
  }),
  prepare: async (_, { list }) => {
    const read = readPeopleList(list);
    const secrets: Secrets[] = [];
    // One after the other: whoever signs an act meanwhile waits for one hash and not for two hundred.
    for (let i = 0; read.ok && i < read.value.length; i++) secrets.push(await madeSecrets());
    return { read, secrets };
  },
  run: ({ tx, person, now_ms }, _, { read, secrets }: EnteredList) => {
    if (!read.ok) {
      const [first, ...others] = read.problems;
      return { ok: false, subject: "", refusal: { code: "bad list", first: problemLine(first!), more: others.length } };
    }
    const facts = accountFacts(tx);
    const entered: Account[] = [];
    for (const listed of read.value) {
      const { account, ...more } = asEntered(listed);
      const whole = { ...account, id: randomUUID() as PersonId, active: true };
      const decided = decideAccount({ type: "enter", account: whole, ...more, by: person.id, now_ms }, facts);
      if (!decided.ok) return { ok: false, subject: account.signIn, refusal: decided.refusal };
      entered.push(decided.value);
    }
    entered.forEach((one, index) => {
      const { passwordHash, pinHash } = secrets[index]!;
      tx.insert(people)
        .values({ ...one, passwordHash, pinHash })
        .run();
    });
    const n = entered.length;
    return {
      ok: true,
      subject: `${n} ${n === 1 ? "person" : "people"}`,
      answer: {
        people: entered.map(({ id }) => id).join(" "),
        did: `${n} ${n === 1 ? "person" : "people"} entered: ${entered.map(({ name }) => name).join(", ")}.`,
      },
      once: Object.fromEntries(entered.map(({ signIn }, i) => [signIn, `${secrets[i]!.password} ${secrets[i]!.pin}`])),
    };
  },
});
type EnteredList = Readonly<{ read: Read<readonly Listed[]>; secrets: readonly Secrets[] }>;
