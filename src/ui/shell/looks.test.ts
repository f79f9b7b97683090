import fc from "fast-check";
import { looks } from "./looks";

/** A clock that is moved by hand. */
function handClock() {
  let now = 0;
  const timers = new Set<{ at: number; then: () => void }>();
  return {
    timer: {
      now_ms: () => now,
      after: (ms: number, then: () => void) => {
        const one = { at: now + ms, then };
        timers.add(one);
        return () => void timers.delete(one);
      },
    },
    advance(ms: number) {
      const end = now + ms;
      for (;;) {
        const next = [...timers].filter(({ at }) => at <= end).sort((a, b) => a.at - b.at)[0];
        if (next === undefined) break;
        timers.delete(next);
        now = next.at;
        next.then();
      }
      now = end;
    },
  };
}

describe("when a page looks again", () => {
  test("what happens together is looked at once", () => {
    const clock = handClock();
    let seen = 0;
    const page = looks(() => seen++, clock.timer);
    page.soon(0);
    page.soon(0);
    clock.advance(1000);
    expect(seen).toBe(1);
  });

  test("an alarm does not wait for what may wait", () => {
    const clock = handClock();
    let seen = 0;
    const page = looks(() => seen++, clock.timer);
    page.soon(0);
    clock.advance(300);
    page.soon(20_000);
    clock.advance(1000);
    expect(seen).toBe(1);
    page.soon(0);
    clock.advance(300);
    expect(seen).toBe(2);
  });

  test("whatever happens in whatever order, the last thing that happened is looked at in time", () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ wait_ms: fc.integer({ min: 0, max: 8000 }), often_ms: fc.constantFrom(0, 3000, 20_000) })),
        (happenings) => {
          const clock = handClock();
          const seen: number[] = [];
          const page = looks(() => seen.push(clock.timer.now_ms()), clock.timer);
          for (const { wait_ms, often_ms } of happenings) {
            clock.advance(wait_ms);
            page.soon(often_ms);
          }
          const lastAt = clock.timer.now_ms();
          clock.advance(60_000);
          if (happenings.length > 0) {
            const first = seen.find((at) => at > lastAt)!;
            expect(first).toBeDefined();
            expect(first - lastAt).toBeLessThanOrEqual(20_250);
          }
          const gaps = seen.slice(1).map((at, i) => at - seen[i]!);
          for (const gap of gaps) expect(gap).toBeGreaterThanOrEqual(250);
        },
      ),
    );
  });
});
