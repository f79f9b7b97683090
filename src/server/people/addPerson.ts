import { randomUUID } from "node:crypto";
import type { Competence, Role } from "../../core/people/roles";
import type { Db } from "../db/database";
import { people } from "../db/schema";
import { hashSecret } from "./secrets";

/** Adds a person; throws when the sign-in name is taken. */
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
  }>,
): Promise<string> {
  const [passwordHash, pinHash] = await Promise.all([hashSecret(person.password), hashSecret(person.pin)]);
  const id = randomUUID();
  db.insert(people)
    .values({
      id,
      name: person.name,
      signIn: person.signIn.toLowerCase(),
      roles: person.roles,
      competences: person.competences,
      passwordHash,
      pinHash,
      firm: person.firm ?? "",
    })
    .run();
  return id;
}
