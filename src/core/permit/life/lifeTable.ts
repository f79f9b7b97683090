import type { Role } from "../../people/roles";
import type { PermitAct, PermitState } from "../record/permitTypes";

export type Move = Readonly<{
  from: readonly PermitState[];
  /** Where it may lead; empty where the state stays. */
  to: readonly PermitState[];
  /** Any of these roles; "holder of it" is the one person who leads this permit. */
  who: readonly (Role | "holder of it" | "anybody" | "whose post it is")[];
  words: string;
  /** What is asked besides, in words for the table. */
  asks: string;
}>;

const BEFORE: readonly PermitState[] = ["draft", "checked", "authorised", "issued"];
const RUNNING: readonly PermitState[] = ["live", "suspended"];
/** Somebody may still be there. */
export const MANNED_STATES: readonly PermitState[] = ["live", "suspended", "run out", "watching"];
const MANNED = MANNED_STATES;
const UNTIL_DONE: readonly PermitState[] = [...BEFORE, ...RUNNING, "run out", "watching", "work done"];

const move = (
  from: readonly PermitState[],
  to: readonly PermitState[],
  who: Move["who"],
  words: string,
  asks = "",
): Move => ({ from, to, who, words, asks });

/** Every act on a permit: from which states, to which, by whom. The only place that says so; the docs are made from it. */
export const LIFE: Readonly<Record<PermitAct["type"], Move>> = {
  change: move(
    ["draft"],
    [],
    ["coordinator", "issuer", "holder of it"],
    "change a draft",
    "of the same kind; what was looked at before is looked at again",
  ),
  "send back": move(
    ["checked", "authorised", "issued"],
    ["draft"],
    ["coordinator", "issuer", "approver"],
    "send a permit back",
    "with remarks; nothing of it left out; what was signed before counts no more",
  ),
  check: move(["draft"], ["checked"], ["coordinator", "issuer"], "check a permit", "not by its holder"),
  authorise: move(
    ["checked"],
    ["authorised"],
    ["issuer"],
    "authorise a permit",
    "neither by its holder nor by who checked it",
  ),
  approve: move(
    ["checked", "authorised"],
    [],
    ["approver"],
    "approve a permit for safety",
    "not by its holder; where somebody must",
  ),
  issue: move(
    ["authorised"],
    ["issued"],
    ["issuer"],
    "issue a permit",
    "on the spot; everything that is asked before issue; not to oneself; within its time",
  ),
  accept: move(["issued"], ["live"], ["holder of it"], "accept a permit", "everything that is asked; within its time"),
  "begin alone": move(
    ["checked"],
    ["live"],
    ["holder of it"],
    "begin a minor isolation",
    "of a minor isolation only; their own lock hangs; everything that is asked; over before the shift changes; within its time",
  ),
  "end alone": move(
    ["live", "suspended", "run out"],
    ["closed"],
    ["holder of it", "coordinator", "issuer"],
    "end a minor isolation",
    "of a minor isolation only; by another only once nobody is on",
  ),
  "sign on": move(["live"], [], ["anybody"], "sign on", "in the crew; knows where the work is; a lock of their own"),
  "hand over": move(
    ["live"],
    [],
    ["coordinator", "issuer", "holder"],
    "hand over at shift change",
    "all pairs or none",
  ),
  "sign off": move(MANNED, [], ["anybody"], "sign off", "on, and not inside"),
  "call roll": move(
    MANNED,
    [],
    ["coordinator", "issuer", "holder of it"],
    "call the roll",
    "of those who are on, on duty or inside, each who answers",
  ),
  "lock cut": move(MANNED, [], ["anybody"], "cut a lock", "by a forced removal only"),
  tick: move(
    [...BEFORE, ...RUNNING],
    [],
    ["coordinator", "issuer", "holder of it", "gas tester", "fire watch", "attendant"],
    "confirm permit conditions",
    "somebody looked",
  ),
  "decide clash": move(
    [...BEFORE, ...RUNNING],
    [],
    ["coordinator", "issuer"],
    "decide a conflict with other work",
    "with a reason",
  ),
  stop: move(RUNNING, ["suspended"], ["anybody"], "stop the work", "a reason"),
  resume: move(
    ["suspended"],
    ["live"],
    ["issuer"],
    "let work go on",
    "everything that is asked; nobody inside; within its time",
  ),
  "begin break": move(["live"], ["suspended"], ["holder of it"], "begin a break", "nobody inside"),
  "end break": move(
    ["suspended"],
    ["live"],
    ["holder of it"],
    "end a break",
    "stopped by the break only; where air is read it stays suspended until work goes on",
  ),
  "go on": move(
    ["suspended"],
    ["live"],
    ["holder of it"],
    "go on after a break",
    "the break ended, the air read since; everything that is asked",
  ),
  revalidate: move(
    RUNNING,
    [],
    ["issuer"],
    "revalidate a permit",
    "the air read in the last 30 minutes where it counts; within its time",
  ),
  extend: move(
    RUNNING,
    [],
    ["issuer"],
    "extend a permit",
    "once, where the rules allow it; before its end; everybody on was asked; every copy says so; the air read in the last 30 minutes where it counts; not to oneself",
  ),
  "begin sample": move(
    [...BEFORE, ...RUNNING],
    [],
    ["gas tester"],
    "draw a sample",
    "instrument in date; a sensor that can see it; points in their order",
  ),
  read: move([...BEFORE, ...RUNNING], [], ["gas tester"], "write down a reading", "not before the sample has come"),
  "enter paper reading": move(
    [...BEFORE, ...RUNNING],
    [],
    ["coordinator", "issuer", "gas tester"],
    "type in a reading from paper",
    "read by a gas tester while the server was down; times in their order; waited for; what was read before something on record counts for nothing, unless it was bad",
  ),
  "report fire": move(
    ["issued", ...MANNED, "work done"],
    [],
    ["anybody"],
    "report a fire",
    "however small; work stops, and a watch after it begins anew",
  ),
  "note refusal": move(UNTIL_DONE, [], ["anybody"], "write down that somebody would not sign", "who, what, and why"),
  audit: move(
    ["issued", ...MANNED],
    [],
    ["coordinator", "issuer", "approver"],
    "audit a permit on the spot",
    "not by its holder or anybody on it; what is not as written stops the work",
  ),
  "find cause": move(
    [...BEFORE, ...RUNNING],
    [],
    ["gas tester", "issuer"],
    "write down the cause of a bad reading",
    "a fault of the instrument is shown by a second one; what was not found the issuer decides, and a gas detector stands there",
  ),
  explain: move(
    [...BEFORE, ...RUNNING],
    [],
    ["gas tester", "issuer"],
    "explain a reading",
    "within limits, and not as outside air",
  ),
  "replace reading": move(
    [...BEFORE, ...RUNNING],
    [],
    ["approver"],
    "say what is done instead of reading a gas",
    "that no instrument here sees; not by its holder",
  ),
  flush: move(
    [...BEFORE, ...RUNNING],
    [],
    ["gas tester", "attendant"],
    "ventilate a gas pocket",
    "where gas was found",
  ),
  "begin purge": move(
    [...BEFORE, ...RUNNING],
    [],
    ["gas tester", "attendant", "holder of it"],
    "begin to purge",
    "nobody inside",
  ),
  "end purge": move(
    [...BEFORE, ...RUNNING],
    [],
    ["gas tester", "attendant", "holder of it"],
    "end the purge",
    "not before its time",
  ),
  "begin ventilation": move(
    [...BEFORE, ...RUNNING],
    [],
    ["gas tester", "attendant", "holder of it"],
    "ventilate a space",
    "not while it is blown out; two bends at most",
  ),
  "end ventilation": move(
    [...BEFORE, ...MANNED, "work done"],
    [],
    ["gas tester", "attendant", "holder of it"],
    "say that the blower stands",
    "with anybody inside everybody comes out",
  ),
  "take post": move(["issued", ...MANNED], [], ["fire watch", "attendant"], "take a duty", "no other duty anywhere"),
  "leave post": move(
    [...MANNED, "issued", "work done"],
    [],
    ["whose post it is"],
    "leave a duty",
    "not while it is needed",
  ),
  "go in": move(
    ["live"],
    [],
    ["whose post it is"],
    "let somebody in",
    "signed on; the air fit; fewer than may be inside",
  ),
  "come out": move([...MANNED, "work done"], [], ["whose post it is"], "write somebody out", "inside"),
  talk: move(MANNED, [], ["whose post it is"], "write down a communication check", "somebody inside"),
  "watch check": move(
    ["watching"],
    [],
    ["fire watch", "approver", "holder of it"],
    "write down a periodic check",
    "at its time",
  ),
  "tell control room": move(
    ["watching"],
    [],
    ["fire watch", "holder of it"],
    "tell the control room",
    "with who was told",
  ),
  "final check": move(["watching"], [], ["approver"], "do the final check", "after the last look"),
  "end watch": move(["watching"], ["work done"], ["fire watch", "holder of it"], "end the watch", "nothing left of it"),
  "hang copy": move(
    [...BEFORE, ...RUNNING, "watching"],
    [],
    ["issuer", "holder of it"],
    "display a copy",
    "where it hangs",
  ),
  "return copy": move(UNTIL_DONE, [], ["issuer", "holder of it"], "bring a copy back", ""),
  "put in": move(
    [...BEFORE, ...RUNNING],
    [],
    ["holder of it", "isolator"],
    "fit a temporary blind or cap",
    "what and where",
  ),
  "take out": move(UNTIL_DONE, [], ["holder of it", "isolator"], "remove a temporary blind or cap", ""),
  "safeguard back": move(
    [...RUNNING, "run out", "work done"],
    [],
    ["holder of it"],
    "put a safeguard back",
    "and tried",
  ),
  "hand back": move(
    ["live", "suspended", "run out"],
    ["watching", "work done"],
    ["holder of it"],
    "hand back a permit",
    "nobody on or inside; what is left, where only part is done; watching after hot work",
  ),
  inspect: move(["work done"], [], ["issuer", "coordinator"], "inspect the place", "not by its holder"),
  close: move(
    ["work done"],
    ["closed"],
    ["issuer"],
    "close a permit",
    "inspected; every copy back; nothing left in; the safeguard back; not by its holder",
  ),
  cancel: move(
    [...BEFORE, "run out"],
    ["cancelled"],
    ["issuer", "coordinator", "holder of it"],
    "cancel a permit",
    "never accepted; nothing of it left out",
  ),
};

/** What the clock and the instruments do. */
export const BY_ITSELF: readonly Readonly<{ what: string; from: readonly PermitState[]; to: PermitState }>[] = [
  { what: "its time ends", from: ["issued", "live", "suspended"], to: "run out" },
  { what: "something that is asked holds no more", from: ["live"], to: "suspended" },
  { what: "an instrument reads over its limit, or is silent", from: ["live"], to: "suspended" },
];

/** The table of docs/permit-life.md. */
export function lifeTableMarkdown(): string {
  const list = (words: readonly string[]) => (words.length === 0 ? "stays" : words.join(", "));
  const rows = Object.entries(LIFE).map(
    ([act, { from, to, who, asks }]) => `| ${act} | ${list(from)} | ${list(to)} | ${list(who)} | ${asks} |`,
  );
  const alone = BY_ITSELF.map(({ what, from, to }) => `| ${what} | ${list(from)} | ${to} |`);
  return [
    "| act | from | to | by | asks |",
    "| --- | --- | --- | --- | --- |",
    ...rows,
    "",
    "By itself, with nobody signing:",
    "",
    "| what | from | to |",
    "| --- | --- | --- |",
    ...alone,
    "",
  ].join("\n");
}
