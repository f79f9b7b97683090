import fc from "fast-check";
import { foundBy, inOrder, pageOf } from "./listed";

test("numbers in tags count as numbers, and what has nothing there stands last both ways", () => {
  const rows = ["V-10", "V-9", "v-2", null];
  expect(inOrder(rows, (row) => row)).toEqual(["v-2", "V-9", "V-10", null]);
  expect(inOrder(rows, (row) => row, true)).toEqual(["V-10", "V-9", "v-2", null]);
});

test("each word has to stand in it, in whatever order", () => {
  const rows = ["Pump A, seal", "Pump B, seal", "Tank"];
  expect(foundBy(rows, "  SEAL b ", (row) => row)).toEqual(["Pump B, seal"]);
  expect(foundBy(rows, "a pump", (row) => row)).toEqual(["Pump A, seal"]);
  expect(foundBy([...rows, "5 % acid"], "%", (row) => row)).toEqual(["5 % acid"]);
  expect(foundBy(rows, "", (row) => row)).toEqual(rows);
});

test("sorting loses and moves nothing but by the key, and rows alike stay as they stood", () => {
  const row = fc.record({ key: fc.option(fc.nat(5)), id: fc.nat() });
  fc.assert(
    fc.property(fc.array(row), fc.boolean(), (rows, down) => {
      const sorted = inOrder(rows, ({ key }) => key, down);
      expect(new Set(sorted)).toEqual(new Set(rows));
      sorted.slice(1).forEach((next, i) => {
        const before = sorted[i]!;
        if (before.key === null) expect(next.key).toBeNull();
        else if (next.key === before.key) expect(rows.indexOf(before)).toBeLessThan(rows.indexOf(next));
        else if (next.key !== null) expect(next.key > before.key).toBe(!down);
      });
    }),
  );
});

test("the pages together are the list, and a page too far is the last", () => {
  fc.assert(
    fc.property(
      fc.array(fc.nat()),
      fc.integer({ min: 1, max: 7 }),
      fc.integer({ min: -3, max: 400 }),
      (rows, size, asked) => {
        const { pages } = pageOf(rows, 1, size);
        const all = Array.from({ length: pages }, (_, i) => pageOf(rows, i + 1, size).rows).flat();
        expect(all).toEqual(rows);
        const one = pageOf(rows, asked, size);
        expect(one.page).toBe(Math.min(Math.max(1, asked), pages));
        expect(one.rows.length > 0).toBe(rows.length > 0);
      },
    ),
  );
});
