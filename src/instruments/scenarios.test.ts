import { STRICT_ENTRY } from "../core/atmosphere/airLimits";
import { againstSent, isSilent, sentSchema, SILENT_AFTER_MS } from "../core/permit/air/instruments";
import { message, SCENARIOS } from "./scenarios";

const seconds = Array.from({ length: 60 }, (_, i) => i);
/** Of an instrument on methane, where there is methane. */
const senderOf = (name: string) => ({
  kind: name === "gauge" ? ("gauge" as const) : name.startsWith("blower") ? ("blower" as const) : ("gas" as const),
  sheet: null,
  gases: ["methane"],
});
/** The first second at which something is against it; null for never. */
function tripsAt(name: string): number | null {
  const found = seconds.find((second) => {
    const sent = message(SCENARIOS[name]!, second, second);
    return sent !== null && againstSent(sent, STRICT_ENTRY, senderOf(name)).length > 0;
  });
  return found ?? null;
}

describe("what simulated instruments send", () => {
  test.each(Object.keys(SCENARIOS))("%s keeps to the protocol, and its first ten seconds are clean", (name) => {
    for (const second of seconds) {
      const sent = message(SCENARIOS[name]!, second, second);
      if (sent === null) continue;
      expect(sentSchema.parse(JSON.parse(JSON.stringify(sent)))).toEqual(sent);
      if (second <= 9) expect(againstSent(sent, STRICT_ENTRY, senderOf(name))).toEqual([]);
    }
  });
  test("clean trips nothing; a pocket, falling oxygen, a lost sensor, a low battery and a gauge do", () => {
    expect(tripsAt("clean")).toBeNull();
    expect(tripsAt("pocket")).toBe(13);
    // From 20.9 % by 0.1 a second: 19.5 % after fourteen seconds, where rounding already puts it below.
    expect(tripsAt("oxygen-falling")).toBe(24);
    expect(tripsAt("sensor-failing")).toBe(11);
    expect(tripsAt("battery-low")).toBe(20);
    expect(tripsAt("gauge")).toBe(21);
    expect(tripsAt("blower")).toBeNull();
    expect(tripsAt("blower-stops")).toBe(11);
    expect(tripsAt("blower-trips")).toBe(11);
  });
  test("a blower that trips runs again by itself, and says so", () => {
    const says = (second: number) => message(SCENARIOS["blower-trips"]!, second, second)!.running;
    expect([10, 11, 40, 41].map(says)).toEqual([true, false, false, true]);
  });
  test("silence sends nothing after ten seconds, and is noticed ten seconds later", () => {
    expect(message(SCENARIOS.silence!, 10, 10)).not.toBeNull();
    expect(message(SCENARIOS.silence!, 11, 11)).toBeNull();
    expect(isSilent({ posted_ms: 0, last_ms: 10_000 }, 10_000 + SILENT_AFTER_MS)).toBe(false);
    expect(isSilent({ posted_ms: 0, last_ms: 10_000 }, 10_001 + SILENT_AFTER_MS)).toBe(true);
    // One that was just posted has its time to send.
    expect(isSilent({ posted_ms: 50_000, last_ms: null }, 55_000)).toBe(false);
    // Heard in what is still to come: the clock was set back.
    expect(isSilent({ posted_ms: 0, last_ms: 3_600_000 }, 10_000)).toBe(true);
    expect(isSilent({ posted_ms: 0, last_ms: 10_000 + SILENT_AFTER_MS }, 10_000)).toBe(false);
  });
  test("a message that breaks the protocol is refused with its field", () => {
    const read = sentSchema.safeParse({ version: 1, sequence: 0, battery: 2 });
    expect(read.success ? [] : read.error.issues.map(({ path }) => path.join("."))).toEqual(["battery"]);
  });
});
