/**
 * Time for a turning mass to stand still, I·ω/T, in seconds, with a drag that stays the same; or the coast time that was
 * measured on the machine, which knows better. Null where neither is known: then a person watches it stop.
 * Source: arithmetic. Drag that falls with speed makes it longer.
 */
export function runDownTime_s(p: {
  inertia_kg_m2?: number;
  speed_rpm?: number;
  drag_Nm?: number;
  measured_s?: number;
}): number | null {
  if (p.measured_s !== undefined) return p.measured_s;
  if (p.inertia_kg_m2 === undefined || p.speed_rpm === undefined || p.drag_Nm === undefined) return null;
  return (p.inertia_kg_m2 * p.speed_rpm * 2 * Math.PI) / 60 / p.drag_Nm;
}
