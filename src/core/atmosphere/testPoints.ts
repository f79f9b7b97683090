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
  /** To the side of the first line; 0 on it. */
  aside_m: number;
}>;

/** Places along a stretch, never further apart than the spacing. */
function stations(length_m: number): number[] {
  if (length_m === 0) return [0];
  const count = Math.ceil(length_m / TEST_SPACING_m - 1e-9) + 1;
  return Array.from({ length: count }, (_, i) => Math.min(length_m, i * TEST_SPACING_m));
}

/** Lines across a width: one does where no side is farther from it than the spacing allows. */
function across(width_m: number): number[] {
  return width_m <= TEST_SPACING_m + 1e-9 ? [0] : stations(width_m);
}

/** Taken for a space of which nobody wrote down how wide it is: as wide as it is long, and never one line only. */
export function widthOr(width_m: number | undefined, travel_m: number): number {
  return width_m ?? Math.max(travel_m, 2 * TEST_SPACING_m);
}

/**
 * Every place to test in a space of this depth, this long and wide, with so many corners and open duct ends: each station, along
 * and across, at every depth, each corner high for what rises and low for what sinks, every duct mouth. One line through it does for
 * a space no wider than the spacing.
 */
export function testPoints(
  p: Readonly<{ depth_m: number; travel_m: number; width_m: number; corners: number; ducts: number }>,
): TestPoint[] {
  const depths = testDepths_m(p.depth_m);
  const column = stations(p.travel_m).flatMap((travel_m) =>
    across(p.width_m).flatMap((aside_m) =>
      depths.map((depth_m, i) => ({
        kind: "column" as const,
        where: i === 0 ? "top" : i === depths.length - 1 ? "bottom" : "between",
        depth_m,
        travel_m,
        aside_m,
      })),
    ),
  );
  const end = { travel_m: p.travel_m, aside_m: p.width_m };
  const corners = Array.from({ length: p.corners }, (_, i) => [
    { kind: "corner" as const, where: `corner ${i + 1} high`, depth_m: 0, ...end },
    { kind: "corner" as const, where: `corner ${i + 1} low`, depth_m: p.depth_m, ...end },
  ]).flat();
  const ducts = Array.from({ length: p.ducts }, (_, i) => ({
    kind: "duct" as const,
    where: `duct mouth ${i + 1}`,
    depth_m: p.depth_m,
    ...end,
  }));
  return [...column, ...corners, ...ducts];
}

/** How long one instrument may be about a round. Common practice, no source. */
export const ROUND_s = 1200;
/** What reading a point takes besides waiting for the hose: going there, holding still, writing down. Common practice. */
export const AT_A_POINT_s = 60;

/**
 * Instruments, each with a tester, that read so many points within the time there is for it; null where one point alone takes
 * longer. A point is read by one of them and never half by another.
 */
export function instrumentsFor(points: number, each_s: number, within_s: number): number | null {
  const own = Math.floor(within_s / each_s + 1e-9);
  return own === 0 ? null : Math.max(1, Math.ceil(points / own));
}

/** How long a round lasts where so many instruments share its points, in s. */
export function roundOf_s(points: number, each_s: number, instruments: number): number {
  return Math.ceil(points / instruments) * each_s;
}

/**
 * Oxygen first, then flammable, then toxic: the flammable sensor needs oxygen to read true.
 * 29 CFR 1910.146(c)(5)(ii)(C), from memory.
 */
export const TEST_ORDER = ["oxygen", "flammable", "toxic"] as const;
