import { scaleLinear, scaleSymlog } from "d3";
import type { Picture } from "../../core/calc/calculation";
import { figure } from "../../core/units/format";
import type { UnitSystem } from "../../core/units/units";

const WIDTH = 640;
const ROW = 44;
const LEFT = 216;
const RIGHT = 110;

/** Amounts side by side; the one that decides is solid, the others are outlines. */
export function BarsChart({ picture, units }: { picture: Extract<Picture, { kind: "bars" }>; units: UnitSystem }) {
  const { rows, line, log, quantity } = picture;
  const most = Math.max(...rows.map((row) => row.value), line?.value ?? 0, Number.MIN_VALUE);
  const least = Math.min(...rows.map((row) => row.value).filter((value) => value > 0), most);
  // A ratio of thousands is drawn on a logarithmic scale that still begins at nothing.
  const x = log
    ? scaleSymlog([0, most], [LEFT, WIDTH - RIGHT]).constant(Math.max(least, most / 1e6))
    : scaleLinear([0, most], [LEFT, WIDTH - RIGHT]);
  const height = rows.length * ROW + (line ? 34 : 8);
  const said = (value: number) => figure(value, quantity, units);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label={[
        ...rows.map((row) => `${row.words} ${said(row.value)}`),
        line ? `${line.words} ${said(line.value)}` : "",
      ]
        .filter(Boolean)
        .join("; ")}
      className="w-full min-w-[34rem]"
      fontSize={15}
      fill="currentColor"
    >
      {rows.map((row, i) => (
        <g key={row.words} transform={`translate(0 ${i * ROW + 6})`}>
          <text x={LEFT - 12} y={23} textAnchor="end" fontWeight={row.governs ? 700 : 400}>
            {row.words}
          </text>
          <rect
            x={LEFT}
            y={6}
            width={Math.max(2, x(row.value) - LEFT)}
            height={24}
            strokeWidth={1.5}
            style={{ fill: row.governs ? "currentColor" : "transparent", stroke: "currentColor" }}
          />
        </g>
      ))}
      <line x1={LEFT} x2={LEFT} y1={0} y2={rows.length * ROW} stroke="currentColor" />
      {line && (
        <g>
          <line
            x1={x(line.value)}
            x2={x(line.value)}
            y1={0}
            y2={rows.length * ROW + 8}
            stroke="var(--color-accent)"
            strokeWidth={2}
            strokeDasharray="10 5"
          />
          <text
            x={Math.min(x(line.value), WIDTH - 8)}
            y={rows.length * ROW + 26}
            textAnchor={x(line.value) > WIDTH * 0.6 ? "end" : x(line.value) < LEFT + 60 ? "start" : "middle"}
          >
            {line.words}, {said(line.value)}
          </text>
        </g>
      )}
      {/* Figures last, so that no line is drawn through them. */}
      {rows.map((row, i) => (
        <text
          key={row.words}
          x={x(row.value) + 10}
          y={i * ROW + 29}
          fontWeight={row.governs ? 700 : 400}
          className="halo num"
        >
          {said(row.value)}
        </text>
      ))}
    </svg>
  );
}
