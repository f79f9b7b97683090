import { CALCULATORS } from "@/core/calc/calculators/calculators";
import { compareWithLibraries } from "./againstLibraries";
import { physicsCases } from "./physicsCases";
import { plainCases } from "./plainCases";
import { sumsCases } from "./sumsCases";

describe("the short sums and the tables against scipy and tables typed anew", () => {
  compareWithLibraries({
    cases: plainCases(),
    script: "answerPlain.py",
    stored: "plain.json",
    needs: "scipy.integrate",
    likenesses: {
      // Molar masses are kept with four figures.
      relative_by_atoms: { ours: ({ relative }) => relative as number, close: 1e-3 },
      // Two formulas for the vapour pressure of water differ by half a per cent, which is a part in a thousand of the air.
      wet_by_antoine: { ours: ({ wet_oxygen }) => wet_oxygen as number, close: 1e-3 },
    },
  });
});

/** Choices of these are few: every one of them is among the cases. */
const FEW: Readonly<Record<string, number>> = { "dead-tests": 3, "leaking-cylinder": 2 };

test("every calculator is compared with something outside at six points at least, or at all that it can be asked", () => {
  const counts = new Map<string, number>();
  for (const { name } of [...physicsCases(), ...sumsCases(), ...plainCases()]) {
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  const rare = CALCULATORS.filter(({ name }) => (counts.get(name) ?? 0) < (FEW[name] ?? 6)).map(({ name }) => name);
  expect(rare).toEqual([]);
});
