import { shiftChanges } from "@/server/runtime/siteTime";

const HOUR_MS = 3_600_000;

describe("shift changes by the site's clock", () => {
  const gaps = (from: string, to: string, zone: string) => {
    const found = shiftChanges(Date.parse(from), Date.parse(to), zone);
    return found.slice(1).map((at, i) => (at - found[i]!) / HOUR_MS);
  };
  test("every eight hours on an ordinary day", () => {
    expect(gaps("2026-11-20T00:00Z", "2026-11-22T00:00Z", "UTC")).toEqual([8, 8, 8, 8, 8]);
  });
  test("the night shift is an hour longer when clocks go back, and shorter when they go on", () => {
    expect(gaps("2026-10-24T20:00Z", "2026-10-25T08:00Z", "Europe/Lisbon")).toEqual([9]);
    expect(gaps("2026-03-28T20:00Z", "2026-03-29T08:00Z", "Europe/Lisbon")).toEqual([7]);
  });
  test("zones that are half an hour off have theirs on the half hour", () => {
    const [first] = shiftChanges(Date.parse("2026-11-20T00:00Z"), Date.parse("2026-11-20T08:00Z"), "Asia/Kolkata");
    expect(new Date(first!).toISOString()).toBe("2026-11-20T00:30:00.000Z");
  });
});
