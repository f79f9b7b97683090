/**
 * Pressure rise of a liquid shut in a full pipe for each kelvin it warms, in Pa/K.
 *
 *   dP/dT = (α − 3·αₛ) / (β + D/(t·E))
 *
 * α and β the liquid's expansion and compressibility, αₛ and E the steel's expansion and stiffness, D and t the pipe's
 * diameter and wall. About 3 bar/K for water and 10 for oil in steel pipe. Source: textbook balance of volumes.
 */
export function blockedInRise_Pa_K(p: {
  alpha_1_K: number;
  beta_1_Pa: number;
  diameter_m: number;
  wall_m: number;
  steelAlpha_1_K?: number;
  steelModulus_Pa?: number;
}): number {
  const { steelAlpha_1_K = 1.2e-5, steelModulus_Pa = 2e11 } = p;
  return (p.alpha_1_K - 3 * steelAlpha_1_K) / (p.beta_1_Pa + p.diameter_m / (p.wall_m * steelModulus_Pa));
}
