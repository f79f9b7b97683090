import { refuse, accept, type Result } from "../../refusal/result";
import type { Role } from "../../people/roles";
import { needsApproval } from "../requirements/every";
import type { Ask } from "../requirements/ask";
import { afterWatchOf } from "../afterwatch/afterWatchOf";
import { inductionFault } from "../people/inducted";
import { inside } from "../people/entries";
import { kindRule } from "../kinds/kinds";
import { decideLogAct, isLogAct } from "../acts/logActs";
import { extensionFault } from "./extension";
import { LIFE } from "./lifeTable";
import { isInspected, stoppedByClock, watchedAnew } from "../record/clockSet";
import { copiesOf, lastOf, putInOf, signedBy, type LogEntry, type NewEntry } from "../record/permitLog";
import { peopleOn, type PermitCommand, type PermitFacts, type PermitLife } from "../record/permitTypes";
import { missingFor, missingWhileLive } from "../requirements/requirements";
import { comeOnAlone, goOff, handOver, signOn } from "../people/signOns";
import { heardBlower } from "../air/blower";
import { airIsFresh } from "../requirements/freshAir";
import { endsOnce } from "../../words/en/endsOnce";
import { stopped } from "../acts/stopped";

/**
 * The life of a permit to work. What may be done from where and by whom is the table of lifeTable; what is asked is in
 * asks. Both are data; here is how they are applied.
 *
 * Nothing is decided on a state that the clock has already ended: a permit is first taken as it is at that moment
 * (`asAt`), so a server that slept for hours refuses the first act as it would have refused it awake.
 */

const HOUR_MS = 3_600_000;

export function isRunOut(permit: Pick<PermitLife, "validTo_ms">, now_ms: number): boolean {
  return now_ms >= permit.validTo_ms;
}

/** The permit as the clock and the facts have it at this moment: run out, its blower heard to stand, or stopped for what is missing. */
export function asAt(permit: PermitLife, facts: PermitFacts, now_ms: number): PermitLife {
  const mayRunOut = permit.state === "issued" || permit.state === "live" || permit.state === "suspended";
  if (mayRunOut && isRunOut(permit, now_ms)) {
    // Dated to the second at which it ended, whenever that was noticed.
    return {
      ...permit,
      state: "run out",
      log: [...permit.log, { type: "ran out", at_ms: permit.validTo_ms, by: null }],
    };
  }
  // Nobody knows how long it was watched: it is watched again.
  if (permit.state === "work done" && watchedAnew(permit.log) !== null) return { ...permit, state: "watching" };
  if (OVER.has(permit.state)) return permit;
  const heard = heardBlower(permit, facts, now_ms);
  if (heard.state !== "live") return heard;
  const clock = stoppedByClock(heard.log);
  if (clock !== null) return stopped(heard, now_ms, null, "clock", clock);
  const missing = missingWhileLive({ permit: heard, facts, now_ms });
  return missing.length === 0 ? heard : stopped(heard, now_ms, null, missing[0]!.cause, reasonOf(missing));
}

/** Nobody works under it any more: what runs there then is nothing of the permit's. */
const OVER: ReadonlySet<PermitLife["state"]> = new Set(["run out", "work done", "closed", "cancelled"]);

export function reasonOf(missing: readonly Ask[]): string {
  const asked = (words: string) => `${words[0]!.toLowerCase()}${words.slice(1)}`;
  return endsOnce(missing.map(({ words, unmet }) => `${unmet} (asked: ${asked(words)})`).join("; "));
}

/** The only way a permit changes, but for what the clock does by itself. */
export function decidePermit(before: PermitLife, command: PermitCommand, facts: PermitFacts): Result<PermitLife> {
  const permit = asAt(before, facts, command.at_ms);
  const no = mayAct(permit, command, facts) ?? appointmentFault(command, facts);
  if (no) return no;
  const decided = decide(permit, command, facts);
  // What was just done may itself have made the permit stop.
  return decided.ok ? accept(asAt(decided.value, facts, command.at_ms)) : decided;
}

/** Roles to which somebody is appointed for areas and shifts. */
const APPOINTED: ReadonlySet<string> = new Set<Role>(["issuer", "approver"]);

/** Why an act that only an issuer or approver may do is not theirs here or now; stopping is anybody's, everywhere. */
function appointmentFault(command: PermitCommand, facts: PermitFacts) {
  const { who, words } = LIFE[command.type];
  if (command.by === null || !who.every((role) => APPOINTED.has(role))) return null;
  const far = facts.notAppointed(command.by);
  return far && refuse({ code: "not appointed", who: facts.nameOf(command.by), act: words, ...far });
}

