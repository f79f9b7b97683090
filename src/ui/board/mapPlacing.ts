/** Where words and marks stand on the site plan: nothing over another, nothing outside. Figures are in the picture's units. */

export type Box = Readonly<{ x: number; y: number; width: number; height: number }>;

const meets = (a: Box, b: Box) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** Boxes by the squares that they touch: who asks looks at its own neighbourhood only. */
class Taken {
  private readonly squares = new Map<number, Box[]>();

  add(box: Box): void {
    for (const square of squaresOf(box)) {
      const known = this.squares.get(square);
      if (known) known.push(box);
      else this.squares.set(square, [box]);
    }
  }

  isFree(box: Box): boolean {
    return squaresOf(box).every((square) => !this.squares.get(square)?.some((other) => meets(box, other)));
  }
}

const SQUARE = 40;
const ACROSS = 1000;

function squaresOf({ x, y, width, height }: Box): number[] {
  const squares: number[] = [];
  for (let i = Math.floor(x / SQUARE); i <= Math.floor((x + width) / SQUARE); i++) {
    for (let j = Math.floor(y / SQUARE); j <= Math.floor((y + height) / SQUARE); j++) squares.push(i * ACROSS + j);
  }
  return squares;
}

/**
 * A place for each box, as near as there is room to where it is wanted: there, else in rings around it; within the picture.
 * Where there is no room at all it stands where it is wanted, for nothing is left out. Cost: a few tries for each.
 */
export function placeApart(
  wanted: readonly Box[],
  picture: Readonly<{ width: number; height: number }>,
  /** What stands there already. */
  there: readonly Box[] = [],
): Box[] {
  const taken = new Taken();
  for (const box of there) taken.add(box);
  return wanted.map((box) => {
    const place = freePlace(box, taken, picture);
    taken.add(place);
    return place;
  });
}

const RINGS = 7;
const STEP = 8;

function freePlace(box: Box, taken: Taken, picture: Readonly<{ width: number; height: number }>): Box {
  const inside = within(box, picture);
  if (taken.isFree(inside)) return inside;
  for (let ring = 1; ring <= RINGS; ring++) {
    for (const [dx, dy] of AROUND) {
      const x = box.x + dx * ring * (box.width / 4 + STEP);
      const y = box.y + dy * ring * (box.height / 2 + STEP / 2);
      const tried = within({ ...box, x, y }, picture);
      if (taken.isFree(tried)) return tried;
    }
  }
  return inside;
}

/** Down and up first: what is beside reads as another thing. */
const AROUND = [
  [0, 1],
  [0, -1],
  [1, 0],
  [-1, 0],
  [1, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
] as const;

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
