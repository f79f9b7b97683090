import { seededRandom } from "../support/seededRandom";

/** A formula's inputs, in SI, under the name of the calculator that is to answer. */
export type PhysicsCase = Readonly<{ id: string; name: string; input: Readonly<Record<string, unknown>> }>;

const SEED = 20_261_124;

/** Grids of inputs over several decades for every formula that physics decides, the same at every run. */
export function physicsCases(): PhysicsCase[] {
  const random = seededRandom(SEED).next;
  const cases: PhysicsCase[] = [];
  const add = (name: string, input: Record<string, unknown>) =>
    cases.push({ id: `${name} ${cases.length}`, name, input });
  const between = (low: number, high: number) => low + (high - low) * random();
  /** Spread evenly over decades. */
  const decades = (low: number, high: number) => Math.exp(between(Math.log(low), Math.log(high)));

  for (let i = 0; i < 40; i++) {
    const start_Pa = decades(1.2e5, 3e7);
    add("blowdown", {
      volume_m3: decades(0.01, 500),
      start_Pa,
      end_Pa: 101_325 + (start_Pa - 101_325) * between(0.001, 0.8),
      temperature_K: between(250, 600),
      orifice_m: decades(0.002, 0.2),
      cd: between(0.5, 1),
      gamma: between(1.1, 1.66),
      molar_kg: decades(0.002, 0.09),
      ambient_Pa: 101_325,
    });
  }
  for (const shape of ["vertical", "horizontal", "sphere", "cone"] as const) {
    for (let i = 0; i < 16; i++) {
      const diameter_m = decades(0.5, 20);
      const length_m = diameter_m * between(0.5, 4);
      const height = shape === "vertical" || shape === "cone" ? length_m : diameter_m;
      const level_m = height * between(0.2, 1);
      add("tank-drain", {
        shape,
        diameter_m,
        length_m,
        level_m,
        end_m: i % 3 === 0 ? 0 : level_m * between(0.05, 0.9),
        outlet_m: diameter_m * decades(0.005, 0.1),
        cd: between(0.5, 0.9),
        pad_Pa: i % 4 === 0 ? decades(1e3, 5e5) : 0,
        density_kg_m3: between(600, 1800),
        outlet_above_m: i % 6 === 2 ? (height - level_m) * between(0.1, 1) : 0,
        ...(i % 5 === 1 ? { inlet: "shut", pad_Pa: decades(5e4, 5e5), gas_m3: 2 * diameter_m ** 2 * height } : {}),
      });
    }
  }
  for (let i = 0; i < 30; i++) {
    const c0 = between(0.1, 1);
    const cs = i % 3 === 0 ? between(0, 0.01) : 0;
    const generation_m3_s = i % 2 === 0 ? 0 : decades(1e-6, 1e-4);
    const flow_m3_s = decades(0.05, 5);
    const mixing = between(1, 10);
    const endsAt = cs + (mixing * generation_m3_s) / flow_m3_s;
    add("purge-dilution", {
      volume_m3: decades(1, 5000),
      flow_m3_s,
      c0,
      c: endsAt + (c0 - endsAt) * between(0.01, 0.9),
      cs,
      mixing,
      generation_m3_s,
    });
  }
  for (let i = 0; i < 20; i++) {
    const volume_m3 = decades(10, 2000);
    add("oxygen-displaced", {
      volume_m3,
      leak_m3_s: volume_m3 * decades(1e-5, 1e-2),
      ventilation_m3_s: i % 4 === 0 ? 0 : volume_m3 * decades(1e-6, 3e-5),
    });
  }
  for (let i = 0; i < 20; i++) {
    const start_Pa = between(1e5, 1.1e5);
    const harmful_Pa = start_Pa * between(1.1, 4);
    add("passing-valve", {
      volume_m3: decades(0.05, 50),
      bore_m: decades(0.015, 0.3),
      leak: ["class II", "class II", "class III", "class IV"][i % 4],
      upstream_Pa: harmful_Pa * between(1.05, 6),
      start_Pa,
      harmful_Pa,
      temperature_K: between(260, 500),
      gamma: between(1.1, 1.66),
      molar_kg: decades(0.002, 0.09),
    });
  }
  for (let i = 0; i < 12; i++) {
    const ambient_C = between(-10, 35);
    const start_C = ambient_C + between(30, 400);
    const target_C = ambient_C + (start_C - ambient_C) * between(0.03, 0.8);
    add("cool-down", { start_C, ambient_C, target_C, tau_s: decades(600, 1e5) });
    add("capacitor", {
      capacitance_F: decades(1e-6, 0.1),
      voltage_V: between(60, 11_000),
      resistance_ohm: decades(100, 1e6),
      target_V: 50,
    });
    add("accumulator", {
      volume_m3: decades(0.001, 1),
      pressure_Pa: decades(2e5, 4e7),
      ambient_Pa: 101_325,
      gamma: between(1.2, 1.66),
    });
    add("blocked-in", {
      alpha_1_K: decades(1e-4, 1e-3),
      beta_1_Pa: between(4e-10, 1e-9),
      diameter_m: decades(0.02, 0.6),
      wall_m: decades(0.003, 0.02),
      warms_K: between(1, 40),
    });
  }
  for (let i = 0; i < 24; i++) {
    const count = 3 + Math.floor(random() * 40);
    const steps = Array.from({ length: count }, (_, k) => ({
      id: `s${k}`,
      duration_s: Math.round(decades(1, 1e5)),
      after: Array.from({ length: k }, (_, j) => `s${j}`).filter(() => random() < 2.5 / (k + 1)),
    }));
    add("critical-path", { steps });
  }
  return cases;
}
