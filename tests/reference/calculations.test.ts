import { calculate } from "@/core/calc/calculator";
import { calculatorNamed } from "@/core/calc/calculators/calculators";
import { HOT_WORK_LIMITS, judgeAir, STRICT_ENTRY, tenthOfLimit, ENTRY_LIMITS } from "@/core/atmosphere/airLimits";
import { densityAgainstAir, gathers, lowerLimit, substance } from "@/core/atmosphere/substances";
import { testDepths_m, testPoints, TEST_ORDER } from "@/core/atmosphere/testPoints";
import { contactLimit_C } from "@/core/energy/coolDown";
import { criticalRatio, gasThroughHole_kg_s } from "@/core/flow/gasThroughHole";
import { calc, refused } from "../support/calc";

/** Each figure stands beside where it was published. "From memory" says that nobody had the page open. */
const FOOT3_m3 = 0.3048 ** 3;
const MMHG_Pa = 133.322387415;
const PSI_Pa = 6894.757293168;

describe("Crowl and Louvar, Chemical Process Safety, chapter on purging (from memory)", () => {
  test("sweeping 1000 ft³ of air down to 1.25 % oxygen takes 2830 ft³ of nitrogen that holds 0.01 %", () => {
    const swept = calc("purge-dilution", { volume_m3: 1000 * FOOT3_m3, flow_m3_s: 1, c0: 0.21, c: 0.0125, cs: 0.0001 });
    expect(swept.swept_m3! / FOOT3_m3 / 1000).toBeCloseTo(2.83, 2);
  });
  test("from 21 % to 1 ppm: 3.37, so 4 vacuum cycles at 20 mmHg; 6.58, so 7 pressure cycles to 80 psig", () => {
    const vacuum = calc("purge-cycles", { c0: 0.21, c: 1e-6, low_Pa: 20 * MMHG_Pa, high_Pa: 760 * MMHG_Pa });
    expect(vacuum.cycles_exact).toBeCloseTo(3.37, 2);
    expect(vacuum.cycles).toBe(4);
    const pressed = calc("purge-cycles", { c0: 0.21, c: 1e-6, low_Pa: 14.7 * PSI_Pa, high_Pa: 94.7 * PSI_Pa });
    expect(pressed.cycles_exact).toBeCloseTo(6.58, 2);
    expect(pressed.cycles).toBe(7);
  });
  test("with a source inside it never gets below Cₛ + K·G/Q, and that is said, not infinity", () => {
    const sweep = { volume_m3: 100, flow_m3_s: 0.5, c0: 0.2, c: 0.001, mixing: 5, generation_m3_s: 0.001 };
    expect(refused("purge-dilution", sweep)).toBe(
      "c is never reached: the space ends at 1 %, by its supply and what is made inside",
    );
  });
});

describe("ventilation and sampling (practice)", () => {
  test("each 90° bend leaves 70 %: 1000 cfm becomes 700, then 490", () => {
    expect(calc("blower-flow", { rated_m3_s: 1000, bends: 1 }).flow_m3_s).toBeCloseTo(700, 9);
    expect(calc("blower-flow", { rated_m3_s: 1000, bends: 2 }).flow_m3_s).toBeCloseTo(490, 9);
  });
  test("a manhole: 20 min, 10 more for each further chimney; the longer of rule and sum governs; a chart wins over the rule", () => {
    const small = { volume_m3: 5, rated_m3_s: 0.5, bends: 1 };
    expect(calc("manhole-purge", { ...small, chimneys: 1 })).toMatchObject({ rule_s: 1200, time_s: 1200 });
    expect(calc("manhole-purge", { ...small, chimneys: 3 })).toMatchObject({ rule_s: 2400, time_s: 2400 });
    const large = calc("manhole-purge", { chimneys: 1, volume_m3: 500, rated_m3_s: 0.5, bends: 1 });
    expect(large.computed_s).toBeGreaterThan(1200);
    expect(large.time_s).toBe(large.computed_s);
    expect(calc("manhole-purge", { ...small, chimneys: 1, chart_s: 3600 }).time_s).toBe(3600);
  });
  test("air changes: Q = n·V/t (arithmetic)", () => {
    expect(calc("air-changes", { volume_m3: 60, changes: 20, time_s: 3600 }).flow_m3_s).toBeCloseTo(1 / 3, 12);
  });
  test("sample wait: hose volume over pump flow and twice T90; a hand pump at least six squeezes more (arithmetic, practice)", () => {
    const hose = { hose_m: 10, bore_m: 0.004, pump_m3_s: 1e-5, t90_s: 30 };
    const volume_m3 = (Math.PI / 4) * 0.004 ** 2 * 10;
    expect(calc("sample-wait", hose).time_s).toBeCloseTo(volume_m3 / 1e-5 + 60, 9);
    expect(calc("sample-wait", { ...hose, bulb_m3: 3e-5 }).squeezes).toBe(Math.ceil(volume_m3 / 3e-5) + 6);
    expect(calc("sample-wait", { ...hose, hose_m: 1e-9, bulb_m3: 3e-5 }).squeezes).toBeGreaterThanOrEqual(6);
  });
  test("oxygen falls to 19.5 % when an inert leak outruns the fresh air (well-mixed balance, by hand)", () => {
    const sealed = calc("oxygen-displaced", { volume_m3: 100, leak_m3_s: 0.1, ventilation_m3_s: 0 });
    expect(sealed.time_s).toBeCloseTo(1000 * Math.log(0.209 / 0.195), 9);
    expect(calc("oxygen-displaced", { volume_m3: 100, leak_m3_s: 0.001, ventilation_m3_s: 1 }).time_s).toBeNull();
  });
});