/** Acts by which others come in between, or somebody else begins or ends it: none of them is done on the short route. */
const NOT_ALONE: ReadonlySet<PermitCommand["type"]> = new Set<PermitCommand["type"]>([
  "authorise",
  "approve",
  "issue",
  "accept",
  "sign on",
  "sign off",
  "hand over",
  "revalidate",
  "extend",
  "hand back",
  "inspect",
  "close",
  "hang copy",
  "put in",
]);

/** Why a permit is not begun, ended or handed on so: by the short route one person does all of it, and else nobody alone. */
function aloneFault({ number, details }: PermitLife, { type }: Pick<PermitCommand, "type">) {
  const isAlone = kindRule(details.kind).alone;
  if (isAlone ? NOT_ALONE.has(type) : type === "begin alone" || type === "end alone") {
    return refuse({ code: "short route", what: number, isMinor: isAlone });
  }
  return null;
}

/** Why the table keeps this person from this act in this state; null when it does not. */
export function mayAct(
  permit: PermitLife,
  command: Pick<PermitCommand, "type" | "by" | "roles">,
  facts: Pick<PermitFacts, "nameOf" | "timeOf">,
) {
  const { from, who, words } = LIFE[command.type];
  const alone = aloneFault(permit, command);
  if (alone) return alone;
  if (command.by === null && command.type !== "stop") {
    return refuse({ code: "not yours to do", act: words, needs: ["a person"] });
  }
  const roles = who.filter((one): one is Role => !NOT_ROLES.has(one));
  const isTheirs =
    who.includes("anybody") ||
    who.includes("whose post it is") ||
    command.by === null ||
    (who.includes("holder of it") && command.by === permit.holder) ||
    command.roles.some((role) => roles.includes(role));
  if (!isTheirs) {
    return roles.length === 0
      ? refuse({ code: "not the holder", holder: facts.nameOf(permit.holder) })
      : refuse({
          code: "not yours to do",
          act: words,
          needs: [...roles, ...(who.includes("holder of it") ? ["the holder of this permit"] : [])],
        });
  }
  if (permit.state === "run out" && !from.includes("run out")) {
    return refuse({ code: "run out", permit: permit.number, at: facts.timeOf(permit.validTo_ms) });
  }
  if (permit.state === "suspended" && !from.includes("suspended") && from.includes("live")) {
    const last = lastOf(permit.log, "stopped", "break begun", "break ended");
    return refuse({
      code: "work stopped",
      permit: permit.number,
      why: last?.type === "stopped" ? last.reason : last?.type === "break ended" ? "the air after a break" : "a break",
    });
  }
  if (!from.includes(permit.state)) {
    return refuse({
      code: "wrong state",
      what: `Permit ${permit.number}`,
      state: permit.state,
      needs: from.join(" or "),
    });
  }
  return null;
}

const NOT_ROLES: ReadonlySet<string> = new Set(["holder of it", "anybody", "whose post it is"]);

