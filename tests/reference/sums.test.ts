import { compareWithLibraries } from "./againstLibraries";
import { sumsCases } from "./sumsCases";

describe("the sums that the work needs against scipy, numpy and fluids", () => {
  compareWithLibraries({
    cases: sumsCases(),
    script: "answerSums.py",
    stored: "sums.json",
    needs: "scipy.integrate, fluids",
    likenesses: {
      // Copper of that thickness ends at 200 °C; k is printed with three figures.
      ends_C: { ours: () => 200, close: 0.01 },
      // κ is fitted to the waves.
      peak_by_waves: { ours: ({ peak_A }) => peak_A as number, close: 0.03 },
      // Lee's two forms are rounded to three figures, Doan's to one.
      boundary_by_feet: { ours: ({ boundary_m }) => boundary_m as number, close: 5e-3 },
      energy_by_sphere: { ours: ({ energy_J_m2 }) => energy_J_m2 as number, close: 0.06 },
    },
  });
});
