import fc from "fast-check";
import { ROLES, type Role } from "../people/roles";
import {
  ACCESS_MOST,
  ACCESS_MOST_DAYS,
  counts,
  decideAccess,
  isGiven,
  READ_RIGHTS,
  TAKES_OUT,
  type AccessFacts,
} from "./access";

const now_ms = 1_000_000_000_000;
const DAY_MS = 86_400_000;
const ACTS: Readonly<Record<string, readonly Role[]>> = {
  "permit.stop": [],
  "permit.issue": ["issuer"],
  "person.leave": ["coordinator"],
  "access.make": [],
  "crew.begin": [],
  "clock.settle": ["coordinator"],
  "instrument.new-token": ["coordinator"],
};
const facts = (more: Partial<AccessFacts> = {}): AccessFacts => ({
  alive: 0,
  mayTakeOut: true,
  rolesOf: (act) => ACTS[act] ?? null,
  wordsOf: (act) => act,
  ownRoles: ["issuer"],
  ...more,
});
const asked = {
  name: "Wall screen",
  rights: ["own calendar"],
  acts: ["permit.stop"],
  until_ms: now_ms + DAY_MS,
} as const;
const code = (more: Partial<Parameters<typeof decideAccess>[0]>, at: Partial<AccessFacts> = {}) => {
  const decided = decideAccess({ ...asked, ...more }, facts(at), now_ms);
  return decided.ok ? "made" : decided.refusal.code;
};

test("what it may open and for how long is bounded", () => {
  expect(code({})).toBe("made");
  expect(code({ rights: [], acts: [] })).toBe("opens nothing");
  expect(code({ until_ms: now_ms })).toBe("token too long");
  expect(code({ until_ms: now_ms + ACCESS_MOST_DAYS * DAY_MS })).toBe("made");
  expect(code({ until_ms: now_ms + ACCESS_MOST_DAYS * DAY_MS + 1 })).toBe("token too long");
  expect(code({}, { alive: ACCESS_MOST })).toBe("too many tokens");
  expect(code({ rights: ["lists"] }, { mayTakeOut: false })).toBe("not for a program");
  expect(code({ acts: ["permit.fly"] })).toBe("unknown");
});

test("whatever is asked, it opens no more than its owner may do, and nothing that is a person's own", () => {
  const anything = fc.record({
    rights: fc.subarray([...READ_RIGHTS]),
    acts: fc.array(fc.constantFrom(...Object.keys(ACTS), "permit.fly"), { maxLength: 6 }),
    ownRoles: fc.subarray([...ROLES]),
    mayTakeOut: fc.boolean(),
  });
  fc.assert(
    fc.property(anything, ({ rights, acts, ownRoles, mayTakeOut }) => {
      const decided = decideAccess({ ...asked, rights, acts }, facts({ ownRoles, mayTakeOut }), now_ms);
      if (!decided.ok) return;
      const { value } = decided;
      for (const act of value.acts) {
        expect(isGiven(act)).toBe(true);
        const needs = ACTS[act]!;
        expect(needs.length === 0 || needs.some((role) => ownRoles.includes(role))).toBe(true);
      }
      expect(!mayTakeOut && value.rights.some((right) => TAKES_OUT.has(right))).toBe(false);
      expect([...value.acts].sort()).toEqual([...new Set(acts)].sort());
    }),
  );
  for (const act of ["person.leave", "access.make", "crew.begin", "clock.settle", "instrument.new-token"]) {
    expect(code({ acts: [act] }, { ownRoles: ROLES })).toBe("not for a program");
  }
});

test("it counts until its moment, or until it is revoked", () => {
  expect(counts({ until_ms: now_ms, revoked_ms: null }, now_ms - 1)).toBe(true);
  expect(counts({ until_ms: now_ms, revoked_ms: null }, now_ms)).toBe(false);
  expect(counts({ until_ms: now_ms, revoked_ms: 5 }, now_ms - 1)).toBe(false);
});