function decide(permit: PermitLife, command: PermitCommand, facts: PermitFacts): Result<PermitLife> {
  const now_ms = command.at_ms;
  const context = { permit, facts, now_ms };
  const log = (...entries: NewEntry[]): Pick<PermitLife, "log"> => ({
    log: [...permit.log, ...entries.map((entry) => ({ ...entry, at_ms: now_ms, by: command.by }) as LogEntry)],
  });
  const signed = (act: Extract<NewEntry, { type: "signed" }>["act"], words?: string) =>
    log({ type: "signed", act, ...(words ? { words } : {}) });
  const inTime = () =>
    isRunOut(permit, now_ms)
      ? refuse({ code: "run out", permit: permit.number, at: facts.timeOf(permit.validTo_ms) })
      : null;
  const notHolder = (code: "issuing to oneself" | "closing one's own permit" | "one's own permit") =>
    command.by === permit.holder ? refuse({ code }) : null;
  const asks = (act: "issue" | "accept", except: string | null = null) => {
    const isolated = isolationFault(permit, facts);
    if (isolated) return isolated;
    if (kindRule(permit.details.kind).isolation) {
      if (facts.litBy !== null) return refuse({ code: "under test", isolation: facts.litBy });
      if (facts.stale.length > 0) return refuse({ code: "prove again", proofs: facts.stale });
    }
    const missing = missingFor(act, context).filter(({ id }) => id !== except);
    return missing.length === 0
      ? null
      : refuse({
          code: "asks unmet",
          permit: permit.number,
          asks: missing.map(({ words, unmet }) => `${words}: ${unmet}`),
        });
  };
  const within = inside(permit.log).map(({ person }) => facts.nameOf(person));
  const nobodyInside = () => (within.length > 0 ? refuse({ code: "still inside", people: within }) : null);

  if (isLogAct(command)) return decideLogAct(permit, command, facts);
  switch (command.type) {
    case "change": {
      const { what, holder, validFrom_ms, validTo_ms, details } = command;
      if (details.kind !== permit.details.kind) {
        return refuse({ code: "not of this kind", permit: permit.number, kind: permit.details.kind });
      }
      return accept({ ...permit, holder, validFrom_ms, validTo_ms, details, ...log({ type: "changed", what }) });
    }
    case "send back": {
      const left = stillOut(permit);
      return left.length > 0
        ? refuse({ code: "not back", permit: permit.number, things: left })
        : accept({ ...permit, state: "draft", issuer: null, ...log({ type: "sent back", words: command.words }) });
    }
    case "check":
      return notHolder("one's own permit") ?? accept({ ...permit, state: "checked", ...signed("check") });
    case "authorise": {
      const checker = signedBy(permit.log, "check")?.by;
      const no =
        notHolder("one's own permit") ??
        (checker === command.by ? refuse({ code: "checked by oneself", permit: permit.number }) : null);
      return no ?? accept({ ...permit, state: "authorised", ...signed("authorise") });
    }
    case "approve": {
      const no =
        notHolder("one's own permit") ??
        (needsApproval(context) ? null : refuse({ code: "no approval needed", permit: permit.number }));
      return no ?? accept({ ...permit, ...signed("approve", command.words) });
    }
    case "issue": {
      // Copies of an issue that was sent back keep their numbers.
      const hung = copiesOf(permit.log).length;
      const copies = command.copies.map((where, i): NewEntry => ({
        type: "copy hung",
        copy: hung + i + 1,
        where,
        second: false,
      }));
      const no = notHolder("issuing to oneself") ?? asks("issue") ?? validityFault(permit, now_ms) ?? inTime();
      return (
        no ??
        accept({ ...permit, state: "issued", issuer: command.by, ...log({ type: "signed", act: "issue" }, ...copies) })
      );
    }
    case "accept":
      return (
        inductionFault(command.by!, facts) ??
        asks("accept") ??
        inTime() ??
        accept({ ...permit, state: "live", ...signed("accept") })
      );
    case "begin alone": {
      const [change_ms] = facts.shiftChanges_ms(now_ms, permit.validTo_ms - 1);
      const tooLong =
        change_ms === undefined
          ? null
          : refuse({ code: "validity", reason: `the shift changes at ${facts.timeOf(change_ms)}, before it ends` });
      const no = asks("accept") ?? validityFault(permit, now_ms) ?? inTime() ?? tooLong;
      if (no) return no;
      const on = comeOnAlone(permit, command, facts);
      return on.ok ? accept({ ...on.value, state: "live", ...signed("accept") }) : on;
    }
    case "end alone": {
      const others = peopleOn(permit).filter(({ person }) => person !== command.by);
      if (others.length > 0) {
        return refuse({ code: "people on", people: others.map(({ person }) => facts.nameOf(person)) });
      }
      const off = permit.signOns.map((one) => (one.off_ms === null ? { ...one, off_ms: now_ms } : one));
      return accept({ ...permit, signOns: off, state: "closed", closedBy: command.by, ...signed("close") });
    }
    case "sign on": {
      if (!kindRule(permit.details.kind).isolation) {
        return refuse({ code: "no isolation" });
      }
      return isolationFault(permit, facts) ?? signOn(permit, command, facts);
    }
    case "hand over":
      return isolationFault(permit, facts) ?? handOver(permit, command, facts);
    case "sign off":
    case "lock cut":
      return goOff(permit, command, facts);
    case "stop":
      return accept(stopped(permit, now_ms, command.by, command.cause, command.reason));
    case "begin break":
      return nobodyInside() ?? accept({ ...permit, state: "suspended", ...log({ type: "break begun" }) });
    case "end break": {
      const last = lastOf(permit.log, "stopped", "break begun", "break ended");
      if (last?.type === "stopped") return refuse({ code: "issuer resumes", permit: permit.number });
      if (last?.type === "break ended") return refuse({ code: "already done", what: "Ending the break" });
      // The air is read once everybody is back: what was read during the break says nothing of after it.
      if (kindRule(permit.details.kind).air) return accept({ ...permit, ...log({ type: "break ended" }) });
      return asks("accept") ?? accept({ ...permit, state: "live", ...log({ type: "break ended" }) });
    }
    case "go on": {
      const last = lastOf(permit.log, "stopped", "break begun", "break ended");
      const no =
        (last?.type === "stopped" ? refuse({ code: "issuer resumes", permit: permit.number }) : null) ??
        (last?.type === "break ended" ? null : refuse({ code: "break not over", permit: permit.number })) ??
        asks("accept");
      return no ?? accept({ ...permit, state: "live", ...signed("go on") });
    }
    case "resume": {
      const no = nobodyInside() ?? notHolder("one's own permit") ?? asks("accept", REVALIDATION);
      return no ?? accept({ ...permit, state: "live", ...signed("resume", command.words) });
    }
    case "revalidate": {
      const stale = airIsFresh(context) ? null : refuse({ code: "air not fresh", permit: permit.number });
      const no = notHolder("one's own permit") ?? isolationFault(permit, facts) ?? stale;
      return no ?? accept({ ...permit, ...signed("revalidate", command.words) });
    }
    case "extend": {
      const no =
        notHolder("one's own permit") ??
        isolationFault(permit, facts) ??
        extensionFault(permit, command, facts, now_ms);
      const { until_ms: to_ms, words, stillOn: asked } = command;
      const extended = log({ type: "extended", from_ms: permit.validTo_ms, to_ms, words, asked });
      return no ?? accept({ ...permit, validTo_ms: to_ms, ...extended });
    }
    case "hand back": {
      const still = peopleOn(permit).map((signOn) => facts.nameOf(signOn.person));
      const no = (still.length > 0 ? refuse({ code: "people on", people: still }) : null) ?? nobodyInside();
      const isWatched = kindRule(permit.details.kind).afterWatch && signedBy(permit.log, "accept") !== undefined;
      const left: NewEntry[] = command.left ? [{ type: "left to do", words: command.left }] : [];
      const back = log({ type: "signed", act: "hand back" }, ...left);
      return no ?? accept({ ...permit, state: isWatched ? "watching" : "work done", ...back });
    }
    case "end watch": {
      const left = afterWatchOf(permit, facts, now_ms)?.left ?? [];
      const no = left.length > 0 ? refuse({ code: "watch not over", permit: permit.number, left }) : null;
      return no ?? accept({ ...permit, state: "work done", ...signed("end watch") });
    }
    case "inspect":
      return notHolder("closing one's own permit") ?? accept({ ...permit, ...signed("inspect", command.words) });
    case "close": {
      const left = stillOut(permit);
      const no =
        notHolder("closing one's own permit") ??
        (left.length > 0 ? refuse({ code: "not back", permit: permit.number, things: left }) : null) ??
        (isInspected(permit.log) ? null : refuse({ code: "not inspected", permit: permit.number }));
      return no ?? accept({ ...permit, state: "closed", closedBy: command.by, ...signed("close") });
    }
    case "cancel": {
      const begun = signedBy(permit.log, "accept") !== undefined;
      const left = [...stillOut(permit), ...peopleOn(permit).map(({ person }) => facts.nameOf(person))];
      const no =
        (begun ? refuse({ code: "was live", permit: permit.number }) : null) ??
        (left.length > 0 ? refuse({ code: "not back", permit: permit.number, things: left }) : null);
      return no ?? accept({ ...permit, state: "cancelled", ...signed("cancel") });
    }
  }
}

