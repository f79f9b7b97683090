import type { Picture } from "../../core/calc/calculation";
import { figure } from "../../core/units/format";
import type { UnitSystem } from "../../core/units/units";

const WIDTH = 640;
const INSET = { left: 150, right: 60, top: 40, bottom: 16 };
const TALL = 320;

/** A space from the side: every place to hold the hose, and how deep it hangs. */
export function DepthPicture({ picture, units }: { picture: Extract<Picture, { kind: "depths" }>; units: UnitSystem }) {
  const { depth_m, travel_m, at_m } = picture;
  const across = WIDTH - INSET.left - INSET.right;
  const gaps = travel_m === 0 ? 1 : Math.ceil(travel_m / 1.2 - 1e-9);
  const stations = travel_m === 0 ? [0.5] : Array.from({ length: gaps + 1 }, (_, i) => i / gaps);
  const y = (depth: number) => INSET.top + (depth_m === 0 ? 0 : (depth / depth_m) * TALL);
  // Labels of many depths are thinned so that none runs into the next.
  const every = Math.max(1, Math.ceil((at_m.length * 20) / TALL));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${INSET.top + TALL + INSET.bottom}`}
      role="img"
      aria-label={`${at_m.length} depths from ${figure(0, "length", units)} to ${figure(depth_m, "length", units)} at ${stations.length} places across`}
      className="w-full min-w-[34rem]"
      fontSize={15}
      fill="currentColor"
    >
      <path
        d={`M${INSET.left - 14} ${INSET.top - 18}h${across * 0.36}m${across * 0.28 + 28} 0h${across * 0.36 - 28 + 14}M${INSET.left - 14} ${INSET.top - 18}V${INSET.top + TALL + 12}H${INSET.left + across + 14}V${INSET.top - 18}`}
        fill="none"
        stroke="currentColor"
        strokeWidth={3}
      />
      {at_m.map((depth, i) => (
        <g key={depth}>
          {(i % every === 0 || i === at_m.length - 1) && (
            <text x={INSET.left - 26} y={y(depth) + 5} textAnchor="end" className="num">
              {figure(depth, "length", units)}
            </text>
          )}
          {stations.map((station) => (
            <circle
              key={station}
              cx={INSET.left + 14 + (across - 28) * station}
              cy={y(depth)}
              r={stations.length * at_m.length > 120 ? 3 : 6}
              strokeWidth={2}
              style={{ fill: "var(--color-base-100)", stroke: "var(--color-accent)" }}
            />
          ))}
        </g>
      ))}
    </svg>
  );
}
