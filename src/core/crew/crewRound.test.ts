import fc from "fast-check";
import { DETAILS, draftOf, idOf } from "../../../tests/support/permits";
import {
  CREW_IDLE_MS,
  crewLeads,
  crewRoundFault,
  crewRoundUntil_ms,
  isCrewRoundOpen,
  type CrewRound,
} from "./crewRound";
import { withoutPlaces } from "./withoutPlaces";

const ROUND: CrewRound = {
  number: "C-0001",
  permit: "P-1",
  lead: idOf("hal"),
  begun_ms: 1000,
  last_ms: 1000,
  ended_ms: null,
};

test("a round is open from when somebody came for ten minutes, to the millisecond, and never before it began", () => {
  expect(isCrewRoundOpen(ROUND, 999)).toBe(false);
  expect(isCrewRoundOpen(ROUND, 1000)).toBe(true);
  expect(isCrewRoundOpen(ROUND, 1000 + CREW_IDLE_MS - 1)).toBe(true);
  expect(isCrewRoundOpen(ROUND, 1000 + CREW_IDLE_MS)).toBe(false);
  expect(isCrewRoundOpen({ ...ROUND, ended_ms: 1001 }, 1000)).toBe(false);
  expect(crewRoundUntil_ms({ ...ROUND, ended_ms: 5 })).toBe(5);
});

test("it is its leader's, for its permit", () => {
  const asked = { permit: "P-1", by: idOf("hal"), at_ms: 1000, nameOf: (id: string) => id };
  expect(crewRoundFault(ROUND, asked)).toBeNull();
  expect(crewRoundFault(ROUND, { ...asked, by: idOf("isa") })).toMatchObject({ code: "crew round of another" });
  expect(crewRoundFault(ROUND, { ...asked, permit: "P-2" })).toMatchObject({ code: "crew round of another" });
  expect(crewRoundFault(ROUND, { ...asked, at_ms: 0 })).toMatchObject({ code: "crew round over", idle: true });
  expect(crewRoundFault({ ...ROUND, ended_ms: 1 }, asked)).toMatchObject({ code: "crew round over", idle: false });
});

test("who leads, who issued and who revalidated last may stand by", () => {
  const permit = draftOf(DETAILS.general, { issuer: idOf("isa") });
  expect(crewLeads(permit)).toEqual(["hal", "isa"]);
  const signed = (by: string, at_ms: number) => ({ type: "signed", act: "revalidate", by: idOf(by), at_ms }) as const;
  expect(crewLeads({ ...permit, log: [signed("ida", 1), signed("ilse", 2)] })).toEqual(["hal", "isa", "ilse"]);
  expect(crewLeads(draftOf(DETAILS.general))).toEqual(["hal"]);
});

describe("on the screen at the box no place of the work is named", () => {
  test.each([
    ["Open CY-260 and renew its seal.", ["CY-260"], "Open … and renew its seal."],
    ["Lift cy-260.rod, then CY-260.", ["CY-260.rod"], "Lift …, then …."],
    ["CY-2601 and XCY-260 stay.", ["CY-260"], "CY-2601 and XCY-260 stay."],
    ["Pump P, not Pumps.", ["P"], "Pump …, not Pumps."],
    ["V-1+ (old)", ["V-1+"], "… (old)"],
  ])("%s", (text, places, said) => expect(withoutPlaces(text, places)).toBe(said));

  test("whatever stands around it", () => {
    const around = fc.constantFrom("", " ", ",", "(", ")", ". ", ": ", "/", "\n");
    const tag = fc.stringMatching(/^[A-Z]{1,3}-\d{1,4}$/);
    fc.assert(
      fc.property(tag, around, around, (place, before, after) => {
        expect(withoutPlaces(`Open it${before || " "}${place}${after || " "}now`, [place])).not.toContain(place);
      }),
    );
  });
});
