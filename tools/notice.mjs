// npm run notice: writes NOTICE, the packages that the running application stands on, with their licences. Not a test.
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const listed = spawnSync("npm", ["ls", "--omit=dev", "--all", "--parseable", "--loglevel=error"], {
  cwd: HOME,
  encoding: "utf8",
});
const packages = new Map();
for (const folder of listed.stdout.split("\n")) {
  const file = join(folder, "package.json");
  if (folder === "" || resolve(folder) === HOME || !existsSync(file)) continue;
  const { name, version, license } = JSON.parse(readFileSync(file, "utf8"));
  packages.set(`${name} ${version}`, typeof license === "string" ? license : "see the package");
}
const rows = [...packages].sort(([a], [b]) => (a < b ? -1 : 1)).map(([what, licence]) => `${what}: ${licence}`);
writeFileSync(
  join(HOME, "NOTICE"),
  `Heavy Lantern runs on these packages, each under its own licence; the texts lie in node_modules beside each.\n\n${rows.join("\n")}\n`,
);
process.stdout.write(`${rows.length} packages\n`);
