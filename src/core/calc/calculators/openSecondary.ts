import { openSecondary_V } from "../../energy/openSecondary";
import { sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { number, size } from "../fields";
import { curve } from "../pictures";

/** Above this a touch may kill. Common practice for dry skin; iron and insulation are another matter. */
const TOUCH_V = 50;
/** What secondary wiring is tested with. IEC 61869-1, from memory: 3 kV for a minute. */
const WIRING_V = 3000;

export const openSecondary = calculator({
  name: "open-secondary",
  task: "Prove it dead",
  title: "What an open current transformer may show",
  fields: {
    primary_A: size("Current in the primary, or the fault's", "current", { max: 1e6, example: 300 }),
    ratedPrimary_A: size("Rated, primary", "current", { max: 1e6, example: 600 }),
    ratedSecondary_A: size("Rated, secondary", "current", { max: 100, example: 5 }),
    knee_V: size("Knee of its magnetising curve", "voltage", { max: 1e5, example: 200 }),
    knee_A: number("Magnetising current at the knee", "milliampere", { above: 0, max: 100, example: 0.1 }),
  },
  compute: (inputs): Calculation => {
    const peak_V = openSecondary_V(inputs);
    const at = (primary_A: number) => openSecondary_V({ ...inputs, primary_A });
    return {
      results: [{ key: "peak_V", words: "At the open ends, peak, at most", quantity: "voltage", value: peak_V }],
      governs: "peak_V",
      because:
        peak_V > WIRING_V
          ? "More than its wiring is tested for: it burns through, arcs and kills."
          : peak_V > TOUCH_V
            ? "Enough to kill."
            : "Little at this current; a fault in the primary makes it many times as much.",
      formula: "√2·V_k·I/I_k, I = primary current × rated secondary/rated primary",
      source: "arithmetic of the magnetising curve; a bound",
      validity: "A sine in the primary, iron without air gap. Capacitance and eddy currents make it less.",
      warnings: [
        "Never open a secondary while the primary carries current: short it at its own links first, and prove the short.",
        "The iron stays magnetised afterwards: its readings and the protection behind it are to be tested.",
      ],
      picture: curve({
        x: { words: "current in the primary", quantity: "current" },
        y: { words: "at the open ends, peak", quantity: "voltage" },
        words: "at most",
        points: sampled(0, inputs.primary_A * 1.5, at),
        lines: [{ y: WIRING_V, words: "wiring is tested with" }],
        marks: [{ x: inputs.primary_A, y: peak_V, words: "here" }],
      }),
    };
  },
});
