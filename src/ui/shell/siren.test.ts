import { isHeard } from "./siren";

test("an alarm is heard until it is silenced, and a new one though others were", () => {
  expect(isHeard([], [])).toBe(false);
  expect(isHeard(["P-1"], [])).toBe(true);
  expect(isHeard(["P-1"], ["P-1"])).toBe(false);
  expect(isHeard(["P-1", "P-2"], ["P-1"])).toBe(true);
});
