import { sql } from "drizzle-orm";
import { z } from "zod";
import { goesDarkSchema } from "../../core/plan/planSchema";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { parsed } from "../db/jsonColumn";
import { isolations } from "../db/schema";

/** What is asked of plans over and over; a plan itself is large, and the database reads it whole for each part. */
export type PlanParts = Readonly<{
  /** Tags of the devices that it isolates by. */
  points: readonly string[];
  /** Tags of what stops because of it. */
  dark: readonly string[];
  /** Its shortfalls as JSON. */
  shortfalls: string;
}>;

/** Kept for the process: pages and routes are bundled apart, each with its own copy of this file. */
const holder = globalThis as { heavyLanternPlanParts?: Map<string, PlanParts> };
const known = () => (holder.heavyLanternPlanParts ??= new Map());
const KNOWN_MOST = 5000;
const tagList = z.array(z.string());

/** Says which plan an isolation has, in a select: made anew it is of another register or of another request. */
export const planName = sql<string>`${isolations.id} || ' ' || ${isolations.plantRevision} || ' ' || ${isolations.inputs}`;

/** The parts of these isolations' plans, by id. Cost: one query, and none where all are known. */
export function planParts(
  tx: Tx,
  rows: readonly Readonly<{ id: string; planName: string }>[],
): (id: string) => PlanParts {
  const missing = rows.filter((row) => !known().has(row.planName));
  if (known().size + missing.length > KNOWN_MOST) known().clear();
  const read =
    missing.length === 0
      ? []
      : readParts(
          tx,
          missing.map(({ id }) => id),
        );
  const found = new Map<string, PlanParts>();
  const readNow = new Map(read.map(({ id, ...parts }) => [id, parts]));
  for (const { id, planName: name } of rows) {
    const parts = known().get(name) ?? readNow.get(id);
    if (parts === undefined) continue;
    found.set(id, parts);
    known().set(name, parts);
  }
  return (id) => {
    const parts = found.get(id);
    if (parts === undefined) throw new Error(`isolation ${id} is gone`);
    return parts;
  };
}

function readParts(tx: Tx, ids: readonly string[]): (PlanParts & Readonly<{ id: string }>)[] {
  return tx
    .select({
      id: isolations.id,
      points: sql<string>`(SELECT json_group_array(json_extract(value, '$.device')) FROM json_each(${isolations.plan}, '$.points'))`,
      dark: sql<string>`json_extract(${isolations.plan}, '$.goesDark')`,
      shortfalls: sql<string>`json_extract(${isolations.plan}, '$.shortfalls')`,
    })
    .from(isolations)
    .where(isAmong(isolations.id, ids))
    .all()
    .map(({ id, points, dark, shortfalls }) => ({
      id,
      points: parsed("plan_json", tagList, points),
      dark: parsed("plan_json", goesDarkSchema, dark).map(({ tag }) => tag),
      shortfalls,
    }));
}
