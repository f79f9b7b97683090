import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { purgeTime, type Sweep } from "./purgeDilution";

/** The space by its own balance, V·dC/dt = (Q/K)·(Cₛ − C) + G, in small steps; written apart from the sum's closed form. */
function walked(
  { volume_m3, flow_m3_s, c0, cs = 0, mixing = 1, generation_m3_s = 0 }: Sweep,
  upTo_s: number,
): number[] {
  const steps = 4000;
  const dt = upTo_s / steps;
  const slope = (c: number) => ((flow_m3_s / mixing) * (cs - c) + generation_m3_s) / volume_m3;
  const seen = [c0];
  let c = c0;
  for (let i = 0; i < steps; i++) {
    const half = c + (slope(c) * dt) / 2;
    c += slope(half) * dt;
    seen.push(c);
  }
  return seen;
}

const part = fc.double({ min: 0, max: 1, noNaN: true });
const sweeps: fc.Arbitrary<Sweep> = fc.record({
  volume_m3: fc.double({ min: 1, max: 200, noNaN: true }),
  flow_m3_s: fc.double({ min: 0.05, max: 2, noNaN: true }),
  c0: part,
  c: part,
  cs: fc.oneof(fc.constant(0), part),
  mixing: fc.double({ min: 1, max: 5, noNaN: true }),
  generation_m3_s: fc.oneof(fc.constant(0), fc.double({ min: 0, max: 0.02, noNaN: true })),
});

test("what a sweep is said to come to is what the space comes to, walked step by step (well-mixed balance)", () => {
  const said = { falls: 0, rises: 0, already: 0, past: 0, never: 0 };
  fc.assert(
    fc.property(sweeps, (sweep) => {
      const { c0, c, cs = 0, mixing = 1 } = sweep;
      const answer = purgeTime(sweep);
      const tau_s = (mixing * sweep.volume_m3) / sweep.flow_m3_s;
      const near = 1e-4;
      if (answer.reached && !answer.already) {
        fc.pre(answer.time_s > 0 && answer.time_s < 20 * tau_s);
        const at = walked(sweep, answer.time_s).at(-1)!;
        expect(Math.abs(at - c)).toBeLessThan(near);
        // Up only where fresh supply was to bring it up.
        if (c > c0) expect(cs).toBeGreaterThanOrEqual(c);
        said[c > c0 ? "rises" : "falls"] += 1;
        return;
      }
      const curve = walked(sweep, 20 * tau_s);
      if (answer.reached) {
        expect(answer.time_s).toBe(0);
        expect(Math.max(...curve)).toBeLessThanOrEqual(c + near);
        said.already += 1;
      } else if (answer.past_s !== null) {
        expect(Math.max(...curve)).toBeGreaterThanOrEqual(c - near);
        expect(c).toBeGreaterThanOrEqual(c0);
        if (answer.past_s > 0 && answer.past_s < 20 * tau_s) {
          expect(Math.abs(walked(sweep, answer.past_s).at(-1)! - c)).toBeLessThan(near);
        }
        said.past += 1;
      } else {
        if (c < c0) expect(Math.min(...curve)).toBeGreaterThanOrEqual(c - near);
        else expect(Math.max(...curve) < c + near || cs < c).toBe(true);
        said.never += 1;
      }
    }),
    propertyRuns(600),
  );
  for (const count of Object.values(said)) expect(count).toBeGreaterThan(0);
});
