import { seededRandom } from "../support/seededRandom";
import type { PhysicsCase } from "./physicsCases";

const SEED = 20_261_129;
/** Cases of each sum, edges among them. */
const EACH = 8;

const GASES = [
  "methane",
  "propane",
  "hydrogen",
  "acetylene",
  "carbon monoxide",
  "hydrogen sulphide",
  "ammonia",
  "hexane",
];

/** Inputs for the short sums and the tables, the same at every run; each is answered by other means in answerPlain.py. */
export function plainCases(): PhysicsCase[] {
  const random = seededRandom(SEED);
  const cases: PhysicsCase[] = [];
  const between = (low: number, high: number) => low + (high - low) * random.next();
  const decades = (low: number, high: number) => Math.exp(between(Math.log(low), Math.log(high)));
  const whole = (low: number, high: number) => low + random.below(high - low + 1);
  const many = (name: string, input: (i: number) => Record<string, unknown>, count = EACH) => {
    for (let i = 0; i < count; i++) cases.push({ id: `${name} ${cases.length}`, name, input: input(i) });
  };

  many("pump-out", (i) => {
    const volume_m3 = decades(0.1, 1000);
    const lift_m = i % 2 === 0 ? between(-5, 0) : between(0, 4);
    return {
      volume_m3,
      flow_m3_s: decades(1e-4, 1),
      share: i === 0 ? 1 : between(0.2, 1),
      heel_m3: i % 3 === 0 ? 0 : volume_m3 * between(0.01, 0.9),
      lift_m,
      density_kg_m3: between(600, 1800),
      vapour_Pa: decades(1e2, 2e4),
      above_Pa: between(9e4, 1.1e5),
    };
  });
  many("sample-wait", (i) => ({
    hose_m: decades(1, 60),
    bore_m: between(0.002, 0.006),
    pump_m3_s: decades(5e-6, 2e-5),
    t90_s: between(5, 60),
    points: i === 0 ? 1 : Math.round(decades(2, 200)),
    each_s: i === 1 ? 0 : between(10, 90),
    round_s: between(900, 1800),
    ...(i % 2 === 0 ? {} : { instruments: 1 + Math.floor(between(0, 12)) }),
  }));
  many("manhole-purge", (i) => {
    const cs = i % 2 === 0 ? 0 : between(0, 0.001);
    return {
      chimneys: i === 0 ? 1 : whole(1, 6),
      volume_m3: decades(2, 300),
      rated_m3_s: decades(0.05, 1),
      bends: whole(0, 3),
      c0: between(0.2, 1),
      c: cs + between(0.002, 0.05),
      cs,
      mixing: between(1, 10),
    };
  });
  many("blower-flow", (i) => ({ rated_m3_s: decades(0.01, 10), bends: i }));
  many("air-changes", () => ({ volume_m3: decades(1, 1e4), changes: between(0.5, 15), time_s: decades(60, 7200) }));
  many("purge-cycles", (i) => {
    const cs = i % 2 === 0 ? 0 : between(0, 1e-3);
    const low_Pa = decades(5e3, 1.2e5);
    return { c0: between(0.1, 1), c: cs + decades(1e-6, 0.05), cs, low_Pa, high_Pa: low_Pa * decades(1.3, 20) };
  });
  for (const limits of ["strict", "us-style", "uk-style", "hot work"]) {
    many(
      "air-test",
      (i) => ({
        oxygen: [0.209, 0.195, 0.1949, 0.235, 0.2351, 0.221, 0.22, 0.209][i],
        flammable: [0, 0, 0.05, 0, 0, 0.0999, 0, 0.1][i],
        h2s: [0, 4.9e-6, 0, 5.1e-6, 0, 0, 9.9e-6, 0][i],
        co: [0, 0, 19e-6, 0, 34e-6, 0, 0, 36e-6][i],
        limits,
      }),
      8,
    );
  }
  many("test-points", (i) => ({
    depth_m: i === 0 ? 2.4 : between(0.5, 12),
    travel_m: i === 1 ? 0 : between(0, 12),
    width_m: i === 2 ? 1.2 : between(0.4, 8),
    corners: whole(0, 8),
    ducts: whole(0, 4),
    each_s: whole(20, 150),
    retest_s: whole(600, 3600),
  }));
  many("gas-weight", (i) => ({ gas: GASES[i], set: ["lower", "us", "european"][i % 3] }));
  many("mixture-lfl", (i) => ({
    parts: Array.from({ length: i === 0 ? 1 : whole(2, 6) }, () => ({
      vol: decades(1e-4, 0.05),
      lfl: decades(0.008, 0.16),
    })),
  }));
  for (const sensor of ["catalytic", "infrared"]) {
    many("sensor-choice", (i) => ({
      sensor,
      gas: GASES[i],
      oxygen: [0.209, 0.0999, 0.1, 0.05][i % 4],
      silicones: i % 3 === 2 ? "yes" : "no",
    }));
  }
  many("true-reading", (i) => ({
    reading: i === 0 ? 0 : between(0.001, 0.6),
    gas: GASES[i],
    calibrated: ["methane", "propane", "hexane", "hydrogen"][i % 4],
    ...(i % 4 === 3 ? { factor: between(0.5, 4) } : {}),
  }));
  many("hidden-gas", (i) => ({
    oxygen: i === 0 ? 0.209 : between(0.1, 0.209),
    temperature_C: i === 1 ? 30 : between(1, 55),
  }));
  many("static-head", (i) => ({ density_kg_m3: between(500, 13_600), height_m: i === 0 ? 0 : decades(0.1, 500) }));
  many("passing-liquid", (i) => ({
    harmful_m3: decades(0.01, 10),
    bore_m: decades(0.02, 0.5),
    ...(i % 4 === 3 ? { measured_m3_s: decades(1e-7, 1e-4) } : { leak: ["class II", "class III", "class IV"][i % 3] }),
    difference_Pa: decades(1e3, 5e6),
    density_kg_m3: between(600, 1500),
  }));
  many("measured-rise", (i) => {
    const start_Pa = i === 0 ? 1020 : between(5e3, 5e5);
    return {
      rise_Pa: i === 0 ? 1020 : start_Pa * between(0.05, 0.9),
      over_s: decades(60, 7200),
      start_Pa,
      harmful_Pa: start_Pa + decades(1e4, 2e6),
      zone: "not known",
    };
  });
  many("run-down", (i) => ({
    inertia_kg_m2: decades(0.1, 1e4),
    speed_rpm: i === 0 ? 0 : between(50, 6000),
    drag_Nm: decades(1, 500),
    ...(i % 3 === 2 ? { measured_s: decades(10, 4000) } : {}),
  }));
  many("raised-mass", (i) => ({ mass_kg: decades(1, 1e5), height_m: i === 0 ? 1e-6 : decades(0.01, 100) }));
  many("spring", () => ({ stiffness_N_m: decades(1e2, 1e7), travel_m: decades(1e-3, 2) }));
  many("flywheel", () => ({ inertia_kg_m2: decades(0.01, 1e5), speed_rpm: decades(10, 2e4) }));
  many(
    "dead-tests",
    (i) => ({ supply: ["three-phase with neutral", "three-phase without neutral", "single-phase"][i] }),
    3,
  );
  for (const profile of ["us-style", "uk-style", "strict"]) {
    many("approach-distance", (i) => ({ voltage_V: [51, 150, 151, 750, 1000, 1001, 15_000, 36_000][i], profile }));
  }
  many("fault-current", () => ({ voltage_V: decades(50, 5e5), impedance_ohm: decades(1e-3, 100) }));
  many("touch-resistance", (i) => ({
    residual_A: [0.01, 0.03, 0.1, 0.3, 0.5, 1, 0.006, 3][i],
    limit_V: i % 2 === 0 ? 50 : 25,
  }));
  many("back-feed", () => ({
    applied_V: decades(1, 1e3),
    appliedSide_V: decades(10, 1e5),
    otherSide_V: decades(10, 1e5),
  }));
  many("gas-energy", (i) => ({
    pressure_Pa: i === 0 ? 1.01e5 : decades(1.5e5, 3e7),
    volume_m3: decades(0.01, 100),
    gamma: between(1.1, 1.66),
  }));
  many("blank-thickness", (i) => ({
    gasket_m: decades(0.05, 2),
    pressure_Pa: i === 0 ? 0 : decades(1e4, 2e7),
    stress_Pa: between(8e7, 2.5e8),
    quality: between(0.8, 1),
    weld: between(0.6, 1),
    corrosion_m: i % 2 === 0 ? 0 : between(0, 0.006),
  }));
  many("equipment-dates", (i) => ({
    kind: ["portable or temporary", "fixed", "vessel showing rust"][i % 3],
    months: [0, 12, 36, 6, 13, 40, 7, 11][i],
  }));
  many("hot-work-zone", (i) => ({ height_m: i, welders: 1 + (i % 3), permits: 1 + (i % 2) }));
  many("after-watch", (i) => ({ rule: ["30 min", "60 min", "class 1", "class 2", "class 3", "class 4"][i] }), 6);
  many("leaking-cylinder", (i) => ({ gas: ["not flammable", "flammable"][i] }), 2);
  for (const used of ["no", "yes"]) {
    many("heat-stress", (i) => ({
      wbgt_C: [20, 24.9, 26, 27.6, 28.5, 29.9, 31, 33][i],
      work: ["moderate", "heavy", "very heavy", "light"][i % 4],
      clothing: ["work clothes", "double layer", "suit that lets vapour through", "vapour-tight suit"][(i + 1) % 3],
      used,
    }));
  }
  many("hasps", (i) => ({
    people: i === 0 ? 1 : whole(1, 40),
    points: whole(1, 12),
    school: i % 2 === 0 ? "on the box" : "on every point",
    holes: whole(2, 12),
  }));
  many("lift-load", (i) => ({ mass_kg: [1, 22.68, 22.69, 45.36, 45.37, 30, 44, 1000][i] }));
  return cases;
}
