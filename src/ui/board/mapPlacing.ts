/** Where words and marks stand on the site plan: nothing over another, nothing outside. Figures are in the picture's units. */

export type Box = Readonly<{ x: number; y: number; width: number; height: number }>;

const meets = (a: Box, b: Box) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/**
 * A place for each box, as near as there is room to where it is wanted: there, else in rings around it; within the picture.
 * Where there is no room at all it stands where it is wanted, for nothing is left out. Cost: boxes by boxes, each a few tries.
 */
export function placeApart(
  wanted: readonly Box[],
  picture: Readonly<{ width: number; height: number }>,
  /** What stands there already. */
  taken: readonly Box[] = [],
): Box[] {
  const placed = [...taken];
  for (const box of wanted) placed.push(freePlace(box, placed, picture));
  return placed.slice(taken.length);
}

const RINGS = 7;
const STEP = 8;

function freePlace(box: Box, placed: readonly Box[], picture: Readonly<{ width: number; height: number }>): Box {
  const inside = within(box, picture);
  for (let ring = 0; ring <= RINGS; ring++) {
    for (const [dx, dy] of ring === 0 ? [[0, 0] as const] : around(ring)) {
      const tried = within(
        { ...box, x: box.x + dx * (box.width / 4 + STEP), y: box.y + dy * (box.height / 2 + STEP / 2) },
        picture,
      );
      if (!placed.some((other) => meets(other, tried))) return tried;
    }
  }
  return inside;
}

/** Down and up first: what is beside reads as another thing. */
function around(ring: number): (readonly [number, number])[] {
  return [
    [0, ring],
    [0, -ring],
    [ring, 0],
    [-ring, 0],
    [ring, ring],
    [-ring, -ring],
    [ring, -ring],
    [-ring, ring],
  ];
}

function within(box: Box, { width, height }: Readonly<{ width: number; height: number }>): Box {
  return {
    ...box,
    x: Math.max(0, Math.min(box.x, width - box.width)),
    y: Math.max(0, Math.min(box.y, height - box.height)),
  };
}

/** About what a letter takes in width, of its size. */
const LETTER = 0.56;

/** A name in lines that fit so wide; null where a word of it is wider. */
export function linesOf(name: string, width: number, size: number): readonly string[] | null {
  const fits = (words: string) => words.length * size * LETTER <= width;
  const lines: string[] = [];
  for (const word of name.split(" ")) {
    if (!fits(word)) return null;
    const last = lines.at(-1);
    if (last !== undefined && fits(`${last} ${word}`)) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

export const widthOf = (words: string, size: number) => words.length * size * LETTER;
