import "server-only";
import type { Access, ReadRight } from "../../core/access/access";
import { database } from "../db/database";
import { currentPerson } from "../people/session";
import type { Person } from "../people/signIn";
import { now_ms } from "../runtime/clock";
import { personOfToken } from "./accessStore";

/** Who asks: somebody who is signed in, or a program by a token of theirs, which opens only what it was made for. */
export type Asking = Readonly<{ person: Person; access: Access | null }>;

const BEARER = /^Bearer ([\w-]{20,100})$/;

/** Whether a program asks: a browser sends such a header from no page of another site by itself. */
export const isByToken = (request: Request): boolean => request.headers.has("authorization");

/** Null for nobody. A token that does not count is nobody's, whoever is signed in beside it. */
export async function asking(request: Request): Promise<Asking | null> {
  if (!isByToken(request)) {
    const person = await currentPerson();
    return person && { person, access: null };
  }
  const token = BEARER.exec(request.headers.get("authorization") ?? "")?.[1];
  return token === undefined ? null : personOfToken(database(), token, now_ms());
}

/** Whether they may read this: who is signed in may, as far as their roles go; a program only what its token opens. */
export const opens = ({ access }: Asking, right: ReadRight): boolean =>
  access === null || access.rights.includes(right);
