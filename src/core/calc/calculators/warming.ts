import { blockedInRise_Pa_K, waterAt, waterRise_Pa, WATER_RANGE_C, yieldPressure_Pa } from "../../energy/blockedIn";
import { figure } from "../../units/format";
import { NoFigure, sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";

/** Soft steel pipe as it is commonly made, Pa: 240 MPa, from memory. */
const PIPE_YIELD_Pa = 240e6;

export const blockedIn = calculator({
  name: "blocked-in",
  task: "Wait until it is harmless",
  title: "A liquid shut in a pipe warms",
  fields: {
    liquid: choice("Liquid", ["by its figures", "water"]),
    temperature_C: number("Water: temperature when it was shut in", "temperature", {
      min: -50,
      max: 400,
      optional: true,
      hint: `${WATER_RANGE_C.least} to ${WATER_RANGE_C.most} °C`,
    }),
    alpha_1_K: size("Expansion of the liquid", "perKelvin", {
      max: 0.01,
      optional: true,
      example: 2.1e-4,
      hint: "at its temperature: water 0.00021 at 20 °C, 0.00064 at 80; oil 0.0007",
    }),
    beta_1_Pa: size("Compressibility of the liquid", "perPressure", { max: 1e-7, optional: true, example: 4.6e-10 }),
    diameter_m: size("Pipe, diameter", "bore", { max: 10, example: 0.1 }),
    wall_m: size("Wall", "bore", { max: 1, optional: true, example: 0.006, hint: "empty: the pipe does not give" }),
    warms_K: number("Warms by", "temperatureStep", { min: 0, max: 1000, default: 10 }),
    yield_Pa: size("The pipe yields at", "stress", { max: 2e9, default: PIPE_YIELD_Pa }),
  },
  compute: (inputs): Calculation => {
    const { rise_Pa_K, pressure_Pa, rigid_Pa } = blockedInFigures(inputs);
    if (rise_Pa_K <= 0) throw new NoFigure("alpha_1_K", "is no more than the steel's own: the pressure does not rise");
    const { wall_m, diameter_m, yield_Pa, warms_K } = inputs;
    const yields_Pa = wall_m === undefined ? null : yieldPressure_Pa({ diameter_m, wall_m, yield_Pa });
    const yields = yields_Pa !== null && pressure_Pa >= yields_Pa;
    return {
      results: [
        { key: "rise_Pa_K", words: "Rises each degree", quantity: "pressurePerKelvin", value: rise_Pa_K },
        { key: "pressure_Pa", words: "After warming, above what it was", quantity: "gauge", value: pressure_Pa },
        { key: "rigid_Pa", words: "at most, if the pipe does not give", quantity: "gauge", value: rigid_Pa },
        {
          key: "yield_Pa",
          words: "the pipe begins to yield at",
          quantity: "gauge",
          value: yields_Pa,
          instead: "wall not known",
        },
      ],
      governs: "pressure_Pa",
      formula: "dP/dT = (α − 3·αₛ)/(β + D/(t·E)); yields at 2·t·σ/D",
      source: "textbook balance of volumes; water, steel 1.2·10⁻⁵ 1/K and 200 GPa from memory",
      validity: "Full of liquid with no gas, steel pipe, valves that hold. A little gas takes most of it up.",
      warnings: [
        "Leave a way out: a relief, or a bleed open.",
        ...(yields
          ? ["The pipe yields before that: something bursts or leaks, most likely a gasket or a seat first."]
          : []),
        ...(wall_m === undefined
          ? ["The wall is not known, so the pipe is taken as rigid, and its yield cannot be told."]
          : []),
        ...(inputs.liquid === "water"
          ? []
          : ["One expansion for all the warming: take it at the warm end. Water's grows threefold from 20 to 80 °C."]),
      ],
      picture: {
        kind: "curve",
        x: { words: "warmed by", quantity: "temperatureStep" },
        y: { words: "pressure above what it was", quantity: "gauge" },
        series: [
          {
            words: "shut in",
            points: sampled(
              0,
              Math.max(warms_K, 0.1),
              (k) => blockedInFigures({ ...inputs, warms_K: k }).pressure_Pa,
              10,
            ),
          },
        ],
        lines: yields ? [{ y: yields_Pa, words: "yields" }] : [],
        marks: [{ x: warms_K, y: pressure_Pa, words: "after warming" }],
        bands: [],
      },
    };
  },
});

type BlockedIn = Readonly<{
  liquid: string;
  temperature_C: number | undefined;
  alpha_1_K: number | undefined;
  beta_1_Pa: number | undefined;
  diameter_m: number;
  wall_m: number | undefined;
  warms_K: number;
}>;

/** Water over its table, anything else by one expansion; with the pipe's give and without. */
function blockedInFigures(p: BlockedIn): { rise_Pa_K: number; pressure_Pa: number; rigid_Pa: number } {
  const { diameter_m, wall_m, warms_K } = p;
  if (p.liquid === "water") {
    const { temperature_C } = p;
    if (temperature_C === undefined) throw new NoFigure("temperature_C", "is missing: water rises by its temperature");
    const at = waterAt(temperature_C);
    const pipe = { from_C: temperature_C, warms_K, diameter_m };
    const pressure_Pa = waterRise_Pa({ ...pipe, wall_m });
    const rigid_Pa = waterRise_Pa(pipe);
    if (at === null || pressure_Pa === null || rigid_Pa === null) {
      const { least, most } = WATER_RANGE_C;
      throw new NoFigure(
        at === null ? "temperature_C" : "warms_K",
        (units) =>
          `leads outside ${figure(least, "temperature", units)} to ${figure(most, "temperature", units)}, where water is known here: it boils, freezes or needs its own figures`,
      );
    }
    return { rise_Pa_K: blockedInRise_Pa_K({ ...at, diameter_m, wall_m }), pressure_Pa, rigid_Pa };
  }
  const { alpha_1_K, beta_1_Pa } = p;
  if (alpha_1_K === undefined) throw new NoFigure("alpha_1_K", "is missing: give it, or choose water");
  if (beta_1_Pa === undefined) throw new NoFigure("beta_1_Pa", "is missing: give it, or choose water");
  const rise_Pa_K = blockedInRise_Pa_K({ alpha_1_K, beta_1_Pa, diameter_m, wall_m });
  const rigid = blockedInRise_Pa_K({ alpha_1_K, beta_1_Pa, diameter_m });
  return { rise_Pa_K, pressure_Pa: rise_Pa_K * warms_K, rigid_Pa: rigid * warms_K };
}
