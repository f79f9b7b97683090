import type { PicturedWork } from "../../core/board/pictureAt";

const ALONE = 5;
const TOGETHER = 9;
const TEXT = 12;

/** So many planned jobs are named on the site plan; of more, what is out is what has to be seen. */
const NAMED_MOST = 25;

/** What is named on the plan, what is out first so that it stands where it is; and what is only planned, when that is much. */
export function apart(works: readonly PicturedWork[]): Readonly<{ named: PicturedWork[]; quiet: PicturedWork[] }> {
  const out = works.filter(({ phase }) => phase !== "planned");
  const planned = works.filter(({ phase }) => phase === "planned");
  return planned.length > NAMED_MOST ? { named: out, quiet: planned } : { named: [...out, ...planned], quiet: [] };
}

/** Planned jobs as small rings where they will be, those at one place together: by name they stand in the times beside. */
export function PlannedMarks({
  works,
  at,
  isFaint,
  shown,
  choose,
}: {
  works: readonly PicturedWork[];
  at: (spot: PicturedWork["spot"]) => Readonly<{ x: number; y: number }>;
  isFaint: (level_m: number) => boolean;
  shown: string | null;
  choose: (number: string | null) => void;
}) {
  return [...byPlace(works)].map(([place, [first, ...others]]) => {
    const { x, y } = at(first!.spot);
    const all = [first!, ...others];
    const words = `planned: ${all.map(({ number, title }) => `${number}, ${title}`).join("; ")}`;
    const isShown = all.some(({ number, job }) => number === shown || job === shown);
    const className = `board-work board-work-planned ${isShown ? "board-work-shown" : ""}`;
    const mark = (
      <>
        <title>{words}</title>
        <circle cx={x} cy={y} r={others.length > 0 ? TOGETHER : ALONE} />
        {others.length > 0 && (
          <text x={x} y={y + 4} textAnchor="middle" fontSize={TEXT}>
            {all.length}
          </text>
        )}
      </>
    );
    const style = { opacity: isFaint(first!.spot.level_m) ? 0.4 : 1 };
    return others.length > 0 ? (
      <g key={place} role="img" aria-label={words} className={className} style={style}>
        {mark}
      </g>
    ) : (
      <a
        key={place}
        href={`/jobs/${first!.job}`}
        aria-label={words}
        className={className}
        style={style}
        onPointerEnter={() => choose(first!.number)}
        onPointerLeave={() => choose(null)}
        onFocus={() => choose(first!.number)}
        onBlur={() => choose(null)}
      >
        {mark}
      </a>
    );
  });
}

function byPlace(works: readonly PicturedWork[]): Map<string, PicturedWork[]> {
  const places = new Map<string, PicturedWork[]>();
  for (const work of works) {
    const key = `${work.spot.x_m} ${work.spot.y_m} ${work.spot.level_m}`;
    const known = places.get(key);
    if (known) known.push(work);
    else places.set(key, [work]);
  }
  return places;
}
