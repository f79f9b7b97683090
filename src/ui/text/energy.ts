/** A stored quantity in words: the figure when it is known, what is missing when it is not. */
export function energy(
  quantity: { energy_J: number | null; formula: string; missing: readonly string[] } | null,
): string {
  if (quantity === null) return "Amount not in the register: assume the worst";
  if (quantity.missing.length > 0) return `Amount unknown, ${quantity.missing.join(" and ")} missing: assume the worst`;
  if (quantity.energy_J === null) return "Measure it on the spot";
  return `${joules(quantity.energy_J)} (${quantity.formula})`;
}

/** Three figures and a unit that fits: 352 J, 632 kJ, 1.95 MJ. */
export function joules(value_J: number): string {
  const [unit, size] = value_J >= 1e6 ? ["MJ", 1e6] : value_J >= 1e3 ? ["kJ", 1e3] : ["J", 1];
  return `${Number((value_J / Number(size)).toPrecision(3))} ${unit}`;
}
