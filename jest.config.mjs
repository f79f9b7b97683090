/** @type {import('jest').Config} */
const config = {
  testEnvironment: "node",
  setupFiles: ["<rootDir>/tests/support/testEnvironment.ts"],
  // Every core: nothing else runs beside the tests.
  maxWorkers: "100%",
  // Wide, for a machine whose speed changes several-fold: a hang is still found.
  testTimeout: 120_000,
  roots: ["<rootDir>/src", "<rootDir>/tests"],
  // Attacks take long, and some want to be root: npm run test:attack.
  testPathIgnorePatterns: [
    "/node_modules/",
    "<rootDir>/tests/e2e/",
    ...(process.env.LANTERN_ATTACK === "1" ? [] : ["<rootDir>/tests/attack/"]),
  ],
  modulePathIgnorePatterns: ["<rootDir>/.next/", "<rootDir>/.lantern/"],
  transform: {
    "^.+\\.(t|j|mj)sx?$": [
      "@swc/jest",
      {
        jsc: {
          target: "es2022",
          parser: { syntax: "typescript", tsx: true },
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "commonjs" },
      },
    ],
  },
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/src/$1", "^server-only$": "<rootDir>/tests/support/empty.ts" },
  transformIgnorePatterns: [
    "/node_modules/(?!(flatbush|flatqueue|d3|d3-[a-z-]+|temporal-[a-z-]+|internmap|delaunator|robust-predicates)/)",
  ],
};

export default config;
