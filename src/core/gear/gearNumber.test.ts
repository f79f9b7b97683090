import fc from "fast-check";
import { gearNumber, numberText, sameNumber } from "./gearNumber";

describe("a number off steel or plastic", () => {
  test.each(["l-900", " L-900 ", "L - 900", "L\u2013900", "L\u2212 900", "\uFF2C-900", "L-\u200B900", "L\u00A0-900"])(
    "%j is L-900",
    (typed) => {
      expect(gearNumber(typed)).toBe("L-900");
      expect(numberText().parse(typed)).toBe("L-900");
    },
  );
  test("others stay apart", () => {
    expect(sameNumber("L-900", "L-90")).toBe(false);
    expect(sameNumber("L-900", "L-9000")).toBe(false);
    expect(sameNumber("L 1 2", "L 12")).toBe(false);
  });
  test("once made it stays as it is, whatever was typed", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary" }), (typed) => gearNumber(gearNumber(typed)) === gearNumber(typed)),
    );
  });
});
