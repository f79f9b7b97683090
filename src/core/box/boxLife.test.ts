import fc from "fast-check";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import type { PersonId } from "../people/roles";
import { checkBox, decideBox, standingOn, type BoxCommand, type BoxFacts, type BoxLife } from "./boxLife";
import type { Gear } from "../gear/gear";

const [MAR, COL] = ["mar", "col"] as [PersonId, PersonId];
const fresh: BoxLife = { number: "B-1", state: "open", keys: [], standing: [] };
const quiet: BoxFacts = {
  peopleOn: [],
  livePermits: [],
  lockHangs: () => undefined,
  gear: () => undefined,
  nameOf: (id) => id,
};
const at = { by: MAR, at_ms: 1 };
const key = (lock: string): BoxCommand => ({ ...at, type: "take key", lock, point: `V-${lock}` });
const hang = (lock: string, rest: object = {}): BoxCommand => ({
  ...at,
  type: "hang",
  role: "coordinator",
  person: MAR,
  lock,
  ...rest,
});
const off = (lock: string, rest: object = {}): BoxCommand => ({ ...at, type: "take off", lock, ...rest });
const after = (...commands: BoxCommand[]) =>
  commands.reduce((box, command) => {
    const decided = decideBox(box, command, quiet);
    if (!decided.ok) throw new Error(decided.refusal.code);
    return decided.value;
  }, fresh);
const codeOf = (box: BoxLife, command: BoxCommand, facts = quiet) => {
  const decided = decideBox(box, command, facts);
  return decided.ok ? "accepted" : decided.refusal.code;
};
const closed = () => after(key("1"), key("2"), { ...at, type: "close" });

describe("the life of a lock box", () => {
  test("keys are in hands until it is closed, then inside, then in the hand of who opened it", () => {
    expect(after(key("1")).keys).toMatchObject([{ at: "hand" }]);
    expect(closed().keys.map((one) => one.at)).toEqual(["box", "box"]);
    const opened = after(key("1"), { ...at, type: "close" }, { ...at, by: COL, type: "open" });
    expect(opened.keys).toMatchObject([{ at: "hand", by: COL }]);
    expect(codeOf(after(key("1")), key("1"))).toBe("already done");
  });
  test("the key of a lock hung on a closed box's isolation goes straight in", () => {
    expect(after(key("1"), { ...at, type: "close" }, key("2")).keys[1]).toMatchObject({ at: "box" });
  });
  test("it opens only when nothing hangs on it", () => {
    const held = after(key("1"), { ...at, type: "close" }, hang("C-1"));
    expect(codeOf(held, { ...at, type: "open" })).toBe("box locked");
    expect(codeOf(closed(), { ...at, type: "open" }, { ...quiet, peopleOn: ["Nell"] })).toBe("people on");
    expect(codeOf(closed(), { ...at, type: "return" }, { ...quiet, peopleOn: ["Nell"] })).toBe("people on");
    expect(codeOf(closed(), { ...at, type: "open" })).toBe("accepted");
  });
  test("a standing lock goes on a closed box, one's own and free", () => {
    expect(codeOf(after(key("1")), hang("C-1"))).toBe("wrong state");
    expect(codeOf(closed(), hang(" "))).toBe("lock missing");
    expect(codeOf(closed(), hang("C-1"), { ...quiet, lockHangs: () => "on V-9" })).toBe("lock in use");
    const owned = (owner: PersonId | null) => () =>
      ({
        kind: "lock",
        number: "C-1",
        owner,
        key: null,
        inDateUntil_ms: null,
        rating_V: null,
        error: null,
        withdrawn: false,
        withdrawnBy: null,
        bumpedAt_ms: null,
        zeroedAt_ms: null,
        sheet: null,
        withJob: null,
      }) satisfies Gear;
    expect(codeOf(closed(), hang("C-1"), { ...quiet, gear: owned(COL) })).toBe("lock of another");
    expect(codeOf(closed(), hang("C-1"), { ...quiet, gear: owned(null) })).toBe("lock of the site");
    const department = hang("C-1", { role: "department", person: COL });
    expect(codeOf(closed(), department, { ...quiet, gear: owned(COL) })).toBe("lock of another");
    expect(codeOf(closed(), department, { ...quiet, gear: owned(null) })).toBe("accepted");
  });
  test("the last one off waits for everybody else and for every permit; a second one frees the first", () => {
    const one = after(key("1"), { ...at, type: "close" }, hang("C-1"));
    expect(codeOf(one, off("C-1"), { ...quiet, peopleOn: ["Nell"] })).toBe("last off");
    expect(codeOf(one, off("C-1"), { ...quiet, livePermits: ["P-1"] })).toBe("permits open");
    expect(codeOf(one, off("C-1", { by: COL }))).toBe("lock of another");
    expect(codeOf(one, off("C-9"))).toBe("unknown");
    const both = after(
      key("1"),
      { ...at, type: "close" },
      hang("C-1"),
      hang("D-1", { role: "department", person: COL }),
    );
    expect(codeOf(both, off("C-1"), { ...quiet, peopleOn: ["Nell"] })).toBe("accepted");
  });

  test("whatever is done in whatever order, its invariants hold: no key is in a hand and in the box", () => {
    const states = new Set<string>();
    let held = 0;
    const command = fc.oneof(
      fc.constantFrom("1", "2", "3").map(key),
      fc.constantFrom("1", "2", "3").map((lock): BoxCommand => ({ ...at, type: "give key back", lock })),
      fc.constantFrom<BoxCommand>({ ...at, type: "close" }, { ...at, type: "open" }, { ...at, type: "open" }),
      fc.constantFrom("C-1", "C-2").map((lock) => hang(lock)),
      fc.constantFrom("C-1", "C-2").map((lock) => off(lock)),
      fc.constant<BoxCommand>({ ...at, type: "return" }),
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(command, fc.nat(4)), { minLength: 20, maxLength: 80 }), (commands) => {
        let box = fresh;
        for (const [one, people] of commands) {
          const hung = new Set(standingOn(box).map(({ lock }) => lock));
          const peopleOn = people === 0 ? ["Nell"] : [];
          const facts = {
            ...quiet,
            peopleOn,
            lockHangs: (lock: string) => (hung.has(lock) ? "here" : undefined),
          };
          const decided = decideBox(box, one, facts);
          if (!decided.ok) continue;
          // Nobody on loses the lock that was first on, and no box opens over anybody.
          if (peopleOn.length > 0 && hung.size > 0) expect(standingOn(decided.value).length).toBeGreaterThan(0);
          if (box.state === "closed" && decided.value.state !== "closed")
            expect([peopleOn, hung.size]).toEqual([[], 0]);
          box = decided.value;
          checkBox(box);
          states.add(box.state);
          if (standingOn(box).length > 0) held++;
        }
      }),
      propertyRuns(300),
    );
    expect([...states].sort()).toEqual(["closed", "open", "returned"]);
    expect(held).toBeGreaterThan(metAtLeast(100));
  });
});