/** At a resumption a revalidation that is owed is given with it: the issuer looks at everything anyway. */
const REVALIDATION = "revalidation";

/** Copies that still hang, what was put in, a safeguard that is not back. */
export function stillOut(permit: PermitLife): string[] {
  const copies = copiesOf(permit.log)
    .filter(({ returned_ms }) => returned_ms === null)
    .map(({ copy, where }) => `copy ${copy} ${where}`);
  const things = putInOf(permit.log)
    .filter(({ out_ms }) => out_ms === null)
    .map(({ what, where }) => `${what} at ${where}`);
  const { details } = permit;
  const bypassed = details.kind === "safeguard bypass" && signedBy(permit.log, "accept") !== undefined;
  const back = lastOf(permit.log, "safeguard back") !== undefined;
  return [...copies, ...things, ...(bypassed && !back ? [`safeguard ${details.safeguard}`] : [])];
}

function isolationFault(permit: PermitLife, facts: PermitFacts) {
  if (!kindRule(permit.details.kind).isolation) return null;
  if (facts.isolations.length === 0) return refuse({ code: "no isolation" });
  const why = facts.isolations.flatMap((isolation) => isolation.notHeld ?? [])[0];
  if (why === undefined) return null;
  return why.code === "not proven"
    ? refuse({ code: "isolation not proven", isolation: why.isolation, open: why.openSteps })
    : refuse({ code: "not held", why });
}

function validityFault(permit: PermitLife, now_ms: number) {
  const length_ms = permit.validTo_ms - permit.validFrom_ms;
  const { longest_h } = kindRule(permit.details.kind);
  if (length_ms <= 0) return refuse({ code: "validity", reason: "it ends before it begins" });
  if (length_ms > longest_h * HOUR_MS) {
    return refuse({
      code: "validity",
      reason: `it is longer than ${longest_h} hours, so write one for each day or shift, linked to the last`,
    });
  }
  if (permit.validFrom_ms > now_ms) return refuse({ code: "validity", reason: "it has not begun yet" });
  return null;
}
