import base from "../jest.config.mjs";

/** What asks the judge; the rest of the core would only repeat it, more slowly. */
const asking = ["src/core/barrier", "src/core/judge", "src/core/guard", "src/core/plan", "src/core/cut"];
const NEAR = { barrier: [...asking, "tests/reference/judge"], judge: [...asking, "tests/reference/judge"] };
const near = NEAR[process.env.LANTERN_MUTATED ?? ""];

/** The tests of the core alone: those that a small mistake there should not survive. */
const config = {
  ...base,
  rootDir: "..",
  // All of the core, though not all its tests: a test is only seen to lead to a file where every file between is known.
  roots: ["<rootDir>/src/core", "<rootDir>/tests/reference", "<rootDir>/tests/support"],
  ...(near ? { testMatch: near.map((folder) => `<rootDir>/${folder}/**/*.test.ts`) } : {}),
  testPathIgnorePatterns: [...base.testPathIgnorePatterns, "calculations.test", "physics.test", "src/core/calc/"],
};
export default config;
