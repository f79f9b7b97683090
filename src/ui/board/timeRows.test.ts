import fc from "fast-check";
import type { JobTrack, PermitTrack, Spot } from "../../core/board/tracks";
import type { PermitState } from "../../core/permit/record/permitTypes";
import { rowsOf } from "./timeRows";

const HOUR_MS = 3_600_000;
const window = { from_ms: 0, to_ms: 36 * HOUR_MS };
const now_ms = 12 * HOUR_MS;
const spotIn = (area: string): Spot => ({ x_m: 0, y_m: 0, level_m: 0, area, isKnown: true });

const states: readonly PermitState[] = [
  "draft",
  "authorised",
  "issued",
  "live",
  "suspended",
  "run out",
  "watching",
  "closed",
];
const time = fc.record({
  area: fc.constantFrom("Cellar", "Press hall"),
  from_h: fc.integer({ min: 0, max: 34 }),
  lasts_h: fc.integer({ min: 1, max: 12 }),
});
const jobs = fc.array(time, { maxLength: 60 }).map((all) =>
  all.map(({ area, from_h, lasts_h }, at): JobTrack => ({
    number: `J-${at}`,
    title: "",
    spot: spotIn(area),
    from_ms: from_h * HOUR_MS,
    to_ms: (from_h + lasts_h) * HOUR_MS,
    asked_ms: 0,
    isUnderWay: false,
    over_ms: null,
    lifts: [],
  })),
);
const permits = fc.array(fc.tuple(time, fc.constantFrom(...states), fc.boolean()), { maxLength: 60 }).map((all) =>
  all.map(([{ area, from_h, lasts_h }, state, isInside], at): PermitTrack => ({
    number: `P-${at}`,
    job: `J-P${at}`,
    title: "",
    kind: "general",
    spot: spotIn(area),
    validFrom_ms: from_h * HOUR_MS,
    validTo_ms: (from_h + lasts_h) * HOUR_MS,
    states: [[0, state]],
    on: [],
    inside: isInside ? [[0, 1]] : [],
    purging: [],
    reaches: [],
    opens: [],
  })),
);

const none = { only: "", opened: new Set<string>(), trial: null };
const barsOf = (rows: ReturnType<typeof rowsOf>) => rows.flatMap(({ lanes }) => lanes.flat());

test("whatever is out is shown, however much is planned, and nothing is left out uncounted", () => {
  fc.assert(
    fc.property(jobs, permits, (planned, out) => {
      const tracks = { jobs: planned, permits: out, locks: [], heads: [] };
      const folded = rowsOf(tracks, window, now_ms, none);
      const whole = barsOf(rowsOf(tracks, window, now_ms, { ...none, opened: new Set(["Cellar", "Press hall"]) }));
      const shown = new Set(barsOf(folded).map(({ number }) => number));
      const hidden = whole.filter(({ number }) => !shown.has(number));
      expect(whole.length).toBe(planned.length + out.length);
      expect(hidden.filter(({ tone }) => tone !== "planned" && tone !== "over")).toEqual([]);
      expect(hidden.length).toBe(folded.reduce((sum, { more }) => sum + more, 0));
    }),
  );
});

test("of what is planned the next come first, and a job that is moved stays in sight", () => {
  fc.assert(
    fc.property(jobs, (planned) => {
      const shown = rowsOf({ jobs: planned, permits: [], locks: [], heads: [] }, window, now_ms, none);
      for (const { area, lanes, more } of shown) {
        if (more === 0) continue;
        const inView = new Set(lanes.flat().map(({ number }) => number));
        const coming = planned.filter((job) => job.spot.area === area && job.to_ms > now_ms);
        const last_ms = Math.max(...coming.filter(({ number }) => inView.has(number)).map(({ from_ms }) => from_ms));
        const left = coming.filter(({ number }) => !inView.has(number));
        expect(left.every(({ from_ms }) => from_ms >= last_ms)).toBe(true);
      }
      for (const { number } of planned.slice(0, 3)) {
        const rows = rowsOf({ jobs: planned, permits: [], locks: [], heads: [] }, window, now_ms, {
          ...none,
          trial: number,
        });
        expect(barsOf(rows).map((bar) => bar.number)).toContain(number);
      }
    }),
  );
});

test("an area by itself is shown whole", () => {
  fc.assert(
    fc.property(jobs, (planned) => {
      const rows = rowsOf({ jobs: planned, permits: [], locks: [], heads: [] }, window, now_ms, {
        ...none,
        only: "Cellar",
      });
      expect(barsOf(rows).length).toBe(planned.filter(({ spot }) => spot.area === "Cellar").length);
      expect(rows.every(({ more, isOpened }) => more === 0 && !isOpened)).toBe(true);
    }),
  );
});
