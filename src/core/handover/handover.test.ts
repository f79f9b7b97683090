import fc from "fast-check";
import type { PersonId, Role } from "../people/roles";
import { answerAsked, handOverShift, keyOf, type HandoverItem } from "./handover";

const id = (name: string) => name as PersonId;
const ROLES: Readonly<Record<string, readonly Role[]>> = {
  isa: ["issuer"],
  colin: ["coordinator"],
  orla: ["operator"],
  wim: ["worker"],
};
const item = (n: number): HandoverItem => ({
  area: "Hall",
  subject: `J-${n}`,
  words: `stands ${n}`,
  bold: n % 2 === 0,
});
const facts = (items: readonly HandoverItem[]) => ({
  items,
  rolesOf: (person: PersonId) => ROLES[person] ?? [],
  nameOf: (person: PersonId) => person,
});
const handing = (items: readonly HandoverItem[], more: object = {}) => ({
  by: id("isa"),
  roles: ROLES.isa!,
  at_ms: 5,
  coming: id("colin"),
  read: items.map(keyOf),
  asked: [],
  remarks: "",
  ...more,
});
const code = (decided: ReturnType<typeof handOverShift>) => (decided.ok ? "signed" : decided.refusal.code);

test("two different people who answer for a shift sign it", () => {
  const all = [item(1), item(2)];
  expect(code(handOverShift(handing(all), facts(all)))).toBe("signed");
  expect(code(handOverShift(handing(all, { coming: id("isa") }), facts(all)))).toBe("handing over to oneself");
  expect(code(handOverShift(handing(all, { coming: id("wim") }), facts(all)))).toBe("not for a shift");
  expect(code(handOverShift(handing(all, { by: id("wim"), roles: ROLES.wim }), facts(all)))).toBe("not yours to do");
  expect(code(handOverShift(handing(all, { coming: id("orla") }), facts(all)))).toBe("signed");
});

test("it is signed only over exactly what is so now: nothing left out, nothing that is no longer so", () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(8)), fc.uniqueArray(fc.nat(8)), fc.uniqueArray(fc.nat(8)), (now, read, asked) => {
      const command = handing(read.map(item), {
        asked: asked.map((n) => ({ item: keyOf(item(n)), words: "why?" })),
      });
      const same = [...new Set([...read, ...asked])].sort().join() === [...now].sort().join();
      expect(code(handOverShift(command, facts(now.map(item))))).toBe(same ? "signed" : "not gone through");
    }),
  );
});

test("what was asked stays open until it is answered, once", () => {
  const all = [item(1)];
  const made = handOverShift(handing([], { asked: [{ item: keyOf(item(1)), words: "who watches?" }] }), facts(all));
  if (!made.ok) throw new Error("not signed");
  expect(made.value.asked[0]!.answer).toBeNull();
  const answer = { by: id("isa"), at_ms: 9, item: keyOf(item(1)), words: "Yrsa does." };
  const answered = answerAsked(made.value, answer);
  if (!answered.ok) throw new Error("not answered");
  expect(answered.value.asked[0]!.answer).toEqual({ by: "isa", at_ms: 9, words: "Yrsa does." });
  expect(answerAsked(answered.value, answer).ok).toBe(false);
  expect(answerAsked(made.value, { ...answer, item: "another" }).ok).toBe(false);
});
