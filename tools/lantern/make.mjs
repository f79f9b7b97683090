// Installing and building, each only when something that it is made from has changed.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { fileURLToPath } from "node:url";

export const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..", "..");
export const STAMPS = join(HOME, ".lantern");

export const say = (text) => process.stderr.write(`${text}\n`);
export const fail = (text) => {
  say(text);
  process.exit(1);
};

export const env = {
  ...process.env,
  NEXT_TELEMETRY_DISABLED: "1",
  LANTERN_HOME: HOME,
  PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: "1",
};

/** Runs a program; its output goes to standard error unless `toStdout`. */
export function run(program, programArgs, { extraEnv = {}, toStdout = false, mayFail = false } = {}) {
  const stdio = ["inherit", toStdout ? "inherit" : 2, 2];
  const done = spawnSync(program, programArgs, { cwd: HOME, env: { ...env, ...extraEnv }, stdio });
  if (done.status !== 0 && !mayFail) fail(`${program} ${programArgs.slice(0, 3).join(" ")} failed`);
  return done.status ?? 1;
}

export const bin = (name) => join(HOME, "node_modules", ".bin", name);

/**
 * A hash over the contents of files and folders by their names within this folder, for telling whether anything changed
 * since a stamp was left. A folder that was moved or copied is the same.
 */
export function fingerprint(paths) {
  const hash = createHash("sha256");
  const walk = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) walk(join(path, name));
    } else if (!/\.test\.tsx?$/.test(path)) {
      hash.update(relative(HOME, path)).update("\0").update(readFileSync(path)).update("\0");
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

export function install() {
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
      // npm warns of settings that are meant for the compiler; its errors are still said.
      npm_config_loglevel: "error",
      npm_config_update_notifier: "false",
      // Whatever the caller's NODE_ENV says: without the development packages nothing can be built.
      npm_config_include: "dev",
      ...headers,
    };
    run("npm", ["ci"], { extraEnv });
  });
}

export function bundle() {
  unlessStamped(
    "bundle",
    [
      "src/core",
      "src/cli",
      "src/server",
      "src/workers",
      "src/instruments",
      "package-lock.json",
      "tools/lantern/make.mjs",
    ],
    ".lantern/cli.mjs",
    () => {
      const common = ["--bundle", "--platform=node", "--format=esm", "--target=node20", "--log-level=warning"];
      run(bin("esbuild"), ["src/cli/main.ts", ...common, "--minify-syntax", "--outfile=.lantern/cli.mjs"]);
      run(bin("esbuild"), ["src/cli/instruments.ts", ...common, "--outfile=.lantern/instruments.mjs"]);
      run(bin("esbuild"), ["src/cli/admin.ts", ...common, "--packages=external", "--outfile=.lantern/admin.mjs"]);
      for (const name of ["heavy", "hashing"]) {
        const to = `--outfile=.lantern/${name}.mjs`;
        run(bin("esbuild"), [`src/workers/${name}.worker.ts`, ...common, "--packages=external", to]);
      }
    },
  );
}

/** `typesChecked`: they were, just before, and are not checked again. */
export function build({ typesChecked = false } = {}) {
  const inputs = ["src", "public", "next.config.ts", "postcss.config.mjs", "package-lock.json", "tsconfig.json"];
  unlessStamped("build", inputs, ".next/BUILD_ID", () => {
    say("Building the application.");
    run(bin("next"), ["build"], { extraEnv: typesChecked ? { LANTERN_TYPES_CHECKED: "1" } : {} });
  });
}

export const admin = (adminArgs, extraEnv = {}, toStdout = true) =>
  run("node", [join(STAMPS, "admin.mjs"), ...adminArgs], { extraEnv, toStdout, mayFail: true });

/** Debian's Chromium, for the browser tests: found, or installed where that is allowed. */
export function chromium() {
  // Without a window of its own it is a sixth faster.
  const HEADLESS = "/usr/bin/chromium-headless-shell";
  const found = [process.env.LANTERN_CHROMIUM, HEADLESS, "/usr/bin/chromium", "/usr/bin/chromium-browser"].find(
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
