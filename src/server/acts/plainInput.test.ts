import fc from "fast-check";
import { inputFault } from "./plainInput";

test.each([
  [{ words: "x".repeat(4001) }, "words", /more than 4000/],
  [{ lift: Array.from({ length: 2001 }, () => "V") }, "lift", /more than 2000 entries/],
  [{ crew: ["a", "b\u0000"] }, "crew.1", /cannot be seen/],
  [{ lock: "L-\ud800" }, "lock", /half a letter/],
  [{ "\udc00": 1 }, "", /half a letter/],
  ["x".repeat(5000), "", /more than 4000/],
] as const)("%#: what is no input is named with its field", (input, field, message) => {
  expect(inputFault(input)).toMatchObject({ field, message: expect.stringMatching(message) as string });
});

test("nested too deep is refused and not walked to its end", () => {
  let deep: unknown = "x";
  for (let i = 0; i < 5000; i++) deep = [deep];
  expect(inputFault(deep)?.message).toMatch(/nested too deep/);
});

test("whatever people write in their letters passes: lines, tabs, accents, pictures", () => {
  for (const text of ["a\nb\tc\r\n", "Ærø, naïve, 重い灯り, ﷽", "👷🏽‍♀️ 🔒", "“–” …"])
    expect(inputFault({ text })).toBeNull();
  fc.assert(
    fc.property(fc.string({ unit: "grapheme", maxLength: 500 }), (text) => {
      const hasControl = [...text].some((letter) => letter < " " || letter === "\u007f");
      expect(inputFault({ text }) === null || hasControl).toBe(true);
    }),
  );
});

test("a million of anything is looked at in no time that anybody notices", () => {
  const began = process.cpuUsage().user;
  inputFault({ all: Array.from({ length: 1999 }, () => " ".repeat(4000)) });
  inputFault({ all: " ".repeat(1e6) });
  expect((process.cpuUsage().user - began) / 1000).toBeLessThan(2000);
});
