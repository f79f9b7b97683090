/**
 * Whether work this high, in metres above its floor, is work at height under rules that begin at `least_m`. Where they name
 * no least height, whoever stands on the floor still cannot fall.
 */
export function isWorkAtHeight(height_m: number, least_m: number): boolean {
  return height_m > 0 && height_m >= least_m;
}
