// What ./lantern does: checks what it was given, installs what is missing, builds what is stale, then runs the command.
// Standard output belongs to the command; everything said on the way goes to standard error.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { createServer } from "node:net";
import { join, resolve } from "node:path";
import { createInterface } from "node:readline";
import { COMMANDS, HELP, helpOf } from "./lantern/commands.mjs";
import { holdWork } from "./lantern/lock.mjs";
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

async function isFree(port, host) {
  return new Promise((answer) => {
    const probe = createServer();
    probe.once("error", () => answer(false));
    probe.listen(port, host, () => probe.close(() => answer(true)));
  });
}

/** The demo takes the next free port; a site's address is written on its papers, and stays. */
async function portFor(wanted, host, isDemo) {
  for (let port = wanted; port < wanted + (isDemo ? 50 : 1); port++) if (await isFree(port, host)) return port;
  return fail(
    isDemo
      ? `no free port from ${wanted} on; set PORT`
      : `Port ${wanted} of ${host} is taken by another program, or is not yours to open. Set PORT, or end the other.`,
  );
}

/** Phones keep what was done without a network only where the browser trusts the address. */
const isTrusted = (host) => ["127.0.0.1", "localhost", "::1"].includes(host);

const HOST = process.env.LANTERN_HOST ?? "127.0.0.1";
const wantedPort = (isDemo) => portFor(Number(process.env.PORT ?? 4180), HOST, isDemo);

/** Serves until it is told to stop. A server that dies by itself ends this with a fault. */
async function serve(port, extraEnv, greeting) {
  for (const name of ["LANTERN_TEST_CLOCK", "LANTERN_TEST_HASHES"]) {
    if (env[name]) fail(`${name} is set: that is for tests only. Unset it, then start again.`);
  }
  const server = spawn("node", [join(HOME, "tools", "serve.mjs")], {
    cwd: HOME,
    env: { ...env, NODE_ENV: "production", ...certificate(), ...extraEnv, PORT: String(port), LANTERN_HOST: HOST },
    stdio: ["inherit", "pipe", "inherit"],
  });
  createInterface({ input: server.stdout }).on("line", (line) => {
    if (!line.startsWith("Ready ")) return process.stdout.write(`${line}\n`);
    const address = line.slice("Ready ".length);
    process.stdout.write(`\n  Heavy Lantern  ${address}\n${greeting}\n`);
    if (address.startsWith("http:") && !isTrusted(HOST)) {
      say("  Without HTTPS phones keep nothing while there is no network: give --cert and --key, or set LANTERN_URL.");
    }
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

/** `--cert FILE --key FILE`, as the server reads them. */
function certificate() {
  const after = (flag) => (args.includes(flag) ? { [flag]: args[args.indexOf(flag) + 1] } : {});
  const { "--cert": LANTERN_CERT, "--key": LANTERN_KEY } = { ...after("--cert"), ...after("--key") };
  return LANTERN_CERT ? { LANTERN_CERT, LANTERN_KEY } : {};
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
    const demoEnv = { LANTERN_DATA: demoData, LANTERN_DEMO: "1", LANTERN_LOG: env.LANTERN_LOG ?? "warn" };
    if (admin(["seed-demo"], demoEnv, false) !== 0) fail("the demo could not be made");
    await serve(
      await wantedPort(true),
      demoEnv,
      "  Demo: choose a person on the sign-in page. Everybody's PIN is 4711. Stop with Ctrl-C.",
    );
    break;
  }
  case "start": {
    // Before anything is made: who has to choose another port hears of it at once.
    const port = await wantedPort(false);
    make(install, bundle, build);
    if (admin(["prepare"], certificate()) !== 0) fail("the database could not be opened");
    await serve(port, {}, "  Stop with Ctrl-C.");
    break;
  }
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
