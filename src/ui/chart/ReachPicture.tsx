import type { Area } from "../../core/plant/plant";
import { figure } from "../../core/units/format";
import type { UnitSystem } from "../../core/units/units";

type Ring = Readonly<{ radius_m: number; words: string }>;
const WIDTH = 640;
const HEIGHT = 420;
/** A person is drawn this tall, for a distance of a few metres to mean something. */
const PERSON_m = 1.75;
const NEAR_m = 6;

/** A distance as a circle: on the site plan where it spans areas, beside a person where it is an arm's length or two. */
export function ReachPicture({
  rings,
  areas,
  at,
  units,
}: {
  rings: readonly Ring[];
  areas: readonly Area[];
  at: Readonly<{ x_m: number; y_m: number; tag: string }> | null;
  units: UnitSystem;
}) {
  const most = Math.max(...rings.map((ring) => ring.radius_m), 0.1);
  const near = most < NEAR_m || at === null || areas.length === 0;
  const half_m = near ? most * 1.45 : Math.max(most * 1.25, 18);
  const scale = HEIGHT / (2 * half_m);
  const [cx, cy] = [WIDTH / 2, HEIGHT / 2];
  const words = rings.map((ring) => `${ring.words} ${figure(ring.radius_m, "length", units)}`).join("; ");
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${words}${near || at === null ? "" : `, around ${at.tag} on the site plan`}`}
      className="border-base-300 w-full min-w-[34rem] border"
      fontSize={15}
      fill="currentColor"
    >
      {!near &&
        at !== null &&
        areas.map((area) => (
          <g
            key={area.name}
            transform={`translate(${cx + (area.x_m - at.x_m) * scale} ${cy + (area.y_m - at.y_m) * scale})`}
          >
            <rect
              width={area.width_m * scale}
              height={area.depth_m * scale}
              style={{ fill: "var(--color-base-200)", stroke: "var(--dark-part)" }}
            />
            {area.width_m * scale > area.name.length * 8 && area.depth_m * scale > 22 && (
              <text x={8} y={19}>
                {area.name}
              </text>
            )}
          </g>
        ))}
      {rings.map((ring, i) => (
        <g key={ring.words}>
          <circle
            cx={cx}
            cy={cy}
            r={ring.radius_m * scale}
            strokeWidth={2.5}
            strokeDasharray={i === 0 ? undefined : "8 5"}
            style={{ fill: i === 0 ? "var(--glow)" : "none", fillOpacity: 0.14, stroke: "var(--color-accent)" }}
          />
          <text
            x={cx}
            y={Math.max(18, cy - ring.radius_m * scale - 8)}
            textAnchor="middle"
            fontWeight={700}
            className="halo"
          >
            {ring.words} {figure(ring.radius_m, "length", units)}
          </text>
        </g>
      ))}
      {near && <Person x={cx + most * scale * 1.12} y={cy} height={Math.min(PERSON_m * scale, HEIGHT * 0.8)} />}
      <path d={`M${cx - 8} ${cy}h16M${cx} ${cy - 8}v16`} stroke="currentColor" strokeWidth={2.5} />
      {!near && at !== null && (
        <text x={cx + 12} y={cy + 20} fontWeight={700} className="halo font-mono">
          {at.tag}
        </text>
      )}
    </svg>
  );
}

function Person({ x, y, height }: { x: number; y: number; height: number }) {
  const head = height / 14;
  return (
    <g fill="none" stroke="currentColor" strokeWidth={2} aria-hidden>
      <circle cx={x} cy={y - height / 2 + head} r={head} />
      <path
        d={`M${x} ${y - height / 2 + 2 * head}V${y + height * 0.06}L${x - head * 1.5} ${y + height / 2}M${x} ${y + height * 0.06}L${x + head * 1.5} ${y + height / 2}M${x - head * 2} ${y - height * 0.12}L${x} ${y - height * 0.28}L${x + head * 2} ${y - height * 0.12}`}
      />
    </g>
  );
}