describe("29 CFR 1910.146 (from memory)", () => {
  test("appendix B: one test every 4 ft of depth and travel; top, middle and bottom at least", () => {
    expect(testDepths_m(1)).toEqual([0, 0.5, 1]);
    const depths = testDepths_m(5);
    expect(depths).toHaveLength(6);
    depths.slice(1).forEach((depth, i) => expect(depth - depths[i]!).toBeLessThanOrEqual(1.2 + 1e-9));
    expect(testPoints({ depth_m: 2.4, travel_m: 2.4, width_m: 0, corners: 0, ducts: 0 })).toHaveLength(9);
  });
  test("corners are tested high and low, and every duct mouth (practice)", () => {
    const where = testPoints({ depth_m: 2, travel_m: 0, width_m: 0, corners: 1, ducts: 1 }).map((point) => point.where);
    expect(where).toEqual(expect.arrayContaining(["corner 1 high", "corner 1 low", "duct mouth 1"]));
  });
  test("(c)(5)(ii)(C): oxygen, then flammable, then toxic", () => {
    expect(TEST_ORDER).toEqual(["oxygen", "flammable", "toxic"]);
  });
  test("(b): 19.5 to 23.5 % oxygen, below 10 % of the lower limit; H₂S 10 and CO 35 ppm (NIOSH REL, from memory)", () => {
    const law = ENTRY_LIMITS["us-style"];
    const air = (oxygen: number, flammable: number, h2s: number, co: number) =>
      judgeAir(
        {
          oxygen,
          flammable,
          toxics: [
            { gas: "hydrogen sulphide", fraction: h2s },
            { gas: "carbon monoxide", fraction: co },
          ],
        },
        law,
      ).fit;
    expect(air(0.195, 0.099, 10e-6, 0)).toBe(true);
    expect(air(0.195, 0.099, 0, 35e-6)).toBe(true);
    // Poisons add up, like with like: a tenth of the ceiling is left for the other, 20 of 200 ppm (practice).
    expect(air(0.195, 0, 9e-6, 19e-6)).toBe(true);
    expect(air(0.195, 0, 9e-6, 21e-6)).toBe(false);
    expect(air(0.1949, 0, 0, 0)).toBe(false);
    expect(air(0.2351, 0, 0, 0)).toBe(false);
    expect(air(0.209, 0.1, 0, 0)).toBe(false);
    expect(air(0.209, 0, 10.1e-6, 0)).toBe(false);
    expect(air(0.209, 0, 0, 35.1e-6)).toBe(false);
  });
  test("EH40 is stricter: H₂S 5 and CO 20 ppm long term (from memory); the strict profile takes the lower", () => {
    const limit = (gas: string) => STRICT_ENTRY.toxics.find((one) => one.gas === gas)?.most;
    expect(limit("hydrogen sulphide")).toBe(5e-6);
    expect(limit("carbon monoxide")).toBe(20e-6);
  });
  test("10 % of a flammable limit may be deadly: hexane 1,100 ppm, ammonia 15,000 ppm (NIOSH Pocket Guide, from memory)", () => {
    expect(tenthOfLimit("hexane")).toEqual({ fraction: expect.closeTo(1100e-6, 9) as number, aboveToxic: true });
    expect(tenthOfLimit("ammonia")).toEqual({ fraction: expect.closeTo(15_000e-6, 9) as number, aboveToxic: true });
  });
  test("19.5 % oxygen means some 6.7 % of something else, and below 20.8 % that is explained (practice)", () => {
    const judged = judgeAir({ oxygen: 0.195, flammable: 0, toxics: [] }, STRICT_ENTRY);
    expect(judged.fit).toBe(true);
    expect(judged.explain[0]).toContain("6.7 %");
    expect(judgeAir({ oxygen: 0.208, flammable: 0, toxics: [] }, STRICT_ENTRY).explain).toEqual([]);
  });
  test("a missing reading is never fit", () => {
    expect(judgeAir({ oxygen: null, flammable: 0, toxics: [] }, STRICT_ENTRY).fit).toBe(false);
    expect(judgeAir({ oxygen: 0.209, flammable: null, toxics: [] }, STRICT_ENTRY).fit).toBe(false);
    expect(
      judgeAir({ oxygen: 0.209, flammable: 0, toxics: [{ gas: "unheard of", fraction: 1e-9 }] }, STRICT_ENTRY).fit,
    ).toBe(false);
  });
});

