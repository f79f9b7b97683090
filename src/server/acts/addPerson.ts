import { randomUUID } from "node:crypto";
import type { Induction } from "../../core/accounts/induction";
import type { Competence, Role } from "../../core/people/roles";
import type { Db } from "../db/database";
import { people } from "../db/schema";
import { here, onCommandLine, type Where } from "../ledger/byTheServer";
import { hashPassword, hashPin } from "../people/secrets";

/** Adds a person, with a row in the ledger that says who may what; throws when the sign-in name is taken. */
export async function addPerson(
  db: Db,
  person: Readonly<{
    name: string;
    signIn: string;
    roles: readonly Role[];
    competences: readonly Competence[];
    password: string;
    pin: string;
    firm?: string;
    induction?: Induction;
  }>,
  where: Where = here(),
): Promise<string> {
  const [passwordHash, pinHash] = await Promise.all([hashPassword(person.password), hashPin(person.pin)]);
  const id = randomUUID();
  const { name, roles, competences, firm = "", induction = null } = person;
  const signIn = person.signIn.toLowerCase();
  onCommandLine(
    db,
    {
      type: "person.entered",
      subject: signIn,
      input: { id, name, signIn, roles, competences, firm, induction },
      did: `${name} entered: ${roles.join(", ") || "no role"}.`,
    },
    (tx) =>
      tx.insert(people).values({ id, name, signIn, roles, competences, passwordHash, pinHash, firm, induction }).run(),
    where,
  );
  return id;
}
