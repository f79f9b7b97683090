import { lastBad, withoutCause } from "../permit/air/airTests";
import { owedUnder, type Due } from "../permit/life/due";
import { inside } from "../permit/people/entries";
import { onPost } from "../permit/people/posts";
import { lastOf } from "../permit/record/permitLog";
import { peopleOn } from "../permit/record/permitTypes";
import type { AskContext } from "../permit/requirements/ask";
import type { PersonId, Role } from "../people/roles";

/** What kind of thing is due: people inside and gas outweigh paper. */
export const DUE_MARKS = ["inside", "gas", "stopped", "permit", "watch", "isolation", "conflict", "plan"] as const;
export type DueMark = (typeof DUE_MARKS)[number];

export type DueWhat =
  | Due["what"]
  /** People are inside though the work is stopped or its time is over. */
  | "inside, stopped"
  | "bad air"
  | "silent detector"
  | "stopped"
  | "expired"
  | "next act"
  | "conflict";

export type DueItem = Readonly<{
  what: DueWhat;
  mark: DueMark;
  /** The permit or job. */
  about: string;
  /** What is at it: a point, a detector, a cause; empty where nothing more is to say. */
  at: string;
  /** By when; null where it is for now. */
  due_ms: number | null;
  isOverdue: boolean;
  /** How many are inside. */
  inside: number;
  /** Whose it is by role, and who is named for it. */
  roles: readonly Role[];
  people: readonly PersonId[];
}>;

const OWNERS: Readonly<Record<Due["what"], readonly Role[]>> = {
  ends: ["holder"],
  retest: ["gas tester"],
  revalidate: ["issuer"],
  look: ["fire watch"],
  "watch ends": ["fire watch"],
  call: ["attendant"],
};

const MARKS: Readonly<Record<Due["what"], DueMark>> = {
  ends: "permit",
  retest: "gas",
  revalidate: "permit",
  look: "watch",
  "watch ends": "watch",
  call: "inside",
};

/** What a permit asks of somebody now or within the time to come: what is late stays until it is done. */
export function dueOfPermit(context: AskContext, within_ms: number): DueItem[] {
  const { permit, facts, now_ms } = context;
  const { log, state, number } = permit;
  const within = inside(log);
  const posts = onPost(log).map(({ person }) => person);
  const usual = { about: number, at: "", inside: within.length, isOverdue: false, due_ms: null } as const;
  const items: DueItem[] = [];
  if (within.length > 0 && state !== "live") {
    items.push({
      ...usual,
      what: "inside, stopped",
      mark: "inside",
      isOverdue: true,
      roles: ["attendant", "holder"],
      people: [...posts, permit.holder],
    });
  }
  if (state === "live" || state === "suspended" || state === "run out") {
    const bad = withoutCause(log).length > 0 ? lastBad(log) : undefined;
    if (bad) {
      const roles: readonly Role[] = ["gas tester", "holder"];
      items.push({
        ...usual,
        what: "bad air",
        mark: "gas",
        at: bad.point,
        isOverdue: true,
        roles,
        people: [permit.holder],
      });
    }
    for (const { id, silent } of facts.detectors) {
      if (!silent) continue;
      const roles: readonly Role[] = ["gas tester", "holder"];
      items.push({
        ...usual,
        what: "silent detector",
        mark: "gas",
        at: id,
        isOverdue: true,
        roles,
        people: [permit.holder],
      });
    }
  }
  if (state === "suspended" && lastOf(log, "stopped", "break begun")?.type === "stopped") {
    const stop = lastOf(log, "stopped");
    items.push({
      ...usual,
      what: "stopped",
      mark: "stopped",
      at: stop?.reason ?? "",
      isOverdue: true,
      roles: ["issuer", "holder"],
      people: [permit.holder],
    });
  }
  if (state === "run out") {
    const on = peopleOn(permit).map(({ person }) => person);
    items.push({
      ...usual,
      what: "expired",
      mark: "permit",
      due_ms: permit.validTo_ms,
      isOverdue: true,
      roles: ["holder"],
      people: [permit.holder, ...on],
    });
  }
  for (const { what, at_ms } of owedUnder(context)) {
    if (at_ms > now_ms + within_ms) continue;
    // A watch that has lasted long enough is not late: it may be ended.
    const isOverdue = at_ms < now_ms && what !== "watch ends";
    const people = what === "call" || what === "look" ? posts : [permit.holder];
    items.push({ ...usual, what, mark: MARKS[what], due_ms: at_ms, isOverdue, roles: OWNERS[what], people });
  }
  return items;
}

/** Lower comes first: people inside, then gas, then what is late; then people, air and watches before paper, paper before plans. */
function rank({ what, mark, isOverdue, inside: within }: DueItem): number {
  if (isOverdue) return within > 0 || mark === "inside" ? 0 : mark === "gas" ? 1 : 2;
  if (mark === "inside") return 3;
  if (mark === "gas" || mark === "watch") return 4;
  return what === "next act" ? 6 : 5;
}

/** In the order in which to see to them; what is alike stays in the order given. */
export function inOrder(items: readonly DueItem[]): DueItem[] {
  return items
    .map((item, index) => ({ item, index, rank: rank(item) }))
    .sort((a, b) => a.rank - b.rank || byTime(a.item, b.item) || a.index - b.index)
    .map(({ item }) => item);
}

/** What has no time is for now where it is late, and for whenever where it is not. */
function timeOf({ due_ms, isOverdue }: DueItem): number {
  return due_ms ?? (isOverdue ? -Infinity : Infinity);
}

function byTime(a: DueItem, b: DueItem): number {
  const [first, second] = [timeOf(a), timeOf(b)];
  return first < second ? -1 : first > second ? 1 : 0;
}
