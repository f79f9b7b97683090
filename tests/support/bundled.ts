import { join } from "node:path";
import { buildSync } from "esbuild";

const HOME = join(__dirname, "../..");

/** A part of the server as one file that node runs by itself; where it lies. */
export function bundled(source: string, name: string): string {
  const outfile = join(HOME, ".lantern", name);
  buildSync({
    entryPoints: [join(HOME, source)],
    outfile,
    bundle: true,
    platform: "node",
    format: "esm",
    packages: "external",
    alias: { "server-only": join(HOME, "tests/support/empty.ts") },
  });
  return outfile;
}
