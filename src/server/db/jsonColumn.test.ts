import { z } from "zod";
import { parsed } from "./jsonColumn";

const words = z.strictObject({ words: z.array(z.string()) });
const anything = z.unknown();

test("the same text is the same value; another schema reads it by its own rules", () => {
  const text = JSON.stringify({ words: ["a", "b"] });
  const one = parsed("notes_json", words, text);
  expect(one).toEqual({ words: ["a", "b"] });
  expect(parsed("notes_json", words, `${text}`)).toBe(one);
  expect(parsed("other_json", anything, text)).toEqual(one);
  const spoilt = JSON.stringify({ words: [1] });
  // Fit by one schema is not fit by another.
  parsed("other_json", anything, spoilt);
  for (let i = 0; i < 2; i++) {
    expect(() => parsed("notes_json", words, spoilt)).toThrow(/^notes_json holds what it cannot: words\.0 /);
  }
});

test("nobody changes what another reader has", () => {
  const text = JSON.stringify({ words: ["a"] });
  const one = parsed("notes_json", words, text);
  expect(() => one.words.push("b")).toThrow(TypeError);
  expect(() => Object.assign(one, { words: [] })).toThrow(TypeError);
  expect(parsed("notes_json", words, text)).toEqual({ words: ["a"] });
});

test("a long text is read anew each time", () => {
  const text = JSON.stringify({ words: ["x".repeat(100_000)] });
  expect(parsed("notes_json", words, text)).not.toBe(parsed("notes_json", words, text));
});
