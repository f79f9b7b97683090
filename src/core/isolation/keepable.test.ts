import { STEP_KINDS } from "../procedure/steps";
import { mayBeSignedLater } from "./keepable";

test("on the way back only what was seen or said may be signed later; in a test for a while nothing may", () => {
  const later = (phase: "isolate" | "test" | "restore") =>
    STEP_KINDS.filter((kind) => mayBeSignedLater({ phase, kind }));
  // What turns a machine to its hatch is no barrier yet.
  expect(later("isolate")).toEqual(STEP_KINDS.filter((kind) => kind !== "position"));
  expect(later("test")).toEqual([]);
  const back = later("restore");
  for (const kind of ["unlock", "remove earth", "take pin out", "take short off", "close bleed", "cap", "open box"]) {
    expect(back).not.toContain(kind);
  }
  for (const kind of ["start", "test run", "hand over", "leak test"]) expect(back).not.toContain(kind);
  expect([...back].sort()).toEqual([
    "clear",
    "count people",
    "guards",
    "take barriers away",
    "tell all",
    "walk line",
    "watch",
  ]);
});
