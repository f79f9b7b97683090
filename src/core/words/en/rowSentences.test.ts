import fc from "fast-check";
import { ROW_TYPES, rowSentence } from "./rowSentences";

const nameOf = (id: string) => (id === "p1" ? "Nell Arden" : "somebody unknown");

test.each([
  ["permit.issue", { copies: ["at gate 2"] }, {}, "issued the permit, copies displayed at gate 2"],
  ["permit.sign-on", { lock: "P-31", answer: "CV-412" }, {}, "signed on with lock P-31; pointed out CV-412"],
  ["permit.sign-on", { points: { "Q-1": "P-2" } }, {}, "signed on with locks P-2 on Q-1"],
  [
    "permit.read-air",
    { point: "at the frame", oxygen_percent: 20.9, flammable_percent: 0, toxics_ppm: { "hydrogen sulphide": 1 } },
    {},
    "read at the frame: oxygen 20.9 %, flammable 0 % of the limit, hydrogen sulphide 1 ppm",
  ],
  [
    "step.do",
    { lock: "G-0104", words: "Repeated back" },
    { did: "lock Q-211" },
    "lock Q-211, lock G-0104: Repeated back",
  ],
  ["permit.go-in", { person: "p1" }, {}, "let Nell Arden enter"],
  ["plan.adjust", { device: "V-1", to: "struck", reason: "seized" }, {}, "excluded V-1: seized"],
  ["plan.adjust", { device: "V-1", to: "passing", reason: "cools" }, {}, "kept passing V-1: cools"],
  ["deviation.accept", { ways: ["a"], measures: ["b", "c"] }, {}, "accepted 1 shortfall with 2 measures"],
] as const)("%s %j", (type, said, came, sentence) => {
  expect(rowSentence(type, said, came, nameOf)).toBe(sentence);
});

test("whatever a row holds, its sentence is a line of words: no braces, no undefined", () => {
  fc.assert(
    fc.property(fc.constantFrom(...ROW_TYPES), fc.jsonValue(), fc.jsonValue(), (type, said, came) => {
      expect(rowSentence(type, said, came, nameOf)).not.toMatch(/undefined|\[object|NaN/);
    }),
    { numRuns: 2000 },
  );
});

test("a type of another time keeps its code", () => {
  expect(rowSentence("lamp.lit", {}, {}, nameOf)).toBe("lamp.lit");
});
