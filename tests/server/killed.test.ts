import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { buildSync } from "esbuild";
import Database from "better-sqlite3";
import { openDatabase, openToRead } from "../../src/server/db/database";
import { ATTACK_MS, IS_ATTACK } from "../support/attack";
import { verifyLedger } from "../../src/server/ledger/verify";

const HOME = resolve(__dirname, "../..");
const ROUNDS = IS_ATTACK ? 200 : 3 * Number(process.env.LANTERN_RUNS ?? 1);
const VERIFIED = IS_ATTACK ? 1000 : 30 * ROUNDS;

/**
 * A process does acts one after another and prints each one's id once it is acknowledged; it is killed with SIGKILL in
 * the middle. Whatever it acknowledged must be there, the chain whole, the database sound.
 */
describe("a server killed in the middle of its acts", () => {
  const folder = mkdtempSync(join(tmpdir(), "lantern-killed-"));
  const program = join(HOME, ".lantern", "killed.mjs");
  beforeAll(() => {
    buildSync({
      entryPoints: [join(__dirname, "actsForever.ts")],
      outfile: program,
      bundle: true,
      platform: "node",
      format: "esm",
      packages: "external",
    });
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  test(
    "loses nothing that was acknowledged",
    async () => {
      const acknowledged = new Set<string>();
      for (let round = 0; round < ROUNDS; round++) {
        const env = { ...process.env, LANTERN_DATA: folder, LANTERN_HOME: HOME };
        const worker = spawn("node", [program], { cwd: HOME, env });
        let rest = "";
        await new Promise<void>((ended) => {
          worker.stdout.on("data", (text) => {
            rest += String(text);
            const lines = rest.split("\n");
            rest = lines.pop()!;
            for (const line of lines) acknowledged.add(line);
            // Kill at no particular moment: some acts in, whatever it is doing.
            if (acknowledged.size >= (round + 1) * 12 + round) worker.kill("SIGKILL");
          });
          worker.once("exit", () => ended());
        });
      }
      const db = openDatabase(join(folder, "heavy-lantern.db"));
      const known = new Set(db.$client.prepare("SELECT act_id FROM ledger").pluck().all() as string[]);
      const jobs = db.$client.prepare("SELECT count(*) FROM jobs").pluck().get();
      const done = db.$client
        .prepare("SELECT count(*) FROM ledger WHERE type = 'job.ask' AND outcome = 'done'")
        .pluck()
        .get();
      expect(acknowledged.size).toBeGreaterThan(ROUNDS * 10);
      expect([...acknowledged].filter((id) => !known.has(id))).toEqual([]);
      expect(jobs).toBe(done);
      expect(verifyLedger(db.$client, join(folder, "ledger-head.json"))).toMatchObject({ ok: true });
      db.$client.close();
    },
    ATTACK_MS,
  );

  test(
    "verified again and again while it writes, it is whole every time",
    async () => {
      // Ten times as fast as a busy site. As fast as it can, the record grows quicker than it is read, and no end comes.
      const env = { ...process.env, LANTERN_DATA: folder, LANTERN_HOME: HOME, LANTERN_PACE_MS: "50" };
      const worker = spawn("node", [program], { cwd: HOME, env });
      const begun = new Promise<void>((resolve) => worker.stdout.once("data", () => resolve()));
      const ended = new Promise<void>((resolve) => worker.once("exit", () => resolve()));
      await begun;
      const rows = new Set<number>();
      const faults: string[] = [];
      for (let i = 0; i < VERIFIED; i++) {
        const client = openToRead(join(folder, "heavy-lantern.db"));
        const found = verifyLedger(client, join(folder, "ledger-head.json"));
        client.close();
        if (found.ok) rows.add(found.rows);
        else faults.push(...found.faults);
        await new Promise((resolve) => setTimeout(resolve, 3));
      }
      worker.kill("SIGKILL");
      await ended;
      expect(faults).toEqual([]);
      // It wrote meanwhile.
      expect(rows.size).toBeGreaterThan(5);
    },
    ATTACK_MS,
  );

  test("and the database file itself is sound", () => {
    const db = new Database(join(folder, "heavy-lantern.db"), { readonly: true });
    expect(db.pragma("integrity_check", { simple: true })).toBe("ok");
    expect(db.pragma("foreign_key_check")).toEqual([]);
    db.close();
  });
});
