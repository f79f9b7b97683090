import { gasEnergy_J } from "./gasEnergy";

/**
 * What the gas side of an accumulator gives out expanding to the ambient, in J: without heat (adiabatic), with heat
 * (isothermal, gross: P·V·ln(P/Pₐ)), and that less the work done on the air outside (net).
 *
 * Bleeding the oil leaves the precharge. Absolute pressures. Source: arithmetic of an ideal gas.
 */
export function accumulatorEnergy(p: { volume_m3: number; pressure_Pa: number; ambient_Pa: number; gamma: number }): {
  adiabatic_J: number;
  isothermal_J: number;
  isothermal_net_J: number;
} {
  const { volume_m3, pressure_Pa, ambient_Pa } = p;
  if (pressure_Pa <= ambient_Pa) return { adiabatic_J: 0, isothermal_J: 0, isothermal_net_J: 0 };
  const isothermal_J = pressure_Pa * volume_m3 * Math.log(pressure_Pa / ambient_Pa);
  return {
    adiabatic_J: gasEnergy_J(p),
    isothermal_J,
    isothermal_net_J: isothermal_J - (pressure_Pa - ambient_Pa) * volume_m3,
  };
}
