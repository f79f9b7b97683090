"use client";

import type { SitePicture } from "../../core/board/pictureAt";
import type { Area } from "../../core/plant/plant";

/** Which level stands out. Those with people inside say so, whatever is chosen. */
export function LevelChoice({
  areas,
  picture,
  level_m,
  choose,
}: {
  areas: readonly Area[];
  picture: SitePicture;
  level_m: number | null;
  choose: (level_m: number | null) => void;
}) {
  const levels = [...new Set(areas.map((area) => area.level_m))].sort((a, b) => a - b);
  if (levels.length < 2) return null;
  const insideAt = (of_m: number) =>
    picture.works.reduce((sum, { inside, spot }) => sum + (Math.abs(spot.level_m - of_m) <= 0.5 ? inside : 0), 0);
  return (
    <div role="group" aria-label="Level" className="board-levels !p-0">
      <span aria-hidden className="self-center text-sm opacity-85">
        level, m
      </span>
      <button type="button" aria-pressed={level_m === null} onClick={() => choose(null)}>
        all
      </button>
      {levels.map((of_m) => {
        const inside = insideAt(of_m);
        return (
          <button key={of_m} type="button" aria-pressed={level_m === of_m} onClick={() => choose(of_m)}>
            {of_m === 0 ? "0" : `${of_m > 0 ? "+" : "−"}${Math.abs(of_m)}`}
            {inside > 0 && <span className="text-error">, {inside} inside</span>}
          </button>
        );
      })}
    </div>
  );
}
