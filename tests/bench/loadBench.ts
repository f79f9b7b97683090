import { spawn } from "node:child_process";
import { randomUUID } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { eq } from "drizzle-orm";
import { jobs, people } from "../../src/server/db/schema";
import type { PersonId } from "../../src/core/people/roles";
import { DEMO_PIN } from "../../src/server/demo/demoPeople";
import { hashPin, secretFits } from "../../src/server/people/secrets";
import { realServer, share, timed } from "../support/realServer";
import { seededRandom } from "../support/seededRandom";

/**
 * A site at work: everybody signed in with a page open, acts with PINs at their real cost, arriving at random; then people who
 * do one thing after another as fast as they are answered. Beside it, in the same run, what nothing can be faster than.
 */

const PEOPLE = 300;
const A_SECOND = 20;
const LOAD_S = 60;
const CLIENTS = 60;
const CLOSED_S = 60;
/** What a site of this size does in a day. */
const DAY_ACTS = 5_000;
const AT_ONCE = 6;
/** A crew that comes on together at one box. */
const CREW = 20;

// Secrets cost here what they cost in use.
process.env.LANTERN_TEST_HASHES = "0";
const pinHash = await hashPin(DEMO_PIN);
const names = Array.from({ length: PEOPLE }, (_, i) => `person${i}`);
const server = await realServer({
  port: 4395,
  prepare: (db) => {
    const crew: PersonId[] = [];
    for (const name of names) {
      const one = {
        id: randomUUID() as PersonId,
        name,
        signIn: name,
        roles: ["isolator" as const],
        competences: [],
        firm: "",
      };
      db.insert(people)
        .values({ ...one, passwordHash: pinHash, pinHash })
        .run();
      if (crew.length < CREW) crew.push(one.id);
    }
    const job = db.select().from(jobs).where(eq(jobs.number, "J-0001")).get()!;
    db.update(jobs)
      .set({ crew: [...job.crew, ...crew] })
      .where(eq(jobs.id, job.id))
      .run();
  },
});
const ms = (value: number) => value.toFixed(value < 10 ? 1 : 0);
const rows: string[] = [];
function row(what: string, times: readonly number[], beside = "") {
  const figures = [0.5, 0.95, 0.99, 1].map((part) => ms(share(times, part)));
  rows.push(`| ${what} | ${times.length} | ${figures.join(" | ")} | ${beside} |`);
}
const wait = (for_ms: number) => new Promise((resolve) => setTimeout(resolve, for_ms));
const resident_MB = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, "utf8"))![1]) / 1024;

/** Everybody's open page, in a process of its own: it hears, and looks at nothing again. */
const SCREENS = `
  const lines = (await import("node:readline")).createInterface(process.stdin);
  lines.once("line", async (line) => {
    for (const headers of JSON.parse(line)) {
      const stream = await fetch(process.argv[1], { headers });
      void stream.body.pipeTo(new WritableStream()).catch(() => undefined);
    }
    console.log("open");
  });
  lines.once("close", () => process.exit(0));`;

let lock = 0;
/** A lock of one's own is entered: a PIN, a row of state, a row of the record, on the disk. */
const enter = (who: string) =>
  server.act(who, "gear.enter", { kind: "lock", number: `Z-${++lock}`, owner: server.idOf(who) });