describe("gases and their limits", () => {
  test("hot work: nothing flammable, at most 22 % oxygen (site rule)", () => {
    expect(judgeAir({ oxygen: 0.209, flammable: 0.001, toxics: [] }, HOT_WORK_LIMITS).fit).toBe(false);
    expect(judgeAir({ oxygen: 0.221, flammable: 0, toxics: [] }, HOT_WORK_LIMITS).fit).toBe(false);
    expect(judgeAir({ oxygen: 0.209, flammable: 0, toxics: [] }, HOT_WORK_LIMITS).fit).toBe(true);
  });
  test("what the sensor can see (practice)", () => {
    expect(
      calc("sensor-choice", { sensor: "catalytic", gas: "methane", oxygen: 0.08, silicones: "no" }).also,
    ).toMatchObject({ fit: false });
    expect(
      calc("sensor-choice", { sensor: "infrared", gas: "hydrogen", oxygen: 0.2, silicones: "no" }).also,
    ).toMatchObject({ fit: false });
    expect(
      calc("sensor-choice", { sensor: "catalytic", gas: "methane", oxygen: 0.2, silicones: "yes" }).also,
    ).toMatchObject({ fit: false });
    expect(
      calc("sensor-choice", { sensor: "catalytic", gas: "hydrogen", oxygen: 0.2, silicones: "no" }).also,
    ).toMatchObject({ fit: true });
  });
  test("Le Chatelier: 0.8 % hexane, 2.0 % methane, 0.5 % ethylene are flammable at 2.74 % (Crowl and Louvar, from memory; the book rounds to 2.75)", () => {
    const mixture = calc("mixture-lfl", {
      parts: [
        { vol: 0.008, lfl: 0.012 },
        { vol: 0.02, lfl: 0.053 },
        { vol: 0.005, lfl: 0.031 },
      ],
    });
    expect(mixture.lfl).toBeCloseTo(0.0274, 4);
    expect(mixture.total).toBeCloseTo(0.033, 12);
    expect(mixture.also).toEqual({ flammable: true });
  });
  test.each([
    ["methane", 5.0, 4.4],
    ["propane", 2.1, 1.7],
    ["hydrogen", 4.0, 4.0],
    ["acetylene", 2.5, 2.3],
    ["carbon monoxide", 12.5, 10.9],
    ["hydrogen sulphide", 4.0, 4.0],
    ["ammonia", 15, 15],
    ["hexane", 1.1, 1.0],
    ["petrol vapour", 1.4, 1.4],
  ])(
    "%s burns from %d %% (NIOSH Pocket Guide), %d %% by the lower set (IEC 60079-20-1); from memory",
    (gas, us, lower) => {
      expect(lowerLimit(substance(gas)!, "us")! * 100).toBeCloseTo(us, 9);
      expect(lowerLimit(substance(gas)!)! * 100).toBeCloseTo(lower, 9);
    },
  );
  test.each([
    ["methane", 0.55, "rises"],
    ["propane", 1.52, "sinks"],
    ["hydrogen sulphide", 1.18, "sinks"],
    ["carbon monoxide", 0.97, "mixes"],
    ["ammonia", 0.59, "rises"],
    ["hexane", 2.98, "sinks"],
  ])("%s weighs %d of air and %s (arithmetic, M/28.96)", (gas, relative, does) => {
    const found = densityAgainstAir(substance(gas)!.molar_kg);
    expect(found).toBeCloseTo(relative, 2);
    expect(gathers(found)).toBe(does);
  });
});

