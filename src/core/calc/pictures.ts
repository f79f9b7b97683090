import type { Picture } from "./calculation";

type Curve = Extract<Picture, { kind: "curve" }>;
type Bars = Extract<Picture, { kind: "bars" }>;

/** A curve of one line, with what is marked on it. */
export function curve(
  p: Pick<Curve, "x" | "y"> & {
    words: string;
    points: readonly (readonly [number, number])[];
    lines?: Curve["lines"];
    marks?: Curve["marks"];
  },
): Curve {
  const { x, y, words, points, lines = [], marks = [] } = p;
  return { kind: "curve", x, y, series: [{ words, points }], lines, marks, bands: [] };
}

export function bars(quantity: Bars["quantity"], rows: Bars["rows"], line?: Bars["line"]): Bars {
  return { kind: "bars", quantity, log: false, rows, ...(line === undefined ? {} : { line }) };
}
