import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { bundled } from "../support/bundled";

const HOME = resolve(__dirname, "../..");

/** A disk of 40 MB in memory, in a mount of its own: it is gone with the process, and nobody else sees it. */
test("on a disk with no byte left work is stopped a hundred times in a row, and nothing else is done", () => {
  const program = bundled("tests/attack/fullDiskSite.ts", "full-disk.mjs");
  const disk = mkdtempSync(join(tmpdir(), "lantern-small-disk-"));
  const run = `mount -t tmpfs -o size=40m tmpfs "$0" && exec node "$1"`;
  const done = spawnSync("unshare", ["--map-root-user", "--mount", "sh", "-c", run, disk, program], {
    cwd: HOME,
    encoding: "utf8",
    env: {
      ...process.env,
      LANTERN_TEST_SITES: disk,
      LANTERN_RESERVE_MB: "8",
      LANTERN_HOME: HOME,
      LANTERN_TEST_HASHES: "1",
    },
  });
  rmSync(disk, { recursive: true, force: true });
  expect(done.stderr).toBe("");
  expect(JSON.parse(done.stdout)).toEqual({
    kept: true,
    refused: "disk full",
    stopped: 100,
    others: [],
    whole: expect.objectContaining({ ok: true }) as unknown,
    after: true,
    full: false,
  });
});
