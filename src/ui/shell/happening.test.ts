import { readHappening } from "./happening";

describe("what is heard on the line of live updates", () => {
  test.each([
    ['{"kind":"open"}', { kind: "open", told: null }],
    ['{"kind":"open","told":"17.4"}', { kind: "open", told: "17.4" }],
    ['{"kind":"alarm","subject":"P-1","about":["P-1"]}', { kind: "alarm", subject: "P-1" }],
    [
      '{"kind":"act","subject":"S-1","about":["S-1","J-1"],"page":"a1"}',
      { kind: "act", subject: "S-1", about: ["S-1", "J-1"], page: "a1" },
    ],
    [
      '{"kind":"permit","subject":"P-1","about":["P-1",7]}',
      { kind: "permit", subject: "P-1", about: ["P-1"], page: null },
    ],
  ])("%s", (data, is) => expect(readHappening(data)).toEqual(is));
  test.each([
    "",
    "{",
    "7",
    "null",
    "[]",
    '{"kind":"act"}',
    '{"kind":"act","subject":7}',
    '{"kind":"new","subject":"P-1"}',
  ])("%j is nothing that is known", (data) => expect(readHappening(data)).toBeNull());
});
