// Writes the table of docs/permit-life.md anew from the code: node tools/permitLifeDoc.mjs
import { buildSync } from "esbuild";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const folder = mkdtempSync(join(tmpdir(), "lantern-doc-"));
const outfile = join(folder, "table.mjs");
buildSync({ entryPoints: [join(HOME, "src/core/permit/life/lifeTable.ts")], bundle: true, format: "esm", outfile });
const { lifeTableMarkdown } = await import(outfile);
rmSync(folder, { recursive: true });
const path = join(HOME, "docs/permit-life.md");
const page = readFileSync(path, "utf8");
// Everything from the first line that begins with a bar to the mark at the end.
const table = /^\|[\s\S]*?(?=<!-- end of the table -->)/m;
if (!table.test(page)) throw new Error(`${path} has no table, or no mark at its end`);
writeFileSync(
  path,
  page.replace(table, () => `${lifeTableMarkdown().trim()}\n\n`),
);
