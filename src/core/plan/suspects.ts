import type { Carrier } from "../plant/carriers";
import type { Plan } from "./plan";

/** Where it may come from, when a work location is not dead after everything was done. */
export type Suspect =
  /** The only device in the way: if it passes, this is reached. */
  | Readonly<{ code: "alone"; device: string }>
  /** A path with few barriers, and the points on it. */
  | Readonly<{ code: "path"; source: string; carrier: Carrier; depth: number; points: readonly string[] }>
  /** Stored with no point between, and not let go or come back. */
  | Readonly<{ code: "stored"; sources: readonly string[] }>
  /** Stored beyond points of the plan: it comes where one of them passes. */
  | Readonly<{ code: "stored beyond"; sources: readonly string[]; points: readonly string[] }>
  /** A bleed that is plugged lets nothing out, and what shows nothing there is no proof. */
  | Readonly<{ code: "bleeds"; bleeds: readonly string[] }>
  /** What the register does not have: a hose, an interlock, a line nobody drew. */
  | Readonly<{ code: "not in the register" }>;

const MOST_PATHS = 6;

/**
 * Ranked: what the plan leaves open first, then what is stored there with nothing between, then what one failure explains, then
 * paths by their barriers, what is stored beyond the points, plugged bleeds, and what nobody wrote down, which is always possible.
 * `face` and `arrives` null for all of them. Cost: linear in the plan's routes.
 */
export function suspects(plan: Plan, face: string | null, arrives: Carrier | null): Suspect[] {
  const isHere = (name: string) => face === null || name === face;
  const points = new Set(plan.points.map(({ device }) => device));
  const alone = plan.singleFailures
    .filter(({ faces }) => faces.some(isHere))
    .map(({ device }): Suspect => ({ code: "alone", device }));
  const paths = plan.routes
    .filter((route) => isHere(route.face) && (arrives === null || route.arrives === arrives))
    .map(({ source, carrier, depth, via }) => ({
      source,
      carrier,
      depth,
      points: via.filter((tag) => points.has(tag)),
    }))
    .filter(
      ({ depth, points }) =>
        depth !== 1 || !points.every((tag) => alone.some((one) => "device" in one && one.device === tag)),
    )
    .sort((a, b) => a.depth - b.depth)
    .slice(0, MOST_PATHS)
    .map((path): Suspect => ({ code: "path", ...path }));
  const bleeds: Suspect[] = plan.bleeds.length > 0 ? [{ code: "bleeds", bleeds: plan.bleeds }] : [];
  const open = paths.filter((one) => one.code === "path" && one.depth === 0);
  const held = paths.filter((one) => !open.includes(one));
  const { near, beyond } = storedNearAndBeyond(plan, points, isHere, arrives);
  return [...open, ...near, ...alone, ...held, ...beyond, ...bleeds, { code: "not in the register" }];
}

/** A source counts as near as soon as one of its ways crosses no point. */
function storedNearAndBeyond(
  plan: Plan,
  points: ReadonlySet<string>,
  isHere: (face: string) => boolean,
  arrives: Carrier | null,
): Readonly<{ near: Suspect[]; beyond: Suspect[] }> {
  const rows = plan.stored.filter((row) => isHere(row.face) && (arrives === null || row.arrives === arrives));
  const crossed = new Map<string, string[][]>();
  for (const { source, via } of rows) {
    crossed.set(source, [...(crossed.get(source) ?? []), via.filter((tag) => points.has(tag))]);
  }
  const isNear = (source: string) => crossed.get(source)!.some((on) => on.length === 0);
  const sources = [...crossed.keys()];
  const near = sources.filter(isNear);
  const far = sources.filter((source) => !isNear(source));
  const between = [...new Set(far.flatMap((source) => crossed.get(source)!.flat()))].sort();
  return {
    near: near.length > 0 ? [{ code: "stored", sources: near }] : [],
    beyond: far.length > 0 ? [{ code: "stored beyond", sources: far, points: between }] : [],
  };
}
