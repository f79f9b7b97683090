import { line, scaleLinear } from "d3";
import type { Picture } from "../../core/calc/calculation";
import type { UnitSystem } from "../../core/units/units";
import { axisFor } from "./axis";

const [WIDTH, HEIGHT] = [640, 372];
/** A label of a large figure reaches so far to either side of its tick. */
const HALF_LABEL = 36;
const INSET = { left: 74, right: 24, top: 38, bottom: 74 };
/** A bold letter of a label is about so wide. */
const LETTER = 8.6;
/** Two labels closer than this would run into each other. */
const ROOM = 20;

/** A curve with its limit as a dashed line, the moment it is met as a ring, and a stretch with a name hatched. */
export function CurveChart({ picture, units }: { picture: Extract<Picture, { kind: "curve" }>; units: UnitSystem }) {
  const points = picture.series.flatMap((series) => series.points);
  const xs = [...points.map(([x]) => x), ...picture.marks.map((mark) => mark.x)];
  const ys = [
    ...points.map(([, y]) => y),
    ...picture.lines.map((one) => one.y),
    ...picture.marks.map((mark) => mark.y),
  ];
  const [xMost, yMost] = [Math.max(...xs), Math.max(...ys)];
  const xAxis = axisFor(picture.x.words, picture.x.quantity, xMost, units);
  const yAxis = axisFor(picture.y.words, picture.y.quantity, yMost, units);
  // Temperatures and vacuums have no natural zero; everything else is drawn from it.
  const yLeast = Math.min(...ys.map(yAxis.of), yAxis.of(0) < 0 ? Infinity : 0);
  const x = scaleLinear([Math.min(...xs.map(xAxis.of)), xAxis.of(xMost)], [INSET.left, WIDTH - INSET.right]).nice(6);
  const y = scaleLinear([yLeast, yAxis.of(yMost)], [HEIGHT - INSET.bottom, INSET.top]).nice(5);
  const at = ([a, b]: readonly [number, number]): [number, number] => [x(xAxis.of(a)), y(yAxis.of(b))];
  const path = line();
  const limitLabels = apart(picture.lines.map((one) => y(yAxis.of(one.y)) - 6));
  const summary = [
    ...picture.lines.map((one) => `${one.words} at ${round(yAxis.of(one.y))}`),
    ...picture.marks.map((mark) => `${mark.words} at ${round(xAxis.of(mark.x))}`),
  ].join("; ");
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${yAxis.label} against ${xAxis.label}. ${summary}`}
      className="w-full min-w-[34rem]"
      fontSize={15}
      fill="currentColor"
    >
      <defs>
        <pattern id="stretch" width={8} height={8} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line y2={8} stroke="currentColor" strokeWidth={1.4} opacity={0.35} />
        </pattern>
      </defs>
      {picture.bands.map((band) => {
        const [from, to] = [x(xAxis.of(band.from)), x(xAxis.of(band.to))];
        return (
          <g key={band.words}>
            <rect
              x={from}
              y={INSET.top}
              width={to - from}
              height={HEIGHT - INSET.top - INSET.bottom}
              fill="url(#stretch)"
            />
            <text x={to - 8} y={INSET.top + 18} textAnchor="end" className="halo">
              {band.words}
            </text>
          </g>
        );
      })}
      {y.ticks(5).map((tick) => (
        <g key={tick}>
          <line x1={INSET.left} x2={WIDTH - INSET.right} y1={y(tick)} y2={y(tick)} stroke="var(--color-base-300)" />
          <text x={INSET.left - 8} y={y(tick) + 5} textAnchor="end">
            {y.tickFormat(5)(tick)}
          </text>
        </g>
      ))}
      {x.ticks(6).map((tick) => (
        <g key={tick}>
          <line
            x1={x(tick)}
            x2={x(tick)}
            y1={HEIGHT - INSET.bottom}
            y2={HEIGHT - INSET.bottom + 5}
            stroke="currentColor"
          />
          {x(tick) > WIDTH - HALF_LABEL ? (
            <text x={WIDTH - 1} y={HEIGHT - INSET.bottom + 22} textAnchor="end">
              {x.tickFormat(6)(tick)}
            </text>
          ) : (
            <text x={x(tick)} y={HEIGHT - INSET.bottom + 22} textAnchor="middle">
              {x.tickFormat(6)(tick)}
            </text>
          )}
        </g>
      ))}
      <line
        x1={INSET.left}
        x2={WIDTH - INSET.right}
        y1={HEIGHT - INSET.bottom}
        y2={HEIGHT - INSET.bottom}
        stroke="currentColor"
      />
      <text x={WIDTH - INSET.right} y={HEIGHT - 30} textAnchor="end">
        {xAxis.label}
      </text>
      <text x={4} y={14}>
        {yAxis.label}
      </text>
      {picture.series.map((series) => (
        <path
          key={series.words}
          d={path(series.points.map(at)) ?? ""}
          fill="none"
          stroke="currentColor"
          strokeWidth={series.dashed ? 1.5 : 3}
          strokeDasharray={series.dashed ? "3 5" : undefined}
          opacity={series.dashed ? 0.8 : 1}
        />
      ))}
      {picture.series.length > 1 && <Legend series={picture.series} />}
      {picture.lines.map((one, i) => (
        <g key={one.words}>
          <line
            x1={INSET.left}
            x2={WIDTH - INSET.right}
            y1={y(yAxis.of(one.y))}
            y2={y(yAxis.of(one.y))}
            stroke="var(--color-accent)"
            strokeWidth={2}
            strokeDasharray="10 5"
          />
          <text x={INSET.left + 8} y={limitLabels[i]} className="halo">
            {one.words}
          </text>
        </g>
      ))}
      {picture.marks.map((mark) => {
        const [cx, cy] = at([mark.x, mark.y]);
        // Beyond the mark, where the curve has ended, unless it would not fit there.
        const right = cx + 12 + mark.words.length * LETTER > WIDTH;
        return (
          <g key={mark.words}>
            <line x1={cx} x2={cx} y1={cy} y2={HEIGHT - INSET.bottom} stroke="currentColor" strokeDasharray="2 4" />
            <circle
              cx={cx}
              cy={cy}
              r={6}
              strokeWidth={3}
              style={{ fill: "var(--color-base-100)", stroke: "var(--color-accent)" }}
            />
            <text
              x={cx + (right ? -12 : 12)}
              y={Math.max(INSET.top + 12, cy - (cy > HEIGHT - INSET.bottom - 30 ? (right ? 32 : 14) : -20))}
              textAnchor={right ? "end" : "start"}
              fontWeight={700}
              className="halo"
            >
              {mark.words}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** Which line is which, along the foot. */
function Legend({ series }: { series: Extract<Picture, { kind: "curve" }>["series"] }) {
  const share = (WIDTH - INSET.left) / series.length;
  return series.map((one, i) => (
    <g key={one.words} transform={`translate(${INSET.left + i * share} ${HEIGHT - 8})`}>
      <line
        x2={34}
        y1={-5}
        y2={-5}
        stroke="currentColor"
        strokeWidth={one.dashed ? 1.5 : 3}
        strokeDasharray={one.dashed ? "3 5" : undefined}
      />
      <text x={42}>{one.words}</text>
    </g>
  ));
}

/** Keeps labels of lines that lie close from running into each other. */
function apart(heights: readonly number[]): number[] {
  const placed: number[] = [];
  for (const height of heights) {
    const near = placed.find((other) => Math.abs(other - height) < ROOM);
    placed.push(near === undefined ? height : height > near ? near + ROOM : near - ROOM);
  }
  return placed;
}

const round = (value: number) => Number(value.toPrecision(3));
