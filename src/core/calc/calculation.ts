import type { Quantity, UnitSystem } from "../units/units";

/** A computed quantity, in SI. Null where it is never reached: said in words beside it, never as infinity. */
export type Result = Readonly<{
  key: string;
  words: string;
  quantity: Quantity;
  value: number | null;
  /** What to read instead of a figure, where there is none. */
  instead?: string;
}>;

export type Series = Readonly<{ words: string; points: readonly (readonly [number, number])[]; dashed?: boolean }>;

/** What a figure means, as data that a chart draws. Coordinates are SI. */
export type Picture =
  | Readonly<{
      kind: "curve";
      x: Readonly<{ words: string; quantity: Quantity }>;
      y: Readonly<{ words: string; quantity: Quantity }>;
      series: readonly Series[];
      /** Level lines: a limit, what it ends at. */
      lines: readonly Readonly<{ y: number; words: string }>[];
      /** Moments: where the limit is met. */
      marks: readonly Readonly<{ x: number; y: number; words: string }>[];
      /** A stretch of x with a name: the choked part. */
      bands: readonly Readonly<{ from: number; to: number; words: string }>[];
    }>
  | Readonly<{
      kind: "bars";
      quantity: Quantity;
      /** A ratio of a thousand is drawn on a logarithmic axis. */
      log: boolean;
      rows: readonly Readonly<{ words: string; value: number; governs?: boolean }>[];
      line?: Readonly<{ value: number; words: string }>;
    }>
  | Readonly<{ kind: "reach"; rings: readonly Readonly<{ radius_m: number; words: string }>[] }>
  | Readonly<{ kind: "depths"; depth_m: number; travel_m: number; at_m: readonly number[] }>;

/** A figure that explains itself. */
export type Calculation = Readonly<{
  results: readonly Result[];
  /** Key of the result that decides, where several are given. */
  governs: string;
  /** Why that one decides: which rule or bound is the longer. */
  because?: string;
  formula: string;
  source: string;
  /** The range it holds for. */
  validity: string;
  warnings: readonly string[];
  picture?: Picture;
  /** Answers on the command line that are no quantity: `flammable`, `cycles`. */
  also?: Readonly<Record<string, unknown>>;
}>;

/** A figure could not be given: what is asked never happens, or figures contradict each other. Names the input. */
export class NoFigure extends Error {
  readonly why: (units: UnitSystem) => string;
  /** `why` is a sentence without its subject; where it holds figures, made for the units of who reads it. */
  constructor(
    readonly key: string,
    why: string | ((units: UnitSystem) => string),
  ) {
    const said = typeof why === "string" ? () => why : why;
    super(`${key} ${said("metric")}`);
    this.why = said;
  }
}

/** Evenly spread points of a curve, ends included. */
export function sampled(
  from: number,
  to: number,
  y: (x: number) => number,
  count = 60,
): readonly (readonly [number, number])[] {
  return Array.from({ length: count + 1 }, (_, i) => {
    const x = from + ((to - from) * i) / count;
    return [x, y(x)] as const;
  });
}

/**
 * When each level is passed on the way down (or up) through evenly spread ones, adding up what each piece takes:
 * [time, level] pairs, the first at time 0. Ends are the levels given.
 */
export function passedAt(
  from: number,
  to: number,
  piece_s: (from: number, to: number) => number,
  levelAt: (share: number) => number = (share) => from + (to - from) * share,
  count = 32,
): readonly (readonly [number, number])[] {
  const points: (readonly [number, number])[] = [[0, from]];
  let [time, level] = [0, from];
  for (let i = 1; i <= count; i++) {
    const next = i === count ? to : levelAt(i / count);
    time += piece_s(level, next);
    points.push([time, next]);
    level = next;
  }
  return points;
}
