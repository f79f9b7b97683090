// npm run test:mutation [FOLDER …]: plants a seeded sample of small mistakes in folders of the core, and says how many of
// them the tests found. Writes the scores into docs/benchmarks.md. Hours, not minutes: not part of ./lantern test.
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { Stryker } from "@stryker-mutator/core";
import config from "../stryker.config.mjs";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const FOLDERS = ["barrier", "judge", "guard", "procedure", "isolation", "permit", "requirement", "trace"];
const SAMPLE = Number(process.env.LANTERN_MUTANTS ?? 300);
const SEED = 20_261_128;
// Each test of random cases runs once for every mistake that it may find: a part of the usual number of cases.
process.env.LANTERN_RUNS ??= "0.15";
const wanted = process.argv.slice(2);
const unknown = wanted.find((folder) => !FOLDERS.includes(folder));
if (unknown !== undefined) {
  process.stderr.write(`no folder ${unknown}; of ${FOLDERS.join(", ")}\n`);
  process.exit(1);
}

function filesOf(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return filesOf(path);
    return path.endsWith(".ts") && !path.endsWith(".test.ts") ? [path] : [];
  });
}

/** The same numbers on every machine. */
function seeded(seed) {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

/** Lines to plant in, spread over all of a folder's code by chance, until about a sample's worth of them is chosen. */
function sampleOf(folder) {
  const random = seeded(SEED + FOLDERS.indexOf(folder));
  const lines = filesOf(join(HOME, "src/core", folder)).flatMap((path) =>
    readFileSync(path, "utf8")
      .split("\n")
      .map((text, index) => ({ path: path.slice(HOME.length + 1), line: index + 1, text: text.trim() }))
      .filter(
        ({ text }) =>
          /[&|<>=!+\-*/?]|return|\d|true|false|"/.test(text) && !/^(import|\/?\*|\/\/|export type)/.test(text),
      ),
  );
  for (let i = lines.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [lines[i], lines[j]] = [lines[j], lines[i]];
  }
  // A line holds some one and a half mistakes.
  return lines.slice(0, Math.ceil(SAMPLE / 1.5)).map(({ path, line }) => `${path}:${line}-${line}`);
}

const page = join(HOME, "docs", "benchmarks.md");
for (const folder of wanted.length > 0 ? wanted : FOLDERS) {
  process.env.LANTERN_MUTATED = folder;
  const results = await new Stryker({ ...config, mutate: sampleOf(folder) }).runMutationTest();
  const counted = results.filter(({ status }) => ["Killed", "Timeout", "Survived", "NoCoverage"].includes(status));
  const found = counted.filter(({ status }) => status === "Killed" || status === "Timeout").length;
  const share = counted.length === 0 ? 0 : (100 * found) / counted.length;
  const row = `| ${folder} | ${counted.length} | ${found} | ${share.toFixed(0)} % |`;
  process.stdout.write(`${row}\n`);
  const text = readFileSync(page, "utf8");
  const old = new RegExp(`^\\| ${folder} +\\|.*$`, "m");
  const [, end] = ["<!-- mutation scores -->", "<!-- end of mutation -->"];
  writeFileSync(page, old.test(text) ? text.replace(old, row) : text.replace(end, `${row}\n${end}`));
}
