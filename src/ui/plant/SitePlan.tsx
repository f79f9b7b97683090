import { Link } from "../text/Link";
import type { Area } from "../../core/plant/plant";

type Block = Area & Readonly<{ items: number; jobs: readonly string[] }>;

const SCALE = 10;
const MARGIN = 12;

/** The site from above: each area where it stands, its level, what is registered there, and the jobs that are live in it. */
export function SitePlan({ blocks, chosen }: { blocks: readonly Block[]; chosen: string }) {
  if (blocks.length === 0) return null;
  const left = Math.min(...blocks.map((block) => block.x_m));
  const top = Math.min(...blocks.map((block) => block.y_m));
  const width = Math.max(...blocks.map((block) => block.x_m + block.width_m)) - left;
  const depth = Math.max(...blocks.map((block) => block.y_m + block.depth_m)) - top;
  return (
    <figure className="mb-8">
      <div role="region" aria-label="Site plan" tabIndex={0} className="overflow-x-auto">
        <svg
          viewBox={`${-MARGIN} ${-MARGIN} ${width * SCALE + 2 * MARGIN} ${depth * SCALE + 2 * MARGIN}`}
          className="bg-base-200 border-base-300 w-full max-w-6xl min-w-[68rem] border"
        >
          {blocks.map((block) => {
            const isChosen = chosen.trim().toLowerCase() === block.name.toLowerCase();
            const [w, h] = [block.width_m * SCALE, block.depth_m * SCALE];
            const live = block.jobs.length > 0;
            const standing = w < 90;
            return (
              <Link
                key={block.name}
                href={`/plant?find=${encodeURIComponent(block.name)}`}
                aria-label={`${block.name}, level ${block.level_m} m, ${block.items} items${live ? `, jobs ${block.jobs.join(", ")}` : ""}`}
              >
                <g transform={`translate(${(block.x_m - left) * SCALE} ${(block.y_m - top) * SCALE})`}>
                  <rect
                    x={2}
                    y={2}
                    width={w - 4}
                    height={h - 4}
                    style={{
                      fill: "var(--color-base-100)",
                      stroke: live || isChosen ? "var(--color-base-content)" : "var(--dark-part)",
                    }}
                    strokeWidth={isChosen ? 4 : live ? 2.5 : 1}
                  />
                  <g transform={standing ? `translate(${w / 2 + 5} ${h - 12}) rotate(-90)` : "translate(12 24)"}>
                    <text fontSize={14} fontWeight={600} style={{ fill: "var(--color-base-content)" }}>
                      {block.name}
                    </text>
                  </g>
                  {!standing && (
                    <text x={12} y={43} fontSize={13} style={{ fill: "var(--color-base-content)" }}>
                      {block.items}
                      {block.level_m !== 0 && `, ${block.level_m > 0 ? "+" : "−"}${Math.abs(block.level_m)} m`}
                    </text>
                  )}
                  {live && !standing && (
                    <text
                      x={12}
                      y={h - 14}
                      fontSize={13}
                      fontWeight={700}
                      className="font-mono"
                      style={{ fill: "var(--color-base-content)" }}
                    >
                      {block.jobs.join(" ")}
                    </text>
                  )}
                </g>
              </Link>
            );
          })}
        </svg>
      </div>
      <figcaption className="mt-1 text-sm opacity-85">
        The figure is the number of items; then the level. A heavy frame has a job whose points are locked.
      </figcaption>
    </figure>
  );
}
