import { compareWithLibraries } from "./againstLibraries";
import { physicsCases } from "./physicsCases";

describe("the formulas against scipy, fluids and networkx", () => {
  compareWithLibraries({
    cases: physicsCases(),
    script: "answerPhysics.py",
    stored: "physics.json",
    needs: "scipy.integrate, fluids, networkx",
    // API 520 prints its constants with four figures.
    likenesses: { first_by_api520: { ours: ({ first_kg_s }) => first_kg_s as number, close: 2e-3 } },
  });
});
