import { asksOf } from "../../core/permit/requirements/requirements";
import type { Db } from "../db/database";
import { permitFacts } from "../permit/permitFacts";
import { loadPermit } from "../permit/permitStore";

type Answer = Readonly<Record<string, string | number | null>>;

/** What a part of the demo's day is told: ordinary acts, by sign-in name, and the day's own clock. */
export type Day = Readonly<{
  act: (signIn: string, type: string, input: unknown) => Promise<Answer>;
  ask: (title: string, work: string, faces: unknown[], hours: number) => Promise<Answer>;
  walk: (isolation: string, most: number) => Promise<void>;
  db: Db;
  revision: number;
  clock: () => number;
}>;

/** What somebody still has to look at before this permit goes on, by id. */
export function toLookAt({ db, clock }: Pick<Day, "db" | "clock">, permit: string): string[] {
  const stored = loadPermit(db, permit)!;
  return asksOf({ permit: stored.life, facts: permitFacts(db, stored, clock()), now_ms: clock() })
    .filter(({ byHand, only, unmet }) => byHand && !only && unmet !== null)
    .map(({ id }) => id);
}
