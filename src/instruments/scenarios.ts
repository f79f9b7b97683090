import type { Sent } from "../core/permit/air/instruments";

/** What a simulated instrument sends at each second; null sends nothing. Every scenario begins with ten clean seconds. */
export type Scenario = Readonly<{ words: string; at: (second: number) => Omit<Sent, "version" | "sequence"> | null }>;

const QUIET_s = 10;

const air = (more: Partial<Sent> = {}): Omit<Sent, "version" | "sequence"> => ({
  oxygen: 0.209,
  flammable: 0,
  toxics: [],
  pressure_Pa: null,
  least_Pa: null,
  most_Pa: null,
  running: null,
  battery: 0.92,
  fault: null,
  ...more,
});
const blower = (running: boolean) => air({ oxygen: null, flammable: null, running });
const since = (second: number) => Math.max(0, second - QUIET_s);

/** Names with a dash, as they are typed. */
export const SCENARIOS: Readonly<Record<string, Scenario>> = {
  clean: { words: "outside air, all the while", at: () => air() },
  pocket: {
    words: "clean, then a pocket of gas drifts in and out again",
    // Rises to 30 % of the lower limit within six seconds and is gone half a minute later.
    at: (second) => {
      const t = since(second);
      const share = t < 6 ? t / 6 : t < 26 ? 1 : Math.max(0, 1 - (t - 26) / 10);
      return air({ flammable: t === 0 ? 0 : 0.3 * share });
    },
  },
  "oxygen-falling": {
    words: "clean, then oxygen falls by a tenth of a per cent each second",
    at: (second) => air({ oxygen: Math.max(0.05, 0.209 - 0.001 * since(second)) }),
  },
  "sensor-failing": {
    words: "clean, then the sensor for what burns reads nothing and says so",
    at: (second) => (since(second) === 0 ? air() : air({ flammable: null, fault: "flammable sensor lost" })),
  },
  "battery-low": {
    words: "the battery runs down from 15 %",
    at: (second) => air({ battery: Math.max(0, 0.15 - 0.005 * since(second)) }),
  },
  silence: { words: "clean, then nothing more", at: (second) => (since(second) === 0 ? air() : null) },
  blower: { words: "a blower that runs all the while", at: () => blower(true) },
  "blower-stops": {
    words: "a blower that runs, then stands",
    at: (second) => blower(since(second) === 0),
  },
  "blower-trips": {
    words: "a blower that runs, stands for half a minute, and runs again by itself",
    at: (second) => blower(since(second) === 0 || since(second) > 30),
  },
  gauge: {
    words: "a test gauge: up to 20 bar, then over its limit",
    at: (second) =>
      air({
        oxygen: null,
        flammable: null,
        pressure_Pa: Math.min(20e5, 2e5 * second) + (since(second) > 10 ? 1e5 : 0),
        least_Pa: null,
        most_Pa: 20.5e5,
      }),
  },
};

export function message(scenario: Scenario, second: number, sequence: number): Sent | null {
  const sent = scenario.at(second);
  return sent === null ? null : { version: 1, sequence, ...sent };
}
