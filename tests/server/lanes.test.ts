import fc from "fast-check";
import { Lanes } from "../../tools/serve/lanes.mjs";

const MOST = { ofOne: 2, ofAddress: 5, waiting: 4 };

test("who sends a great deal waits behind themselves; somebody else at the same address is answered at once", () => {
  const lanes = new Lanes(MOST);
  const begun: string[] = [];
  const leave: (() => void)[] = [];
  const enter = (sender: string) =>
    lanes.enter("10.0.0.1", sender, (over) => {
      begun.push(sender);
      leave.push(over);
    });
  const flood = Array.from({ length: 10 }, () => enter("tom"));
  expect(begun).toEqual(["tom", "tom"]);
  // Two are answered, four wait, and the rest is sent away.
  expect(flood.filter((one) => one === null)).toHaveLength(4);
  enter("ann");
  expect(begun).toEqual(["tom", "tom", "ann"]);
  leave.shift()!();
  expect(begun).toEqual(["tom", "tom", "ann", "tom"]);
});

test("whatever comes, waits, ends and goes away: never more at once than allowed, each is begun once, nothing is kept", () => {
  const step = fc.oneof(
    fc.record({ do: fc.constant("enter" as const), address: fc.nat(1), sender: fc.nat(2) }),
    fc.record({ do: fc.constant("end" as const), which: fc.nat(30) }),
    fc.record({ do: fc.constant("go away" as const), which: fc.nat(30) }),
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
      const lanes = new Lanes(MOST);
      const asked: { address: string; sender: string; state: "waits" | "runs" | "over"; leave?: () => void }[] = [];
      const back: ((() => void) | null)[] = [];
      const running = (of: (one: (typeof asked)[number]) => boolean) =>
        asked.filter((one) => one.state === "runs" && of(one)).length;
      for (const one of steps) {
        if (one.do === "enter") {
          const mine = { address: `a${one.address}`, sender: `s${one.sender}`, state: "waits" as const };
          const at = asked.push(mine) - 1;
          const taken = lanes.enter(mine.address, mine.sender, (leave) => {
            expect(asked[at]!.state).toBe("waits");
            Object.assign(asked[at]!, { state: "runs", leave });
          });
          back.push(taken);
          if (taken === null) asked[at]!.state = "over";
        } else if (asked.length > 0) {
          const at = one.which % asked.length;
          const found = asked[at]!;
          if (one.do === "end" && found.state === "runs") {
            found.state = "over";
            found.leave!();
            found.leave!();
          }
          if (one.do === "go away" && found.state === "waits") {
            back[at]!();
            found.state = "over";
          }
        }
        for (const { address, sender } of asked) {
          expect(running((other) => other.address === address)).toBeLessThanOrEqual(MOST.ofAddress);
          const own = running((other) => other.address === address && other.sender === sender);
          expect(own).toBeLessThanOrEqual(MOST.ofOne);
        }
        // Nobody waits where there is room for them.
        const waits = asked.find(
          ({ address, sender, state }) =>
            state === "waits" &&
            running((other) => other.address === address) < MOST.ofAddress &&
            running((other) => other.address === address && other.sender === sender) < MOST.ofOne,
        );
        expect(waits).toBeUndefined();
      }
      for (let left = asked; left.length > 0; left = asked.filter(({ state }) => state === "runs")) {
        for (const found of left) {
          if (found.state !== "runs") continue;
          found.state = "over";
          found.leave!();
        }
      }
      expect(asked.filter(({ state }) => state !== "over")).toEqual([]);
      expect(lanes.kept).toBe(0);
    }),
    { numRuns: 500 },
  );
});