try {
  // What nothing can be faster than.
  const folder = mkdtempSync(join(tmpdir(), "lantern-commit-"));
  const raw = new Database(join(folder, "raw.db"));
  raw.pragma("journal_mode = WAL");
  raw.pragma("synchronous = FULL");
  raw.exec("CREATE TABLE t (n INTEGER, words TEXT)");
  const insert = raw.prepare("INSERT INTO t VALUES (?, ?)");
  const commits = Array.from({ length: 300 }, (_, i) => {
    const from = performance.now();
    insert.run(i, "x".repeat(1000));
    return performance.now() - from;
  });
  raw.close();
  rmSync(folder, { recursive: true, force: true });
  const hashes: number[] = [];
  for (let i = 0; i < 40; i++) {
    const from = performance.now();
    await secretFits(pinHash, DEMO_PIN);
    hashes.push(performance.now() - from);
  }
  const empty: number[] = [];
  for (let i = 0; i < 60; i++) empty.push(await timed(() => fetch(`${server.address}/sign-in`)));
  row("a raw commit to the same disk", commits);
  row("one PIN compared, nothing else running", hashes);
  row("an empty page (sign-in)", empty.slice(10));

  const screens = spawn("node", ["--input-type=module", "-e", SCREENS, `${server.address}/api/events`], {
    stdio: ["pipe", "pipe", "inherit"],
  });
  screens.stdin.write(`${JSON.stringify(names.map((name) => server.as(name)))}\n`);
  await new Promise((open) => screens.stdout.once("data", open));
  for (const name of names.slice(0, 5)) await timed(() => enter(name));

  // All of a crew at once, at one box.
  const began = performance.now();
  const on = await Promise.all(
    names.slice(0, CREW).map((name, i) =>
      timed(() =>
        server.act(name, "permit.sign-on", {
          permit: "P-0001",
          lock: `H-${500 + i}`,
          answer: "CY-260",
          briefed: true,
        }),
      ),
    ),
  );
  row(`${CREW} people sign on at one box together`, on, `${ms(performance.now() - began)} ms for all`);

  // At random: nobody waits for anybody else.
  const random = seededRandom(20);
  const next_ms = () => (-Math.log(1 - random.below(1_000_000) / 1_000_000) / A_SECOND) * 1000;
  const seen = server.lines.length;
  const open: Promise<number>[] = [];
  const from = performance.now();
  for (let at = next_ms(); at < LOAD_S * 1000; at += next_ms()) {
    await wait(Math.max(0, from + at - performance.now()));
    open.push(timed(() => enter(names[random.below(PEOPLE)]!)));
  }
  const whole = await Promise.all(open);
  row(`an act with its PIN, ${A_SECOND} a second at random, ${PEOPLE} signed in, whole`, whole);
  type Line = { msg?: string; act?: string; took_ms: number; signing_ms: number };
  const logged = server.lines
    .slice(seen)
    .map((line) => JSON.parse(line) as Line)
    .filter(({ act }) => act === "gear.enter");
  row(
    "… of it the signature, with its wait",
    logged.map(({ signing_ms }) => signing_ms),
  );
  row(
    "… the rest, without the signature",
    logged.map(({ took_ms, signing_ms }) => took_ms - signing_ms),
  );

  // One thing after another, as fast as they are answered.
  const statuses = new Map<number, number>();
  const closed: number[] = [];
  const until = performance.now() + CLOSED_S * 1000;
  const pages = ["/", "/permits", "/permits/P-0001", "/locks", "/jobs/J-0001/walk"];
  const one = async (name: string, client: number) => {
    for (let i = 0; performance.now() < until; i++) {
      const began = performance.now();
      const path = `${server.address}${pages[(client + i) % pages.length]}`;
      const answer = await (i % 2 === 0 ? enter(name) : fetch(path, { headers: server.as(name) }));
      await answer.arrayBuffer();
      statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
      closed.push(performance.now() - began);
    }
  };
  await Promise.all(names.slice(0, CLIENTS).map(one));
  const faults = [...statuses].filter(([status]) => status >= 500);
  row(
    `${CLIENTS} people without a pause, acts and pages in turn, for ${CLOSED_S} s`,
    closed,
    `${(closed.length / CLOSED_S).toFixed(0)} a second`,
  );

  // A day's acts, some at once, and what the server holds after each quarter of them.
  const held = [resident_MB()];
  for (let quarter = 0; quarter < 4; quarter++) {
    for (let i = 0; i < DAY_ACTS / 4; i += AT_ONCE) {
      await Promise.all(
        Array.from({ length: AT_ONCE }, (_, k) =>
          timed(() => server.act("maren", "store.count", { lines: [{ thing: "chain", size: "", count: i + k }] }, "")),
        ),
      );
    }
    held.push(resident_MB());
  }
  screens.stdin.end();
  process.stdout.write(`
| | n | median, ms | p95, ms | p99, ms | longest, ms | |
| --- | ---: | ---: | ---: | ---: | ---: | --- |
${rows.join("\n")}

Answers to the people without a pause: ${[...statuses].map(([status, n]) => `${n} × ${status}`).join(", ")}; ${faults.length === 0 ? "no fault" : "FAULTS"}.
Memory of the server after that, and after each quarter of ${DAY_ACTS} more acts: ${held.map((one) => one.toFixed(0)).join(", ")} MB.
Node ${process.version}. Times of one run; compare only within it.
`);
} finally {
  await server.stop();
}
