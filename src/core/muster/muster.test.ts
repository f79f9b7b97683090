import fc from "fast-check";
import type { PersonId } from "../people/roles";
import { close, covers, missing, seenOf, tick, type Muster } from "./muster";

const id = (name: string) => name as PersonId;
const muster = (more: Partial<Muster> = {}): Muster => ({
  number: "M-0001",
  area: "",
  reason: "gas alarm",
  by: id("cora"),
  at_ms: 0,
  people: [
    { person: id("wim"), permits: ["P-1"], inside: null },
    { person: id("will"), permits: ["P-1"], inside: "P-1" },
    { person: id("ada"), permits: ["P-1"], inside: null },
  ],
  seen: [],
  closed: null,
  ...more,
});
const by = { by: id("cora"), at_ms: 5 };

test("it covers its area, the whole site where it names none, and what is nowhere known; closed, nothing", () => {
  expect([
    covers(muster(), "Yard"),
    covers(muster({ area: "Yard" }), "Yard"),
    covers(muster({ area: "Yard" }), ""),
  ]).toEqual([true, true, true]);
  expect(covers(muster({ area: "Yard" }), "Hall")).toBe(false);
  expect(covers(muster({ closed: by }), "Yard")).toBe(false);
});

test("those inside are looked for first", () => {
  expect(missing(muster()).map(({ person }) => person)).toEqual(["will", "wim", "ada"]);
});

test("it is closed when everybody was seen, and not before; what was said in error is taken back", () => {
  const names = (person: PersonId) => person;
  expect(close(muster(), by, names)).toMatchObject({
    ok: false,
    refusal: { code: "not all seen", people: ["will", "wim", "ada"] },
  });
  fc.assert(
    fc.property(
      fc.array(fc.record({ person: fc.constantFrom("wim", "will", "ada", "zoe"), isSeen: fc.boolean() }), {
        maxLength: 20,
      }),
      (acts) => {
        let now = muster();
        const seen = new Set<string>();
        for (const { person, isSeen } of acts) {
          const done = tick(now, { ...by, person: id(person), isSeen });
          const isFit = person !== "zoe" && seen.has(person) !== isSeen;
          expect(done.ok).toBe(isFit);
          if (!done.ok) continue;
          now = done.value;
          if (isSeen) seen.add(person);
          else seen.delete(person);
        }
        expect(
          now.people
            .filter(({ person }) => seenOf(now, person))
            .map(({ person }) => person as string)
            .sort(),
        ).toEqual([...seen].sort());
        expect(close(now, by, names).ok).toBe(seen.size === 3);
      },
    ),
  );
});

test("closed, it takes nothing more", () => {
  const over = muster({ closed: by });
  expect(tick(over, { ...by, person: id("wim"), isSeen: true })).toMatchObject({ ok: false });
  expect(close(over, by, (person) => person)).toMatchObject({ ok: false, refusal: { code: "already done" } });
});
