import { PLACES } from "./places";

/** What a key means: somewhere to go, the sheet of keys, or the first half of two. */
export type Meant = Readonly<{ go: string } | { sheet: true } | { waits: true } | null>;

/** `g` and a letter go to a place, `?` opens the sheet. `isSecond`: `g` was pressed just before. */
export function meant(key: string, isSecond: boolean): Meant {
  if (isSecond) {
    const place = PLACES.find((one) => one.key === key.toLowerCase());
    return place ? { go: place.href } : null;
  }
  if (key === "g") return { waits: true };
  return key === "?" ? { sheet: true } : null;
}

/** Keys that hold everywhere but where somebody types. */
export const SHEET: readonly (readonly [keys: string, does: string])[] = [
  ["/", "find a tag, job, permit, person or lock"],
  [".", "on the board: the first thing that is due"],
  ["?", "this sheet"],
  ...PLACES.map(({ key, words }) => [`g ${key}`, words] as const),
  ["← →", "move a slider: the board's moment, the light on a drawing, a planned job"],
  ["Home End", "a slider's first and last"],
  ["Esc", "close what is open"],
];
