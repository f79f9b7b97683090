import fc from "fast-check";
import Papa from "papaparse";
import { COMPETENCES, ROLES } from "../people/roles";
import { problemLine } from "../plant/problem";
import { PEOPLE_AT_MOST, PEOPLE_COLUMNS, readPeopleList, type Listed } from "./peopleList";

const lines = (text: string) => {
  const read = readPeopleList(text);
  return read.ok ? read.value.map(({ signIn }) => signIn) : read.problems.map(problemLine);
};

/** As the list of people is taken out. */
const rowOf = (one: Listed) => [
  one.name,
  one.signIn,
  one.roles.join("; "),
  one.competences.join("; "),
  one.competences.flatMap((each) => (one.until[each] === undefined ? [] : [`${each} ${one.until[each]}`])).join("; "),
  one.firm,
  one.inductedUntil ?? "",
  "yes",
];
const day = fc
  .date({ min: new Date("2026-01-01"), max: new Date("2040-12-31"), noInvalidDate: true })
  .map((at) => at.toISOString().slice(0, 10));
const words = fc
  .string({ unit: fc.constantFrom(..."abc Ü,;\"'0-"), minLength: 1, maxLength: 20 })
  .map((w) => `A${w.trim()}z`);
const listed: fc.Arbitrary<Listed> = fc
  .record({
    name: words,
    signIn: fc.stringMatching(/^[a-z0-9][a-z0-9.-]{0,20}$/),
    roles: fc.subarray([...ROLES], { minLength: 1 }),
    competences: fc.subarray([...COMPETENCES]),
    ends: fc.record({ electrical: day, mechanical: day, process: day }, { requiredKeys: [] }),
    firm: fc.option(words, { nil: "" }),
    inductedUntil: fc.option(day),
  })
  .map(({ ends, ...one }) => ({
    ...one,
    until: Object.fromEntries(Object.entries(ends).filter(([each]) => one.competences.some((had) => had === each))),
    inductedUntil: one.firm === "" ? null : one.inductedUntil,
  }));

test("a list taken out is read as it was, whatever parts its columns", () => {
  const list = fc.uniqueArray(listed, { selector: ({ signIn }) => signIn, minLength: 1, maxLength: 8 });
  fc.assert(
    fc.property(list, fc.constantFrom(",", ";", "\t"), (people, delimiter) => {
      const text = Papa.unparse([[...PEOPLE_COLUMNS], ...people.map(rowOf)], { delimiter });
      const read = readPeopleList(text);
      expect(read.ok ? read.value : read.problems).toEqual(people);
    }),
  );
});

test("what is wrong is named by row and column, all of it at once, and nothing is guessed", () => {
  const head = "name,signs in as,roles,competences,until,firm,inducted until,may sign in";
  expect(
    lines(
      [
        head,
        'Aksel Bru,aksel,"worker; hodler",,,,,',
        ",Two Words,,,,,,",
        "Berit Lund,aksel,isolator,gas,process 2027-01-01,,2027-01-01,no",
        'Cato Nes,cato,isolator,process,"process next year",Skerry Rope and Rig,30 Feb 2027,yes',
      ].join("\n"),
    ),
  ).toEqual([
    expect.stringMatching(/^list row 2, aksel, roles: "hodler" is none of coordinator, /),
    "list row 3, Two Words, name: 1 to 80 characters",
    expect.stringMatching(/^list row 3, Two Words, signs in as: small letters/),
    expect.stringMatching(/^list row 3, Two Words, roles: at least one of coordinator, /),
    expect.stringMatching(/^list row 4, aksel, competences: "gas" is none of electrical, /),
    expect.stringMatching(/^list row 4, aksel, until: "process 2027-01-01": write a competence of the row/),
    "list row 4, aksel, inducted until: the site's own people have none: name the firm",
    "list row 4, aksel, may sign in: a list enters only people who may: yes, or empty",
    "list row 4, aksel, signs in as: row 2 has it as well",
    'list row 5, cato, until: "process next year": write the day as 2027-11-29',
    'list row 5, cato, inducted until: "30 Feb 2027": write the day as 2027-11-29',
  ]);
});

test("a column that is unknown or missing, no rows and too many are said", () => {
  expect(lines("")).toEqual(["list: the file is empty"]);
  expect(lines("name,roles\nA,worker")).toEqual(["list row 1, signs in as: this column is missing"]);
  expect(lines("name,signs in as,roles,PIN\nA,a,worker,1234")[0]).toMatch(
    /row 1, PIN: unknown column; the columns are name/,
  );
  const many = Array.from({ length: PEOPLE_AT_MOST + 1 }, (_, i) => `A,a${i},worker`).join("\n");
  expect(lines(`name,signs in as,roles\n${many}`)).toEqual([`list: 101 people; at most 100 in one list`]);
});
