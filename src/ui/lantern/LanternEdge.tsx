import { middleOfLongest } from "../../core/lantern/lanternLayout";
import { carrierMark } from "../../core/lantern/carrierMarks";

type Point = Readonly<{ x: number; y: number }>;
type Props = Readonly<{ points: readonly Point[]; carrier: string; lit: boolean; traced: boolean }>;

/** A connection: its carrier by line pattern and letter, live by glow and weight. */
export function LanternEdge({ points, carrier, lit, traced }: Props) {
  if (points.length < 2) return null;
  const mark = carrierMark(carrier);
  const d = points.map((point, index) => `${index === 0 ? "M" : "L"}${point.x} ${point.y}`).join("");
  const { x, y } = middleOfLongest(points);
  return (
    <g style={{ color: lit ? "var(--glow)" : "var(--dark-part)" }} className="transition-colors duration-500">
      {traced && (
        <path
          d={d}
          fill="none"
          stroke="currentColor"
          strokeWidth={mark.width + 8}
          opacity={0.3}
          strokeLinejoin="round"
        />
      )}
      <path
        d={d}
        fill="none"
        stroke="currentColor"
        strokeWidth={lit ? mark.width : Math.max(1.2, mark.width * 0.45)}
        strokeDasharray={mark.dash || undefined}
        strokeLinejoin="round"
      />
      {carrier === "power" && lit && (
        <path d={d} fill="none" style={{ stroke: "var(--color-base-200)" }} strokeWidth={0.8} />
      )}
      <circle cx={x} cy={y} r={9} style={{ fill: "var(--color-base-200)" }} />
      <text
        x={x}
        y={y + 4.5}
        textAnchor="middle"
        fontSize={13}
        fontWeight={700}
        className="font-mono"
        fill="currentColor"
      >
        {mark.letter}
      </text>
    </g>
  );
}
