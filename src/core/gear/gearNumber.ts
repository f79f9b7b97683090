import { z } from "zod";

/** Dashes of every length, and the minus: on steel they are one stroke. */
const DASHES = /[\u2010-\u2015\u2212\uFE58\uFE63\uFF0D]/g;
/** Marks that nobody sees: zero-width spaces, joiners, byte-order marks. */
const UNSEEN = /[\u00AD\u200B-\u200F\u2060\uFEFF]/g;

/**
 * How a number of a lock, key, tag or instrument is kept, however it was typed: capitals, one kind of dash with no space
 * about it, single spaces. Numbers are read off steel and plastic, where none of this can be told apart.
 */
export function gearNumber(text: string): string {
  return text
    .normalize("NFKC")
    .replace(UNSEEN, "")
    .replace(DASHES, "-")
    .split("-")
    .map((part) => part.trim())
    .join("-")
    .replace(/\s+/g, " ")
    .trim()
    .toUpperCase();
}

export function sameNumber(one: string, other: string): boolean {
  return gearNumber(one) === gearNumber(other);
}

const LONGEST = 60;

/** A number as it arrives with an act: made one with what is kept before anything is asked of it. */
export const numberText = (missing = "the number is missing") =>
  z.string(missing).max(LONGEST, `at most ${LONGEST} characters`).transform(gearNumber);
