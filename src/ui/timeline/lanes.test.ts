import type { Bar } from "../../core/schedule/timeline";
import { lanesOf } from "./lanes";

const bar = (id: string, crew: Bar["crew"], person: number | null, start_ms: number, end_ms: number): Bar => ({
  id,
  step: id,
  label: id,
  wait: crew === null ? id : null,
  crew,
  person,
  start_ms,
  end_ms,
  slack_s: 0,
  critical: false,
});

test("each person has a lane of their own, crews in the same order always; a crew without work has none", () => {
  const lanes = lanesOf({
    bars: [bar("a", "process", 0, 0, 10), bar("b", "electrical", 1, 0, 10), bar("c", "electrical", 0, 5, 20)],
  });
  expect(lanes.map((lane) => lane.words)).toEqual(["Electrical 1", "Electrical 2", "Process"]);
});

test("waits that run side by side get lanes of their own, one after the other shares one; what takes no time is not drawn", () => {
  const lanes = lanesOf({
    bars: [
      bar("x", null, null, 0, 10),
      bar("y", null, null, 5, 8),
      bar("z", null, null, 10, 12),
      bar("0", null, null, 3, 3),
    ],
  });
  expect(lanes.map((lane) => lane.bars.map((one) => one.id))).toEqual([["x", "z"], ["y"]]);
});
