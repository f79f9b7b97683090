import type { Refusal } from "../../refusal/refusal";
import { refusalSentence } from "./refusals";

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
  "reading not safe": { code: "reading not safe", step: "prove P", reading: 230, error: 0.5, limit: 5, unit: "V" },
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
  "nothing known of": { code: "nothing known of", places: ["P-9"] },
  "plan falls short": { code: "plan falls short", ways: ["a", "b", "c", "d", "e", "f"] },
  "accepting one's own deviation": { code: "accepting one's own deviation" },
  "no such shortfall": { code: "no such shortfall", way: "S fluid P" },
  "device not usable": { code: "device not usable", why: "unknown tag V-9" },
  "would light": {
    code: "would light",
    device: "V-1",
    harms: [{ job: "J-2", face: "P", source: "S", people: ["Nell", "Otto"] }],
  },
  "swap not proved": { code: "swap not proved", fault: { code: "not a barrier", device: "NR-1" } },
  "must stay passing": { code: "must stay passing", device: "V-1", job: "J-2" },
  "plant changed": { code: "plant changed", planned: 1, now: 2 },
  "changed meanwhile": { code: "changed meanwhile" },
  "bad register": { code: "bad register", first: "items.csv: row 3: no tag", more: 2 },
  "not in the crew": { code: "not in the crew", job: "J-1" },
  unknown: { code: "unknown", what: "job", name: "J-9" },
  "review too late": { code: "review too late", hours: 200, most: 168 },
  "own lock": { code: "own lock", lock: "P-17" },
  "not read": { code: "not read", lock: "P-17", permit: "P-0001" },
  "no figure": { code: "no figure", calculator: "How long a tank drains", field: "level_m", why: "is missing" },
  "count differs": { code: "count differs", counted: 1, known: 2 },
  "people differ": { code: "people differ", counted: 1, known: 2 },
  "gear unknown": { code: "gear unknown", kind: "voltage tester", number: "VT-1" },
  "gear withdrawn": { code: "gear withdrawn", kind: "lock", number: "L-1" },
  "gear out of date": { code: "gear out of date", kind: "portable earth", number: "PE-1" },
  "gear not bumped": { code: "gear not bumped", number: "GI-1", hours: 24 },
  "gear elsewhere": { code: "gear elsewhere", kind: "hasp", number: "H-1", job: "J-2" },
  "gear rating": { code: "gear rating", kind: "insulating gloves", number: "GL-1", rating: null, needs: 11_000 },
  "lock of another": { code: "lock of another", lock: "P-1", owner: "Nell" },
  "lock of the site": { code: "lock of the site", lock: "D-1" },
  "same key": { code: "same key", key: "K-1", lock: "P-1", owner: "Nell" },
  "ways not tried": { code: "ways not tried", step: "try start P", left: ["at the machine", "from the control room"] },
  "earths differ": { code: "earths differ", step: "remove earth K", left: ["PE-1"], strange: ["PE-2"] },
  "earth in use": { code: "earth in use", number: "PE-1", where: "at K-1, isolation S-1" },
  "not between earths": { code: "not between earths", step: "earth K", bare: ["Q-1"] },
  "held too short": { code: "held too short", step: "leak test P", held: 2, least: 10 },
  "gauge too coarse": { code: "gauge too coarse", step: "leak test P", error: 1, pressure: 6 },
  leaks: { code: "leaks", step: "leak test P", lost: 0.3, error: 0.02 },
  stuck: { code: "stuck", step: "lock V-1", why: "broken", by: "Nell" },
  "nothing stuck": { code: "nothing stuck", isolation: "S-1" },
  "box locked": { code: "box locked", people: ["Nell"] },
  "last off": { code: "last off", people: ["Nell", "Otto"] },
  "lead first": { code: "lead first", lead: "Nell" },
  "coordinator first": { code: "coordinator first" },
  "nobody to hand over": { code: "nobody to hand over", permit: "P-1" },
  "not on": { code: "not on", who: "Nell", permit: "P-1" },
  "handed over twice": { code: "handed over twice", who: "Nell" },
  "not a lead": { code: "not a lead", who: "Nell" },
  "lead issued it": { code: "lead issued it" },
  "no exchange": { code: "no exchange", firm: "Skerry Rope and Rig" },
  "prove again": { code: "prove again", proofs: ["a", "b", "c", "d", "e"] },
  "under test": { code: "under test", isolation: "S-1" },
  "not agreed": { code: "not agreed", jobs: ["J-1", "J-2"] },
  "still in place": { code: "still in place", things: ["earth PE-1 at K-1"] },
  "asks unmet": { code: "asks unmet", permit: "P-1", asks: ["Floor swept: nobody has looked yet"] },
  "work stopped": { code: "work stopped", permit: "P-1", why: "a break" },
  "one's own permit": { code: "one's own permit" },
  "checked by oneself": { code: "checked by oneself", permit: "P-1" },
  "no approval needed": { code: "no approval needed", permit: "P-1" },
  "issuer resumes": { code: "issuer resumes", permit: "P-1" },
  "air not fresh": { code: "air not fresh", permit: "P-1" },
  "watch not over": { code: "watch not over", permit: "P-1", left: ["the look due at 16:30"] },
  "not back": { code: "not back", permit: "P-1", things: ["copy 1 at the gate"] },
  "not inspected": { code: "not inspected", permit: "P-1" },
  "was live": { code: "was live", permit: "P-1" },
  "wrong answer": { code: "wrong answer", permit: "P-1" },
  "still inside": { code: "still inside", people: ["Nell"] },
  "not inside": { code: "not inside", who: "Nell" },
  "other duty": { code: "other duty", who: "Nell", where: "P-2" },
  "not of this kind": { code: "not of this kind", permit: "P-1", kind: "line break" },
  "not on post": { code: "not on post", permit: "P-1", post: "attendant" },
  "post needed": { code: "post needed", permit: "P-1", why: "somebody is inside" },
  "no look due": { code: "no look due", next: "16:30" },
  "space full": { code: "space full", most: 2, people: ["Nell", "Otto"] },
  "not by hand": { code: "not by hand", words: "Its isolation is proven", unmet: "S-1 is isolating" },
  "sensor blind": { code: "sensor blind", why: "infrared does not see hydrogen" },
  "no sample": { code: "no sample", point: "top" },
  "read too early": { code: "read too early", point: "top", wait_s: 40 },
  "gas order": { code: "gas order", point: "top", first: "oxygen" },
  "point order": { code: "point order", point: "bottom", first: "top", why: "not read yet" },
  "no pocket": { code: "no pocket", point: "corner 1 low" },
  "flush too short": { code: "flush too short", held_s: 10, least_s: 60 },
  "purge never ends": { code: "purge never ends", space: "T-1" },
  "no purge": { code: "no purge", permit: "P-1" },
  "purge too short": { code: "purge too short", wait_s: 600 },
  "detector elsewhere": { code: "detector elsewhere", detector: "GD-1", permit: "P-2" },
  "detector silent": { code: "detector silent", detector: "GD-1" },
  "online only": { code: "online only", act: "sign on to a permit" },
  "device clock": { code: "device clock", why: "it is ahead of the server's" },
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