describe("pressure, liquids, release", () => {
  test("gas is choked at 0.528 for air, and then 0.0404·C·A·P/√T flows (textbook)", () => {
    expect(criticalRatio(1.4)).toBeCloseTo(0.528, 3);
    const flow = gasThroughHole_kg_s({
      upstream_Pa: 1e6,
      downstream_Pa: 1e5,
      temperature_K: 300,
      area_m2: 1e-4,
      cd: 1,
      gamma: 1.4,
      molar_kg: 0.02896,
    });
    expect((flow * Math.sqrt(300)) / (1e-4 * 1e6)).toBeCloseTo(0.0404, 4);
  });
  test("a flashing liquid is refused", () => {
    const vessel = {
      volume_m3: 1,
      start_Pa: 5e5,
      end_Pa: 2e5,
      temperature_K: 293,
      orifice_m: 0.01,
      cd: 0.8,
      gamma: 1.1,
      molar_kg: 0.044,
    };
    expect(refused("blowdown", { ...vessel, phase: "liquid that flashes" })).toMatch(/^phase keeps boiling/);
    expect(refused("blowdown", { ...vessel, line_m: 0.008 })).toMatch(/^orifice_m is larger than its line/);
  });
  test("tank drain: 8 ft vessel, 12 ft above a 1 in hole, 1 atm gauge pad, SG 0.8794, C 0.61: 3386 s in the book (Crowl and Louvar, from memory)", () => {
    const drained = calc("tank-drain", {
      shape: "vertical",
      diameter_m: 8 * 0.3048,
      level_m: 12 * 0.3048,
      outlet_m: 0.0254,
      cd: 0.61,
      pad_Pa: 101_325,
      density_kg_m3: 879.4,
    });
    expect(Math.abs(drained.time_s! - 3386) / 3386).toBeLessThan(0.005);
  });
  test("a full horizontal cylinder drains in (4/3)·L·D^1.5/(C_d·A_o·√(2g)) (closed form)", () => {
    const [length_m, diameter_m, outlet_m, cd] = [4, 2, 0.05, 0.6];
    const closed =
      ((4 / 3) * length_m * diameter_m ** 1.5) / (cd * (Math.PI / 4) * outlet_m ** 2 * Math.sqrt(2 * 9.80665));
    const drained = calc("tank-drain", { shape: "horizontal", diameter_m, length_m, level_m: 2, outlet_m, cd });
    expect(drained.time_s! / closed).toBeCloseTo(1, 6);
  });
  test("10 m of water press 98.07 kPa (arithmetic)", () => {
    expect(calc("static-head", { density_kg_m3: 1000, height_m: 10 }).pressure_Pa! / 1000).toBeCloseTo(98.07, 2);
  });
  test("a passing valve: a measured rise is steady at worst (arithmetic); liquid by Torricelli, by hand", () => {
    expect(
      calc("measured-rise", { rise_Pa: 1e4, over_s: 600, start_Pa: 0, harmful_Pa: 5e4, zone: "gas" }).time_s,
    ).toBeCloseTo(3000, 9);
    const gap = (Math.PI / 4) * 0.1 ** 2 * 0.005;
    const filled = calc("passing-liquid", { harmful_m3: 1, bore_m: 0.1, leak: "class II", difference_Pa: 2e5 });
    expect(filled.time_s).toBeCloseTo(1 / (gap * 20), 6);
  });
  test("10 m³ of air at 20 bar abs hold 28.69 MJ, 6.72 kg TNT, 47.6 m (ASME PCC-2 pressure-test article, from memory)", () => {
    const test = calc("gas-energy", { pressure_Pa: 20e5, volume_m3: 10, gamma: 1.4, ambient_Pa: 101_000 });
    expect(test.energy_J! / 1e6).toBeCloseTo(28.69, 2);
    expect(test.tnt_kg).toBeCloseTo(6.72, 2);
    expect(test.distance_m).toBeCloseTo(47.6, 1);
  });
  test("30 m up to 135.5 MJ and 60 m up to 271 MJ at least; above, split the test (same, from memory)", () => {
    const at = (volume_m3: number) =>
      calculate(calculatorNamed("gas-energy")!, { pressure_Pa: 20e5, volume_m3, gamma: 1.4 });
    const distance = (volume_m3: number) =>
      calc("gas-energy", { pressure_Pa: 20e5, volume_m3, gamma: 1.4 }).distance_m!;
    expect(distance(0.01)).toBe(30);
    expect(distance(48)).toBeGreaterThan(60);
    const large = at(100);
    expect(large.ok && large.calculation.warnings.join()).toContain("split");
  });
  test("gas holds some 3,460 times what water does at 20 bar, and 430 times at 200 (β 4.6·10⁻¹⁰ 1/Pa, from memory)", () => {
    expect(calc("gas-energy", { pressure_Pa: 20e5, volume_m3: 10, gamma: 1.4 }).ratio! / 3460).toBeCloseTo(1, 2);
    expect(calc("gas-energy", { pressure_Pa: 200e5, volume_m3: 10, gamma: 1.4 }).ratio! / 430).toBeCloseTo(1, 1);
  });
  test("a 219.1 mm gasket at 1.0 MPa and 138 MPa asks 8.08 mm (ASME B31.3, 304.5.3, from memory)", () => {
    const blank = calc("blank-thickness", { gasket_m: 0.2191, pressure_Pa: 1e6, stress_Pa: 138e6 });
    expect(blank.thickness_m! * 1000).toBeCloseTo(8.08, 2);
  });
  test("liquid shut in a steel pipe rises about 3 bar/K as water and 10 as oil (textbook, by hand)", () => {
    const pipe = { diameter_m: 0.1, wall_m: 0.006, warms_K: 1 };
    const bar_K = (alpha_1_K: number, beta_1_Pa: number) =>
      calc("blocked-in", { ...pipe, alpha_1_K, beta_1_Pa }).rise_Pa_K! / 1e5;
    expect(bar_K(2.1e-4, 4.6e-10)).toBeGreaterThan(2.5);
    expect(bar_K(2.1e-4, 4.6e-10)).toBeLessThan(3.6);
    expect(bar_K(7e-4, 6e-10)).toBeGreaterThan(8);
    expect(bar_K(7e-4, 6e-10)).toBeLessThan(11);
  });
  test("pressure equipment: portable every 6 months, fixed yearly, rusting vessels 3 years (practice)", () => {
    const left = (kind: string, months: number) => calc("equipment-dates", { kind, months });
    expect(left("portable or temporary", 6).also).toEqual({ inDate: true });
    expect(left("portable or temporary", 6.5).also).toEqual({ inDate: false });
    expect(left("portable or temporary", 6.5).left_months).toBe(-0.5);
    expect(left("fixed", 0).interval_months).toBe(12);
    expect(left("vessel showing rust", 0).interval_months).toBe(36);
  });
  test("a leaking cylinder: 100 ft (30 m) from people and ignition, 100 m for flammable gas (practice)", () => {
    expect(calc("leaking-cylinder", { gas: "not flammable" }).distance_m).toBeCloseTo(30.48, 9);
    expect(calc("leaking-cylinder", { gas: "flammable" }).distance_m).toBe(100);
  });
  test("a pressure test says water, steps, relief and whip checks (practice)", () => {
    const done = calculate(calculatorNamed("gas-energy")!, { pressure_Pa: 20e5, volume_m3: 1, gamma: 1.4 });
    expect(done.ok && done.calculation.warnings[0]).toMatch(/Water unless an engineer.*step.*relief.*whip/);
  });
});

