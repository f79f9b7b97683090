import base from "../jest.config.mjs";

/** What asks the judge; the rest of the core would only repeat it, more slowly. */
const NEAR = {
  judge: ["src/core/judge", "src/core/guard", "tests/reference/judge"],
};
const near = NEAR[process.env.LANTERN_MUTATED ?? ""] ?? ["src/core", "tests/reference"];

/** The tests of the core alone: those that a small mistake there should not survive. */
const config = {
  ...base,
  rootDir: "..",
  roots: near.map((folder) => `<rootDir>/${folder}`),
  testPathIgnorePatterns: [...base.testPathIgnorePatterns, "calculations.test", "physics.test", "src/core/calc/"],
};
export default config;
