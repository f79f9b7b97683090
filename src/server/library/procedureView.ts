import { asc, eq } from "drizzle-orm";
import { PARTS, type Part } from "../../core/library/procedure";
import { inspectionDue_ms, whyUnusable } from "../../core/library/procedureLife";
import type { PlannedStep } from "../../core/procedure/steps";
import { unusableWords } from "../../core/words/en/procedures";
import { database } from "../db/database";
import { isolations, steps } from "../db/schema";
import { namesOf, type Person } from "../people/signIn";
import { allVersions, type StoredVersion } from "./procedureStore";

export type VersionView = StoredVersion &
  Readonly<{
    /** Why nobody requests work by it, as a clause; null where one may. */
    unusable: string | null;
    inspectionDue_ms: number | null;
    writer: string;
    signed: readonly Readonly<{ part: Part; by: string; at_ms: number }>[];
    inspected: readonly Readonly<{
      by: string;
      at_ms: number;
      watched: readonly string[];
      found: string;
      sound: boolean;
    }>[];
  }>;

export type ProcedureView = Readonly<{
  number: string;
  title: string;
  equipment: string;
  /** The newest first. */
  versions: readonly VersionView[];
  /** The version by which work is requested; null where there is none. */
  current: VersionView | null;
}>;

/** The library, by number. Cost: two queries. */
export function procedureViews(now_ms: number, number?: string): ProcedureView[] {
  const db = database();
  const nameOf = namesOf(db);
  const all = allVersions(db, number);
  const numbers = [...new Set(all.map(({ life }) => life.number))];
  return numbers.map((one) => {
    const versions = all.filter(({ life }) => life.number === one).map((stored) => toView(stored, now_ms, nameOf));
    const [newest] = versions;
    return {
      number: one,
      title: newest!.title,
      equipment: newest!.equipment,
      versions,
      current: versions.find(({ life }) => life.state === "approved") ?? null,
    };
  });
}

function toView(stored: StoredVersion, now_ms: number, nameOf: (id: string) => string): VersionView {
  const { life } = stored;
  const why = whyUnusable(life, now_ms);
  return {
    ...stored,
    unusable: why === null ? null : unusableWords(why),
    inspectionDue_ms: inspectionDue_ms(life),
    writer: nameOf(life.writtenBy),
    signed: life.signatures.map(({ part, by, at_ms }) => ({ part, by: nameOf(by), at_ms })),
    inspected: life.inspections.map((one) => ({ ...one, by: nameOf(one.by), watched: one.watched.map(nameOf) })),
  };
}

/** For which parts this person may still sign a version. The server decides again when they do. */
export function partsToSign({ life }: Pick<VersionView, "life">, person: Person): Part[] {
  if (life.state !== "draft" || life.writtenBy === person.id) return [];
  if (life.signatures.some(({ by }) => by === person.id)) return [];
  const fits: Readonly<Record<Part, boolean>> = {
    trade: life.trades.every((trade) => person.competences.includes(trade)),
    equipment: person.roles.includes("issuer"),
  };
  return PARTS.filter((part) => fits[part] && !life.signatures.some((one) => one.part === part));
}

/** The steps that were taken for it, in their order. Cost: one query. */
export function stepsOfVersion({ content }: Pick<StoredVersion, "content">): PlannedStep[] {
  return database()
    .select({ step: steps.step })
    .from(steps)
    .innerJoin(isolations, eq(isolations.id, steps.isolationId))
    .where(eq(isolations.number, content.isolation))
    .orderBy(asc(steps.position))
    .all()
    .map(({ step }) => step);
}
