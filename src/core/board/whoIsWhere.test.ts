import { DETAILS, draftOf, HOUR, idOf } from "../../../tests/support/permits";
import { whoIsWhere } from "./whoIsWhere";

const signOn = (name: string, on_ms: number, off_ms: number | null = null) => ({
  person: idOf(name),
  lock: `L-${name}`,
  points: {},
  on_ms,
  off_ms,
});
const by = idOf("ada");

test("everybody is where they are, once: inside before on, by area, the longest first", () => {
  const entry = draftOf(DETAILS["confined space entry"], {
    number: "P-1",
    state: "live",
    signOns: [signOn("wim", HOUR), signOn("will", 2 * HOUR), signOn("hob", HOUR, 2 * HOUR)],
    log: [
      { type: "post taken", post: "attendant", person: by, by, at_ms: HOUR },
      { type: "went in", person: idOf("will"), by, at_ms: 3 * HOUR },
      { type: "went in", person: idOf("wim"), by, at_ms: 3 * HOUR },
      { type: "came out", person: idOf("wim"), by, at_ms: 4 * HOUR },
    ],
  });
  const hall = draftOf({ kind: "general" }, { number: "P-2", state: "live", signOns: [signOn("hal", HOUR)] });
  const rows = whoIsWhere([
    { life: entry, title: "Clean", area: "Yard" },
    { life: hall, title: "Mend", area: "Hall" },
  ]);
  expect(rows.map(({ person, what, area, since_ms }) => [person, what, area, since_ms / HOUR])).toEqual([
    ["hal", "on", "Hall", 1],
    ["will", "inside", "Yard", 3],
    ["ada", "attendant", "Yard", 1],
    ["wim", "on", "Yard", 1],
  ]);
});
