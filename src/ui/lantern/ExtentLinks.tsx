import { Link } from "../text/Link";
import type { LanternScene } from "../../core/lantern/lanternScene";

type Props = Readonly<{
  /** The page, and what its address holds besides the extent. */
  path: string;
  keep: Readonly<Record<string, string>>;
  whole: boolean;
  open: readonly string[];
  shut: readonly string[];
  scene: LanternScene;
}>;

/** How much of the plant the lantern draws: what is near, or the whole region with its areas folded or not. */
export function ExtentLinks({ path, keep, whole, open, shut, scene }: Props) {
  const href = (next: { whole: boolean; open: readonly string[]; shut: readonly string[] }) => {
    const query = new URLSearchParams(keep);
    if (next.whole) query.set("region", "whole");
    for (const area of next.open) query.append("open", area);
    for (const area of next.shut) query.append("shut", area);
    return `${path}?${query.toString()}`;
  };
  const without = (list: readonly string[], area: string) => list.filter((one) => one !== area);
  return (
    <div className="no-print flex flex-wrap items-baseline gap-x-6 gap-y-2 text-sm">
      <Link href={href({ whole: !whole, open: [], shut: [] })} scroll={false} className="link">
        {whole ? "Draw what is near the work" : "Draw the whole region"}
      </Link>
      {whole && (
        <details>
          <summary className="cursor-pointer">
            {scene.nodes.length} drawn, {scene.areas.filter((area) => area.folded).length} of {scene.areas.length} areas
            folded
          </summary>
          <ul className="mt-2 flex flex-wrap gap-x-5 gap-y-1.5">
            {scene.areas.map((area) => (
              <li key={area.name}>
                <Link
                  scroll={false}
                  className="link"
                  href={href(
                    area.folded
                      ? { whole, open: [...without(open, area.name), area.name], shut: without(shut, area.name) }
                      : { whole, open: without(open, area.name), shut: [...without(shut, area.name), area.name] },
                  )}
                >
                  {area.folded ? "Unfold" : "Fold"} {area.name}
                </Link>{" "}
                <span className="num">{area.places}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
