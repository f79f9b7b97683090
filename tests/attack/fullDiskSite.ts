import { closeSync, openSync, rmSync, writeSync } from "node:fs";
import { join } from "node:path";
import { verifyLedger } from "../../src/server/ledger/verify";
import { isDiskFull, keepReserve } from "../../src/server/runtime/reserve";
import { TestSite } from "../support/testSite";
import { atWork, openTwoJobs } from "../support/twoJobs";

/** Runs on a small disk: fills it to the last byte, and says what can be done then. */
async function main(): Promise<void> {
  const site = new TestSite();
  (globalThis as { heavyLanternDatabase?: unknown }).heavyLanternDatabase = site.db;
  await openTwoJobs(site);
  const { permit } = await atWork(site, { place: "T" });
  const kept = keepReserve(site.folder);
  const filler = join(site.folder, "filler");
  fill(filler);
  const ask = () =>
    site.act("cora", "job.ask", {
      title: "More work",
      work: "x".repeat(2000),
      faces: [{ place: "T", how: ["open"] }],
      windowFrom_ms: site.clock_ms,
      windowTo_ms: site.clock_ms + 1,
      holder: "hal",
      crew: [],
    });
  const ordinary: (string | boolean)[] = [];
  // What room the log still has in it is used up first.
  for (let i = 0; i < 200 && ordinary.at(-1) !== "disk full"; i++) {
    const answer = await ask();
    ordinary.push(answer.ok ? true : answer.code);
    if (!answer.ok && answer.code === "disk full") break;
    fill(filler);
  }
  let stopped = 0;
  const others: string[] = [];
  for (let i = 0; i < 100; i++) {
    const answer = await site.act("wim", "permit.stop", { permit, reason: `Smoke, time ${i}` }, { pin: "" });
    if (answer.ok) stopped++;
    else others.push(answer.code);
    const meanwhile = await ask();
    if (meanwhile.ok || meanwhile.code !== "disk full") others.push(`asked: ${meanwhile.ok ? "done" : meanwhile.code}`);
  }
  const whole = verifyLedger(site.db.$client, site.headFile);
  rmSync(filler);
  const after = await ask();
  process.stdout.write(
    JSON.stringify({ kept, refused: ordinary.at(-1), stopped, others, whole, after: after.ok, full: isDiskFull() }),
  );
}

/** Until nothing more fits. */
function fill(path: string): void {
  const file = openSync(path, "a");
  for (const size of [2 ** 16, 4096, 512, 1]) {
    const part = Buffer.alloc(size);
    for (;;) {
      try {
        writeSync(file, part);
      } catch {
        break;
      }
    }
  }
  closeSync(file);
}

void main();
