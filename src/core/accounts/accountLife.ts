import { appoint, type Appointed, type Wanted } from "./appointments";
import type { AppointedFor } from "./appointedFor";
import { induct, type Induction } from "./induction";
import type { Competence, PersonId, Role } from "../people/roles";
import { accept, refuse, type Result } from "../refusal/result";

/** Who somebody is to the site: what they may do, for whom they work, and whether they are here. Never with secrets. */
export type Account = Readonly<{
  id: PersonId;
  name: string;
  signIn: string;
  roles: readonly Role[];
  competences: readonly Competence[];
  appointed: Appointed;
  /** A contractor's firm; empty for the site's own people. */
  firm: string;
  /** Of somebody of another firm: what they were shown of this site; null where nobody wrote it down, and for its own people. */
  induction: Induction | null;
  /** Of an issuer or approver: the areas and shifts for which they are appointed. */
  appointedFor: AppointedFor;
  active: boolean;
}>;

type Entered = Omit<Account, "appointed" | "induction">;

export type AccountCommand = Readonly<{ by: PersonId; now_ms: number }> &
  (
    | Readonly<{ type: "enter"; account: Entered; until: Wanted["until"]; inductedUntil_ms: number | null }>
    | Readonly<{
        type: "change";
        person: string;
        roles: readonly Role[];
        competences: readonly Competence[];
        until: Wanted["until"];
        firm: string;
        inductedUntil_ms: number | null;
        appointedFor: AppointedFor;
      }>
    /** Gone, or not let in any more. */
    | Readonly<{ type: "leave"; person: string }>
    | Readonly<{ type: "come back"; person: string }>
    /** Password and PIN made anew: they forgot them, or somebody else knows them. */
    | Readonly<{ type: "new secrets"; person: string }>
    /** Wrong tries that were counted against them forgiven. */
    | Readonly<{ type: "let in"; person: string }>
  );

export type AccountFacts = Readonly<{
  find: (person: string) => Account | undefined;
  isTaken: (signIn: string) => boolean;
  /** Others who are here and may coordinate. */
  otherCoordinators: (person: string) => number;
  /** What a person is tied to on site now, in words: locks, permits, posts, spaces. */
  ties: (person: string) => readonly string[];
}>;

/**
 * What becomes of an account, or why not. Nobody changes what they themselves may do, lets themselves in or makes their own
 * secrets anew here; somebody who may coordinate always stays; and nobody leaves with their locks hanging. Common practice,
 * no source. Cost: constant, but for what is asked of the facts.
 */
export function decideAccount(command: AccountCommand, facts: AccountFacts): Result<Account> {
  if (command.type === "enter") {
    const { account } = command;
    if (facts.isTaken(account.signIn)) return refuse({ code: "sign-in taken", signIn: account.signIn });
    const made = appoint({ competences: [], appointed: {} }, { ...command, competences: account.competences });
    if (!made.ok) return made;
    const inducted = induct(null, inductionOf(command, account.firm));
    return inducted.ok ? accept({ ...account, ...made.value, induction: inducted.value }) : inducted;
  }
  const account = facts.find(command.person);
  if (account === undefined) return refuse({ code: "unknown", what: "person", name: command.person });
  if (account.id === command.by) return refuse({ code: "own account" });
  const coordinates = account.active && account.roles.includes("coordinator");
  switch (command.type) {
    case "change": {
      const { roles, firm, appointedFor } = command;
      if (coordinates && !roles.includes("coordinator") && facts.otherCoordinators(account.id) === 0) {
        return refuse({ code: "last coordinator", who: account.name });
      }
      const made = appoint(account, command);
      if (!made.ok) return made;
      // Who comes back for another firm is shown the site anew.
      const inducted = induct(account.firm === firm ? account.induction : null, inductionOf(command, firm));
      return inducted.ok
        ? accept({
            ...account,
            ...made.value,
            roles: [...new Set(roles)],
            firm,
            appointedFor,
            induction: inducted.value,
          })
        : inducted;
    }
    case "leave": {
      if (!account.active)
        return refuse({ code: "already done", what: `${account.name} has left: this`, by: "somebody" });
      if (coordinates && facts.otherCoordinators(account.id) === 0) {
        return refuse({ code: "last coordinator", who: account.name });
      }
      const where = facts.ties(account.id);
      return where.length > 0
        ? refuse({ code: "still on site", who: account.name, where })
        : accept({ ...account, active: false });
    }
    case "come back":
      return accept({ ...account, active: true });
    case "new secrets":
    case "let in":
      return accept(account);
  }
}

const inductionOf = (
  { inductedUntil_ms, by, now_ms }: Readonly<{ inductedUntil_ms: number | null; by: PersonId; now_ms: number }>,
  firm: string,
) => ({ firm, until_ms: inductedUntil_ms, by, now_ms });
