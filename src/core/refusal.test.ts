import { refusalSentence, type Refusal } from "./refusal";

/** One of each; the type makes the list complete. */
const EACH: { [Code in Refusal["code"]]: Extract<Refusal, { code: Code }> } = {
  "not yours to do": { code: "not yours to do", act: "issue a permit", needs: ["issuer"] },
  "not competent": { code: "not competent", step: "lock Q-1", needs: "electrical" },
  "out of order": { code: "out of order", step: "lock V-1", first: ["lock Q-1"] },
  "already done": { code: "already done", what: "lock V-1", by: "Nell" },
  "wrong state": { code: "wrong state", what: "Permit P-1", state: "closed", needs: "live" },
  "wrong plate": { code: "wrong plate", seen: "", expected: "V-1" },
  "lock missing": { code: "lock missing", step: "lock V-1" },
  "lock in use": { code: "lock in use", lock: "L-1", where: "on V-2" },
  "reading missing": { code: "reading missing", step: "prove P", what: "the voltage" },
  "reading not safe": { code: "reading not safe", step: "prove P", reading: 230, limit: 5, unit: "V" },
  "tester not proved": { code: "tester not proved", step: "prove P" },
  "second person needed": { code: "second person needed", step: "prove P" },
  "isolation not proven": { code: "isolation not proven", isolation: "S-1", open: 3 },
  "no isolation": { code: "no isolation" },
  "issuing to oneself": { code: "issuing to oneself" },
  "closing one's own permit": { code: "closing one's own permit" },
  "not the holder": { code: "not the holder", holder: "Nell" },
  "run out": { code: "run out", permit: "P-1", at: "06:05" },
  validity: { code: "validity", reason: "it ends before it begins" },
  "already signed on": { code: "already signed on", permit: "P-1" },
  "not signed on": { code: "not signed on", permit: "P-1" },
  "people on": { code: "people on", people: ["Nell", "Otto"] },
  "permits open": { code: "permits open", permits: ["P-1"] },
  "isolations open": { code: "isolations open", isolations: ["S-1"] },
  "plan falls short": { code: "plan falls short", ways: ["a", "b", "c", "d", "e", "f"] },
  "accepting one's own deviation": { code: "accepting one's own deviation" },
  "no such shortfall": { code: "no such shortfall", way: "S fluid P" },
  "device not usable": { code: "device not usable", why: "unknown tag V-9" },
  "would light": {
    code: "would light",
    device: "V-1",
    harms: [{ job: "J-2", face: "P", source: "S", people: ["Nell", "Otto"] }],
  },
  "swap not proved": { code: "swap not proved", why: "NR may not be counted as a barrier." },
  "must stay passing": { code: "must stay passing", device: "V-1", job: "J-2" },
  "plant changed": { code: "plant changed", planned: 1, now: 2 },
  "not in the crew": { code: "not in the crew", job: "J-1" },
  unknown: { code: "unknown", what: "job", name: "J-9" },
  "review too late": { code: "review too late", hours: 200, most: 168 },
  "own lock": { code: "own lock", lock: "P-17" },
  "not read": { code: "not read", lock: "P-17", permit: "P-0001" },
  "no figure": { code: "no figure", calculator: "How long a tank drains", field: "level_m", why: "is missing" },
  "count differs": { code: "count differs", counted: 1, known: 2 },
};

describe("the sentence for a refusal", () => {
  test.each(Object.values(EACH).map((refusal) => [refusal.code, refusal] as const))(
    "%s is a whole sentence that names its evidence",
    (_, refusal) => {
      const sentence = refusalSentence(refusal);
      expect(sentence).toMatch(/^[A-Z].*\.$/s);
      expect(sentence).not.toMatch(/undefined|NaN|\[object|null/);
      expect(sentence.length).toBeLessThan(260);
      const evidence = Object.entries(refusal)
        .filter(([key, value]) => key !== "code" && typeof value === "string" && value !== "")
        .map(([, value]) => value as string);
      for (const word of evidence) expect(sentence.toLowerCase()).toContain(word.toLowerCase());
    },
  );
  test("a long list is cut, and says how much was cut", () => {
    expect(refusalSentence(EACH["plan falls short"])).toContain("a; b; c; d and 2 more");
  });
  test("what would be lit names the people there", () => {
    expect(refusalSentence(EACH["would light"])).toBe(
      "Lifting V-1 would reach people: S to P of job J-2, where Nell, Otto are on. Leave it locked until their work is over.",
    );
  });
});
