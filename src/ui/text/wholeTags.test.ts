import fc from "fast-check";
import { withWholeTags } from "./wholeTags";

const tagsIn = (sentence: string) => withWholeTags(sentence).flatMap(({ text, isTag }) => (isTag ? [text] : []));

test("tags in a sentence are parts of their own, and nothing is lost", () => {
  expect(tagsIn("Empty A-230 of oil through BL-2307, M-204A.shaft or EJ-233: well-kept, 24-hour")).toEqual([
    "A-230",
    "BL-2307",
    "M-204A.shaft",
    "EJ-233",
  ]);
  fc.assert(
    fc.property(fc.string(), (sentence) => {
      expect(
        withWholeTags(sentence)
          .map(({ text }) => text)
          .join(""),
      ).toBe(sentence);
    }),
  );
});
