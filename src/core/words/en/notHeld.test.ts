import type { NotHeld } from "../../refusal/notHeld";
import { isolationState } from "./notHeld";

test("an isolation is called proven alone only where it holds and its proofs count", () => {
  expect(isolationState("proven", null, [])).toBe("proven");
  expect(isolationState("proven", null, ["prove P, older than 12 h"])).toBe("proven before, to be proved again");
  const fell: NotHeld = { code: "locks not found", isolation: "S-0001", points: ["V-1"] };
  expect(isolationState("proven", fell, [])).toBe("proven, does not hold now");
  expect(isolationState("isolating", null, ["prove P, older than 12 h"])).toBe("isolating");
});
