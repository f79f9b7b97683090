/**
 * How many cases a property test tries. `npm run test:long` sets LANTERN_RUNS=10 and tries ten times as many; the usual
 * run is a tenth of that, with a fixed seed so that it says the same on every machine. With a factor below one, as where
 * mistakes are planted and every test runs hundreds of times, it tries fewer.
 */
export function propertyRuns(usual: number): { numRuns: number; seed: number } {
  return { numRuns: Math.ceil(usual * factor()), seed: 20_261_123 };
}

function factor(): number {
  return Number(process.env.LANTERN_RUNS ?? 1);
}

/**
 * How often both answers must at least have been met in the usual number of cases, so that a test of random cases cannot
 * pass on nothing; where fewer cases are tried, fewer are asked for.
 */
export function metAtLeast(usual: number): number {
  return Math.floor(usual * (factor() < 1 ? factor() / 3 : 1));
}
