import fc from "fast-check";
import type { Competence, PersonId, Role } from "../people/roles";
import type { Part, ProcedureLife } from "./procedure";
import { decideProcedure, inspectionDue_ms, whyUnusable, type ProcedureCommand } from "./procedureLife";

const DAY = 86_400_000;
const PEOPLE: Readonly<Record<string, { roles: readonly Role[]; competences: readonly Competence[] }>> = {
  wyn: { roles: ["coordinator", "issuer"], competences: ["electrical", "mechanical"] },
  eli: { roles: ["isolator"], competences: ["electrical", "mechanical"] },
  mae: { roles: ["isolator"], competences: ["mechanical"] },
  isa: { roles: ["issuer"], competences: [] },
  both: { roles: ["issuer"], competences: ["electrical", "mechanical"] },
};
type Name = keyof typeof PEOPLE;

const draft = (more: Partial<ProcedureLife> = {}): ProcedureLife => ({
  number: "IP-1",
  version: 1,
  state: "draft",
  writtenBy: "wyn",
  writtenAt_ms: 0,
  trades: ["electrical", "mechanical"],
  signatures: [],
  inspections: [],
  ...more,
});
const who = (name: Name, at_ms: number) => ({ by: name as PersonId, at_ms, ...PEOPLE[name]! });
const sign = (name: Name, part: Part, at_ms = 1): ProcedureCommand => ({ type: "sign", part, ...who(name, at_ms) });
const inspect = (name: Name, watched: Name[], sound = true, at_ms = 2): ProcedureCommand => ({
  type: "inspect",
  watched: watched as PersonId[],
  found: "Followed.",
  sound,
  ...who(name, at_ms),
});
function after(life: ProcedureLife, ...commands: ProcedureCommand[]): ProcedureLife {
  return commands.reduce((now, command) => {
    const decided = decideProcedure(now, command);
    if (!decided.ok) throw new Error(decided.refusal.code);
    return decided.value;
  }, life);
}
function code(life: ProcedureLife, command: ProcedureCommand): string {
  const decided = decideProcedure(life, command);
  return decided.ok ? "done" : decided.refusal.code;
}

test("two people approve it, one for the trade and one for the equipment, and neither wrote it", () => {
  const one = after(draft(), sign("eli", "trade"));
  expect(one.state).toBe("draft");
  expect(after(one, sign("isa", "equipment")).state).toBe("approved");
  expect(code(draft(), sign("wyn", "trade"))).toBe("own procedure");
  expect(code(draft(), sign("wyn", "equipment"))).toBe("own procedure");
  expect(code(draft(), sign("mae", "trade"))).toBe("not competent");
  expect(code(draft(), sign("eli", "equipment"))).toBe("not yours to do");
  expect(code(after(draft(), sign("both", "trade")), sign("both", "equipment"))).toBe("two people");
  expect(code(one, sign("both", "trade"))).toBe("already done");
});

test("once a year somebody else looks on; an inspection that finds it wrong shuts it", () => {
  const approved = after(draft(), sign("eli", "trade", 1), sign("isa", "equipment", 5));
  expect(inspectionDue_ms(approved)).toBe(5 + 365 * DAY);
  expect(whyUnusable(approved, 365 * DAY)).toBeNull();
  expect(whyUnusable(approved, 5 + 365 * DAY)).toBe("inspection overdue");
  const seen = after(approved, inspect("mae", ["eli"], true, 300 * DAY));
  expect(whyUnusable(seen, 400 * DAY)).toBeNull();
  expect(whyUnusable(after(seen, inspect("mae", ["eli"], false, 301 * DAY)), 302 * DAY)).toBe("found unsound");
  expect(code(approved, inspect("mae", []))).toBe("nobody watched");
  expect(code(approved, inspect("mae", ["mae", "eli"]))).toBe("inspecting oneself");
  expect(code(draft(), inspect("mae", ["eli"]))).toBe("wrong state");
});

test("whatever is done to it in any order, nobody requests work by what two others did not approve", () => {
  const names = fc.constantFrom(...(Object.keys(PEOPLE) as Name[]));
  const command = fc.oneof(
    // Mostly signatures: by chance alone two that fit are rare.
    {
      weight: 4,
      arbitrary: fc
        .record({ name: names, part: fc.constantFrom<Part>("trade", "equipment") })
        .map((p) => sign(p.name, p.part)),
    },
    fc
      .record({ name: names, watched: fc.subarray(Object.keys(PEOPLE) as Name[]) })
      .map((p) => inspect(p.name, p.watched)),
    names.map((name): ProcedureCommand => ({ type: "withdraw", ...who(name, 3) })),
  );
  let approved = 0;
  fc.assert(
    fc.property(fc.array(command, { maxLength: 8 }), (commands) => {
      let life = draft();
      for (const one of commands) {
        const decided = decideProcedure(life, one);
        if (decided.ok) life = decided.value;
      }
      if (whyUnusable(life, 10) !== null) return;
      approved++;
      const by = life.signatures.map((one) => one.by);
      expect(new Set(by).size).toBe(2);
      expect(by).not.toContain(life.writtenBy);
      const forPart = (part: Part) => PEOPLE[life.signatures.find((one) => one.part === part)!.by]!;
      expect(forPart("trade").competences).toEqual(expect.arrayContaining(["electrical", "mechanical"]));
      expect(forPart("equipment").roles).toContain("issuer");
    }),
    { numRuns: 4000 },
  );
  expect(approved).toBeGreaterThan(20);
});
