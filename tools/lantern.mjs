// What ./lantern does: installs what is missing, builds what is stale, then runs the command. Standard output belongs to
// the command; everything said on the way goes to standard error.
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const STAMPS = join(HOME, ".lantern");
const [command = "help", ...args] = process.argv.slice(2);

const say = (text) => process.stderr.write(`${text}\n`);
const fail = (text) => {
  say(text);
  process.exit(1);
};

const env = {
  ...process.env,
  NEXT_TELEMETRY_DISABLED: "1",
  LANTERN_HOME: HOME,
  PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: "1",
};

/** Runs a program; its output goes to standard error unless `toStdout`. */
function run(program, programArgs, { extraEnv = {}, toStdout = false, mayFail = false } = {}) {
  const stdio = ["inherit", toStdout ? "inherit" : 2, 2];
  const done = spawnSync(program, programArgs, { cwd: HOME, env: { ...env, ...extraEnv }, stdio });
  if (done.status !== 0 && !mayFail) fail(`${program} ${programArgs.slice(0, 3).join(" ")} failed`);
  return done.status ?? 1;
}

const bin = (name) => join(HOME, "node_modules", ".bin", name);

/** A hash over the contents of files and folders, for telling whether anything changed since a stamp was left. */
function fingerprint(paths) {
  const hash = createHash("sha256");
  const walk = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) walk(join(path, name));
    } else if (!path.endsWith(".test.ts") && !path.endsWith(".test.tsx")) {
      hash.update(path).update(readFileSync(path));
    }
  };
  for (const path of paths) walk(join(HOME, path));
  return hash.digest("hex");
}

function unlessStamped(name, paths, product, work) {
  const stamp = join(STAMPS, `${name}.stamp`);
  const print = fingerprint(paths);
  if (existsSync(join(HOME, product)) && existsSync(stamp) && readFileSync(stamp, "utf8") === print) return;
  work();
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(stamp, print);
}

function install() {
  unlessStamped("install", ["package-lock.json"], "node_modules/next/package.json", () => {
    say("Installing packages. The database driver is compiled, which takes a few minutes the first time.");
    const [major, minor] = process.versions.node.split(".").map(Number);
    if (major < 20 || (major === 20 && minor < 9)) fail(`Node.js 20.9 or newer is needed; this is ${process.version}`);
    if (spawnSync("g++", ["--version"]).status !== 0 && spawnSync("c++", ["--version"]).status !== 0) {
      fail("A C++ compiler is needed and was not found. On Debian: apt-get install g++ make");
    }
    if (spawnSync("python3", ["--version"]).status !== 0)
      fail("python3 is needed to compile the database driver and was not found");
    // Headers beside the node binary spare node-gyp a download.
    const prefix = resolve(dirname(process.execPath), "..");
    const headers = existsSync(join(prefix, "include", "node", "node.h")) ? { npm_config_nodedir: prefix } : {};
    const extraEnv = {
      npm_config_build_from_source: "true",
      npm_config_audit: "false",
      npm_config_fund: "false",
      ...headers,
    };
    run("npm", ["ci"], { extraEnv });
  });
}

function bundle() {
  unlessStamped(
    "bundle",
    ["src/core", "src/cli", "src/server", "src/instruments", "package-lock.json"],
    ".lantern/cli.mjs",
    () => {
      const common = ["--bundle", "--platform=node", "--format=esm", "--target=node20", "--log-level=warning"];
      run(bin("esbuild"), ["src/cli/main.ts", ...common, "--minify-syntax", "--outfile=.lantern/cli.mjs"]);
      run(bin("esbuild"), ["src/cli/instruments.ts", ...common, "--outfile=.lantern/instruments.mjs"]);
      run(bin("esbuild"), ["src/cli/admin.ts", ...common, "--packages=external", "--outfile=.lantern/admin.mjs"]);
    },
  );
}

function build() {
  const inputs = ["src", "public", "next.config.ts", "postcss.config.mjs", "package-lock.json", "tsconfig.json"];
  unlessStamped("build", inputs, ".next/BUILD_ID", () => {
    say("Building the application.");
    run(bin("next"), ["build"]);
  });
}

const admin = (adminArgs, extraEnv = {}, toStdout = true) =>
  run("node", [join(STAMPS, "admin.mjs"), ...adminArgs], { extraEnv, toStdout, mayFail: true });

async function freePort(wanted) {
  for (let port = wanted; port < wanted + 50; port++) {
    const free = await new Promise((answer) => {
      const probe = createServer();
      probe.once("error", () => answer(false));
      probe.listen(port, "127.0.0.1", () => probe.close(() => answer(true)));
    });
    if (free) return port;
  }
  return fail(`no free port from ${wanted} on; set PORT`);
}

async function serve(extraEnv, greeting) {
  const port = await freePort(Number(process.env.PORT ?? 4180));
  const host = process.env.LANTERN_HOST ?? "127.0.0.1";
  const server = spawn(
    "node",
    [join(HOME, "node_modules", "next", "dist", "bin", "next"), "start", "-p", String(port), "-H", host],
    {
      cwd: HOME,
      env: { ...env, ...extraEnv },
      stdio: ["inherit", "pipe", "inherit"],
    },
  );
  let greeted = false;
  server.stdout.on("data", (text) => {
    if (!greeted && String(text).includes("Ready")) {
      greeted = true;
      process.stdout.write(`\n  Heavy Lantern  http://${host}:${port}\n${greeting}\n`);
    }
  });
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
  server.on("exit", (code) => process.exit(code ?? 0));
}

