import { liftable_m } from "../../energy/pumping";
import { duration, figure } from "../../units/format";
import { STANDARD_ATMOSPHERE_Pa } from "../../units/units";
import { NoFigure, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { number, size } from "../fields";

export const pumpOut = calculator({
  name: "pump-out",
  task: "Empty and let the pressure go",
  title: "How long a pump takes to empty it",
  fields: {
    volume_m3: size("Liquid in it", "volume", { max: 1e7, example: 12 }),
    flow_m3_s: size("Pump, rated flow", "flow", { max: 100, example: 0.002 }),
    share: number("What it really moves of that", "ratio", {
      above: 0,
      max: 1,
      default: 0.7,
      hint: "less through a long hose, uphill, or worn",
    }),
    heel_m3: number("Left that it does not reach", "volume", { min: 0, max: 1e7, default: 0 }),
    lift_m: number("Pump above the liquid at the end", "length", {
      min: -1000,
      max: 1000,
      default: 0,
      hint: "below 0: the pump stands lower, or hangs in it",
    }),
    density_kg_m3: size("Density", "density", { max: 25_000, default: 1000 }),
    vapour_Pa: number("Its vapour pressure, absolute", "pressure", {
      min: 0,
      max: 4e8,
      default: 2340,
      hint: "as it stands here for water at 20 °C; what is hot or light has far more",
    }),
    above_Pa: size("Pressure over the liquid, absolute", "pressure", { max: 4e8, default: STANDARD_ATMOSPHERE_Pa }),
  },
  compute: (inputs): Calculation => {
    const { volume_m3, heel_m3, flow_m3_s, share, lift_m } = inputs;
    if (heel_m3 >= volume_m3) throw new NoFigure("heel_m3", "must be less than what is in it");
    const lifts_m = liftable_m(inputs);
    if (lift_m > 0 && lift_m >= lifts_m) {
      throw new NoFigure("lift_m", (units) =>
        lifts_m <= 0
          ? "cannot be: this boils in the suction before it rises at all. Put the pump below it, or in it"
          : `is more than the pressure over it can push it up, ${figure(lifts_m, "length", units)}: put the pump lower, or in it`,
      );
    }
    const moved_m3 = volume_m3 - heel_m3;
    const time_s = moved_m3 / (flow_m3_s * share);
    const close = lift_m > 0 && lift_m > lifts_m / 2;
    return {
      results: [
        { key: "time_s", words: "Pumped out in", quantity: "duration", value: time_s },
        { key: "moved_m3", words: "Goes to where it is taken", quantity: "volume", value: moved_m3 },
        { key: "lifts_m", words: "No suction lifts it more than", quantity: "length", value: Math.max(0, lifts_m) },
      ],
      governs: "time_s",
      formula: "t = (V − V_heel)/(share·Q); greatest suction lift (p − p_vapour)/(ρ·g)",
      source: "arithmetic; hydrostatics",
      validity: "A pump that stays primed, thin liquid. Sludge, foam and what settles are not in it.",
      warnings: [
        "Let air or inert gas in above as fast as it goes out: a shut vessel is drawn in.",
        "Bond the pump, the hose and the vessel where it burns, and use a pump made for that zone.",
        ...(heel_m3 > 0 ? ["What the pump does not reach is washed or wiped out; pumped is not empty."] : []),
        ...(close
          ? ["More than half of what suction can do: friction in the hose may stop it. Put the pump lower."]
          : []),
      ],
      picture: {
        kind: "curve",
        x: { words: "time", quantity: "duration" },
        y: { words: "liquid in it", quantity: "volume" },
        series: [
          {
            words: "liquid left",
            points: [
              [0, volume_m3],
              [time_s, heel_m3],
            ],
          },
        ],
        lines: heel_m3 > 0 ? [{ y: heel_m3, words: "the pump does not reach" }] : [],
        marks: [{ x: time_s, y: heel_m3, words: duration(time_s) }],
        bands: [],
      },
    };
  },
});
