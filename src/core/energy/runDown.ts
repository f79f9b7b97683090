/**
 * Time for a turning mass to stand still, I·ω/T, in seconds, with a drag that stays the same; or the coast time that was
 * measured on the machine; the longer where both are known. Null where neither is: then a person watches it stop.
 * Source: arithmetic. Drag that falls with speed makes it longer.
 */
export function runDownTime_s(p: {
  inertia_kg_m2?: number;
  speed_rpm?: number;
  drag_Nm?: number;
  measured_s?: number;
}): number | null {
  const { inertia_kg_m2, speed_rpm, drag_Nm, measured_s } = p;
  const known = inertia_kg_m2 !== undefined && speed_rpm !== undefined && drag_Nm !== undefined;
  const computed_s = known ? (inertia_kg_m2 * speed_rpm * 2 * Math.PI) / 60 / drag_Nm : undefined;
  if (measured_s === undefined && computed_s === undefined) return null;
  return Math.max(measured_s ?? 0, computed_s ?? 0);
}
