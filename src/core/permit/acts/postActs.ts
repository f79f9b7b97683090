import { accept, refuse } from "../../refusal/result";
import { afterWatchOf } from "../afterwatch/afterWatchOf";
import { CHECK_GRACE_MS, watchMayLeave } from "../afterwatch/afterWatch";
import { watchedFrom_ms } from "../afterwatch/afterWatchOf";
import { afterWatchRule, watchersNeeded } from "../requirements/hotWork";
import { inside } from "../people/entries";
import { kindRule } from "../kinds/kinds";
import { lastOf, signedBy, withEntries } from "../record/permitLog";
import { peopleOn, type CommandOf, type PermitFacts, type PermitLife } from "../record/permitTypes";
import { inductionFault } from "../people/inducted";
import { onPost } from "../people/posts";

/** Fire watches and attendants come and go without a gap, and look when they are due. */
export const postActs = {
  "take post": (permit: PermitLife, command: CommandOf<"take post">, facts: PermitFacts) => {
    const { post } = kindRule(permit.details.kind);
    if (post !== command.post)
      return refuse({ code: "not of this kind", permit: permit.number, kind: permit.details.kind });
    if (!command.roles.includes(command.post)) {
      return refuse({ code: "not yours to do", act: "take a duty", needs: [command.post] });
    }
    const person = command.by!;
    const stranger = inductionFault(person, facts);
    if (stranger !== null) return stranger;
    const here = [...onPost(permit.log), ...peopleOn(permit), ...inside(permit.log)].some(
      (one) => one.person === person,
    );
    const where = here ? permit.number : facts.elsewhere(person);
    if (where !== null) return refuse({ code: "other duty", who: facts.nameOf(person), where });
    return accept(withEntries(permit, command, { type: "post taken", post: command.post, person }));
  },

  "leave post": (permit: PermitLife, command: CommandOf<"leave post">, facts: PermitFacts) => {
    const person = command.by!;
    const there = onPost(permit.log).filter(({ post }) => post === command.post);
    if (!there.some((watch) => watch.person === person)) {
      return refuse({ code: "not on post", permit: permit.number, post: command.post });
    }
    const left = there.filter((watch) => watch.person !== person);
    const why = postNeeded(permit, left.length, facts, command.at_ms);
    if (why !== null) return refuse({ code: "post needed", permit: permit.number, why });
    const to = left.at(-1)?.person ?? null;
    return accept(withEntries(permit, command, { type: "post left", post: command.post, person, to }));
  },

  "watch check": (permit: PermitLife, command: CommandOf<"watch check">, facts: PermitFacts) => {
    const watch = afterWatchOf(permit, facts, command.at_ms);
    if (watch === null) return refuse({ code: "not of this kind", permit: permit.number, kind: permit.details.kind });
    const due = watch.checks.find(
      (check) => check.done === null && Math.abs(check.due_ms - command.at_ms) <= CHECK_GRACE_MS,
    );
    if (due === undefined) {
      const next = watch.checks.find((check) => check.done === null && check.due_ms > command.at_ms);
      return refuse({ code: "no look due", next: next ? facts.timeOf(next.due_ms) : null });
    }
    const { words } = command;
    return accept(withEntries(permit, command, { type: "watch check", due_ms: due.due_ms, words }));
  },

  "tell control room": (permit: PermitLife, command: CommandOf<"tell control room">, facts: PermitFacts) => {
    const watch = afterWatchOf(permit, facts, command.at_ms);
    if (watch !== null && command.at_ms < watch.continuousUntil_ms) {
      return refuse({ code: "watch not over", permit: permit.number, left: watch.left });
    }
    return accept(withEntries(permit, command, { type: "control room told", who: command.who }));
  },

  "final check": (permit: PermitLife, command: CommandOf<"final check">, facts: PermitFacts) => {
    const watch = afterWatchOf(permit, facts, command.at_ms);
    if (watch !== null && command.at_ms < watch.until_ms - CHECK_GRACE_MS) {
      return refuse({ code: "watch not over", permit: permit.number, left: watch.left });
    }
    return accept(withEntries(permit, command, { type: "final check", words: command.words }));
  },
};

/** Why the post may not be left with so many still there; null when it may. */
export function postNeeded(permit: PermitLife, left: number, facts: PermitFacts, now_ms: number): string | null {
  const { details, state } = permit;
  if (details.kind === "confined space entry") {
    const within = inside(permit.log).length;
    if (left > 0 || within === 0) return null;
    return `${within === 1 ? "somebody is" : `${within} people are`} inside`;
  }
  if (details.kind !== "hot work" || signedBy(permit.log, "accept") === undefined) return null;
  if (state === "watching") {
    const from_ms = watchedFrom_ms(permit.log)!;
    if (left > 0 || watchMayLeave(afterWatchRule(details.afterWatch), permit.log, from_ms, now_ms)) return null;
    return "the watch after the work runs without a break";
  }
  if (state !== "live" && state !== "suspended" && state !== "run out") return null;
  // Through breaks too: what smoulders does not stop for dinner.
  const needs = watchersNeeded(details);
  if (left >= needs) return null;
  const isBreak = lastOf(permit.log, "break begun", "break ended")?.type === "break begun";
  return `${needs} ${needs === 1 ? "is" : "are"} needed${isBreak ? ", through breaks too" : ""}, and ${left} would be left`;
}
