/**
 * Least thickness of a permanent blank between flanges, under pressure.
 *
 *   t = d_g · √(3·P / (16·S·E·W)) + c
 *
 * d_g is the inside diameter of the gasket, not of the pipe; P gauge pressure, S allowable stress, E quality factor, W
 * weld factor, c corrosion and mechanical allowance. 0 plus the allowance when there is no pressure.
 *
 * Source: ASME B31.3, paragraph 304.5.3, quoted from memory.
 * @throws RangeError if a length, pressure or stress is not finite, the stress or a factor not above 0, or another below 0.
 */
export function blankThickness_m(p: {
  gasket_m: number;
  pressure_Pa: number;
  stress_Pa: number;
  quality?: number;
  weld?: number;
  corrosion_m?: number;
}): number {
  const { gasket_m, pressure_Pa, stress_Pa, quality = 1, weld = 1, corrosion_m = 0 } = p;
  for (const [name, value] of Object.entries({ gasket_m, stress_Pa, quality, weld })) {
    if (!Number.isFinite(value) || value <= 0) throw new RangeError(`${name} must be above 0, not ${value}`);
  }
  for (const [name, value] of Object.entries({ pressure_Pa, corrosion_m })) {
    if (!Number.isFinite(value) || value < 0) throw new RangeError(`${name} must be 0 or more, not ${value}`);
  }
  return gasket_m * Math.sqrt((3 * pressure_Pa) / (16 * stress_Pa * quality * weld)) + corrosion_m;
}
