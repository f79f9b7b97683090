/**
 * Test pressures of piping, gauge (ASME B31.3, section 345, from memory): with water 1.5 times the design pressure, raised by the
 * ratio of the stresses that the metal may bear cold and hot, at most 6.5; with gas 1.1 times.
 */
const WITH_WATER = 1.5;
const WITH_GAS = 1.1;
const MOST_STRESS_RATIO = 6.5;

export const TEST_MEDIA = ["water", "gas"] as const;
export type TestMedium = (typeof TEST_MEDIA)[number];

export function testPressure_Pa(
  p: Readonly<{ design_Pa: number; coldStress_Pa: number; hotStress_Pa: number; medium: TestMedium }>,
): number {
  if (p.medium === "gas") return WITH_GAS * p.design_Pa;
  return WITH_WATER * p.design_Pa * Math.min(MOST_STRESS_RATIO, Math.max(1, p.coldStress_Pa / p.hotStress_Pa));
}

/** Steps in which a test is raised, as fractions of the test pressure, with a look for leaks at each. Practice. */
export const TEST_STEPS = [0.25, 0.5, 0.75, 1] as const;

/** The least and the greatest full scale of a gauge for a test pressure (ASME BPVC section VIII, UG-102, from memory). */
export function gaugeRange_Pa(test_Pa: number): readonly [number, number] {
  return [1.5 * test_Pa, 4 * test_Pa];
}

/**
 * Of what a gas lost while a test was held, what its cooling does not explain: the pressure that it would have, and the leak, in
 * Pa·m³/s. Absolute pressures.
 */
export function heldGas(
  p: Readonly<{ start_Pa: number; end_Pa: number; start_K: number; end_K: number; volume_m3: number; over_s: number }>,
): Readonly<{ expected_Pa: number; lost_Pa: number; leak_Pa_m3_s: number }> {
  const expected_Pa = (p.start_Pa * p.end_K) / p.start_K;
  const lost_Pa = expected_Pa - p.end_Pa;
  return { expected_Pa, lost_Pa, leak_Pa_m3_s: (p.volume_m3 * lost_Pa) / p.over_s };
}
