import type { PhysicsCase } from "./physicsCases";
import { seededRandom } from "../support/seededRandom";

const SEED = 20_261_128;
/** Cases of each sum; edges besides. */
const EACH = 8;

/** Inputs for the sums that the work needs, the same at every run; each is answered by other means in answerSums.py. */
export function sumsCases(): PhysicsCase[] {
  const random = seededRandom(SEED).next;
  const cases: PhysicsCase[] = [];
  const between = (low: number, high: number) => low + (high - low) * random();
  /** Spread evenly over decades. */
  const decades = (low: number, high: number) => Math.exp(between(Math.log(low), Math.log(high)));
  const add = (name: string, input: Record<string, unknown>) =>
    cases.push({ id: `${name} ${cases.length}`, name, input });
  const many = (name: string, input: (i: number) => Record<string, unknown>) => {
    for (let i = 0; i < EACH; i++) add(name, input(i));
  };

  many("ventilation", (i) => {
    const supply = i % 3 === 0 ? 0 : between(0, 0.0004);
    const mixing = i === 0 ? 1 : between(1, 10);
    const rest = { limit: supply + decades(1e-4, 0.02), supply, mixing };
    if (i % 2 === 0) return { from: "gas at a known rate", generation_m3_s: decades(1e-6, 1e-2), ...rest };
    const evaporates = { mass_kg_s: decades(1e-5, 1e-2), molar_kg: between(0.018, 0.12) };
    return { from: "liquid that evaporates", ...evaporates, temperature_K: between(260, 330), ...rest };
  });
  many("into-service", (i) => {
    const lfl = i === 0 ? 0.05 : i === 1 ? 0.011 : decades(0.008, 0.06);
    const moles = i === 0 ? 2 : i === 1 ? 9.5 : between(0.5, 0.9 * (0.21 / lfl));
    return { lfl, oxygen_moles: moles, volume_m3: decades(1, 1000), mixing: between(1, 5), fuel: between(0.5, 1) };
  });
  many("exhaust-distance", (i) => ({
    flow_m3_s: decades(0.05, 5),
    diameter_m: between(0.1, 0.6),
    share: between(0.02, 1),
    ends: i % 3 === 0 ? "19.5 % oxygen" : i % 3 === 1 ? "the lower limit" : "a tenth of the lower limit",
    lfl: decades(0.01, 0.1),
    wind_m_s: i === 0 ? 1 : between(1, 6),
  }));
  many("line-drain", (i) => ({
    diameter_m: decades(0.5, 10),
    level_m: between(1, 6),
    end_m: i === 0 ? 0.02 : between(0.05, 0.9),
    drop_m: i % 2 === 0 ? 0 : between(0, 5),
    push_Pa: i % 4 === 3 ? between(0, 2e5) : 0,
    bore_m: decades(0.02, 0.2),
    length_m: i === 1 ? 0 : decades(1, 500),
    fittings: between(0, 20),
    roughness_m: i === 2 ? 0 : decades(1e-6, 1e-3),
    density_kg_m3: between(700, 1400),
    viscosity_Pa_s: decades(2e-4, 0.3),
  }));
  for (const shape of ["vertical", "horizontal", "sphere", "cone"] as const) {
    for (let i = 0; i < EACH; i++) {
      const diameter_m = decades(0.5, 10);
      const length_m = diameter_m * between(0.5, 4);
      const level_m = (shape === "vertical" || shape === "cone" ? length_m : diameter_m) * between(0.3, 1);
      const isShut = i % 4 === 1;
      add("tank-drain", {
        shape,
        diameter_m,
        length_m,
        level_m,
        end_m: level_m * between(0.2, 0.8),
        outlet_m: diameter_m * decades(0.005, 0.1),
        cd: between(0.5, 0.9),
        pad_Pa: isShut ? decades(1e5, 5e5) : i % 4 === 2 ? decades(1e3, 2e5) : 0,
        ...(isShut ? { inlet: "shut", gas_m3: 3 * diameter_m ** 2 * length_m } : {}),
        density_kg_m3: between(600, 1800),
        hose_m: i === 0 ? 0.01 : decades(1, 200),
        roughness_m: i === 3 ? 0 : decades(1e-6, 1e-3),
        viscosity_Pa_s: decades(2e-4, 0.3),
      });
    }
  }
  many("line-blowdown", (i) => {
    const start_Pa = i === 0 ? 1.4e5 : decades(2e5, 6e6);
    return {
      volume_m3: decades(0.1, 100),
      start_Pa,
      end_Pa: 101_325 + (start_Pa - 101_325) * between(0.02, 0.6),
      temperature_K: between(260, 450),
      molar_kg: between(0.002, 0.06),
      bore_m: decades(0.02, 0.2),
      length_m: decades(5, 400),
      fittings: 0,
      friction: between(0.012, 0.04),
    };
  });
  many("long-line", (i) => ({
    bore_m: decades(0.05, 1.2),
    length_m: decades(50, 1e5),
    flow_m3_s: decades(0.001, 1),
    pressure_Pa: i === 0 ? 0 : decades(1e4, 1e7),
  }));
  many("line-heads", (i) => ({
    stations: Array.from({ length: i === 0 ? 2 : 4 + i }, (_, at) => ({ along_m: at * 50, height_m: between(-5, 40) })),
    density_kg_m3: between(700, 1300),
  }));
  many("residual-force", (i) => ({
    pressure_Pa: i === 0 ? 0 : i === 1 ? 5000 : decades(100, 1e6),
    width_m: i === 1 ? 0.6 : decades(0.02, 3),
  }));
  many("bleed-flow", (i) => ({
    measured_m3_s: i === 0 ? 0 : decades(1e-8, 1e-4),
    rated_m3_s: decades(0.001, 0.1),
    ventilation_m3_s: decades(0.01, 2),
    share: between(0.1, 1),
  }));
  many("test-pressure", (i) => ({
    design_Pa: decades(1e5, 1e7),
    medium: i % 4 === 3 ? "gas" : "water",
    cold_Pa: between(100e6, 200e6),
    hot_Pa: i === 0 ? 10e6 : between(60e6, 200e6),
    height_m: i === 1 ? 0 : between(0, 60),
    density_kg_m3: between(900, 1100),
    volume_m3: decades(0.01, 100),
  }));
  many("pressure-hold", (i) => ({
    start_Pa: decades(2e5, 5e6),
    end_Pa: i === 0 ? 2e5 : decades(2e5, 5e6),
    start_K: between(270, 320),
    end_K: between(270, 320),
    volume_m3: decades(0.01, 100),
    over_s: decades(600, 1e5),
  }));
  many("portable-earth", (i) => ({
    current_A: i === 0 ? 31_500 : decades(1000, 50_000),
    time_s: i === 0 ? 0.5 : between(0.1, 1),
  }));
  many("three-phase-fault", (i) => ({
    voltage_V: decades(230, 33_000),
    resistance_ohm: i === 0 ? 0.001 : decades(0.005, 0.5),
    reactance_ohm: decades(0.01, 1),
  }));
  many("induced-voltage", () => ({
    current_A: decades(10, 5000),
    length_m: decades(50, 2e4),
    apart_m: decades(0.5, 100),
    soil_ohm_m: decades(10, 3000),
    frequency_Hz: random() < 0.5 ? 50 : 60,
  }));
  many("cable-charge", (i) => ({
    perMetre_F: decades(1e-7, 6e-7),
    length_m: decades(50, 2e4),
    voltage_V: i === 0 ? 40 : decades(400, 100_000),
    resistance_ohm: decades(1e3, 1e9),
  }));
  many("arc-energy", (i) => ({
    supply: i % 2 === 0 ? "alternating" : "direct",
    voltage_V: decades(100, 15_000),
    current_A: decades(500, 50_000),
    time_s: decades(0.02, 2),
    at_m: between(0.3, 2),
  }));
  many("breathing-air", (i) => ({
    volume_m3: between(0.003, 0.014),
    filled_Pa: between(150e5, 300e5),
    reserve_Pa: between(30e5, 60e5),
    work: ["at rest", "light", "moderate", "heavy"][i % 4],
    out_s: i === 0 ? 0 : between(60, 900),
    rescue_s: i % 2 === 0 ? 0 : between(60, 600),
  }));
  many("people-in-space", (i) => ({
    volume_m3: decades(2, 500),
    people: 1 + (i % 5),
    work: ["at rest", "light", "moderate", "heavy"][i % 4],
    co2: i === 0 ? 0 : between(0, 0.001),
    co2_limit: i === 1 ? 0.04 : between(0.002, 0.01),
  }));
  many("spark-throw", (i) => ({
    height_m: i === 0 ? 0.2 : decades(0.5, 80),
    wind_m_s: i % 2 === 0 ? 0 : between(0, 15),
    speed_m_s: between(2, 20),
    drop_m: decades(0.0005, 0.008),
    density_kg_m3: between(2000, 8000),
  }));
  many("wall-heat", () => ({
    hot_C: between(100, 1500),
    thick_m: decades(0.002, 0.4),
    conductivity_W_mK: decades(0.04, 200),
    ambient_C: between(-20, 40),
    off_W_m2_K: between(3, 20),
  }));
  many("sling", (i) => ({
    mass_kg: decades(10, 50_000),
    legs: 1 + (i % 4),
    lean_rad: i === 0 ? 0 : i === 1 ? Math.PI / 3 : between(0.05, 1),
    rated_N: decades(1e3, 1e6),
  }));
  many("outrigger", () => ({
    crane_kg: decades(3000, 100_000),
    load_kg: decades(100, 20_000),
    share: between(0.3, 0.9),
    mat_m2: between(0.25, 4),
    ground_Pa: decades(5e4, 5e5),
  }));
  many("drop-zone", (i) => ({
    half_m: between(0.2, 8),
    height_m: decades(1, 80),
    speed_m_s: i === 0 ? 0 : between(0.5, 5),
  }));
  many("pin", (i) => ({
    pressure_Pa: i % 2 === 0 ? 0 : decades(1e5, 2e7),
    piston_m: i % 2 === 0 ? 0 : between(0.02, 0.3),
    mass_kg: decades(50, 20_000),
    diameter_m: between(0.008, 0.08),
    plate_m: between(0.005, 0.06),
    shear: i % 3 === 0 ? "double" : "single",
    yield_Pa: between(200e6, 700e6),
  }));
  many("welding-fume", (i) => ({
    arc: ["stick", "flux-cored wire", "solid wire"][i % 3],
    burnt_kg_s: decades(1e-5, 1e-2),
    captured: i === 0 ? 0 : between(0, 0.95),
    limit_kg_m3: decades(2e-7, 5e-6),
    supply_kg_m3: i % 2 === 0 ? 0 : between(0, 1.5e-7),
    mixing: between(1, 10),
  }));
  many("open-secondary", (i) => ({
    primary_A: decades(1, 50_000),
    ratedPrimary_A: decades(50, 4000),
    ratedSecondary_A: i % 2 === 0 ? 5 : 1,
    knee_V: decades(10, 2000),
    knee_A: decades(0.005, 1),
  }));
  return cases;
}
