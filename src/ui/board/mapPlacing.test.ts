import fc from "fast-check";
import { linesOf, placeApart } from "./mapPlacing";

const picture = { width: 690, height: 380 };
const box = fc.record({
  x: fc.integer({ min: -40, max: 700 }),
  y: fc.integer({ min: -40, max: 400 }),
  width: fc.integer({ min: 20, max: 70 }),
  height: fc.integer({ min: 16, max: 40 }),
});

test("marks stay within the picture and, where there is room, apart from each other", () => {
  fc.assert(
    fc.property(fc.array(box, { minLength: 1, maxLength: 8 }), (wanted) => {
      const placed = placeApart(wanted, picture);
      expect(placed).toHaveLength(wanted.length);
      for (const { x, y, width, height } of placed) {
        expect(x >= 0 && y >= 0 && x + width <= picture.width && y + height <= picture.height).toBe(true);
      }
      const overlaps = placed.flatMap((a, i) =>
        placed
          .slice(i + 1)
          .filter((b) => a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height),
      );
      expect(overlaps).toEqual([]);
    }),
    { numRuns: 200 },
  );
});

test("what stands there already is not covered", () => {
  const name = { x: 100, y: 100, width: 60, height: 14 };
  const [mark] = placeApart([{ x: 110, y: 98, width: 50, height: 20 }], picture, [name]);
  expect(mark!.y >= 114 || mark!.y + 20 <= 100 || mark!.x >= 160 || mark!.x + 50 <= 100).toBe(true);
});

test("a name breaks between its words, or not at all", () => {
  expect(linesOf("Compressor house", 90, 12)).toEqual(["Compressor", "house"]);
  expect(linesOf("Compressor house", 200, 12)).toEqual(["Compressor house"]);
  expect(linesOf("Compressor house", 40, 12)).toBeNull();
});
