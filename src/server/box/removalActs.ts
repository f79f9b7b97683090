import { z } from "zod";
import { decideRemoval, removalState, type RemovalCommand } from "../../core/removal/forcedRemoval";
import type { PersonId, Role } from "../../core/people/roles";
import { decidePermit } from "../../core/permit/life/permitLife";
import { peopleOn, type PermitFacts } from "../../core/permit/record/permitTypes";
import { permits } from "../db/schema";
import { namesOf } from "../people/signIn";
import { liftCut } from "../isolation/minorStore";
import { permitFacts } from "../permit/permitFacts";
import { loadPermit, savePermit } from "../permit/permitStore";
import { loadRemoval, nextRemoval, READ_REMOVAL, removalsOn, saveRemoval } from "./removalStore";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import { eq } from "drizzle-orm";

const ON_SITE: readonly Role[] = ["coordinator", "issuer", "holder", "isolator", "operator", "approver"];
const words = z.string().max(500, "at most 500 characters").default("");

/** Somebody left their lock on: the first step towards taking it off without them. */
export const openRemoval = defineAct({
  type: "removal.open",
  words: "ask for a lock to be removed",
  roles: ["coordinator", "issuer", "holder"],
  pin: true,
  input: z.object({
    permit: z.string(),
    owner: z.string("choose whose lock it is").min(1, "choose whose lock it is"),
    reason: z.string("the reason is missing").trim().min(3, "write the reason").max(500, "at most 500 characters"),
  }),
  run: ({ tx, person, now_ms }, input) => {
    const stored = loadPermit(tx, input.permit);
    const subject = input.permit;
    if (stored === null) return { ok: false, subject, refusal: { code: "unknown", what: "permit", name: subject } };
    const hung =
      peopleOn(stored.life).find((signOn) => signOn.person === input.owner) ??
      hungAlone(permitFacts(tx, stored, now_ms), input.owner);
    if (hung === undefined) {
      return { ok: false, subject, refusal: { code: "unknown", what: "lock of that person on permit", name: subject } };
    }
    if (hung.person === person.id) return { ok: false, subject, refusal: { code: "own lock", lock: hung.lock } };
    const open = removalsOn(tx, stored.row.id).find(
      ({ removal }) => removal.owner === hung.person && !removal.cut && !removal.calledOff,
    );
    if (open) {
      return {
        ok: false,
        subject,
        refusal: { code: "already done", what: `Asking for lock ${hung.lock} to be removed` },
      };
    }
    // Counted, not made up: later acts name it, and the ledger played again must come to the same.
    const id = nextRemoval(tx);
    saveRemoval(tx, {
      id,
      permitId: stored.row.id,
      removal: {
        permit: subject,
        lock: hung.lock,
        owner: hung.person,
        reason: input.reason,
        opened: { by: person.id, at_ms: now_ms, words: input.reason },
        lookedFor: null,
        attempts: [],
        authorised: null,
        cut: null,
        read: null,
        calledOff: null,
      },
    });
    return { ok: true, subject, answer: { removal: id, lock: hung.lock } };
  },
});

function step(type: string, command: RemovalCommand["type"], called: string, roles: readonly Role[]) {
  return defineAct({
    type,
    words: called,
    roles,
    pin: true,
    input: z.object({ removal: z.string(), words }),
    run: (context, input) => change(context, input.removal, command, input.words),
  });
}

export const lookedFor = step("removal.looked-for", "looked for", "say that its owner is not on site", ON_SITE);
export const triedToReach = step(
  "removal.tried",
  "tried to reach",
  "say that its owner was tried to be reached",
  ON_SITE,
);
export const authoriseRemoval = step("removal.authorise", "authorise", "authorise cutting a lock", ["approver"]);
export const cutLock = step("removal.cut", "cut", "cut a lock", ["coordinator", "issuer", "isolator"]);
export const callOffRemoval = step("removal.call-off", "call off", "call a removal off", ON_SITE);
export const readRemoval = step(READ_REMOVAL, "read", "sign that you have read it", []);

/** The lock of a minor isolation hangs on its point, not on a box: whose it is, is on or not. */
function hungAlone({ minor }: PermitFacts, owner: string) {
  return minor?.lock?.by === owner ? { person: minor.lock.by, lock: minor.lock.number } : undefined;
}

/** Load, decide, save; a cut takes the lock off its permit in the same transaction. */
function change(
  { tx, person, now_ms }: ActContext,
  id: string,
  type: RemovalCommand["type"],
  said: string,
): ActOutcome {
  const stored = loadRemoval(tx, id);
  const unknown = { ok: false, subject: "", refusal: { code: "unknown", what: "removal", name: id } } as const;
  if (stored === null) return unknown;
  const number = tx
    .select({ number: permits.number })
    .from(permits)
    .where(eq(permits.id, stored.permitId))
    .get()?.number;
  const permit = number === undefined ? null : loadPermit(tx, number);
  if (permit === null) return unknown;
  const subject = permit.row.number;
  const { owner, lock } = stored.removal;
  const isSignedOn = peopleOn(permit.life).some((signOn) => signOn.person === owner && signOn.lock === lock);
  const isOn = isSignedOn || hungAlone(permitFacts(tx, permit, now_ms), owner)?.lock === lock;
  const command = { type, by: person.id, roles: person.roles, at_ms: now_ms, words: said };
  const decided = decideRemoval(stored.removal, command, { isOn, nameOf: (one: PersonId) => namesOf(tx)(one) });
  if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
  // Who works alone left it on the point before they were on, or after they were off.
  if (type === "cut" && isSignedOn) {
    const cut = { type: "lock cut", of: owner, by: person.id, roles: person.roles, at_ms: now_ms } as const;
    const off = decidePermit(permit.life, cut, permitFacts(tx, permit, now_ms));
    if (!off.ok) return { ok: false, subject, refusal: off.refusal };
    savePermit(tx, permit, off.value);
  }
  // Alone it was the lock on the point itself: nothing holds there any more.
  if (type === "cut") liftCut(tx, permit.isolationIds, { lock, by: person.id, at_ms: now_ms });
  saveRemoval(tx, { ...stored, removal: decided.value });
  return { ok: true, subject, answer: { removal: id, lock, state: removalState(decided.value) } };
}
