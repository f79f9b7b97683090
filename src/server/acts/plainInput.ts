/** What no input of an act is, whatever its schema: looked at before the schema is, and the same for every field. */

const MOST_TEXT = 4000;
const MOST_LIST = 2000;
const MOST_DEEP = 12;

export type InputFault = Readonly<{ field: string; message: string }>;

/**
 * The first thing wrong with an input as JSON has it: a text that is too long or no text at all (half a letter, a control
 * character), a list that is too long, or a heap of lists in lists. Only plain objects and lists are looked into. Cost:
 * linear in the input.
 */
export function inputFault(value: unknown, field = "", deep = 0): InputFault | null {
  if (typeof value === "string") return textFault(value, field);
  if (deep > MOST_DEEP) return { field, message: "is nested too deep" };
  if (Array.isArray(value)) {
    if (value.length > MOST_LIST) return { field, message: `holds more than ${MOST_LIST} entries` };
    return firstFault(
      value.map((one, i) => [String(i), one] as const),
      field,
      deep,
    );
  }
  if (value === null || typeof value !== "object" || Object.getPrototypeOf(value) !== Object.prototype) return null;
  const entries = Object.entries(value);
  if (entries.length > MOST_LIST) return { field, message: `holds more than ${MOST_LIST} entries` };
  const name = entries.map(([key]) => textFault(key, field)).find((fault) => fault !== null);
  return name ?? firstFault(entries, field, deep);
}

function firstFault(entries: readonly (readonly [string, unknown])[], field: string, deep: number): InputFault | null {
  for (const [key, one] of entries) {
    const fault = inputFault(one, field === "" ? key : `${field}.${key}`, deep + 1);
    if (fault !== null) return fault;
  }
  return null;
}

function textFault(text: string, field: string): InputFault | null {
  if (text.length > MOST_TEXT) return { field, message: `holds more than ${MOST_TEXT} characters` };
  if (!text.isWellFormed()) return { field, message: "holds half a letter: type it again" };
  if (/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/.test(text)) {
    return { field, message: "holds a character that cannot be seen or printed: type it again" };
  }
  return null;
}
