import type { NotHeld } from "../../refusal/notHeld";
import { certificateLine, isolationState } from "./notHeld";

test("an isolation is called proven alone only where it holds and its proofs count", () => {
  expect(isolationState("proven", null, [])).toBe("proven");
  expect(isolationState("proven", null, ["prove P, older than 12 h"])).toBe("proven before, to be proved again");
  const fell: NotHeld = { code: "locks not found", isolation: "S-0001", points: ["V-1"] };
  expect(isolationState("proven", fell, [])).toBe("proven, does not hold now");
  expect(isolationState("isolating", null, ["prove P, older than 12 h"])).toBe("isolating");
});

test("a certificate allows work only where the isolation is proven, holds, and its proofs count", () => {
  const well = { openSteps: 0, planFault: null, stale: [] };
  expect(certificateLine("proven", well)).toBe("Proven. Work is allowed only under a live permit.");
  const planFault: NotHeld = { code: "locks not found", isolation: "S-0001", points: ["V-1"] };
  for (const [state, more, says] of [
    ["isolating", { openSteps: 3 }, "NOT PROVEN when printed: isolating, 3 steps open"],
    ["restored", {}, "NOT PROVEN when printed: restored"],
    ["proven", { planFault }, "DOES NOT HOLD when printed: the lock of S-0001 was not found on V-1"],
    ["proven", { stale: ["prove P, older than 12 h"] }, "TO BE PROVED AGAIN when printed: prove P, older than 12 h"],
  ] as const) {
    expect(certificateLine(state, { ...well, ...more })).toBe(`${says}. Nobody works on it.`);
  }
});
