import type { Happening } from "./happening";

export type Told = Exclude<Happening, { kind: "open" }>;

/** Readings come every second, and a board shows everybody's acts: such pages look no more often than this. */
const OFTEN_MS = { readings: 3000, boards: 5000 };
const BOARDS: readonly string[] = ["/", "/permits", "/locks", "/jobs"];

/** How soon after its last look a page looks again for what it was told, in ms; null where that is not its own. */
export function looksFor(told: Told, path: string): number | null {
  if (told.kind === "alarm") return 0;
  const concerns = told.about.some((number) => path.includes(number));
  if (!concerns) return BOARDS.includes(path) ? OFTEN_MS.boards : null;
  return told.kind === "instrument" ? OFTEN_MS.readings : 0;
}

/** The longest that a page is on its way; one that takes longer is loaded anew by the browser, with a mark of its own. */
const ON_ITS_WAY_MS = 20_000;

/**
 * What was told lately: a page that was on its way meanwhile was read before it and is shown after it, and nobody would tell
 * it. Cost: linear in what was told in that time.
 */
export function toldLately(now_ms: () => number) {
  let kept: readonly Readonly<{ at_ms: number; told: Told }>[] = [];
  const fresh = () => kept.filter(({ at_ms }) => at_ms >= now_ms() - ON_ITS_WAY_MS);
  return {
    keep(told: Told): void {
      kept = [...fresh(), { at_ms: now_ms(), told }];
    },
    /** How soon a page that has come to be shown now looks again; null where it missed nothing of its own. */
    missedBy(path: string): number | null {
      const soon = fresh().flatMap(({ told }) => looksFor(told, path) ?? []);
      return soon.length === 0 ? null : Math.min(...soon);
    },
  };
}
