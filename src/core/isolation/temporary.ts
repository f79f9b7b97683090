import type { PersonId } from "../people/roles";
import { accept, refuse, type Result } from "../refusal/result";

/**
 * Points lifted for a while, for a test.
 *
 *   asked ──all whom it reaches agreed, nobody on──▶ running ──locked and proved again──▶ ended
 *     └────call off──▶ called off
 *
 * Invariants, asserted by checkTemporary:
 *   1. It runs or has ended only after it began; it has an end only once it ended.
 *   2. Nobody agreed twice for one job.
 */
export type Temporary = Readonly<{
  number: string;
  state: "asked" | "running" | "ended" | "called off";
  lift: readonly string[];
  affected: readonly Affected[];
  startedAt_ms: number | null;
  endedAt_ms: number | null;
}>;

/** A job that it would reach, and who agreed for it. */
export type Affected = Readonly<{ job: string; agreedBy: PersonId | null; agreedAt_ms: number | null }>;

type By = Readonly<{ by: PersonId; at_ms: number }>;
export type TemporaryCommand = By &
  (Readonly<{ type: "agree"; job: string }> | Readonly<{ type: "start" | "call off" | "end" }>);

/** Measured at this moment: since it was asked for others may have come to work there. */
export type TemporaryFacts = Readonly<{
  /** Jobs that lifting its points would reach now, its own among them. */
  reaches: readonly string[];
  /** Names of the people who are on at a job. */
  peopleOn: (job: string) => readonly string[];
  /** Who may answer for a job: its holder, and those of its permits. */
  holders: (job: string) => readonly Readonly<{ id: PersonId; name: string }>[];
}>;

/** May it be asked for at all? `locked` are the points of its isolation that are locked now, `open` another of it. */
export function askFault(
  asked: Readonly<{ isolation: string; state: string; lift: readonly string[] }>,
  facts: Readonly<{ locked: ReadonlySet<string>; open: string | null }>,
) {
  const { isolation, state, lift } = asked;
  if (state !== "proven") {
    return refuse({ code: "wrong state", what: `Isolation ${isolation}`, state, needs: "proven" });
  }
  const strange = lift.find((tag) => !facts.locked.has(tag));
  if (strange !== undefined) return refuse({ code: "unknown", what: `lock of ${isolation} on`, name: strange });
  return facts.open === null ? null : refuse({ code: "already done", what: `Asking for ${facts.open}` });
}

/** The only way it changes. */
export function decideTemporary(one: Temporary, command: TemporaryCommand, facts: TemporaryFacts): Result<Temporary> {
  const needs = command.type === "end" ? "running" : "asked";
  if (one.state !== needs) {
    return refuse({ code: "wrong state", what: `Test ${one.number}`, state: one.state, needs });
  }
  switch (command.type) {
    case "agree":
      return agree(one, command, facts);
    case "start": {
      const left = facts.reaches.filter((job) => !hasAgreed(one, job));
      if (left.length > 0) return refuse({ code: "not agreed", jobs: left });
      const on = facts.reaches.flatMap((job) => facts.peopleOn(job));
      if (on.length > 0) return refuse({ code: "people on", people: on });
      return accept({ ...one, state: "running", startedAt_ms: command.at_ms });
    }
    case "call off":
      return accept({ ...one, state: "called off" });
    case "end":
      return accept({ ...one, state: "ended", endedAt_ms: command.at_ms });
  }
}

const hasAgreed = ({ affected }: Temporary, job: string) =>
  affected.some((other) => other.job === job && other.agreedBy !== null);

/** Its holder answers for a job, with everybody off it. Who came to work there since it was asked for signs too. */
function agree(
  one: Temporary,
  { job, by, at_ms }: By & Readonly<{ job: string }>,
  facts: TemporaryFacts,
): Result<Temporary> {
  if (!one.affected.some((affected) => affected.job === job) && !facts.reaches.includes(job)) {
    return refuse({ code: "unknown", what: "job that it reaches", name: job });
  }
  if (hasAgreed(one, job)) return refuse({ code: "already done", what: `Agreeing for ${job}` });
  const leads = facts.holders(job);
  if (!leads.some(({ id }) => id === by)) {
    return refuse({ code: "not the holder", holder: leads.map(({ name }) => name).join(" or ") });
  }
  const on = facts.peopleOn(job);
  if (on.length > 0) return refuse({ code: "people on", people: on });
  const rest = one.affected.filter((other) => other.job !== job);
  return accept({ ...one, affected: [...rest, { job, agreedBy: by, agreedAt_ms: at_ms }] });
}

/** Throws when an invariant is broken; run after every step in tests. */
export function checkTemporary(one: Temporary): void {
  const broken = (rule: number) => {
    throw new Error(`invariant ${rule} of test ${one.number} is broken`);
  };
  const began = one.state === "running" || one.state === "ended";
  if (began !== (one.startedAt_ms !== null)) broken(1);
  if ((one.state === "ended") !== (one.endedAt_ms !== null)) broken(1);
  if (new Set(one.affected.map(({ job }) => job)).size < one.affected.length) broken(2);
}
