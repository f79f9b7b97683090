// Writes docs/schema anew from what reads the files: node tools/formatSchemas.mjs
import { buildSync } from "esbuild";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const folder = mkdtempSync(join(tmpdir(), "lantern-schema-"));
const outfile = join(folder, "schemas.mjs");
buildSync({ entryPoints: [join(HOME, "src/cli/formatSchemas.ts")], bundle: true, format: "esm", outfile });
const { formatSchemas } = await import(outfile);
rmSync(folder, { recursive: true });
for (const [name, schema] of Object.entries(formatSchemas())) {
  writeFileSync(join(HOME, "docs", "schema", name), `${JSON.stringify(schema, null, 2)}\n`);
}
