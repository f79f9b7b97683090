/**
 * Plants small mistakes in the core and runs the tests of the core against each: `npm run test:mutation FOLDER`, see
 * tools/mutation.mjs, which picks a seeded sample. Long; not part of ./lantern test.
 *
 * @type {import("@stryker-mutator/api/core").PartialStrykerOptions}
 */
const config = {
  testRunner: "jest",
  jest: { configFile: "tools/mutation.jest.mjs", enableFindRelatedTests: true },
  coverageAnalysis: "perTest",
  ignoreStatic: true,
  ignorePatterns: [".next", ".lantern", "data", "docs", "tests/e2e", "tests/bench", "public"],
  tempDirName: ".lantern/mutation",
  jsonReporter: { fileName: ".lantern/mutation.json" },
  reporters: ["clear-text", "json"],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
  disableTypeChecks: false,
  timeoutMS: 20_000,
  concurrency: Number(process.env.LANTERN_HANDS ?? 2),
};
export default config;
