import type { PermitDetails } from "@/core/permit/kinds/details";
import { firstTimes } from "@/core/permit/kinds/firstTimes";
import { kindRule } from "@/core/permit/kinds/kinds";
import { peopleToChoose, type JobView } from "@/server/job/jobView";
import { database } from "@/server/db/database";
import { loadVersion } from "@/server/library/procedureStore";
import type { Person } from "@/server/people/signIn";
import { draftDefaults } from "@/server/permit/draftDefaults";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { detailsAsFields } from "@/ui/permit/detailFields";
import type { PermitsFormProps } from "@/ui/job/PermitsForm";

/** What the form asks that writes every permit which the analysis requires and nobody wrote yet; null where there is none. */
export function permitsToWrite(view: JobView, person: Person): PermitsFormProps | null {
  const general = draftDefaults(view, "general");
  const unwritten = general.required.filter(
    ({ kind }) => !view.permits.some((permit) => permit.kind === kind && permit.state !== "cancelled"),
  );
  if (unwritten.length === 0) return null;
  const choices = peopleToChoose();
  const then = view.procedure ? loadVersion(database(), view.procedure.number, view.procedure.version) : null;
  const written = (kind: string) => then?.content.permits.find(({ details }) => details.kind === kind);
  const [first] = unwritten.flatMap(({ kind }) => written(kind) ?? []);
  const toWrite = unwritten.map(({ kind, because }) => ({
    kind,
    because,
    longest_h: kindRule(kind).longest_h,
    // What the procedure's permit said; where today's register or set-up knows it, that.
    defaults: { ...asFields(written(kind)?.details), ...draftDefaults(view, kind).details },
  }));
  const longest_h = Math.min(...toWrite.map((one) => one.longest_h));
  return {
    job: view.number,
    toWrite,
    words: first?.words ?? view.work,
    hazards: general.hazards || (first?.hazards ?? ""),
    precautions: general.precautions || (first?.precautions ?? ""),
    holder: view.holderId,
    leads: choices.filter(({ roles }) => roles.includes("holder")),
    people: choices.map(({ id, name }) => ({ id, name })),
    units: person.units,
    ...firstTimes({
      now_ms: requestTime_ms(),
      windowFrom_ms: view.windowFrom_ms,
      windowTo_ms: view.windowTo_ms,
      longest_h,
    }),
    timeZone: siteTimeZone(),
    mayCheck: person.id !== view.holderId && person.roles.some((role) => role === "coordinator" || role === "issuer"),
  };
}

const asFields = (details: PermitDetails | undefined) => (details ? detailsAsFields(details, siteTimeZone()) : {});
