import type { Area } from "../../core/plant/plant";
import { figure } from "../../core/units/format";
import type { UnitSystem } from "../../core/units/units";

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

const LETTER = 15;
/** About what a letter takes in width. */
const LETTER_WIDTH = 8.2;

type Part = Readonly<{ words: string; from_x: number; to_x: number; from_y: number; to_y: number }>;

/** Each name at the foot of its area, or at its head where another level's name stands; left out where it has no room. */
function placeNames(parts: readonly Part[]) {
  const placed: { words: string; x: number; y: number }[] = [];
  const leftOut: string[] = [];
  for (const { words, from_x, to_x, from_y, to_y } of parts) {
    const x = from_x + 8;
    const width = words.length * LETTER_WIDTH;
    const isFree = (y: number) =>
      placed.every(
        (other) =>
          Math.abs(other.y - y) >= LETTER + 3 || other.x > x + width || other.x + other.words.length * LETTER_WIDTH < x,
      );
    const y = [to_y - 9, from_y + LETTER + 5].find(isFree);
    if (y === undefined || x + width > to_x || to_y - from_y < LETTER + 10) leftOut.push(words);
    else placed.push({ words, x, y });
  }
  return { placed, leftOut };
}

/** A ring on the site plan: sparks or a burst reach so far. Walls do not stop the ring; what is in it is drawn and named. */
export function ReachPlan({
  areas,
  x_m,
  y_m,
  reach_m,
  label,
  spots,
  units,
}: {
  areas: readonly Area[];
  x_m: number;
  y_m: number;
  reach_m: number;
  label: string;
  spots: readonly Spot[];
  units: UnitSystem;
}) {
  const half = reach_m / RING;
  const [left, top] = [x_m - half, y_m - half];
  const px = (metres: number) => (metres * SIDE) / (2 * half);
  const seen = areas.filter(
    (area) =>
      area.x_m < x_m + half && area.x_m + area.width_m > left && area.y_m < y_m + half && area.y_m + area.depth_m > top,
  );
  const { placed, leftOut } = placeNames(
    seen.map((area) => ({
      words: `${area.name}${area.level_m === 0 ? "" : ` ${area.level_m > 0 ? "+" : "−"}${figure(Math.abs(area.level_m), "length", units)}`}`,
      // The part of the area that is in the picture.
      from_x: px(Math.max(area.x_m, left) - left),
      to_x: px(Math.min(area.x_m + area.width_m, left + 2 * half) - left),
      from_y: px(Math.max(area.y_m, top) - top),
      to_y: px(Math.min(area.y_m + area.depth_m, top + 2 * half) - top),
    })),
  );
  return (
    <figure>
      <div role="region" aria-label={label} tabIndex={0} className="overflow-x-auto">
        <svg
          role="img"
          aria-label={`${label}. In it: ${spots.map(({ tag }) => tag).join(", ") || "nothing that is registered"}`}
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
          {placed.map(({ words, x, y }) => (
            <text key={words} x={x} y={y} fontSize={LETTER} style={HALO}>
              {words}
            </text>
          ))}
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
        {leftOut.length > 0 && ` Too small to be named above: ${leftOut.join(", ")}.`}
      </figcaption>
    </figure>
  );
}
