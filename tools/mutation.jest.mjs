import base from "../jest.config.mjs";

/** The tests of the core alone: those that a small mistake there should not survive. */
const config = {
  ...base,
  rootDir: "..",
  roots: ["<rootDir>/src/core", "<rootDir>/tests/reference"],
  testPathIgnorePatterns: [...base.testPathIgnorePatterns, "calculations.test", "physics.test", "src/core/calc/"],
};
export default config;
