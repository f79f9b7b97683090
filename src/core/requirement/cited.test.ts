import { proposeHazards, type HazardFacts } from "../hazard/proposals";
import { permitsRequired } from "../hazard/permitsRequired";
import { ENTRY_ASKS } from "../permit/requirements/entry";
import { HOT_WORK_ASKS } from "../permit/requirements/hotWork";
import { cited, TOPICS } from "./cited";
import { PROFILES } from "./profiles";

const AMERICAN = /CFR|NFPA|OSHA/;
const BRITISH = /HSG|Regulations|EH40/;

/** Everything of the kind that hazards and required permits may be made from. */
const facts = (id: string): HazardFacts => ({
  faces: [
    { place: "T-1", how: ["enter", "hot", "open", "touch"], item: null, area: null },
    {
      place: "M-1",
      how: ["touch", "open"],
      item: { tag: "M-1", kind: "motor", level_m: 6, parts: [], needs: [], protects: [], sources: [] },
      area: { name: "Hall", x_m: 0, y_m: 0, width_m: 9, depth_m: 9, level_m: 0 },
    },
  ],
  arriving: (["power", "control", "shaft", "fluid", "heat", "gravity", "bulk", "radiation"] as const).map(
    (carrier) => ({
      source: "S",
      carrier,
      face: carrier === "power" ? "M-1" : "T-1",
      tier: 1,
    }),
  ),
  stored: [],
  profile: { id, hotAbove_C: 50, fallAbove_m: 2 },
  conditions: null,
});

test("a profile cites its own country's law or practice, never another's, wherever it cites", () => {
  const said = (id: string) => [
    ...TOPICS.map((topic) => cited({ id }, topic, "(c)")),
    ...proposeHazards(facts(id)).map(({ source }) => source),
    ...permitsRequired(facts(id)).map(({ rule }) => rule),
    ...(PROFILES.find((one) => one.id === id)?.rows ?? []).map(({ source }) => source),
  ];
  const british = said("uk-style");
  expect(british.filter((one) => AMERICAN.test(one))).toEqual([]);
  expect(british.some((one) => BRITISH.test(one))).toBe(true);
  // A paragraph is one of the American laws.
  expect(british.filter((one) => one.includes("(c)"))).toEqual([]);
  const american = said("us-style");
  expect(american.filter((one) => BRITISH.test(one))).toEqual([]);
  expect(american.filter((one) => AMERICAN.test(one)).length).toBeGreaterThan(TOPICS.length);
  for (const one of [...british, ...american].filter((each) => AMERICAN.test(each) || BRITISH.test(each))) {
    expect(one).toMatch(/from memory/);
  }
});

test("nobody's profile cites nobody's law", () => {
  expect(TOPICS.map((topic) => cited({ id: "of our own" }, topic))).toEqual(TOPICS.map(() => "practice"));
});

test("what a permit asks cites by the profile too", () => {
  const text = [ENTRY_ASKS, HOT_WORK_ASKS].flatMap((asks) => Object.values(asks).map(String)).join("\n");
  expect(text).not.toMatch(AMERICAN);
});
