import { answerOf, calculate } from "../calculator";
import { calculatorNamed } from "./calculators";

function asked(name: string, inputs: Record<string, unknown>): string | Record<string, unknown> {
  const done = calculate(calculatorNamed(name)!, inputs);
  return done.ok ? answerOf(done) : `${done.key} ${done.message}`;
}

describe("no sum answers a question other than the one that was asked", () => {
  const body = { ambient_C: 25, tau_s: 3600 };

  test("a body colder than its surroundings is never told to cool", () => {
    expect(asked("cool-down", { ...body, start_C: -30, target_C: 20 })).toMatch(/^target_C cannot be kept: it warms/);
    expect(asked("cool-down", { ...body, start_C: 10, target_C: 20 })).toMatch(/past it after/);
    expect(asked("cool-down", { ...body, start_C: -30, target_C: 50 })).toMatch(/^start_C is below freezing.*after/);
    expect(asked("cool-down", { ...body, ambient_C: -5, start_C: -30, target_C: 50 })).toMatch(/stays as cold/);
    expect(asked("cool-down", { ...body, start_C: 40, target_C: 50 })).toMatchObject({ time_s: 0 });
    expect(asked("cool-down", { ambient_C: -40, tau_s: 60, start_C: 20, target_C: -10 })).toMatchObject({
      warnings: [expect.stringContaining("freezes skin")],
    });
  });

  test("readings that contradict the body's own time are refused with both; half a reading is asked for", () => {
    const hot = { ambient_C: 20, start_C: 120, target_C: 45 };
    // 120 to 70 °C is half the way to 20: τ = 3600 s / ln 2 = 5194 s.
    expect(asked("cool-down", { ...hot, second_C: 70, apart_s: 3600 })).toMatchObject({
      tau_s: expect.closeTo(5193.7, 1) as number,
    });
    expect(asked("cool-down", { ...hot, second_C: 70, apart_s: 3600, tau_s: 1800 })).toMatch(
      /^tau_s contradicts the readings: it says 30 min, they say/,
    );
    expect(asked("cool-down", { ...hot, second_C: 70, apart_s: 3600, tau_s: 5000 })).toMatchObject({
      tau_s: expect.closeTo(5193.7, 1) as number,
    });
    expect(asked("cool-down", { ...hot, second_C: 70, tau_s: 5000 })).toMatch(/^apart_s is missing/);
    expect(asked("cool-down", { ...hot, apart_s: 60, tau_s: 5000 })).toMatch(/^second_C is missing/);
  });

  test("a sweep says rises, is there already, impossible", () => {
    const space = { volume_m3: 30, flow_m3_s: 0.25 };
    expect(asked("purge-dilution", { ...space, c0: 0, c: 0.01, generation_m3_s: 0.005 })).toMatch(
      /^c is never held.*rises past/,
    );
    expect(asked("purge-dilution", { ...space, c0: 0.01, c: 0.01, generation_m3_s: 0.005 })).toMatch(/rises past/);
    expect(asked("purge-dilution", { ...space, c0: 0.01, c: 0.02 })).toMatchObject({
      time_s: 0,
      because: expect.stringContaining("already") as string,
      warnings: expect.arrayContaining([expect.stringContaining("at least")]) as string[],
    });
    expect(asked("purge-dilution", { ...space, c0: 0.5, c: 0.1, generation_m3_s: 0.3 })).toMatch(
      /^generation_m3_s is impossible/,
    );
    // Fresh air into a space short of oxygen rises to what the air carries, and never above it.
    expect(asked("purge-dilution", { ...space, c0: 0.05, c: 0.195, cs: 0.209 })).toMatchObject({
      time_s: expect.closeTo((30 / 0.25) * Math.log((0.209 - 0.05) / (0.209 - 0.195)), 6) as number,
    });
    expect(asked("purge-dilution", { ...space, c0: 0.05, c: 0.195, cs: 0.1 })).toMatch(/rises to 10 %/);
  });

  test("a manhole is swept down to its gas's own limit; without a gas the time calls nothing fit", () => {
    const manhole = { chimneys: 1, volume_m3: 30, rated_m3_s: 0.4719, bends: 1 };
    expect(asked("manhole-purge", manhole)).toMatchObject({
      c: 0.01,
      warnings: [expect.stringContaining("calls nothing fit")],
    });
    // A tenth of 4.4 % (IEC 60079-20-1, from memory), of a hydrocarbon that does not poison.
    expect(asked("manhole-purge", { ...manhole, gas: "methane" })).toMatchObject({
      c: expect.closeTo(0.0044, 9) as number,
      warnings: [],
    });
    // 10 ppm (NIOSH, from memory) long before a tenth of 4 %; a looser end that is typed does not win.
    expect(asked("manhole-purge", { ...manhole, gas: "hydrogen sulphide", c: 0.01 })).toMatchObject({
      c: expect.closeTo(10e-6, 12) as number,
    });
    expect(asked("manhole-purge", { ...manhole, chart_s: 0 })).toMatch(/^chart_s /);
  });

  test("a mixture below its limit is not called fit above a tenth of it", () => {
    expect(asked("mixture-lfl", { parts: [{ vol: 0.0475, lfl: 0.05 }] })).toMatchObject({
      flammable: false,
      warnings: [expect.stringMatching(/^At 95 % of the limit nobody enters/)],
    });
    expect(asked("mixture-lfl", { parts: [{ vol: 0.004, lfl: 0.05 }] })).toMatchObject({ warnings: [] });
  });

  test("what nobody may lift names lifting gear", () => {
    expect(asked("lift-load", { mass_kg: 1e6 })).toMatchObject({
      people: null,
      warnings: [expect.stringContaining("lifting gear")],
    });
  });

  test("overdue equipment shows months below zero", () => {
    expect(asked("equipment-dates", { kind: "fixed", months: 14 })).toMatchObject({
      left_months: -2,
      because: expect.stringContaining("overdue") as string,
    });
  });

  test("water shut in is read at its temperature: 3.1, 9.0 and 10.9 bar/K at 20, 60 and 80 °C, more in a rigid pipe (by hand)", () => {
    // 114.3 × 6.02 mm: (α − 36·10⁻⁶)/(β + D/(t·E)), α and β handbook values from memory.
    const pipe = { liquid: "water", diameter_m: 0.1143, wall_m: 0.00602, warms_K: 10 };
    const rise = (temperature_C: number, rest: object = {}) =>
      asked("blocked-in", { ...pipe, temperature_C, ...rest }) as Record<string, number>;
    for (const [temperature_C, alpha, beta] of [
      [20, 2.07e-4, 4.59e-10],
      [60, 5.23e-4, 4.45e-10],
      [80, 6.41e-4, 4.61e-10],
    ] as const) {
      const gives = 0.1143 / (0.00602 * 200e9);
      expect(rise(temperature_C).rise_Pa_K).toBeCloseTo((alpha - 3.6e-5) / (beta + gives), 3);
      expect(rise(temperature_C, { wall_m: undefined }).rise_Pa_K).toBeCloseTo((alpha - 3.6e-5) / beta, 3);
    }
    expect(rise(20).rise_Pa_K! / 1e5).toBeCloseTo(3.09, 2);
    expect(rise(60).rise_Pa_K! / 1e5).toBeCloseTo(9.02, 2);
    expect(rise(80).rise_Pa_K! / 1e5).toBeCloseTo(10.88, 2);
    // The rise grows as it warms: the sum lies between the rise at both ends.
    const warmed = rise(20, { warms_K: 40 }).pressure_Pa!;
    expect(warmed).toBeGreaterThan(40 * rise(20).rise_Pa_K!);
    expect(warmed).toBeLessThan(40 * rise(60).rise_Pa_K!);
    expect(rise(20).rigid_Pa!).toBeGreaterThan(rise(20).pressure_Pa!);
  });

  test("a pipe that yields before the warming ends says so; water that would boil has no figure", () => {
    const water = { liquid: "water", temperature_C: 20, diameter_m: 0.1143, wall_m: 0.00602 };
    // 2 · 6.02 mm · 240 MPa / 114.3 mm = 252.8 bar.
    const hot = asked("blocked-in", { ...water, warms_K: 60 }) as Record<string, unknown>;
    expect(hot.yield_Pa).toBeCloseTo(252.8e5, -4);
    expect(hot.warnings).toEqual(expect.arrayContaining([expect.stringContaining("yields before")]));
    expect((asked("blocked-in", { ...water, warms_K: 10 }) as Record<string, unknown>).warnings).toHaveLength(1);
    expect(asked("blocked-in", { ...water, warms_K: 90 })).toMatch(/^warms_K leads outside 10 °C to 100 °C/);
    expect(asked("blocked-in", { liquid: "water", diameter_m: 0.1, warms_K: 1 })).toMatch(/^temperature_C is missing/);
    expect(asked("blocked-in", { diameter_m: 0.1, warms_K: 1 })).toMatch(/^alpha_1_K is missing/);
  });

  test("liquid under a cushion of gas rises ever faster: the shorter of what may be is said", () => {
    // A litre a minute into 1 m³ of gas, watched for 10 min: it rises by 10.2 mbar; 5 bar are there after 13.7 h, not 81.
    const rise_Pa = 101_325 / 0.99 - 101_325;
    const watched = { rise_Pa, over_s: 600, start_Pa: rise_Pa, harmful_Pa: 5e5 };
    const hours = (zone?: string) => {
      const said = asked("measured-rise", { ...watched, ...(zone ? { zone } : {}) });
      return ((said as Record<string, unknown>).time_s as number) / 3600;
    };
    expect(hours("liquid under a cushion of gas")).toBeCloseTo(13.7, 1);
    expect(hours("gas")).toBeCloseTo(81, 0);
    expect(hours()).toBeCloseTo(13.7, 1);
    expect(asked("measured-rise", { ...watched, rise_Pa: 3e5, start_Pa: 1e5 })).toMatch(/^rise_Pa is more than/);
  });

  test("a tank's drain asks for its inlet, its outlet's height and its hose", () => {
    const tank = { shape: "vertical", diameter_m: 1, level_m: 2, end_m: 0.5, outlet_m: 0.025, cd: 0.61, pad_Pa: 2e5 };
    const above = { gas_m3: Math.PI / 4 };
    const time = (inputs: Record<string, unknown>) => (asked("tank-drain", inputs) as Record<string, unknown>).time_s;
    expect(time(tank)).toBeCloseTo(191, 0);
    expect(time({ ...tank, ...above, inlet: "shut" })).toBeCloseTo(326, 0);
    expect(asked("tank-drain", { ...tank, ...above, inlet: "shut", pad_Pa: 1e5 })).toMatch(
      /^end_m is never reached.*0\.838 m/,
    );
    expect(asked("tank-drain", { ...tank, inlet: "shut" })).toMatch(/^gas_m3 is missing/);
    // The same tank and hose by the sum of lines, whose entrance is then the outlet's own resistance.
    const line = { diameter_m: 1, level_m: 2, end_m: 0.5, push_Pa: 2e5, bore_m: 0.025, length_m: 20 };
    const byLine = asked("line-drain", { ...line, fittings: 1 / 0.61 ** 2 - 1 }) as Record<string, unknown>;
    expect(time({ ...tank, hose_m: 20 })).toBeCloseTo(byLine.time_s as number, 3);
    // A heel of 0.3 m under the outlet of a tank of 1 m stays; so does the time, for the head is what is over the outlet.
    const heel = asked("tank-drain", { ...tank, outlet_above_m: 0.3 }) as Record<string, unknown>;
    expect(heel.heel_m3).toBeCloseTo(0.3 * (Math.PI / 4), 9);
    expect(heel.time_s).toBeCloseTo(time(tank) as number, 6);
    expect(asked("tank-drain", { ...tank, length_m: 2.2, outlet_above_m: 0.3 })).toMatch(/^level_m is above the top/);
  });

  test("a blowdown says how cold it ends, what stands there when it is warm again, and counts its line", () => {
    const air = { volume_m3: 4, start_Pa: 11e5, end_Pa: 1.02e5, temperature_K: 293.15, orifice_m: 0.015, cd: 0.8 };
    const gas = { gamma: 1.4, molar_kg: 0.02896 };
    const said = asked("blowdown", { ...air, ...gas }) as Record<string, unknown>;
    expect((said.end_K as number) - 273.15).toBeCloseTo(-124.6, 1);
    expect((said.rewarmed_Pa as number) / 1e5).toBeCloseTo(2.01, 2);
    expect(said.warnings).toEqual(expect.arrayContaining([expect.stringContaining("brittle")]));
    const far = asked("blowdown", { ...air, ...gas, line_m: 0.015, line_length_m: 200 }) as Record<string, unknown>;
    expect(far.time_s as number).toBeGreaterThan((said.time_s as number) * 2);
    expect(far.because).toMatch(/line decides/);
  });

  test("a seat that nobody tested has no class: its leak is measured", () => {
    const valve = { volume_m3: 0.5, bore_m: 0.08, upstream_Pa: 8e5, start_Pa: 1.01325e5, harmful_Pa: 1.5e5 };
    const gas = { temperature_K: 293.15, gamma: 1.4, molar_kg: 0.02896 };
    expect(asked("passing-valve", { ...valve, ...gas })).toMatch(/^measured_m3_s is missing: a seat that is unknown/);
    // Choked all the way: 1 L/min of outside air fills half a cubic metre by half a bar in 0.2435 m³ of it.
    const said = asked("passing-valve", { ...valve, ...gas, measured_m3_s: 1e-3 / 60 }) as Record<string, unknown>;
    const needed_m3 = (0.5 * (1.5e5 - 1.01325e5)) / 101_325;
    expect(said.time_s as number).toBeCloseTo(needed_m3 / (1e-3 / 60), 0);
    const liquid = { harmful_m3: 0.2, bore_m: 0.08, difference_Pa: 2e5 };
    expect(asked("passing-liquid", liquid)).toMatch(/^measured_m3_s is missing/);
    expect(asked("passing-liquid", { ...liquid, measured_m3_s: 1e-4 })).toMatchObject({ time_s: 2000 });
  });

  test("a wide space is tested across as well, and says how many instruments that takes", () => {
    const space = { depth_m: 5, travel_m: 2.4, corners: 0, ducts: 0 };
    const one = asked("test-points", { ...space, width_m: 0 }) as Record<string, unknown>;
    const wide = asked("test-points", { ...space, width_m: 6 }) as Record<string, unknown>;
    // 6 depths, 3 along; 6 m across take 6.
    expect([one.points, wide.points]).toEqual([18, 108]);
    expect([one.instruments, wide.instruments]).toEqual([1, 4]);
    expect(asked("test-points", space)).toBe("width_m is missing");
  });
});
