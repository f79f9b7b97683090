import { notAppointed, shiftAt, type AppointedFor } from "../../core/accounts/appointedFor";
import type { NotAppointed } from "../../core/refusal/notAppointed";
import { shiftHours, siteClock } from "../runtime/siteTime";

/** That an appointment does not cover an area, or this hour of the site's clock; null where it covers both. */
export function outsideAppointment(appointed: AppointedFor, area: string, now_ms: number): NotAppointed | null {
  const at = siteClock(now_ms);
  const far = notAppointed(appointed, { area, shift: shiftAt(Number(at.slice(0, 2)), shiftHours()) });
  if (far === null) return null;
  return far === "area" ? { far, area, areas: appointed.areas } : { far, at, shifts: appointed.shifts };
}
