import { spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

export const HOME = resolve(import.meta.dirname, "../..");
const SEEDED = join(HOME, ".lantern", "seeded-for-tests");

/** On a memory disk where there is one: every act is forced to disk, and the tests would wait for that only. */
const FAST = existsSync("/dev/shm") ? "/dev/shm" : tmpdir();

/** Hashes cost nothing, and the clock may be moved: for tests, and refused by a server in use. */
export const TEST_ENVIRONMENT = {
  LANTERN_DEMO: "1",
  LANTERN_HOME: HOME,
  LANTERN_TEST_CLOCK: "1",
  LANTERN_LOG: "warn",
  LANTERN_TEST_HASHES: "1",
  NEXT_TELEMETRY_DISABLED: "1",
} as const;

export function seedSite(): void {
  rmSync(SEEDED, { recursive: true, force: true });
  const env = { ...process.env, ...TEST_ENVIRONMENT, LANTERN_DATA: SEEDED };
  const done = spawnSync("node", [join(HOME, ".lantern/admin.mjs"), "seed-demo"], { cwd: HOME, env, encoding: "utf8" });
  if (done.status !== 0) throw new Error(done.stdout + done.stderr);
}

/** A folder with a copy of the demo, for one server. */
export function copyOfSite(): string {
  const data = mkdtempSync(join(FAST, "lantern-e2e-"));
  cpSync(SEEDED, data, { recursive: true });
  return data;
}
