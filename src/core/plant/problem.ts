/** One thing wrong with a file, said so that the person who wrote the file can mend it. */
export type Problem = Readonly<{
  file: string;
  /** Line in the file as a person counts, heading included; missing where the format has no lines. */
  row?: number;
  tag?: string;
  field?: string;
  message: string;
}>;

export type Read<T> =
  | { readonly ok: true; readonly value: T; readonly warnings: readonly Problem[] }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** One line, for example: `items.csv row 12, V-118, effort: must be a number, 0 or more`. */
export function problemLine(problem: Problem): string {
  const where = [
    problem.file + (problem.row === undefined ? "" : ` row ${problem.row}`),
    problem.tag,
    problem.field,
  ].filter((word) => word !== undefined && word !== "");
  return `${where.join(", ")}: ${problem.message}`;
}
