/** A number a person typed, or what is wrong with it in words that say what to do. */
export type ReadNumber = Readonly<{ ok: true; value: number } | { ok: false; message: string }>;

/**
 * Reads what somebody typed into a field. A comma is refused rather than guessed at: 1,500 is fifteen hundred to one
 * reader and one and a half to the next.
 */
export function readNumber(text: string): ReadNumber {
  const typed = text.trim().replace("−", "-");
  if (typed === "") return { ok: false, message: "is empty: write a number" };
  if (typed.includes(",")) {
    return { ok: false, message: "holds a comma: write 1.5 with a point, and 1500 without a comma" };
  }
  if (!/^[+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d{1,3})?$/i.test(typed)) {
    return { ok: false, message: "is not a number: write figures and at most one point" };
  }
  const value = Number(typed);
  if (!Number.isFinite(value)) return { ok: false, message: "is too large a number" };
  return { ok: true, value };
}
