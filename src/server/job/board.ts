import { eq } from "drizzle-orm";
import { database, type Tx } from "../db/database";
import { jobs } from "../db/schema";
import { dueUnder, type Due } from "../../core/permit/life/due";
import { isRunOut } from "../../core/permit/life/permitLife";
import { peopleOn, type PermitState } from "../../core/permit/record/permitTypes";
import { openPermits } from "../permit/openPermits";

export function openNumbers(db: Tx): string[] {
  return db
    .select({ number: jobs.number })
    .from(jobs)
    .where(eq(jobs.state, "open"))
    .all()
    .map(({ number }) => number);
}

/** What the shift strip shows: permits that bind somebody now, and what falls due under them. */
export type StripPermit = Readonly<{
  number: string;
  title: string;
  kind: string;
  from_ms: number;
  to_ms: number;
  state: string;
  runOut: boolean;
  on: number;
  due: readonly Due[];
}>;

const ON_STRIP: readonly PermitState[] = ["issued", "live", "suspended", "run out", "watching"];

/** Bars that fit on the strip; of more there is a count, which leads to the register. */
const STRIP_BARS = 3;

/** The permits that bind somebody now: of those that end first what the strip shows, of the rest how many they are. */
export function stripPermits(now_ms: number): Readonly<{ bars: readonly StripPermit[]; more: number }> {
  const db = database();
  const binding = openPermits(db, now_ms)
    .filter(({ now }) => ON_STRIP.includes(now.state))
    .sort((a, b) => a.now.validTo_ms - b.now.validTo_ms);
  const shown = binding.slice(0, STRIP_BARS);
  const bars = shown.map(({ now, facts, title }) => ({
    number: now.number,
    title: title(),
    kind: now.details.kind,
    from_ms: now.validFrom_ms,
    to_ms: now.validTo_ms,
    state: now.state,
    runOut: now.state === "run out" || (now.state !== "watching" && isRunOut(now, now_ms)),
    on: peopleOn(now).length,
    due: dueUnder({ permit: now, facts, now_ms }),
  }));
  return { bars, more: binding.length - bars.length };
}
