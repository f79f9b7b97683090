import { z } from "zod";
import { STANDARD_ATMOSPHERE_Pa } from "../units/units";
import { accumulatorEnergy } from "./accumulatorEnergy";
import { gasEnergy_J } from "./gasEnergy";
import { flywheelEnergy_J, raisedMassEnergy_J, springEnergy_J } from "./motionEnergy";

const positive = z.number({ error: "must be a number" }).gt(0, "must be above 0");
/** Nitrogen or air let go to the atmosphere. */
const NITROGEN_TO_AIR = { gamma: 1.4, ambient_Pa: STANDARD_ATMOSPHERE_Pa } as const;

/** What the register says of a stored energy. Missing figures stay missing: the plan asks for them. */
export const storedEnergySchema = z.discriminatedUnion(
  "form",
  [
    z.object({
      form: z.literal("capacitor"),
      capacitance_F: positive.optional(),
      voltage_V: positive.optional(),
      resistance_ohm: positive.optional(),
      nameplate_s: positive.optional(),
    }),
    z.object({ form: z.literal("accumulator"), volume_m3: positive.optional(), pressure_Pa: positive.optional() }),
    z.object({ form: z.literal("raised mass"), mass_kg: positive.optional(), height_m: positive.optional() }),
    z.object({ form: z.literal("spring"), stiffness_N_m: positive.optional(), travel_m: positive.optional() }),
    z.object({
      form: z.literal("flywheel"),
      inertia_kg_m2: positive.optional(),
      speed_rpm: positive.optional(),
      drag_Nm: positive.optional(),
      coast_s: positive.optional(),
    }),
    z.object({ form: z.literal("trapped pressure"), volume_m3: positive.optional(), pressure_Pa: positive.optional() }),
    z.object({ form: z.literal("hot body"), temperature_C: z.number().optional(), tau_s: positive.optional() }),
    z.object({ form: z.literal("other"), note: z.string().optional() }),
  ],
  {
    error: "form must be capacitor, accumulator, raised mass, spring, flywheel, trapped pressure, hot body or other",
  },
);

export type StoredEnergy = z.output<typeof storedEnergySchema>;

export type StoredQuantity = Readonly<{
  /** Joules; null when a figure is missing from the register: assume the worst until it is known. */
  energy_J: number | null;
  /** Where physics has bounds, the upper: a gas that keeps its warmth gives out more. */
  most_J?: number;
  formula: string;
  source: string;
  missing: readonly string[];
}>;

/**
 * The energy a stored source holds, and how it was worked out.
 *
 * Accumulators are taken at the adiabatic bound with the gas expanding to the atmosphere, P·V/(γ−1)·(1−(Pₐ/P)^((γ−1)/γ))
 * with γ 1.4 for nitrogen; pressures are absolute. Arithmetic from first principles, no published source needed.
 */
export function storedQuantity(stored: StoredEnergy): StoredQuantity {
  switch (stored.form) {
    case "capacitor":
      return quantity("½·C·V²", stored, ["capacitance_F", "voltage_V"], ([c, v]) => 0.5 * c * v * v);
    case "accumulator":
    case "trapped pressure": {
      const { pressure_Pa, volume_m3 } = stored;
      const known = pressure_Pa !== undefined && volume_m3 !== undefined;
      const most = known
        ? { most_J: accumulatorEnergy({ pressure_Pa, volume_m3, ...NITROGEN_TO_AIR }).isothermal_J }
        : {};
      const atOnce = quantity(
        "P·V/(γ−1)·(1−(Pₐ/P)^((γ−1)/γ)), adiabatic, γ 1.4, gas filling the whole volume (the worse)",
        stored,
        ["pressure_Pa", "volume_m3"],
        ([pressure_Pa, volume_m3]) => gasEnergy_J({ pressure_Pa, volume_m3, ...NITROGEN_TO_AIR }),
      );
      return { ...atOnce, ...most };
    }
    case "raised mass":
      return quantity("m·g·h", stored, ["mass_kg", "height_m"], ([mass_kg, height_m]) =>
        raisedMassEnergy_J({ mass_kg, height_m }),
      );
    case "spring":
      return quantity("½·k·x²", stored, ["stiffness_N_m", "travel_m"], ([stiffness_N_m, travel_m]) =>
        springEnergy_J({ stiffness_N_m, travel_m }),
      );
    case "flywheel":
      return quantity("½·I·ω²", stored, ["inertia_kg_m2", "speed_rpm"], ([inertia_kg_m2, speed_rpm]) =>
        flywheelEnergy_J({ inertia_kg_m2, speed_rpm }),
      );
    case "hot body":
    case "other":
      return { energy_J: null, formula: "not a single figure", source: "practice", missing: [] };
  }
}

/** How a stored energy is made harmless. Common practice, no source. */
export function wayToMakeHarmless(stored: StoredEnergy | undefined): string {
  switch (stored?.form) {
    case "capacitor":
      return "wait for it to discharge, prove dead, then discharge, short and earth it";
    case "accumulator":
      return "vent the oil to tank, then release or isolate the gas precharge: bleeding the oil leaves it";
    case "trapped pressure":
      return "vent to a safe place and watch the gauge to zero";
    case "raised mass":
      return "lower it to rest, or block and pin it before releasing the pressure that holds it";
    case "spring":
      return "release it under control, or pin it";
    case "flywheel":
      return "wait until it has run down and see that it stands still, then pin it";
    case "hot body":
      return "cool it and measure";
    case "other":
    case undefined:
      return "find out what holds it and release, restrain or wait for it; until then treat it as live";
  }
}

type Figures = Readonly<Record<string, number | string | undefined>>;

function quantity<K extends string>(
  formula: string,
  stored: Figures,
  keys: readonly [K, K],
  compute: (values: [number, number]) => number,
): StoredQuantity {
  const missing = keys.filter((key) => typeof stored[key] !== "number");
  const [first, second] = keys.map((key) => stored[key]);
  const known = typeof first === "number" && typeof second === "number";
  return { energy_J: known ? compute([first, second]) : null, formula, source: "arithmetic", missing };
}
