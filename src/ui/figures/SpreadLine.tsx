import { scaleLinear } from "d3";
import type { Spread } from "../../core/figures/figures";

type Props = Readonly<{ label: string; spread: Spread | null; words: (value: number) => string; none: string }>;

/** Where the middle half of some times lies, the middle of all, and the longest: drawn from nought, and said beside it. */
export function SpreadLine({ label, spread, words, none }: Props) {
  if (spread === null) return <p>{none}</p>;
  const { n, quarter, half, threeQuarters, most } = spread;
  const at = scaleLinear([0, Math.max(most, Number.EPSILON)], [1, 99]);
  return (
    <figure aria-label={label}>
      <svg viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden className="h-8 w-full">
        <line x1={at(0)} x2={at(most)} y1={4} y2={4} stroke="currentColor" strokeWidth={0.4} opacity={0.7} />
        <rect
          x={at(quarter)}
          width={Math.max(0.4, at(threeQuarters) - at(quarter))}
          y={1.5}
          height={5}
          fill="currentColor"
          opacity={0.45}
        />
        <line x1={at(half)} x2={at(half)} y1={0.5} y2={7.5} stroke="currentColor" strokeWidth={0.8} />
      </svg>
      <figcaption className="tabular-nums">
        Half within {words(half)}, three quarters within {words(threeQuarters)}, the longest {words(most)}; {n} in all.
      </figcaption>
    </figure>
  );
}
