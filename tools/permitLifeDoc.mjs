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
const [head, tail] = [page.indexOf("| act |"), page.indexOf("<!-- end of the table -->")];
writeFileSync(path, `${page.slice(0, head)}${lifeTableMarkdown()}\n${page.slice(tail)}`);
