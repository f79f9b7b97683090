import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { latestProofs, staleProofs } from "./staleProofs";

const HOUR = 3_600_000;
const rules = { goodFor_h: 12, absence_min: 60 };
const stale = (proved_ms: number, p: { now_ms: number; there?: number | null; lit?: number | null; found?: number }) =>
  staleProofs([{ label: "prove P (fluid)", at_ms: proved_ms, wrongClock: false }], {
    now_ms: p.now_ms,
    lastThere_ms: p.there ?? null,
    litUntil_ms: p.lit ?? null,
    foundAgain_ms: p.found ?? null,
    ...rules,
  }).length > 0;

describe("a proof that no longer counts", () => {
  test("counts for an hour with nobody there, to the millisecond", () => {
    expect(stale(0, { now_ms: HOUR })).toBe(false);
    expect(stale(0, { now_ms: HOUR + 1 })).toBe(true);
  });
  test("counts no more from when a missing lock was found again, until it is proved after that", () => {
    expect(stale(5, { now_ms: 20, found: 10 })).toBe(true);
    expect(stale(10, { now_ms: 20, found: 10 })).toBe(false);
  });
  test("counts on while somebody is there, and an hour after they left", () => {
    expect(stale(0, { now_ms: 5 * HOUR, there: 5 * HOUR })).toBe(false);
    expect(stale(0, { now_ms: 6 * HOUR, there: 5 * HOUR })).toBe(false);
    expect(stale(0, { now_ms: 6 * HOUR + 1, there: 5 * HOUR })).toBe(true);
  });
  test("is too old after its hours, whoever is there", () => {
    expect(stale(0, { now_ms: 12 * HOUR, there: 12 * HOUR })).toBe(false);
    expect(stale(0, { now_ms: 12 * HOUR + 1, there: 12 * HOUR + 1 })).toBe(true);
  });
  test("does not outlast points that were lifted since", () => {
    expect(stale(0, { now_ms: 10, there: 10, lit: 1 })).toBe(true);
    expect(stale(2, { now_ms: 10, there: 10, lit: 1 })).toBe(false);
  });
  test("once stale it stays so until it is done again", () => {
    fc.assert(
      fc.property(fc.nat(20 * HOUR), fc.nat(20 * HOUR), fc.nat(20 * HOUR), (proved, wait, more) => {
        const now_ms = proved + wait;
        if (stale(proved, { now_ms })) expect(stale(proved, { now_ms: now_ms + more })).toBe(true);
        expect(stale(now_ms, { now_ms })).toBe(false);
      }),
      propertyRuns(200),
    );
  });
  test("the latest of each is the one that counts", () => {
    const at = (label: string, at_ms: number, wrongClock = false) => ({ label, at_ms, wrongClock });
    expect(latestProofs([at("a", 5), at("a", 9), at("b", 1)])).toEqual([at("a", 9), at("b", 1)]);
    expect(latestProofs([at("a", 9), at("a", 5), at("b", 1)])).toEqual([at("a", 9), at("b", 1)]);
  });
  test("one that a wrong clock timed counts for nothing, and gives way to any that a right one timed", () => {
    const wrong = { label: "a", at_ms: 9, wrongClock: true };
    const right = { label: "a", at_ms: 5, wrongClock: false };
    for (const proofs of [
      [wrong, right],
      [right, wrong],
    ]) {
      expect(latestProofs(proofs)).toEqual([right]);
    }
    const now = { now_ms: 10, lastThere_ms: 10, litUntil_ms: null, foundAgain_ms: null, ...rules };
    expect(staleProofs([wrong], now)).toEqual(["a, timed by a clock that was wrong"]);
    expect(staleProofs([right], now)).toEqual([]);
  });
});
