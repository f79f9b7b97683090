// ./lantern test: everything that must pass, each stage with its time.
import { spawn } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { holdWork } from "./lock.mjs";
import { bin, build, bundle, chromium, env, HOME, install, run, say, STAMPS } from "./make.mjs";

const CACHE = join(STAMPS, "cache");

/** A program beside others: what it prints is said when it ends, and only where it failed. */
function quietly(program, args, extraEnv = {}) {
  return new Promise((ended) => {
    const child = spawn(program, args, { cwd: HOME, env: { ...env, ...extraEnv }, stdio: ["ignore", "pipe", "pipe"] });
    let text = "";
    for (const stream of [child.stdout, child.stderr]) stream.on("data", (part) => (text += part));
    child.on("error", (error) => ended({ ok: false, text: String(error) }));
    child.on("exit", (code) => ended({ ok: code === 0, text }));
  });
}

/** Several programs one after the other, to the first that fails. */
async function inTurn(...programs) {
  for (const [program, ...args] of programs) {
    const done = await quietly(bin(program), args);
    if (!done.ok) return done;
  }
  return { ok: true, text: "" };
}

function readReport(path) {
  try {
    return JSON.parse(readFileSync(path, "utf8"));
  } catch {
    return null;
  }
}

export async function test() {
  const times = [];
  let [passed, failed] = [0, 0];
  const began = Date.now();
  const stage = async (name, work) => {
    say(`— ${name}`);
    const from = Date.now();
    const result = await work();
    times.push([name, (Date.now() - from) / 1000]);
    return result;
  };
  const check = async (name, work) => {
    const { ok, text } = await stage(name, work);
    if (ok) passed++;
    else {
      failed++;
      say(`${text.trim()}\n${name} failed`);
    }
    return ok;
  };

  const done = holdWork();
  await stage("install", () => install());
  mkdirSync(CACHE, { recursive: true });
  const browser = await stage("chromium", () => chromium());
  await stage("command line", () => bundle());
  // Each takes one core.
  const types = check("types", () => inTurn(["next", "typegen"], ["tsc", "--noEmit"]));
  const lint = check("lint", () =>
    inTurn(
      ["eslint", ".", "--cache", "--cache-strategy", "content", "--cache-location", join(CACHE, "eslint")],
      ["prettier", "--check", "--log-level=warn", "--cache", "--cache-location", join(CACHE, "prettier"), "."],
    ),
  );
  const typed = await types;
  await stage("build", () => build({ typesChecked: typed }));
  await lint;
  await check("folder graph", () => inTurn(["depcruise", "src", "--config", ".dependency-cruiser.mjs"]));
  done();

  const jestReport = join(STAMPS, "jest.json");
  rmSync(jestReport, { force: true });
  await stage("unit, reference and server tests", () =>
    run(bin("jest"), ["--json", `--outputFile=${jestReport}`, "--silent"], { mayFail: true }),
  );
  const units = readReport(jestReport);
  passed += units?.numPassedTests ?? 0;
  failed += units ? units.numFailedTests + units.numRuntimeErrorTestSuites : 1;

  const e2eReport = join(STAMPS, "playwright.json");
  rmSync(e2eReport, { force: true });
  await stage("browser tests", () =>
    run(bin("playwright"), ["test"], {
      mayFail: true,
      extraEnv: { LANTERN_CHROMIUM: browser, PLAYWRIGHT_JSON_OUTPUT_NAME: e2eReport },
    }),
  );
  const seen = readReport(e2eReport)?.stats;
  passed += seen?.expected ?? 0;
  failed += seen ? seen.unexpected + seen.flaky : 1;

  say("\nTimes, in seconds");
  for (const [name, seconds] of times) say(`  ${name.padEnd(34)}${seconds.toFixed(1).padStart(8)}`);
  say(`  ${"all".padEnd(34)}${((Date.now() - began) / 1000).toFixed(1).padStart(8)}\n`);
  process.stdout.write(`${passed} passed, ${failed} failed\n`);
  process.exit(failed === 0 ? 0 : 1);
}
