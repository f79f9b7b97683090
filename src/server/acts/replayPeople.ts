import { eq } from "drizzle-orm";
import { z } from "zod";
import { appoint, type Wanted } from "../../core/accounts/appointments";
import { EVERYWHERE } from "../../core/accounts/appointedFor";
import { induct, inductionSchema } from "../../core/accounts/induction";
import { readPeopleList } from "../../core/accounts/peopleList";
import { COMPETENCES, ROLES, type PersonId } from "../../core/people/roles";
import type { Tx } from "../db/database";
import { people } from "../db/schema";
import { enteredRights } from "./peopleActs";
import { asEntered } from "./peopleListAct";

type Entry = Readonly<{ type: string; by: string; recordedAt_ms: number; input: unknown; answer: unknown }>;
const answered = z.object({ answer: z.object({ person: z.string().optional(), people: z.string().optional() }) });
const onCommandLine = z.object({
  id: z.string(),
  roles: z.array(z.enum(ROLES)),
  competences: z.array(z.enum(COMPETENCES)),
  firm: z.string().default(""),
  induction: inductionSchema.nullable().default(null),
});
type Entered = Readonly<{
  account: Pick<typeof people.$inferSelect, "roles" | "competences" | "firm" | "appointedFor">;
}> &
  Pick<Wanted, "until"> &
  Readonly<{ inductedUntil_ms: number | null }>;

/**
 * What somebody could do once a row of the ledger had entered them: their secrets no ledger knows, and so they are there from
 * the beginning, with what they may do at the end. False where the row enters nobody.
 */
export function entersAgain(to: Tx, { type, by, recordedAt_ms, input, answer }: Entry): boolean {
  const set = (id: string, rights: Partial<typeof people.$inferInsert>) =>
    void to
      .update(people)
      .set({ ...rights, active: true })
      .where(eq(people.id, id))
      .run();
  const enter = (id: string | undefined, { account, until, inductedUntil_ms }: Entered) => {
    const { competences, firm, roles, appointedFor } = account;
    const said = { by: by as PersonId, now_ms: recordedAt_ms };
    const appointed = appoint({ competences: [], appointed: {} }, { competences, until, ...said });
    const inducted = induct(null, { firm, until_ms: inductedUntil_ms, ...said });
    if (id === undefined || !appointed.ok || !inducted.ok) throw new Error(`a ${type} of the ledger enters nobody`);
    set(id, { roles, firm, appointedFor, ...appointed.value, induction: inducted.value });
  };
  if (type === "person.entered") {
    const { id, ...rights } = onCommandLine.parse(input);
    set(id, { ...rights, appointed: {}, appointedFor: EVERYWHERE });
    return true;
  }
  if (type === "person.enter") {
    enter(answered.parse(answer).answer.person, enteredRights(input));
    return true;
  }
  if (type === "person.enter-list") {
    const ids = answered.parse(answer).answer.people?.split(" ") ?? [];
    const read = readPeopleList(z.object({ list: z.string() }).parse(input).list);
    if (!read.ok) throw new Error("a list of people in the ledger cannot be read any more");
    read.value.forEach((listed, index) => enter(ids[index], asEntered(listed)));
    return true;
  }
  return false;
}
