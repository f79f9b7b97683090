import { GAS_CONSTANT_J_mol_K } from "../units/units";
import { criticalRatio, gasThroughHole_kg_s } from "./gasThroughHole";
import { integral } from "./quadrature";

export type Blowdown = Readonly<{
  volume_m3: number;
  /** Absolute pressures; the end not below the ambient. */
  start_Pa: number;
  end_Pa: number;
  temperature_K: number;
  orifice_m: number;
  cd: number;
  gamma: number;
  molar_kg: number;
  ambient_Pa: number;
}>;

/** How heat reaches the gas: enough to keep its temperature, or none. The truth lies between. */
export type Heating = "isothermal" | "adiabatic";

/**
 * Time to blow a gas volume down through an opening, in seconds.
 *
 * Mass balance V·dρ/dt = −ṁ with ṁ choked, then subsonic. Isothermal: dP/dt = −(R·T/(M·V))·ṁ. Adiabatic: the gas left
 * behind cools by T = T₀·(P/P₀)^((γ−1)/γ) and dP/dt = −γ·(R·T/(M·V))·ṁ. Integrated over u = √(P − Pₐ), which keeps the
 * slow end finite: an ideal blowdown to the ambient itself takes a finite time.
 *
 * Source: textbook balances; checked against an ODE solver. Not for liquids that flash: they keep boiling.
 */
export function blowdownTime_s(blow: Blowdown, heating: Heating): number {
  return blowdownBetween_s(blow, heating, blow.start_Pa, blow.end_Pa);
}

/** The part of a blowdown between two of its pressures, in seconds: for drawing it piece by piece. */
export function blowdownBetween_s(blow: Blowdown, heating: Heating, from_Pa: number, to_Pa: number): number {
  const { ambient_Pa, gamma } = blow;
  if (to_Pa >= from_Pa) return 0;
  const per_u = (u: number) => {
    const pressure_Pa = ambient_Pa + u * u;
    return (2 * u) / -pressureRate_Pa_s(blow, heating, pressure_Pa);
  };
  const low = Math.sqrt(Math.max(0, to_Pa - ambient_Pa));
  const high = Math.sqrt(from_Pa - ambient_Pa);
  // The rate bends where flow stops being choked: each side is smooth by itself.
  const bend = Math.sqrt(Math.max(0, ambient_Pa / criticalRatio(gamma) - ambient_Pa));
  if (bend <= low || bend >= high) return integral(per_u, low, high);
  return integral(per_u, low, bend) + integral(per_u, bend, high);
}

/** dP/dt at a pressure on the way down, Pa/s: below 0. */
export function pressureRate_Pa_s(blow: Blowdown, heating: Heating, pressure_Pa: number): number {
  const { volume_m3, start_Pa, temperature_K, orifice_m, gamma, molar_kg, ambient_Pa } = blow;
  const cooled = heating === "adiabatic" ? (pressure_Pa / start_Pa) ** ((gamma - 1) / gamma) : 1;
  // Named one by one: a spread here costs more than the flow.
  const flow_kg_s = gasThroughHole_kg_s({
    cd: blow.cd,
    gamma,
    molar_kg,
    upstream_Pa: pressure_Pa,
    downstream_Pa: ambient_Pa,
    temperature_K: temperature_K * cooled,
    area_m2: (Math.PI / 4) * orifice_m ** 2,
  });
  const faster = heating === "adiabatic" ? gamma : 1;
  return (-faster * GAS_CONSTANT_J_mol_K * temperature_K * cooled * flow_kg_s) / (molar_kg * volume_m3);
}

/** Pressure below which the flow is no longer choked. */
export function unchokedBelow_Pa({ ambient_Pa, gamma }: Pick<Blowdown, "ambient_Pa" | "gamma">): number {
  return ambient_Pa / criticalRatio(gamma);
}
