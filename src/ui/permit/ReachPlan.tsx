import type { Area } from "../../core/plant/plant";

/** Side of the picture, in its own units; about as many pixels, so that words keep their size. */
const SIDE = 540;
/** Of what the picture shows, the ring takes so much. */
const RING = 0.66;

export type Spot = Readonly<{ tag: string; x_m: number; y_m: number; words: string; permit?: string }>;

/** Words stay readable where a line crosses them. */
const HALO = {
  fill: "var(--color-base-content)",
  stroke: "var(--color-base-100)",
  strokeWidth: 4,
  paintOrder: "stroke",
} as const;

/** A ring on the site plan: sparks or a burst reach so far. Walls do not stop the ring; what is in it is drawn and named. */
export function ReachPlan({
  areas,
  x_m,
  y_m,
  reach_m,
  label,
  spots,
}: {
  areas: readonly Area[];
  x_m: number;
  y_m: number;
  reach_m: number;
  label: string;
  spots: readonly Spot[];
}) {
  const half = reach_m / RING;
  const [left, top] = [x_m - half, y_m - half];
  const px = (metres: number) => (metres * SIDE) / (2 * half);
  const seen = areas.filter(
    (area) =>
      area.x_m < x_m + half && area.x_m + area.width_m > left && area.y_m < y_m + half && area.y_m + area.depth_m > top,
  );
  return (
    <figure>
      <div role="region" aria-label={label} tabIndex={0} className="overflow-x-auto">
        <svg
          role="img"
          aria-label={`${label}: ${Math.ceil(reach_m)} m around. In it: ${spots.map(({ tag }) => tag).join(", ") || "nothing that is registered"}`}
          viewBox={`0 0 ${px(2 * half)} ${px(2 * half)}`}
          className="bg-base-200 border-base-300 w-full max-w-xl min-w-[31rem] border"
        >
          {seen.map((area) => (
            <g key={area.name} transform={`translate(${px(area.x_m - left)} ${px(area.y_m - top)})`}>
              <rect
                width={px(area.width_m)}
                height={px(area.depth_m)}
                style={{ fill: "var(--color-base-100)", stroke: "var(--dark-part)" }}
                strokeWidth={1.5}
              />
            </g>
          ))}
          <circle
            cx={px(half)}
            cy={px(half)}
            r={px(reach_m)}
            style={{ fill: "var(--glow)", stroke: "var(--color-base-content)" }}
            fillOpacity={0.16}
            strokeWidth={2.5}
            strokeDasharray="10 6"
          />
          {seen.map((area) => {
            // The name stands at the foot of the part of the area that is in the picture.
            const x = px(Math.max(area.x_m, left) - left) + 8;
            const y = px(Math.min(area.y_m + area.depth_m, y_m + half) - top) - 9;
            return (
              <text key={area.name} x={x} y={y} fontSize={15} style={HALO}>
                {area.name}
                {area.level_m !== 0 && ` ${area.level_m > 0 ? "+" : "−"}${Math.abs(area.level_m)} m`}
              </text>
            );
          })}
          {spots.map((spot) => (
            <g
              key={`${spot.tag} ${spot.permit ?? ""}`}
              transform={`translate(${px(spot.x_m - left)} ${px(spot.y_m - top)})`}
            >
              <rect x={-5} y={-5} width={10} height={10} style={{ fill: "var(--color-base-content)" }} />
              <text x={9} y={5} fontSize={14} className="font-mono" style={HALO}>
                {spot.tag}
              </text>
            </g>
          ))}
          <path
            d={`M${px(half) - 9} ${px(half)}h18M${px(half)} ${px(half) - 9}v18`}
            style={{ stroke: "var(--color-base-content)" }}
            strokeWidth={3}
          />
        </svg>
      </div>
      <figcaption className="mt-1 text-sm opacity-85">
        {label}. The cross is the work; squares stand in its reach.
      </figcaption>
    </figure>
  );
}