/** Debian's Chromium, for the browser tests: found, or installed where that is allowed. */
function chromium() {
  const found = [process.env.LANTERN_CHROMIUM, "/usr/bin/chromium", "/usr/bin/chromium-browser"].find(
    (path) => path && existsSync(path),
  );
  if (found) return found;
  const isRoot = process.getuid?.() === 0;
  if (!existsSync("/usr/bin/apt-get") || !isRoot) {
    fail(
      "Chromium is needed for the browser tests. Install it (Debian: apt-get install chromium) or set LANTERN_CHROMIUM.",
    );
  }
  say("Installing Debian's Chromium for the browser tests.");
  run("apt-get", ["update", "-qq"], { mayFail: true });
  run("apt-get", ["install", "-y", "-qq", "--no-install-recommends", "chromium"], {
    extraEnv: { DEBIAN_FRONTEND: "noninteractive" },
  });
  return "/usr/bin/chromium";
}

function test() {
  install();
  bundle();
  const checks = [
    [
      "types",
      () => run(bin("next"), ["typegen"], { mayFail: true }) || run(bin("tsc"), ["--noEmit"], { mayFail: true }),
    ],
    [
      "lint",
      () =>
        run(bin("eslint"), ["."], { mayFail: true }) ||
        run(bin("prettier"), ["--check", "--log-level=warn", "."], { mayFail: true }),
    ],
  ];
  let passed = 0;
  let failed = 0;
  for (const [name, check] of checks) {
    say(`— ${name}`);
    if (check() === 0) passed++;
    else {
      failed++;
      say(`${name} failed`);
    }
  }
  mkdirSync(STAMPS, { recursive: true });
  say("— unit and reference tests");
  const jestReport = join(STAMPS, "jest.json");
  run(bin("jest"), ["--json", `--outputFile=${jestReport}`, "--silent"], { mayFail: true });
  const units = readReport(jestReport);
  passed += units?.numPassedTests ?? 0;
  failed += units ? units.numFailedTests + units.numRuntimeErrorTestSuites : 1;

  say("— build");
  build();
  say("— browser tests");
  const e2eReport = join(STAMPS, "playwright.json");
  run(bin("playwright"), ["test"], {
    mayFail: true,
    extraEnv: { LANTERN_CHROMIUM: chromium(), PLAYWRIGHT_JSON_OUTPUT_NAME: e2eReport },
  });
  const browser = readReport(e2eReport)?.stats;
  passed += browser?.expected ?? 0;
  failed += browser ? browser.unexpected + browser.flaky : 1;
  process.stdout.write(`${passed} passed, ${failed} failed\n`);
  process.exit(failed === 0 ? 0 : 1);
}

function readReport(path) {
  try {
    return JSON.parse(readFileSync(path, "utf8"));
  } catch {
    return null;
  }
}

const HELP = `Heavy Lantern

  ./lantern demo                          the demo plant and its day of work, fresh each time
  ./lantern start                         your own site's data (LANTERN_DATA, default ./data)
  ./lantern test                          everything that must pass
  ./lantern trace|plan|check FILE…        the engine on files, JSON out
  ./lantern calc NAME '{…}'               one calculator, JSON in (or on standard input) and out
  ./lantern person NAME SIGN-IN ROLES [COMPETENCES]
  ./lantern instrument ID gas|gauge       enters a detector or gauge and prints its token
  ./lantern instruments SCENARIO          plays a simulated instrument to a running server
  ./lantern import SIGN-IN FILE…          a plant register in, signed with LANTERN_PIN
  ./lantern export [FILE]                 the plant register out
  ./lantern backup [FILE]                 a copy of the database
  ./lantern verify                        checks the ledger's chain and the database
`;

const demoEnv = { LANTERN_DATA: join(STAMPS, "demo"), LANTERN_DEMO: "1" };

switch (command) {
  case "demo":
    install();
    bundle();
    build();
    if (admin(["seed-demo"], demoEnv, false) !== 0) fail("the demo could not be made");
    await serve(demoEnv, "  Demo: choose a person on the sign-in page. Everybody's PIN is 4711. Stop with Ctrl-C.");
    break;
  case "start":
    install();
    bundle();
    build();
    if (admin(["prepare"]) !== 0) fail("the database could not be opened");
    await serve({}, "  Stop with Ctrl-C.");
    break;
  case "test":
    test();
    break;
  case "trace":
  case "plan":
  case "check":
  case "calc":
    install();
    bundle();
    process.exit(spawnSync("node", [join(STAMPS, "cli.mjs"), command, ...args], { stdio: "inherit", env }).status ?? 1);
    break;
  case "instruments":
    install();
    bundle();
    process.exit(spawnSync("node", [join(STAMPS, "instruments.mjs"), ...args], { stdio: "inherit", env }).status ?? 1);
    break;
  case "person":
  case "instrument":
  case "import":
  case "export":
  case "backup":
  case "verify":
    install();
    bundle();
    process.exit(admin([command, ...args]));
    break;
  case "help":
  case "--help":
    process.stdout.write(HELP);
    break;
  default:
    fail(`unknown command ${command}\n\n${HELP}`);
}
