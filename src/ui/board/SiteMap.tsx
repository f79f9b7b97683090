"use client";

import { memo } from "react";
import type { PicturedWork, SitePicture } from "../../core/board/pictureAt";
import type { Area } from "../../core/plant/plant";
import { apart, PlannedMarks } from "./PlannedMarks";
import { linesOf, placeApart, widthOf, type Box } from "./mapPlacing";

/** The picture's width in its own units: about as many pixels on a desk, so that words keep their size. */
const WIDTH = 690;
const NAME = 12;
const MARK = 13;
const MARK_HEIGHT = 20;
const INSIDE = 17;

type View = Readonly<{ left_m: number; top_m: number; scale: number; height: number }>;

function viewOf(areas: readonly Area[]): View {
  const left_m = Math.min(...areas.map(({ x_m }) => x_m)) - 1;
  const top_m = Math.min(...areas.map(({ y_m }) => y_m)) - 1;
  const right_m = Math.max(...areas.map(({ x_m, width_m }) => x_m + width_m)) + 1;
  const bottom_m = Math.max(...areas.map(({ y_m, depth_m }) => y_m + depth_m)) + 1;
  const scale = WIDTH / (right_m - left_m);
  return { left_m, top_m, scale, height: (bottom_m - top_m) * scale };
}

/** The site from above at one moment: work, what reaches others, open ends, locked points, people inside. */
export function SiteMap({
  areas,
  picture,
  level_m,
  shown,
  choose,
}: {
  areas: readonly Area[];
  picture: SitePicture;
  /** Null shows every level alike; else other levels are drawn faintly. Nobody inside is ever faint. */
  level_m: number | null;
  /** The job or permit that somebody points at. */
  shown: string | null;
  choose: (number: string | null) => void;
}) {
  const view = viewOf(areas);
  const at = ({ x_m, y_m }: Readonly<{ x_m: number; y_m: number }>) => ({
    x: (x_m - view.left_m) * view.scale,
    y: (y_m - view.top_m) * view.scale,
  });
  const { named: known, quiet } = apart(picture.works.filter(({ spot }) => spot.isKnown));
  const lost = picture.works.filter(({ spot }) => !spot.isKnown);
  const isFaint = (of_m: number) => level_m !== null && Math.abs(of_m - level_m) > 0.5;
  const boxes = placeApart(
    known.map((work): Box => {
      const { x, y } = at(work.spot);
      const width = work.inside > 0 ? INSIDE * 2 : widthOf(work.number, MARK) + 14;
      const height = work.inside > 0 ? INSIDE * 2 + 16 : MARK_HEIGHT;
      return { x: x - width / 2, y: y - height / 2, width, height };
    }),
    { width: WIDTH, height: view.height },
    areas.map((area) => nameOf(area, view).box),
  );
  return (
    <div className="board-map">
      <svg
        viewBox={`0 0 ${WIDTH} ${view.height}`}
        className="block w-full min-w-[43.5rem]"
        role="group"
        aria-label="Site plan"
      >
        <defs>
          <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="7" stroke="var(--glow)" strokeWidth="1.6" opacity="0.55" />
          </pattern>
        </defs>
        <Ground areas={areas} view={view} level_m={level_m} />
        {picture.zones.map((zone) => {
          if (!zone.spot.isKnown) return null;
          const { x, y } = at(zone.spot);
          return (
            <g key={`${zone.what} ${zone.by} ${zone.words}`} opacity={isFaint(zone.spot.level_m) ? 0.35 : 1}>
              <circle
                cx={x}
                cy={y}
                r={zone.reach_m * view.scale}
                className={`board-zone board-zone-${zone.what} ${zone.isPlanned ? "board-zone-planned" : ""}`}
                fill={zone.what === "flame" && !zone.isPlanned ? "url(#hatch)" : "none"}
              />
              <title>{`${zone.by}: ${ZONE_WORDS[zone.what]}, ${zone.words}`}</title>
            </g>
          );
        })}
        {onePerPlace(picture.locked).map(({ key, tags, spot }) => {
          const { x, y } = at(spot);
          return (
            <rect
              key={key}
              x={x - 2.5}
              y={y - 2.5}
              width={5}
              height={5}
              className="board-lock"
              opacity={isFaint(spot.level_m) ? 0.3 : 1}
            >
              <title>{`Locked: ${tags.join(", ")}`}</title>
            </rect>
          );
        })}
        {picture.openEnds.map(({ tag, by, spot }) => {
          if (!spot.isKnown) return null;
          const { x, y } = at(spot);
          return (
            <path key={`${by} ${tag}`} d={`M${x - 6} ${y - 15}a6 6 0 1 0 12 0`} className="board-open">
              <title>{`${by} has ${tag} open`}</title>
            </path>
          );
        })}
        <PlannedMarks works={quiet} at={at} isFaint={isFaint} shown={shown} choose={choose} />
        {known.map((work, index) => (
          <WorkMark
            key={work.number}
            work={work}
            box={boxes[index]!}
            at={at(work.spot)}
            isFaint={work.inside === 0 && isFaint(work.spot.level_m)}
            isShown={shown === work.number || shown === work.job}
            choose={choose}
          />
        ))}
      </svg>
      {lost.length > 0 && (
        <p className="px-4 pb-1 text-sm">
          Nobody wrote down where{" "}
          {lost.map(({ number, inside }) => `${number}${inside > 0 ? ` (${inside} inside)` : ""}`).join(", ")}{" "}
          {lost.length === 1 ? "is" : "are"}.
        </p>
      )}
    </div>
  );
}

