import fc from "fast-check";
import { endOfDay, instantOf, siteField } from "./siteInstant";

const utc = (text: string) => Date.parse(`${text}Z`);

describe("a time typed in a form is the site's", () => {
  test.each([
    ["Europe/Lisbon", "2026-12-01T06:00", "2026-12-01T06:00"],
    ["Europe/Lisbon", "2026-07-01T06:00", "2026-07-01T05:00"],
    ["America/Chicago", "2026-12-01T06:00", "2026-12-01T12:00"],
    ["Pacific/Auckland", "2026-12-01T06:00", "2026-11-30T17:00"],
    ["Asia/Kolkata", "2026-12-01T06:00", "2026-12-01T00:30"],
  ])("in %s %s is %s UTC, whatever the machine's zone", (zone, typed, is) => {
    expect(instantOf(typed, zone)).toBe(utc(is));
  });
  test("one that the clocks leap over is refused by name, one that comes twice is the first", () => {
    expect(instantOf("2026-03-29T01:30", "Europe/Lisbon")).toBe(
      "Sun 29 Mar 2026, 01:30 does not exist in Europe/Lisbon: the clocks go forward over it",
    );
    expect(instantOf("2026-10-25T01:30", "Europe/Lisbon")).toBe(utc("2026-10-25T00:30"));
    expect(instantOf("2026-10-04T02:15", "Australia/Lord_Howe")).toMatch(/does not exist/);
  });
  test("nothing is nothing, and what is no time is said", () => {
    expect(instantOf("", "UTC")).toBeNull();
    expect(instantOf("tomorrow", "UTC")).toMatch(/is no time/);
    expect(instantOf("2026-02-30T10:00", "UTC")).not.toBe(utc("2026-02-30T10:00"));
  });
  test("what a form shows comes back as it was, to the minute, but where an hour comes twice", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("Europe/Lisbon", "America/Chicago", "Australia/Lord_Howe", "Asia/Kathmandu", "UTC"),
        fc.integer({ min: utc("2020-01-01T00:00"), max: utc("2040-01-01T00:00") }),
        (zone, at) => {
          const minute = Math.floor(at / 60_000) * 60_000;
          const back = instantOf(siteField(at, zone), zone);
          expect([minute, minute - 1_800_000, minute - 3_600_000]).toContain(back);
        },
      ),
    );
  });
  test("a day ends with its last second, also when it has 23 hours", () => {
    expect(endOfDay("2026-03-29", "Europe/Lisbon")).toBe(utc("2026-03-29T22:59:59"));
    expect(endOfDay("2026-12-01", "UTC")).toBe(utc("2026-12-01T23:59:59"));
    expect(endOfDay("", "UTC")).toBeNull();
  });
});
