/** For how long back, in days, and what that is called. */
export const PERIODS = [
  [30, "a month"],
  [90, "a quarter"],
  [365, "a year"],
] as const;

export function daysOf(asked: string | null | undefined): number {
  return PERIODS.find(([days]) => String(days) === asked)?.[0] ?? PERIODS[1][0];
}
