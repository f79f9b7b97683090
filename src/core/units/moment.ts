import { z } from "zod";

const LONGEST = 160;
/** The furthest moment that a date can hold, in ms. */
const FURTHEST_MS = 8.64e15;

/**
 * A moment in ms UTC, as a form sends it. Where there is none by the site's clock the form sends what is wrong instead, and
 * that is the message; `words` where nothing was typed.
 */
export const momentOf = (words: string) =>
  z
    .number({
      error: ({ input }) => (typeof input === "string" && input.trim() !== "" ? input.slice(0, LONGEST) : words),
    })
    .int(words)
    .min(0, words)
    .max(FURTHEST_MS, words);
