import { staysOf } from "../permit/people/entries";
import { watchesOf } from "../permit/people/posts";
import type { PermitLife, PermitState } from "../permit/record/permitTypes";
import { countSteps, type Steps } from "./tracks";

const OVER: readonly PermitState[] = ["closed", "cancelled"];

type Stay = Readonly<{ from_ms: number; to_ms: number | null }>;

/**
 * How many people were on, on post or inside under any of these permits, from moment to moment. Each is one, under however many
 * permits: heads are counted by it. Cost: that of sorting what they signed.
 */
export function headSteps(permits: readonly Pick<PermitLife, "signOns" | "log" | "state">[]): Steps<number> {
  const stays = new Map<string, Stay[]>();
  const put = (person: string, from_ms: number, to_ms: number | null) => {
    const known = stays.get(person);
    if (known) known.push({ from_ms, to_ms });
    else stays.set(person, [{ from_ms, to_ms }]);
  };
  for (const { signOns, log, state } of permits) {
    // Nobody is there any more once it is over, also who never wrote down that they left their post.
    const end_ms = OVER.includes(state) ? (log.at(-1)?.at_ms ?? null) : null;
    for (const { person, on_ms, off_ms } of signOns) put(person, on_ms, off_ms ?? end_ms);
    for (const { person, from_ms, to_ms } of watchesOf(log)) put(person, from_ms, to_ms ?? end_ms);
    for (const { person, in_ms, out_ms } of staysOf(log)) put(person, in_ms, out_ms ?? end_ms);
  }
  return countSteps([...stays.values()].flatMap(joined));
}

/** Stays of one person, those that touch or overlap as one. */
function joined(stays: readonly Stay[]): Stay[] {
  const found: { from_ms: number; to_ms: number | null }[] = [];
  for (const { from_ms, to_ms } of [...stays].sort((a, b) => a.from_ms - b.from_ms)) {
    const last = found.at(-1);
    if (last === undefined || (last.to_ms !== null && last.to_ms < from_ms)) found.push({ from_ms, to_ms });
    else if (last.to_ms !== null) last.to_ms = to_ms === null ? null : Math.max(last.to_ms, to_ms);
  }
  return found;
}
