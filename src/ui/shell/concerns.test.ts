import { looksFor, toldLately, type Told } from "./concerns";

const act = (...about: string[]): Told => ({ kind: "act", subject: about[0]!, about, page: null });
const reading: Told = { kind: "instrument", subject: "P-1", about: ["P-1"], page: null };
const alarm: Told = { kind: "alarm", subject: "P-9" };

describe("what a page looks for again", () => {
  test.each<[string, Told, string, number | null]>([
    ["its own number, at once", act("S-1", "J-1"), "/jobs/J-1/plan", 0],
    ["a reading of its own, now and then", reading, "/permits/P-1", 3000],
    ["a board for everybody's", act("P-7"), "/permits", 5000],
    ["not what is none of its own", act("P-7"), "/jobs/J-1", null],
    ["an alarm on every page", alarm, "/plant", 0],
  ])("%s", (_, told, path, is) => expect(looksFor(told, path)).toBe(is));
});

describe("a page that was on its way while something was told", () => {
  test("looks again for its own, and for nothing else", () => {
    let now_ms = 0;
    const lately = toldLately(() => now_ms);
    expect(lately.missedBy("/permits/P-1")).toBeNull();
    lately.keep(reading);
    now_ms = 4000;
    lately.keep(act("J-2"));
    expect(lately.missedBy("/permits/P-1")).toBe(3000);
    expect(lately.missedBy("/jobs/J-2")).toBe(0);
    expect(lately.missedBy("/")).toBe(5000);
    expect(lately.missedBy("/bench")).toBeNull();
    lately.keep(alarm);
    expect(lately.missedBy("/bench")).toBe(0);
  });

  test("not for what is long past", () => {
    let now_ms = 0;
    const lately = toldLately(() => now_ms);
    lately.keep(act("J-2"));
    now_ms = 20_000;
    expect(lately.missedBy("/jobs/J-2")).toBe(0);
    now_ms = 20_001;
    expect(lately.missedBy("/jobs/J-2")).toBeNull();
    lately.keep(act("J-3"));
    expect(lately.missedBy("/jobs/J-2")).toBeNull();
  });
});
