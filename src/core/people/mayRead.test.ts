import { ROLES } from "./roles";
import { mayRead, READINGS, type Reading } from "./mayRead";

/** Written apart: who reads what, of the site's own people and of another firm's. */
const OWN: Readonly<Record<Reading, readonly string[]>> = {
  record: ["coordinator", "issuer", "approver"],
  "whole record as a file": ["coordinator", "approver"],
  figures: ["coordinator", "issuer", "approver"],
  accounts: ["coordinator"],
  "people as a file": ["coordinator"],
  files: [...ROLES],
};
const OF_ANOTHER_FIRM: Readonly<Partial<Record<Reading, readonly string[]>>> = {
  record: ["coordinator", "issuer", "approver"],
  accounts: ["coordinator"],
};

test.each(READINGS)("%s: by these roles and no other", (what) => {
  const may = (firm: string) => ROLES.filter((role) => mayRead(what, { roles: [role], firm }));
  expect(new Set(may(""))).toEqual(new Set(OWN[what]));
  expect(new Set(may("Another firm"))).toEqual(new Set(OF_ANOTHER_FIRM[what] ?? []));
});

test("several roles read what any of them reads; none at all reads no record", () => {
  expect(mayRead("record", { roles: ["worker", "issuer"], firm: "" })).toBe(true);
  expect(mayRead("record", { roles: [], firm: "" })).toBe(false);
});
