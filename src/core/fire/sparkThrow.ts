import { STANDARD_GRAVITY_m_s2 } from "../units/units";

const AIR_kg_m3 = 1.2;
/** A ball's drag; drops and flakes are braked more. The least of its kind, so that the bound holds. */
const DRAG = 0.4;

/**
 * How far a drop of molten metal flies before it is at the height of what lies below, in m. Thrown level at a speed, braked by the
 * air, carried by the wind; nothing cools or breaks it. By steps of Runge and Kutta.
 */
export function sparkThrow_m(
  p: Readonly<{ height_m: number; speed_m_s: number; wind_m_s: number; drop_m: number; density_kg_m3: number }>,
): number {
  // Drag a mass: ½·ρ·C·A/m of a ball.
  const brake = (0.75 * AIR_kg_m3 * DRAG) / (p.density_kg_m3 * p.drop_m);
  type Flight = readonly [x: number, z: number, vx: number, vz: number];
  const rate = ([, , vx, vz]: Flight): Flight => {
    const [rx, rz] = [vx - p.wind_m_s, vz];
    const speed = Math.hypot(rx, rz);
    return [vx, vz, -brake * speed * rx, -STANDARD_GRAVITY_m_s2 - brake * speed * rz];
  };
  const plus = (a: Flight, b: Flight, h: number): Flight => [
    a[0] + h * b[0],
    a[1] + h * b[1],
    a[2] + h * b[2],
    a[3] + h * b[3],
  ];
  const step = (at: Flight, h: number): Flight => {
    const k1 = rate(at);
    const k2 = rate(plus(at, k1, h / 2));
    const k3 = rate(plus(at, k2, h / 2));
    const k4 = rate(plus(at, k3, h));
    const sum: Flight = [
      k1[0] + 2 * k2[0] + 2 * k3[0] + k4[0],
      k1[1] + 2 * k2[1] + 2 * k3[1] + k4[1],
      k1[2] + 2 * k2[2] + 2 * k3[2] + k4[2],
      k1[3] + 2 * k2[3] + 2 * k3[3] + k4[3],
    ];
    return plus(at, sum, h / 6);
  };
  // Some two thousand steps for a fall without drag, shorter where the air brakes hard.
  const fall_s = Math.sqrt((2 * p.height_m) / STANDARD_GRAVITY_m_s2);
  const h = Math.min(fall_s / 2000, 0.02 / (brake * Math.max(1, p.speed_m_s + Math.abs(p.wind_m_s))));
  let at: Flight = [0, p.height_m, p.speed_m_s, 0];
  for (let i = 0; i < 1_000_000; i++) {
    const next = step(at, h);
    if (next[1] <= 0) {
      const share = at[1] / (at[1] - next[1]);
      return at[0] + share * (next[0] - at[0]);
    }
    at = next;
  }
  return at[0];
}

/**
 * Temperature of the other side of a plate heated for long, in °C: what goes through by conduction goes off by the air there.
 * `off_W_m2_K`: 5 in still air; the less goes off, the hotter it gets.
 */
export function otherSide_C(
  p: Readonly<{ hot_C: number; thick_m: number; conductivity_W_mK: number; ambient_C: number; off_W_m2_K: number }>,
): number {
  const through = p.conductivity_W_mK / p.thick_m;
  return (through * p.hot_C + p.off_W_m2_K * p.ambient_C) / (through + p.off_W_m2_K);
}
