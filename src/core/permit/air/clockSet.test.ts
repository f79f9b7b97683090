import { idOf, MINUTE, wellFacts } from "../../../../tests/support/permits";
import { withEntries, type LogEntry, type NewEntry } from "../record/permitLog";
import { airState } from "./airTests";

const POINT = "at the work";
const read: NewEntry = {
  type: "air",
  point: POINT,
  instrument: "GI-1",
  reading: { oxygen: 0.209, flammable: 0, toxics: [] },
  against: [],
};
const set: NewEntry = { type: "clock set", back_s: 1200, words: "the radio" };
const logOf = (...said: readonly (readonly [number, NewEntry])[]) =>
  said.reduce((permit, [at_ms, entry]) => withEntries(permit, { at_ms, by: idOf("gil") }, entry), {
    log: [] as readonly LogEntry[],
  }).log;
const wantsOf = (log: readonly LogEntry[], now_ms: number) =>
  airState(wellFacts({ testPoints: [POINT] }), log, { every_min: 120, now_ms, entry: false }).points[0]!.wants;
const isFit = (log: readonly LogEntry[], now_ms: number) =>
  airState(wellFacts({ testPoints: [POINT] }), log, { every_min: 120, now_ms, entry: false }).fit;

test("air read before a clock was set right counts for nothing, whatever its time says; read after that it does", () => {
  const now_ms = 40 * MINUTE;
  expect(isFit(logOf([30 * MINUTE, read]), now_ms)).toBe(true);
  expect(wantsOf(logOf([35 * MINUTE, set]), now_ms)).toBe("not read yet");
  // Dated later than when the clock was set, and earlier.
  for (const at_ms of [50 * MINUTE, 30 * MINUTE]) {
    expect(isFit(logOf([at_ms, read], [35 * MINUTE, set]), now_ms)).toBe(false);
    expect(wantsOf(logOf([at_ms, read], [35 * MINUTE, set]), now_ms)).toMatch(/read again since the clock/);
    expect(isFit(logOf([at_ms, read], [35 * MINUTE, set], [36 * MINUTE, read]), now_ms)).toBe(true);
  }
});

test("a sample begun before the clock was set and read after it counts for nothing, however long it seems to have been drawn; a bad one is bad", () => {
  const late = (against: string[]): NewEntry => ({ ...read, drawn_ms: 34 * MINUTE, against }) as NewEntry;
  const log = (against: string[]) => logOf([35 * MINUTE, set], [36 * MINUTE, late(against)]);
  expect(isFit(log([]), 40 * MINUTE)).toBe(false);
  const drawnAfter = { ...read, drawn_ms: 36 * MINUTE } as NewEntry;
  expect(isFit(logOf([35 * MINUTE, set], [38 * MINUTE, drawnAfter]), 40 * MINUTE)).toBe(true);
  const bad = logOf([35 * MINUTE, set], [36 * MINUTE, late(["flammable"])], [36 * MINUTE, drawnAfter]);
  expect(isFit(bad, 40 * MINUTE)).toBe(false);
});
