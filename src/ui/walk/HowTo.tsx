import type { ReactNode } from "react";
import type { Guide } from "../../core/procedure/walkGuide";

/** Where to stand, how to leave it, and what the tag says: read before the hand goes there. */
export function HowTo({ guide, tagText }: { guide: Guide; tagText: string | null }) {
  const lines: [string, ReactNode][] = [];
  if (guide.stand) lines.push(["Stand", guide.stand]);
  if (guide.position) lines.push(["Leave it", guide.position]);
  if (guide.holdsLock) lines.push(["Lock by", guide.holdsLock]);
  if (guide.mind) lines.push(["Mind", guide.mind]);
  if (tagText) lines.push(["Tag", tagText]);
  if (lines.length === 0) return null;
  return (
    <dl className="my-2 grid grid-cols-[4.5rem_1fr] gap-x-3 gap-y-0.5 text-sm">
      {lines.map(([name, words]) => (
        <div key={name} className="contents">
          <dt className="opacity-85">{name}</dt>
          <dd>{words}</dd>
        </div>
      ))}
    </dl>
  );
}
