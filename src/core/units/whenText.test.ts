import fc from "fast-check";
import { readWhen, whenText } from "./whenText";

const wall = fc
  .date({ min: new Date("1990-01-01T00:00Z"), max: new Date("2090-01-01T00:00Z"), noInvalidDate: true })
  .map((at) => at.toISOString())
  .map((iso) => ({ date: iso.slice(0, 10), time: iso.slice(11, 16) }));

test("what is written is read again, as words and as ISO, with a time or without", () => {
  fc.assert(
    fc.property(wall, (one) => {
      expect(readWhen(whenText(one))).toEqual(one);
      expect(readWhen(`${one.date}T${one.time}`)).toEqual(one);
      expect(readWhen(`${one.date} ${one.time}`)).toEqual(one);
      expect(readWhen(whenText({ ...one, time: null }))).toEqual({ ...one, time: null });
    }),
  );
});

test.each([
  ["29 Nov 2026, 03:21", "2026-11-29", "03:21"],
  ["Sun 29 Nov 2026 3.21", "2026-11-29", "03:21"],
  ["29. november 2026", "2026-11-29", null],
  ["2026-11-29T03:21:30.5", "2026-11-29", "03:21"],
  ["29 Nov 03:21", "2026-11-29", "03:21"],
  ["2 Jan 06:00", "2027-01-02", "06:00"],
  ["14:05", "2026-12-01", "14:05"],
])("%s", (text, date, time) => {
  expect(readWhen(text, "2026-12-01T08:00")).toEqual({ date, time });
});

test.each(["", "31 Feb 2026", "2026-02-30T10:00", "29 Nov 2026 24:00", "12:60", "03/04/2026", "soon", "29 Nom 2026"])(
  "%s is no time",
  (text) => {
    expect(readWhen(text, "2026-12-01T08:00")).toBeNull();
  },
);

test("what is not typed is not made up where nothing lies near", () => {
  expect([readWhen("14:05"), readWhen("29 Nov 03:21")]).toEqual([null, null]);
});

test("whatever is typed, it is read or not, and never throws or hangs", () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 60 }), fc.option(wall), (text, near) => {
      const read = readWhen(text, near ? `${near.date}T${near.time}` : null);
      if (read !== null) expect(readWhen(whenText(read))).toEqual(read);
    }),
  );
});
