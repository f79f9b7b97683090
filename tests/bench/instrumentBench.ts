import { spawn } from "node:child_process";
import { createHash, randomUUID } from "node:crypto";
import { copyFileSync, mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { eq } from "drizzle-orm";
import { message, SCENARIOS } from "../../src/instruments/scenarios";
import { openDatabase, type Db } from "../../src/server/db/database";
import { detectors, people, sessions } from "../../src/server/db/schema";
import { DEMO_DETECTORS } from "../../src/server/demo/demoPeople";
import { seedDemo } from "../../src/server/demo/seedDemo";
import { receive } from "../../src/server/permit/instruments";

/** How long from a reading over its limit to a stopped permit, and to an open screen that is told. */

const HOME = process.env.LANTERN_HOME ?? process.cwd();
const TOKEN = DEMO_DETECTORS[0].token;
const PERMIT = "P-0002";
const TRIPS = 5;
const CLEAN = 200;
const PORT = 4396;

const median = (all: readonly number[]) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)]!;
const fixed = (ms: number) => ms.toFixed(1);
const folder = mkdtempSync(join(tmpdir(), "lantern-bench-"));
const seed = join(folder, "seed.db");

const first = openDatabase(seed);
const SERVED = {
  NODE_ENV: "production",
  LANTERN_DEMO: "1",
  LANTERN_HOME: HOME,
  LANTERN_LOG: "warn",
  PORT: String(PORT),
} as const;
await seedDemo(first, join(HOME, "demo"), join(folder, "head.json"), Date.now());
post(first);
first.$client.pragma("wal_checkpoint(TRUNCATE)");
first.$client.close();

/** GD-1 stands at the edge and sends. */
function post(db: Db): void {
  const now = Date.now();
  db.update(detectors)
    .set({ permit: PERMIT, place: "at the edge", postedAt: now, lastAt: now })
    .where(eq(detectors.id, "GD-1"))
    .run();
}

let sequence = Math.floor(Date.now() / 1000);
const clean = () => message(SCENARIOS.clean!, 0, ++sequence)!;
const bad = () => message(SCENARIOS.pocket!, 20, ++sequence)!;

const cleanTimes: number[] = [];
const tripTimes: number[] = [];
for (let trip = 0; trip < TRIPS; trip++) {
  const path = join(folder, `trip-${trip}.db`);
  copyFileSync(seed, path);
  const db = openDatabase(path);
  post(db);
  const head = join(folder, `head-${trip}.json`);
  copyFileSync(join(folder, "head.json"), head);
  const timed = (sent: object) => {
    const start = performance.now();
    const answer = receive(TOKEN, sent, Date.now(), db, head);
    return { ms: performance.now() - start, answer };
  };
  for (let i = 0; i < CLEAN / TRIPS; i++) cleanTimes.push(timed(clean()).ms);
  const { ms, answer } = timed(bad());
  if (!answer.ok || answer.stopped !== PERMIT)
    throw new Error(`the reading stopped nothing: ${JSON.stringify(answer)}`);
  tripTimes.push(ms);
  db.$client.close();
}

/** By a real server: from the instrument's request to the event on an open screen's stream. */
async function toTheScreen(): Promise<number[]> {
  const found: number[] = [];
  for (let trip = 0; trip < TRIPS; trip++) {
    const data = join(folder, `site-${trip}`);
    mkdirSync(data);
    const path = join(data, "heavy-lantern.db");
    copyFileSync(seed, path);
    copyFileSync(join(folder, "head.json"), join(data, "ledger-head.json"));
    const db = openDatabase(path);
    post(db);
    const cookie = randomUUID();
    const person = db.select().from(people).where(eq(people.signIn, "maren")).get()!;
    const now = Date.now();
    const tokenHash = createHash("sha256").update(cookie).digest("hex");
    db.insert(sessions)
      .values({ tokenHash, personId: person.id, createdAt: now, expiresAt: now + 3_600_000, seenAt: now })
      .run();
    db.$client.close();
    const server = spawn("node", [join(HOME, "tools/serve.mjs")], {
      cwd: HOME,
      env: { ...process.env, ...SERVED, LANTERN_DATA: data },
    });
    try {
      await new Promise<void>((ready) => server.stdout.on("data", (text) => String(text).includes("Ready") && ready()));
      const send = (sent: object) =>
        fetch(`http://127.0.0.1:${PORT}/api/instruments`, {
          method: "POST",
          headers: { authorization: `Bearer ${TOKEN}` },
          body: JSON.stringify(sent),
        });
      await send(clean());
      const stream = await fetch(`http://127.0.0.1:${PORT}/api/events`, {
        headers: { cookie: `lantern_session=${cookie}` },
      });
      if (stream.status !== 200) throw new Error(`no events: ${stream.status}`);
      const reader = stream.body!.getReader();
      const text = new TextDecoder();
      const start = performance.now();
      void send(bad());
      for (let heard = ""; !heard.includes('"kind":"alarm"');) {
        const part = await reader.read();
        if (part.done) throw new Error("the stream ended");
        heard += text.decode(part.value);
      }
      found.push(performance.now() - start);
      await reader.cancel();
    } finally {
      const ended = new Promise((done) => server.once("exit", done));
      server.kill("SIGKILL");
      await ended;
    }
  }
  return found;
}

const screens = await toTheScreen();
rmSync(folder, { recursive: true, force: true });
const base = median(cleanTimes);
process.stdout.write(`
| from an instrument's message to                  | median, ms | longest, ms | ÷ a clean message |
| ------------------------------------------------ | ---------: | ----------: | ----------------: |
| taken down, nothing wrong                        | ${fixed(base)} | ${fixed(Math.max(...cleanTimes))} | 1.0 |
| permit stopped, on disk                          | ${fixed(median(tripTimes))} | ${fixed(Math.max(...tripTimes))} | ${fixed(median(tripTimes) / base)} |
| told to an open screen, over HTTP                | ${fixed(median(screens))} | ${fixed(Math.max(...screens))} | ${fixed(median(screens) / base)} |

${TRIPS} trips, ${CLEAN} clean messages. Node ${process.version}. Times of one run; compare only within it.
`);
