import { draftOf, HOUR, idOf } from "../../../../tests/support/permits";
import type { PermitDetails } from "../kinds/details";
import type { LogEntry } from "./permitLog";
import { leftToDo } from "./leftToDo";

const handedBack = (
  number: string,
  at_ms: number,
  left: string | null,
  details: PermitDetails = { kind: "general" },
) => {
  const by = idOf("hal");
  const log: LogEntry[] = [
    { type: "signed", act: "hand back", at_ms, by },
    ...(left === null ? [] : [{ type: "left to do" as const, words: left, at_ms, by }]),
  ];
  return draftOf(details, { number, state: "closed", log });
};

test("what was left stays left until a later permit of its kind is handed back with nothing left", () => {
  const first = handedBack("P-1", HOUR, "the gland is out");
  const left = [{ permit: "P-1", at_ms: HOUR, words: "the gland is out" }];
  expect(leftToDo([handedBack("P-1", HOUR, null)])).toEqual([]);
  expect(leftToDo([first])).toEqual(left);
  expect(leftToDo([first, draftOf({ kind: "general" }, { number: "P-2", state: "live" })])).toEqual(left);
  expect(
    leftToDo([first, handedBack("P-2", 2 * HOUR, null, { kind: "line break", line: "", flange: "", release: "" })]),
  ).toEqual(left);
  expect(leftToDo([first, handedBack("P-0", HOUR / 2, null)])).toEqual(left);
  expect(leftToDo([first, handedBack("P-2", 2 * HOUR, null)])).toEqual([]);
});

test("left again, both are left until all is done", () => {
  const both = [handedBack("P-1", HOUR, "the gland is out"), handedBack("P-2", 2 * HOUR, "the cover is off")];
  expect(leftToDo(both).map(({ permit }) => permit)).toEqual(["P-1", "P-2"]);
  expect(leftToDo([...both, handedBack("P-3", 3 * HOUR, null)])).toEqual([]);
});
