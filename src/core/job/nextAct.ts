import type { IsolationLife } from "../isolation/isolation";
import { openFailures } from "../isolation/failures";
import type { JobState } from "./jobLife";
import type { NotHeld } from "../refusal/notHeld";
import { stepLabel } from "../procedure/steps";
import { isRunOut } from "../permit/life/permitLife";
import { peopleOn, type PermitLife } from "../permit/record/permitTypes";
import { kindRule } from "../permit/kinds/kinds";
import { leftToDo } from "../permit/record/leftToDo";
import { lastOf, signedBy } from "../permit/record/permitLog";
import type { Role } from "../people/roles";

export const STAGES = ["ask", "energies", "hazards", "points", "time", "kit", "walk", "permits", "return"] as const;
/** A job's page follows the order of the work. */
export type Stage = (typeof STAGES)[number];

/** The one next thing to do on a job, and who can do it. */
export type NextAct = Readonly<{ stage: Stage; words: string; who: readonly Role[]; urgent: boolean }>;

/** Cost: linear in steps and permits. */
export function nextAct(
  job: Readonly<{ state: JobState }>,
  isolation: IsolationLife | null,
  permits: readonly PermitLife[],
  now_ms: number,
  /** When the isolation is to be looked at again; null where nothing stands. */
  review_ms: number | null = null,
  /** Why the isolation's plan may not be counted on, on the register of today; null where it may. */
  fault: NotHeld | null = null,
  /** When the locks of the isolation are to be read again; null where nobody counts on it. */
  locksDue_ms: number | null = null,
): NextAct | null {
  if (job.state !== "open") return null;
  const act = (stage: Stage, words: string, who: readonly Role[], urgent = false): NextAct => ({
    stage,
    words,
    who,
    urgent,
  });
  const overrun = permits.find(
    (permit) => permit.state === "run out" || (isAtWork(permit.state) && isRunOut(permit, now_ms)),
  );
  if (overrun) {
    const on = peopleOn(overrun).length;
    return act(
      "permits",
      `Permit ${overrun.number} has run out: stop work, ${on > 0 ? "sign off" : "hand back"}`,
      ["holder"],
      true,
    );
  }
  if (isolation !== null && review_ms !== null && now_ms >= review_ms) {
    return act("walk", `Review isolation ${isolation.number}: it has stood past its date`, ["coordinator"], true);
  }
  if (isolation === null) return act("points", "Choose the points and approve the isolation", ["coordinator"]);
  if (fault?.code === "plan fell") {
    return act("walk", `Everybody off, and plan ${isolation.number} anew: it does not hold`, ["coordinator"], true);
  }
  if (fault?.code === "locks not found") {
    const at = fault.points.join(" and ");
    return act(
      "walk",
      `Everybody off: find out about the lock on ${at}, hang it again`,
      ["isolator", "coordinator"],
      true,
    );
  }
  if (locksDue_ms !== null && now_ms >= locksDue_ms && isolation.state === "proven") {
    return act(
      "walk",
      `Read the locks of ${isolation.number} at their points`,
      ["isolator", "operator", "coordinator"],
      true,
    );
  }
  const failed = isolation.steps.find((step) => openFailures(step).length > 0);
  if (failed) {
    return act(
      failed.phase === "restore" ? "return" : "walk",
      `Not proved: ${stepLabel(failed)}. Find out why`,
      ["isolator", "coordinator"],
      true,
    );
  }
  const stuck = isolation.steps.find((step) => step.stuck);
  if (stuck) return act("walk", `Plan again: ${stepLabel(stuck)} cannot be done`, ["coordinator"], true);
  if (isolation.state === "isolating" || isolation.state === "restoring" || isolation.state === "testing") {
    const phase = { isolating: "isolate", restoring: "restore", testing: "test" }[isolation.state];
    const done = new Set(isolation.steps.filter((step) => step.done).map((step) => step.id));
    const open = isolation.steps.filter((step) => step.phase === phase && !step.done);
    const next = open.find((step) => step.after.every((id) => done.has(id)));
    const who: readonly Role[] = next?.competence === null ? ["operator", "isolator", "coordinator"] : ["isolator"];
    const left = open.length === 1 ? "last step" : `${open.length} steps left`;
    return act(
      phase === "restore" ? "return" : "walk",
      `${next ? capital(stepLabel(next)) : "Isolate"} (${left})`,
      who,
    );
  }
  if (isolation.state === "restored") return act("return", "Close the job", ["coordinator"]);
  const open = permits.filter((permit) => permit.state !== "closed" && permit.state !== "cancelled");
  const [permit] = open;
  if (permit === undefined) {
    const left = leftToDo(permits).at(-1);
    if (left)
      return act("permits", `Left to do: ${left.words}. Write a permit for it`, ["holder", "coordinator", "issuer"]);
    return permits.some((one) => one.state === "closed")
      ? act("return", "Start restoring, or write a permit for the next shift", ["coordinator"])
      : act("permits", "Write the permit", ["holder", "coordinator", "issuer"]);
  }
  return kindRule(permit.details.kind).alone ? act(...aloneAct(permit)) : act("permits", ...permitAct(permit));
}

/** By the short route: what its one person does next. */
function aloneAct({ number, state }: PermitLife): [Stage, string, readonly Role[], boolean] {
  const who: readonly Role[] = ["isolator"];
  switch (state) {
    case "draft":
      return ["permits", `Check permit ${number}`, ["coordinator", "issuer"], false];
    case "live":
      return ["return", "At work alone: clear, then take the lock off", who, false];
    case "suspended":
      return ["permits", `Permit ${number} is stopped: look, then let it go on or end it`, ["issuer", ...who], true];
    default:
      return ["walk", `Begin minor isolation ${number}`, who, false];
  }
}

function isAtWork(state: PermitLife["state"]): boolean {
  return state === "live" || state === "suspended" || state === "issued";
}

/** The one next thing to do on a permit, who can do it, and whether it cannot wait. */
function permitAct(permit: PermitLife): [words: string, who: readonly Role[], urgent?: boolean] {
  const { number } = permit;
  switch (permit.state) {
    case "draft":
      return [`Check permit ${number}`, ["coordinator", "issuer"]];
    case "checked":
      return [`Authorise permit ${number}`, ["issuer"]];
    case "authorised":
      return [`Issue permit ${number}`, ["issuer"]];
    case "issued":
      return [`Accept permit ${number}`, ["holder"]];
    case "live": {
      const on = peopleOn(permit).length;
      return [on === 0 ? "Sign on, or hand back" : `At work: ${on} signed on`, ["worker", "holder"]];
    }
    case "suspended": {
      const last = lastOf(permit.log, "stopped", "break begun");
      return last?.type === "break begun"
        ? [`Permit ${number}: a break`, ["holder"]]
        : [`Permit ${number} is stopped: look, then let it go on or end it`, ["issuer", "holder"], true];
    }
    case "run out":
      return [`Hand back permit ${number}`, ["holder"], true];
    case "watching":
      return [`Watch after hot work under permit ${number}`, ["fire watch"]];
    case "work done":
      return signedBy(permit.log, "inspect")
        ? [`Close permit ${number}`, ["issuer"]]
        : [`Inspect and close permit ${number}`, ["issuer"]];
    case "closed":
    case "cancelled":
      return ["Nothing more to do", []];
  }
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
