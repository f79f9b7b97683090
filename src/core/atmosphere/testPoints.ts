/** One test for every 4 ft (1.2 m) of travel. 29 CFR 1910.146 appendix B, from memory. */
export const TEST_SPACING_m = 1.2;

/**
 * Depths at which to test, from the top down: never further apart than the spacing, and top, middle and bottom at
 * least. 29 CFR 1910.146 appendix B, from memory; top, middle and bottom common practice.
 */
export function testDepths_m(depth_m: number, spacing_m = TEST_SPACING_m): number[] {
  const gaps = Math.max(2, Math.ceil(depth_m / spacing_m - 1e-9));
  return Array.from({ length: gaps + 1 }, (_, i) => (depth_m * i) / gaps);
}

/** Corners and duct mouths are tested besides. Common practice, no source. */
export type TestPoint = Readonly<{
  kind: "column" | "corner" | "duct";
  where: string;
  depth_m: number;
  travel_m: number;
}>;

/**
 * Every place to test in a space of this depth, this long sideways, with so many corners and open duct ends: each
 * station sideways at every depth, each corner high for what rises and low for what sinks, every duct mouth.
 */
export function testPoints(p: { depth_m: number; travel_m: number; corners: number; ducts: number }): TestPoint[] {
  const depths = testDepths_m(p.depth_m);
  const stations =
    p.travel_m === 0
      ? [0]
      : Array.from({ length: Math.ceil(p.travel_m / TEST_SPACING_m - 1e-9) + 1 }, (_, i) =>
          Math.min(p.travel_m, i * TEST_SPACING_m),
        );
  const column = stations.flatMap((travel_m) =>
    depths.map((depth_m, i) => ({
      kind: "column" as const,
      where: i === 0 ? "top" : i === depths.length - 1 ? "bottom" : "between",
      depth_m,
      travel_m,
    })),
  );
  const corners = Array.from({ length: p.corners }, (_, i) => [
    { kind: "corner" as const, where: `corner ${i + 1} high`, depth_m: 0, travel_m: p.travel_m },
    { kind: "corner" as const, where: `corner ${i + 1} low`, depth_m: p.depth_m, travel_m: p.travel_m },
  ]).flat();
  const ducts = Array.from({ length: p.ducts }, (_, i) => ({
    kind: "duct" as const,
    where: `duct mouth ${i + 1}`,
    depth_m: p.depth_m,
    travel_m: p.travel_m,
  }));
  return [...column, ...corners, ...ducts];
}

/**
 * Oxygen first, then flammable, then toxic: the flammable sensor needs oxygen to read true.
 * 29 CFR 1910.146(c)(5)(ii)(C), from memory.
 */
export const TEST_ORDER = ["oxygen", "flammable", "toxic"] as const;
