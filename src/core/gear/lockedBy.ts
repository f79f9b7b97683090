import type { Item } from "../plant/plant";

/** Bore above which a cover does not fit over the handwheel and a chain goes through it. Common practice. */
const CHAIN_ABOVE_m = 0.15;
/** What a size reads where the register has none: somebody looks before walking out. */
export const SIZE_MISSING = "size not in the register";

/** "DN 50" for 0.05 m. */
export function nominalBore(bore_m: number): string {
  return `DN ${Math.round(bore_m * 1000)}`;
}

/** What holds a lock on this device besides the lock. */
export function lockedBy(item: Item | undefined): [thing: string, size: string][] {
  const bore = item?.device?.bore_m;
  switch (item?.kind) {
    case "breaker":
      return [["breaker clamp", ""]];
    case "valve":
    case "control valve":
      if (bore === undefined) return [["valve cover or chain", SIZE_MISSING]];
      return bore > CHAIN_ABOVE_m ? [["chain", ""]] : [["valve cover", nominalBore(bore)]];
    default:
      return [];
  }
}
