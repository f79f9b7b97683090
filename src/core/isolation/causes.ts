import { stepLabel } from "../procedure/steps";
import { accept, refuse, type Result } from "../refusal/result";
import type { IsolationCommand, IsolationFacts, IsolationLife } from "./isolation";

/** A device's clock may be so far off without anybody noticing. Common practice, no source. */
const CLOCK_OFF_MS = 2 * 60_000;

type Cause = Readonly<{ what: string; at_ms: number }>;

/** The last of what a command follows: the approval, the steps before it, and what was said of its own step. */
function causeOf(life: IsolationLife, command: IsolationCommand, facts: Pick<IsolationFacts, "approvedAt_ms">): Cause {
  const approval: Cause = { what: `the approval of ${life.number}`, at_ms: facts.approvedAt_ms };
  if (!("step" in command)) return approval;
  const step = life.steps.find(({ id }) => id === command.step);
  if (step === undefined) return approval;
  const label = stepLabel(step);
  const before = life.steps.flatMap((one): Cause[] =>
    one.done && step.after.includes(one.id) ? [{ what: stepLabel(one), at_ms: one.done.at_ms }] : [],
  );
  const own = [
    step.begun,
    step.stuck,
    ...(step.failures ?? []).flatMap((failure) => [failure, failure.cause, failure.inError]),
  ].flatMap((said): Cause[] => (said ? [{ what: label, at_ms: said.at_ms }] : []));
  return [approval, ...before, ...own].reduce((last, one) => (one.at_ms > last.at_ms ? one : last));
}

/**
 * The command at a time that is not before what it follows: a device's clock that is a little slow is set right; one that
 * is wrong is told so, for then nobody knows when it was done. The server's own moves only where its clock was set back. Cost: linear in the steps.
 */
export function afterItsCause<C extends IsolationCommand>(
  life: IsolationLife,
  command: C,
  facts: Pick<IsolationFacts, "approvedAt_ms" | "timeOf">,
): Result<C> {
  const cause = causeOf(life, command, facts);
  if (command.at_ms >= cause.at_ms) return accept(command);
  // The server's own clock was set back since: it is later than it says.
  return !command.kept || cause.at_ms - command.at_ms <= CLOCK_OFF_MS
    ? accept({ ...command, at_ms: cause.at_ms })
    : refuse({
        code: "before its cause",
        said: facts.timeOf(command.at_ms),
        what: cause.what,
        at: facts.timeOf(cause.at_ms),
      });
}
