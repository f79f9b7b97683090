// npm run bench [engine|schedule|instruments|server|load|conflicts]: times the engine beside igraph and networkx, and schedules and calculators beside each
// other, each in one run, and writes docs/benchmarks.md. Not a test.
import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { buildSync } from "esbuild";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const BENCHES = {
  engine: "bench.ts",
  schedule: "scheduleBench.ts",
  instruments: "instrumentBench.ts",
  server: "serverBench.ts",
  load: "loadBench.ts",
  conflicts: "conflictBench.ts",
};
const wanted = process.argv[2];
if (wanted !== undefined && !(wanted in BENCHES)) {
  process.stderr.write(`no bench ${wanted}; one of ${Object.keys(BENCHES).join(", ")}\n`);
  process.exit(1);
}
const page = join(HOME, "docs", "benchmarks.md");

for (const [name, source] of Object.entries(BENCHES)) {
  if (wanted !== undefined && wanted !== name) continue;
  const program = join(HOME, ".lantern", `bench-${name}.mjs`);
  mkdirSync(dirname(program), { recursive: true });
  buildSync({
    entryPoints: [join(HOME, "tests/bench", source)],
    outfile: program,
    bundle: true,
    platform: "node",
    format: "esm",
    alias: { "@": join(HOME, "src") },
    // The database driver is compiled: it stays outside.
    ...(["instruments", "server", "load"].includes(name) ? { packages: "external" } : {}),
  });
  const done = spawnSync("node", ["--max-old-space-size=4096", "--expose-gc", program], {
    cwd: HOME,
    env: { ...process.env, LANTERN_HOME: HOME },
    stdio: ["inherit", "pipe", "inherit"],
    encoding: "utf8",
  });
  if (done.status !== 0) process.exit(1);
  process.stdout.write(done.stdout);
  const [from, to] = [`<!-- ${name} figures -->\n`, `<!-- end of ${name} -->\n`];
  const text = readFileSync(page, "utf8");
  const [start, end] = [text.indexOf(from), text.indexOf(to)];
  if (start < 0 || end < start) throw new Error(`docs/benchmarks.md has no place for ${name}`);
  writeFileSync(page, `${text.slice(0, start)}${from}${done.stdout}${text.slice(end)}`);
}