describe("stored energy", () => {
  test("120 kg·m² at 980 rpm hold 632 kJ; m·g·h; ½·k·x² (arithmetic)", () => {
    expect(calc("flywheel", { inertia_kg_m2: 120, speed_rpm: 980 }).energy_J! / 1000).toBeCloseTo(632, 0);
    expect(calc("raised-mass", { mass_kg: 100, height_m: 2 }).energy_J).toBeCloseTo(1961.33, 2);
    expect(calc("spring", { stiffness_N_m: 1000, travel_m: 0.2 })).toMatchObject({
      energy_J: expect.closeTo(20, 9) as number,
      force_N: 200,
    });
  });
  test("run-down is I·ω/T, or what was measured (arithmetic)", () => {
    const turning = { inertia_kg_m2: 120, speed_rpm: 980 };
    expect(calc("run-down", { ...turning, drag_Nm: 40 }).time_s).toBeCloseTo((120 * 980 * 2 * Math.PI) / 60 / 40, 9);
    expect(calc("run-down", { ...turning, drag_Nm: 40, measured_s: 500 }).time_s).toBe(500);
    expect(calc("run-down", { ...turning, drag_Nm: 40, measured_s: 60 }).time_s).toBeCloseTo(307.9, 1);
    expect(refused("run-down", { ...turning, measured_s: 0 })).toMatch(/^measured_s /);
    expect(refused("run-down", turning)).toMatch(/^drag_Nm is missing/);
  });
  test("50 L of nitrogen at 200 bar abs: 1.95 MJ adiabatic, 5.29 isothermal gross, 4.29 net (arithmetic)", () => {
    const held = calc("accumulator", { volume_m3: 0.05, pressure_Pa: 200e5 });
    expect(held.adiabatic_J! / 1e6).toBeCloseTo(1.95, 2);
    expect(held.isothermal_J! / 1e6).toBeCloseTo(5.29, 2);
    expect(held.isothermal_net_J! / 1e6).toBeCloseTo(4.29, 2);
  });
  test("2.2 mF from 565.7 V through 22 kΩ reaches 50 V in 117.4 s (arithmetic); the rule's 5 min is longer and governs (practice)", () => {
    const bank = { capacitance_F: 2.2e-3, voltage_V: 565.7, resistance_ohm: 22_000 };
    expect(calc("capacitor", bank)).toMatchObject({
      time_s: expect.closeTo(117.4, 1) as number,
      rule_s: 300,
      wait_s: 300,
    });
    expect(calc("capacitor", { ...bank, place: "drive or UPS" }).wait_s).toBe(900);
    expect(calc("capacitor", { ...bank, nameplate_s: 60 }).wait_s).toBe(300);
    expect(calc("capacitor", { ...bank, nameplate_s: 1200 }).wait_s).toBe(1200);
    expect(refused("capacitor", { ...bank, nameplate_s: 0 })).toMatch(/^nameplate_s /);
    expect(refused("capacitor", { ...bank, target_V: 51 })).toMatch(/^target_V /);
    expect(calc("capacitor", { ...bank, resistance_ohm: undefined })).toMatchObject({ time_s: null, wait_s: 300 });
  });
  test("what NEC 460.6 and 460.28 ask the maker, 1 and 5 min to 50 V, is said to be no proof (from memory)", () => {
    const done = calculate(calculatorNamed("capacitor")!, { capacitance_F: 1e-3, voltage_V: 400 });
    expect(done.ok && done.calculation.source).toMatch(/NEC 460\.6 and 460\.28.*from memory: no proof/);
  });
  test("150 to 50 °C at 25 °C with τ 2 h takes 3.22 h (Newton's law of cooling, arithmetic)", () => {
    expect(calc("cool-down", { start_C: 150, ambient_C: 25, target_C: 50, tau_s: 7200 }).time_s! / 3600).toBeCloseTo(
      3.22,
      2,
    );
    const read = { start_C: 150, ambient_C: 25, target_C: 50, second_C: 100, apart_s: 3600 };
    expect(calc("cool-down", read).tau_s).toBeCloseTo(3600 / Math.log(125 / 75), 6);
  });
  test("bare metal: 51 °C for a minute, 48 for ten, 43 for eight hours (EN ISO 13732-1, from memory)", () => {
    expect([60, 600, 8 * 3600].map(contactLimit_C)).toEqual([51, 48, 43]);
  });
  test("two people or an aid above 50 lb, 23 kg (practice)", () => {
    expect(calc("lift-load", { mass_kg: 22 }).people).toBe(1);
    expect(calc("lift-load", { mass_kg: 30 }).people).toBe(2);
    expect(calc("lift-load", { mass_kg: 60 }).people).toBeNull();
  });
});
