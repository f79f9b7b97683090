// What ./lantern does: checks what it was given, installs what is missing, builds what is stale, then runs the command.
// Standard output belongs to the command; everything said on the way goes to standard error.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { createServer } from "node:net";
import { join, resolve } from "node:path";
import { COMMANDS, HELP, helpOf } from "./lantern/commands.mjs";
import { holdFolder, holdWork } from "./lantern/lock.mjs";
import { admin, build, bundle, env, fail, HOME, install, say, STAMPS } from "./lantern/make.mjs";
import { test } from "./lantern/test.mjs";

const [asked = "help", ...given] = process.argv.slice(2);

if (asked === "--version" || asked === "version") {
  process.stdout.write(`${JSON.parse(readFileSync(join(HOME, "package.json"), "utf8")).version}\n`);
  process.exit(0);
}
if (asked === "--help" || asked === "-h" || asked === "help") {
  process.stdout.write(given[0] in COMMANDS ? helpOf(given[0]) : HELP);
  process.exit(0);
}
if (!(asked in COMMANDS)) fail(`unknown command ${asked}\n\n${HELP}`);
if (given.some((one) => one === "--help" || one === "-h")) {
  process.stdout.write(helpOf(asked));
  process.exit(0);
}

/** Paths are the caller's: read from where they stand, whichever folder the program runs in. */
const here = (path) => resolve(process.cwd(), path);
if (process.env.LANTERN_DATA) env.LANTERN_DATA = here(process.env.LANTERN_DATA);

const checked = COMMANDS[asked].check(given, { exists: (path) => existsSync(here(path)) });
if (checked !== null) fail(`${checked}\n\n${helpOf(asked)}`);
const args = given.map((one, index) => (COMMANDS[asked].isPath(index, given) ? here(one) : one));

async function freePort(wanted, host) {
  for (let port = wanted; port < wanted + 50; port++) {
    const free = await new Promise((answer) => {
      const probe = createServer();
      probe.once("error", () => answer(false));
      probe.listen(port, host, () => probe.close(() => answer(true)));
    });
    if (free) return port;
  }
  return fail(`no free port from ${wanted} on; set PORT`);
}

/** Serves until it is told to stop. A server that dies by itself ends this with a fault. */
async function serve(extraEnv, greeting) {
  for (const name of ["LANTERN_TEST_CLOCK", "LANTERN_TEST_HASHES"]) {
    if (env[name]) fail(`${name} is set: that is for tests only. Unset it, then start again.`);
  }
  const host = process.env.LANTERN_HOST ?? "127.0.0.1";
  const port = await freePort(Number(process.env.PORT ?? 4180), host);
  const next = join(HOME, "node_modules", "next", "dist", "bin", "next");
  const server = spawn("node", [next, "start", "-p", String(port), "-H", host], {
    cwd: HOME,
    env: { ...env, ...extraEnv },
    stdio: ["inherit", "pipe", "inherit"],
  });
  let greeted = false;
  server.stdout.on("data", (text) => {
    if (greeted || !String(text).includes("Ready")) return;
    greeted = true;
    process.stdout.write(`\n  Heavy Lantern  http://${host}:${port}\n${greeting}\n`);
  });
  let told = false;
  for (const signal of ["SIGINT", "SIGTERM"]) {
    process.on(signal, () => {
      told = true;
      server.kill(signal);
    });
  }
  server.on("exit", (code, signal) => {
    if (told) process.exit(0);
    say(`The server stopped by itself (${code === null ? signal : `code ${code}`}).`);
    process.exit(code === null || code === 0 ? 1 : code);
  });
}

const demoData = join(STAMPS, "demo");

/** Installs and builds what the command needs, while no other run of this folder does. */
function make(...parts) {
  const done = holdWork();
  for (const part of parts) part();
  done();
}

switch (asked) {
  case "demo": {
    make(install, bundle, build);
    const demoEnv = { LANTERN_DATA: demoData, LANTERN_DEMO: "1" };
    holdFolder(demoData, "The demo");
    if (admin(["seed-demo"], demoEnv, false) !== 0) fail("the demo could not be made");
    await serve(demoEnv, "  Demo: choose a person on the sign-in page. Everybody's PIN is 4711. Stop with Ctrl-C.");
    break;
  }
  case "start":
    make(install, bundle, build);
    holdFolder(env.LANTERN_DATA ?? join(HOME, "data"), "This site");
    if (admin(["prepare"]) !== 0) fail("the database could not be opened");
    await serve({}, "  Stop with Ctrl-C.");
    break;
  case "test":
    await test();
    break;
  case "trace":
  case "plan":
  case "check":
  case "calc":
    make(install, bundle);
    process.exit(spawnSync("node", [join(STAMPS, "cli.mjs"), asked, ...args], { stdio: "inherit", env }).status ?? 1);
    break;
  case "instruments":
    make(install, bundle);
    process.exit(spawnSync("node", [join(STAMPS, "instruments.mjs"), ...args], { stdio: "inherit", env }).status ?? 1);
    break;
  default:
    make(install, bundle);
    process.exit(admin([asked, ...args]));
}