const ZONE_WORDS = {
  flame: "reach of its sparks",
  "keep-out": "keep-out distance of the gas test",
  exhaust: "what is blown out",
  lift: "under the lift",
} as const;

export const PHASE_WORDS: Readonly<Record<PicturedWork["phase"], string>> = {
  planned: "planned",
  issued: "issued",
  active: "active",
  stopped: "stopped",
  expired: "expired",
  "after-watch": "post-work watch",
};

function WorkMark({
  work,
  box,
  at,
  isFaint,
  isShown,
  choose,
}: {
  work: PicturedWork;
  box: Box;
  at: Readonly<{ x: number; y: number }>;
  isFaint: boolean;
  isShown: boolean;
  choose: (number: string | null) => void;
}) {
  const { number, job, title, phase, on, inside } = work;
  const href = number === job ? `/jobs/${job}` : `/permits/${number}`;
  const words = `${number}, ${title}, ${PHASE_WORDS[phase]}${on > 0 ? `, ${on} on` : ""}${inside > 0 ? `, ${inside} inside` : ""}`;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const isMoved = Math.hypot(middle.x - at.x, middle.y - at.y) > 12;
  return (
    <a
      href={href}
      aria-label={words}
      style={{ opacity: isFaint ? 0.4 : 1 }}
      className={`board-work board-work-${phase} ${inside > 0 ? "board-work-inside" : ""} ${isShown ? "board-work-shown" : ""}`}
      onPointerEnter={() => choose(number)}
      onPointerLeave={() => choose(null)}
      onFocus={() => choose(number)}
      onBlur={() => choose(null)}
    >
      <title>{words}</title>
      {isMoved && <line x1={at.x} y1={at.y} x2={middle.x} y2={middle.y} className="board-leader" />}
      {inside > 0 ? (
        <>
          <circle cx={middle.x} cy={box.y + INSIDE} r={INSIDE} className="board-inside" />
          <text x={middle.x} y={box.y + INSIDE + 6} textAnchor="middle" fontSize={17} fontWeight={700}>
            {inside}
          </text>
          <text
            x={middle.x}
            y={box.y + box.height - 2}
            textAnchor="middle"
            fontSize={NAME}
            className="board-inside-words"
          >
            {number} inside
          </text>
        </>
      ) : (
        <>
          <rect x={box.x} y={box.y} width={box.width} height={box.height} rx={4} />
          <text x={middle.x} y={middle.y + 4.5} textAnchor="middle" fontSize={MARK} className="font-mono">
            {number}
          </text>
        </>
      )}
    </a>
  );
}

/** Devices that stand at one place are one mark. */
function onePerPlace(locked: SitePicture["locked"]) {
  const places = new Map<string, { key: string; tags: string[]; spot: SitePicture["locked"][number]["spot"] }>();
  for (const { tag, spot } of locked) {
    if (!spot.isKnown) continue;
    const key = `${spot.x_m} ${spot.y_m} ${spot.level_m}`;
    const known = places.get(key);
    if (known) known.tags.push(tag);
    else places.set(key, { key, tags: [tag], spot });
  }
  return [...places.values()];
}

/** An area's name: in lines at its head, or upright where it is narrow. */
function nameOf(area: Area, view: View): Readonly<{ lines: readonly string[]; isUpright: boolean; box: Box }> {
  const x = (area.x_m - view.left_m) * view.scale;
  const y = (area.y_m - view.top_m) * view.scale;
  const [width, height] = [area.width_m * view.scale, area.depth_m * view.scale];
  const fitting = linesOf(area.name, width - 8, NAME);
  const isUpright = width < height && fitting === null;
  const lines = isUpright ? [area.name] : (fitting ?? [area.name]);
  const long = Math.max(...lines.map((words) => widthOf(words, NAME)));
  const box = isUpright
    ? { x: x + 4, y: y + height - 8 - long, width: NAME + 4, height: long }
    : { x: x + 6, y: y + 5, width: long, height: lines.length * (NAME + 2) };
  return { lines, isUpright, box };
}

/** The areas, which do not change while the cursor moves. */
const Ground = memo(function Ground({
  areas,
  view,
  level_m,
}: {
  areas: readonly Area[];
  view: View;
  level_m: number | null;
}) {
  return areas.map((area) => {
    const x = (area.x_m - view.left_m) * view.scale;
    const y = (area.y_m - view.top_m) * view.scale;
    const [width, height] = [area.width_m * view.scale, area.depth_m * view.scale];
    const isFaint = level_m !== null && area.level_m !== level_m;
    const { lines, isUpright } = nameOf(area, view);
    return (
      <g key={area.name} opacity={isFaint ? 0.35 : 1}>
        <rect x={x + 1.5} y={y + 1.5} width={width - 3} height={height - 3} rx={3} className="board-area" />
        <g
          transform={isUpright ? `translate(${x + 16} ${y + height - 8}) rotate(-90)` : `translate(${x + 7} ${y + 16})`}
        >
          {lines.map((words, line) => (
            <text key={words} y={line * (NAME + 2)} fontSize={NAME} className="board-name">
              {words}
            </text>
          ))}
        </g>
        <title>{`${area.name}, level ${area.level_m} m`}</title>
      </g>
    );
  });
});
