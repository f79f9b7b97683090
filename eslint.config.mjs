import nextVitals from "eslint-config-next/core-web-vitals";
import nextTypescript from "eslint-config-next/typescript";
import prettier from "eslint-config-prettier";
import regexp from "eslint-plugin-regexp";

/**
 * The layers: app → ui and server → core. Core imports nothing of ours outside core, ui takes only types from the
 * server, and nothing points back.
 */
const layers = [
  { target: "./src/core", from: ["./src/server", "./src/ui", "./src/app", "./src/cli", "./src/workers"] },
  { target: "./src/server", from: ["./src/ui", "./src/app", "./src/cli"] },
  { target: "./src/ui", from: ["./src/app", "./src/cli", "./src/server"] },
  { target: "./src/workers", from: ["./src/app", "./src/ui", "./src/cli", "./src/server"] },
];

/** What core may not touch: the interface, the database, files, clocks and randomness arrive as arguments. */
const forbiddenInCore = [
  "react",
  "next",
  "next/*",
  "react-dom",
  "better-sqlite3",
  "drizzle-orm",
  "drizzle-orm/*",
  "node:*",
  "fs",
];

const config = [
  { ignores: [".next/**", ".lantern/**", "node_modules/**", "next-env.d.ts", "data/**", "coverage/**"] },
  ...nextVitals,
  ...nextTypescript,
  prettier,
  {
    rules: {
      "import/no-restricted-paths": ["error", { zones: layers }],
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
    },
  },
  {
    // An expression that tries again and again holds everybody up: whoever sends the text must not choose how long.
    files: ["src/**/*.{ts,tsx}", "tools/**/*.mjs"],
    plugins: { regexp },
    rules: {
      "regexp/no-super-linear-backtracking": ["error", { report: "potential" }],
      "regexp/no-super-linear-move": ["error", { report: "potential", ignoreSticky: false }],
    },
  },
  {
    // What never answers must not hold a screen for ever: requests go through ui/net, which gives each its time.
    files: ["src/ui/**/*.{ts,tsx}", "src/app/**/*.{ts,tsx}"],
    rules: { "no-restricted-globals": ["error", "fetch"] },
  },
  {
    // The framework's link asks for every page that it sees a link to: ui/text/Link asks for the one that is followed.
    files: ["src/ui/**/*.{ts,tsx}", "src/app/**/*.{ts,tsx}"],
    ignores: ["src/ui/text/Link.tsx"],
    rules: { "no-restricted-imports": ["error", { paths: ["next/link"] }] },
  },
  {
    files: ["src/core/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-imports": ["error", { patterns: forbiddenInCore }],
      "no-restricted-globals": ["error", "process", "window", "document", "crypto", "performance", "fetch"],
      "no-restricted-properties": [
        "error",
        { object: "Date", property: "now", message: "core has no clock: take the time as an argument" },
        { object: "Math", property: "random", message: "core has no randomness: take it as an argument" },
      ],
    },
  },
];
export default config;
