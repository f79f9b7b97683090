// npm run bench: times the engine beside igraph and networkx in one run, and writes docs/benchmarks.md. Not a test.
import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { buildSync } from "esbuild";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const program = join(HOME, ".lantern", "bench.mjs");
mkdirSync(dirname(program), { recursive: true });
buildSync({
  entryPoints: [join(HOME, "tests/bench/bench.ts")],
  outfile: program,
  bundle: true,
  platform: "node",
  format: "esm",
  alias: { "@": join(HOME, "src") },
});
const done = spawnSync("node", ["--max-old-space-size=4096", program], {
  cwd: HOME,
  env: { ...process.env, LANTERN_HOME: HOME },
  stdio: ["inherit", "pipe", "inherit"],
  encoding: "utf8",
});
if (done.status !== 0) process.exit(1);
process.stdout.write(done.stdout);
const page = join(HOME, "docs", "benchmarks.md");
const [head, , tail] = readFileSync(page, "utf8").split(/<!-- figures -->\n|<!-- end -->\n/);
writeFileSync(page, `${head}<!-- figures -->\n${done.stdout}<!-- end -->\n${tail ?? ""}`);
