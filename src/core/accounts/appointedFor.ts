import { z } from "zod";

/**
 * Where and when somebody's appointment counts: areas by their names in the register, shifts by the hour at which they begin.
 * Empty: everywhere, at any hour. That issuers and approvers are appointed so is common practice, no source.
 */
export const appointedForSchema = z.object({
  areas: z.array(z.string()).readonly(),
  shifts: z.array(z.number().int().min(0).max(23)).readonly(),
});
export type AppointedFor = Readonly<z.output<typeof appointedForSchema>>;

export const EVERYWHERE: AppointedFor = { areas: [], shifts: [] };

/** The hour at which the shift began that runs at an hour of the site's clock; null where a site has no shifts. */
export function shiftAt(hour: number, starts: readonly number[]): number | null {
  const sorted = [...starts].sort((a, b) => a - b);
  return sorted.findLast((start) => start <= hour) ?? sorted.at(-1) ?? null;
}

/**
 * Whether an appointment covers a work and a moment; what it does not cover comes first in the answer's name. Work of which
 * nobody knows where it is may be anywhere, and is covered only by who is appointed everywhere; a shift that the site does not
 * have any more covers nothing.
 */
export function notAppointed(
  { areas, shifts }: AppointedFor,
  { area, shift }: Readonly<{ area: string; shift: number | null }>,
): "area" | "shift" | null {
  if (areas.length > 0 && !areas.includes(area)) return "area";
  return shifts.length > 0 && (shift === null || !shifts.includes(shift)) ? "shift" : null;
}
