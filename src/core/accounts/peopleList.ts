import { COMPETENCES, ROLES, type Competence, type Role } from "../people/roles";
import type { Problem, Read } from "../plant/problem";
import { readTable, type Row } from "../plant/readTable";
import { readWhen } from "../units/whenText";

/** Columns of a list of people, as they are taken out; who may not sign in is entered by no list. */
export const PEOPLE_COLUMNS = [
  "name",
  "signs in as",
  "roles",
  "competences",
  "until",
  "firm",
  "inducted until",
  "may sign in",
] as const;
/** Each is handed a password and a PIN, which take a fraction of a second to keep. */
export const PEOPLE_AT_MOST = 100;
const SIGN_IN = /^[a-z0-9][a-z0-9.-]{0,39}$/;
export const SIGN_IN_ASKED = "small letters, figures, points and hyphens, at most 40, a letter or figure first";

/** Days as 2027-11-29; null where there is none. */
export type Listed = Readonly<{
  name: string;
  signIn: string;
  roles: readonly Role[];
  competences: readonly Competence[];
  until: Readonly<Partial<Record<Competence, string>>>;
  firm: string;
  inductedUntil: string | null;
}>;

export const isSignIn = (text: string): boolean => SIGN_IN.test(text);

/**
 * People from a table of text, parted by commas, semicolons or tabs, or everything that is wrong with it, by row and column.
 * Nothing is guessed: a role that is none is a fault and not left out. Cost: linear.
 */
export function readPeopleList(text: string, file = "list"): Read<readonly Listed[]> {
  const table = readTable({ name: file, text }, PEOPLE_COLUMNS, ["name", "signs in as", "roles"]);
  if (!table.ok) return table;
  if (table.value.length > PEOPLE_AT_MOST) {
    const message = `${table.value.length} people; at most ${PEOPLE_AT_MOST} in one list`;
    return { ok: false, problems: [{ file, message }] };
  }
  const problems: Problem[] = [];
  const seen = new Map<string, number>();
  const people = table.value.map((row, index) => {
    const at = { file, row: index + 2, tag: row["signs in as"] ?? "" };
    const fault = (field: (typeof PEOPLE_COLUMNS)[number], message: string) =>
      void problems.push({ ...at, field, message });
    const one = read(row, fault);
    const before = seen.get(one.signIn);
    if (before !== undefined) fault("signs in as", `row ${before} has it as well`);
    seen.set(one.signIn, at.row);
    return one;
  });
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: people, warnings: [] };
}

type Fault = (field: (typeof PEOPLE_COLUMNS)[number], message: string) => void;

function read(row: Row, fault: Fault): Listed {
  const cell = (column: (typeof PEOPLE_COLUMNS)[number]) => row[column]?.trim() ?? "";
  const name = cell("name");
  if (name === "" || name.length > 80) fault("name", "1 to 80 characters");
  const signIn = cell("signs in as").toLowerCase();
  if (!isSignIn(signIn)) fault("signs in as", SIGN_IN_ASKED);
  const roles = chosen(cell("roles"), ROLES, (message) => fault("roles", message));
  if (cell("roles") === "") fault("roles", `at least one of ${ROLES.join(", ")}`);
  const competences = chosen(cell("competences"), COMPETENCES, (message) => fault("competences", message));
  const until: Partial<Record<Competence, string>> = {};
  for (const part of parts(cell("until"))) {
    const [word = "", ...rest] = part.split(" ");
    const competence = competences.find((each) => each === word);
    const day = readWhen(rest.join(" "));
    if (competence === undefined) fault("until", `"${part}": write a competence of the row and its last day`);
    else if (day === null) fault("until", `"${part}": write the day as 2027-11-29`);
    else until[competence] = day.date;
  }
  const firm = cell("firm");
  if (firm.length > 80) fault("firm", "at most 80 characters");
  const inducted = cell("inducted until");
  const day = inducted === "" ? null : readWhen(inducted);
  if (inducted !== "" && day === null) fault("inducted until", `"${inducted}": write the day as 2027-11-29`);
  if (inducted !== "" && firm === "") fault("inducted until", "the site's own people have none: name the firm");
  if (!["", "yes"].includes(cell("may sign in")))
    fault("may sign in", "a list enters only people who may: yes, or empty");
  return { name, signIn, roles, competences, until, firm, inductedUntil: day?.date ?? null };
}

const parts = (cell: string): string[] =>
  cell
    .split(/[;,]/)
    .map((part) => part.trim())
    .filter((part) => part !== "");

function chosen<T extends string>(cell: string, of: readonly T[], fault: (message: string) => void): T[] {
  const found = new Set<T>();
  for (const part of parts(cell)) {
    const one = of.find((each) => each === part.toLowerCase());
    if (one === undefined) fault(`"${part}" is none of ${of.join(", ")}`);
    else found.add(one);
  }
  return of.filter((each) => found.has(each));
}
