import type { PersonId, Role } from "../people/roles";
import { accept, refuse, type Result } from "../refusal/result";

/**
 * Taking off the personal lock of somebody who left it on.
 *
 *   opened ──looked for──▶ missing ──tried to reach, as often as asked──▶ missing ──authorise──▶ authorised ──cut──▶ cut
 *                                                                                                    cut ──owner reads──▶ told
 *   opened, missing, authorised ──call off (the owner came, or is inside)──▶ called off
 *
 * Invariants, asserted by checkRemoval:
 *   1. Cut means: looked for, then every attempt asked for, then authorised, then cut, in that order of time.
 *   2. Who authorises is an approver, and neither its owner nor the one who cuts.
 *   3. The owner never cuts it here: who is there takes the lock off and signs off.
 *   4. Only the owner has read it, and only after it was cut.
 *
 * Source: 29 CFR 1910.147(e)(3), from memory, asks the three: not at the facility, all reasonable efforts to reach, told
 * before work is resumed; a named manager, two people and at least two attempts are common practice.
 */
export type ForcedRemoval = Readonly<{
  permit: string;
  lock: string;
  owner: PersonId;
  reason: string;
  opened: Noted;
  /** Not on site, the place of work searched: how that was found out. */
  lookedFor: Noted | null;
  attempts: readonly Noted[];
  authorised: Noted | null;
  cut: Noted | null;
  read: Noted | null;
  calledOff: Noted | null;
}>;

export type Noted = Readonly<{ by: PersonId; at_ms: number; words: string }>;

type By = Readonly<{ by: PersonId; roles: readonly Role[]; at_ms: number; words: string }>;
export type RemovalCommand = By &
  Readonly<{ type: "looked for" | "tried to reach" | "authorise" | "cut" | "read" | "call off" }>;

/** Calls, messages, somebody sent to the house: as often as this, at least. Common practice. */
export const ATTEMPTS_ASKED = 2;

export type RemovalState = "opened" | "missing" | "authorised" | "cut" | "told" | "called off";

export function removalState(removal: ForcedRemoval): RemovalState {
  if (removal.calledOff) return "called off";
  if (removal.read) return "told";
  if (removal.cut) return "cut";
  if (removal.authorised) return "authorised";
  return removal.lookedFor ? "missing" : "opened";
}

/** What has to be done next, in words. */
export function removalNext(removal: ForcedRemoval): string {
  const left = ATTEMPTS_ASKED - removal.attempts.length;
  switch (removalState(removal)) {
    case "opened":
      return "Search the place of work, and make sure that its owner is not on site.";
    case "missing":
      return left > 0
        ? `Try to reach its owner, ${left === 1 ? "once" : `${left} times`} more at least.`
        : "A manager who did not ask for this authorises it.";
    case "authorised":
      return "Search once more, then cut it.";
    case "cut":
      return "Its owner is told before anything else, at the next sign-in.";
    case "told":
      return "Its owner has read it.";
    case "called off":
      return "Called off.";
  }
}

/** The only way a removal changes. `isOn` is whether the lock still hangs. */
export function decideRemoval(
  removal: ForcedRemoval,
  command: RemovalCommand,
  facts: Readonly<{ isOn: boolean; nameOf: (person: PersonId) => string }>,
): Result<ForcedRemoval> {
  const state = removalState(removal);
  const what = `Removal of lock ${removal.lock}`;
  const noted: Noted = { by: command.by, at_ms: command.at_ms, words: command.words.trim() };
  const needs = (...states: RemovalState[]) =>
    states.includes(state) ? null : refuse({ code: "wrong state", what, state, needs: states.join(" or ") });
  const said = (of: string) => (noted.words === "" ? refuse({ code: "reading missing", step: what, what: of }) : null);
  const owner = () => (command.by === removal.owner ? refuse({ code: "own lock", lock: removal.lock }) : null);
  const hangs = () => (facts.isOn ? null : refuse({ code: "already done", what: `Taking lock ${removal.lock} off` }));

  switch (command.type) {
    case "looked for":
      return (
        owner() ??
        hangs() ??
        needs("opened") ??
        said("where you searched and how you know") ??
        accept({ ...removal, lookedFor: noted })
      );
    case "tried to reach":
      return (
        owner() ??
        hangs() ??
        needs("missing") ??
        said("how you tried and what came of it") ??
        accept({ ...removal, attempts: [...removal.attempts, noted] })
      );
    case "authorise": {
      const first: string[] = [];
      if (removal.attempts.length < ATTEMPTS_ASKED) first.push(removalNext(removal));
      const no =
        owner() ??
        (command.roles.includes("approver")
          ? null
          : refuse({ code: "not yours to do", act: "authorise cutting a lock", needs: ["approver"] })) ??
        hangs() ??
        needs("missing") ??
        (command.by === removal.opened.by ? refuse({ code: "second person needed", step: what }) : null) ??
        (first.length > 0 ? refuse({ code: "out of order", step: what, first }) : null) ??
        said("why it may be cut");
      return no ?? accept({ ...removal, authorised: noted });
    }
    case "cut": {
      const no =
        owner() ??
        hangs() ??
        needs("authorised") ??
        (command.by === removal.authorised?.by ? refuse({ code: "second person needed", step: what }) : null);
      return no ?? accept({ ...removal, cut: noted });
    }
    case "read": {
      const no =
        (command.by === removal.owner
          ? null
          : refuse({ code: "not the holder", holder: facts.nameOf(removal.owner) })) ?? needs("cut");
      return no ?? accept({ ...removal, read: noted });
    }
    case "call off":
      return needs("opened", "missing", "authorised") ?? accept({ ...removal, calledOff: noted });
  }
}

/** Throws when an invariant is broken; run after every step in tests. */
export function checkRemoval(removal: ForcedRemoval): void {
  const broken = (rule: number) => {
    throw new Error(`invariant ${rule} of the removal of lock ${removal.lock} is broken`);
  };
  const { opened, lookedFor, attempts, authorised, cut, read, owner } = removal;
  if (authorised && (attempts.length < ATTEMPTS_ASKED || !lookedFor)) broken(1);
  if (cut) {
    if (!authorised || !lookedFor) return broken(1);
    const order = [opened, lookedFor, ...attempts, authorised, cut].map((one) => one.at_ms);
    if (order.some((at, i) => i > 0 && at < order[i - 1]!)) broken(1);
    if (authorised.by === owner || authorised.by === cut.by || authorised.by === opened.by) broken(2);
    if (cut.by === owner) broken(3);
  }
  if (read && (!cut || read.by !== owner || read.at_ms < cut.at_ms)) broken(4);
}
