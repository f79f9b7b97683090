import { spawn } from "node:child_process";
import { createHash, randomUUID } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openDatabase, type Db } from "../../src/server/db/database";
import { people, sessions } from "../../src/server/db/schema";
import { DEMO_PIN } from "../../src/server/demo/demoPeople";
import { seedDemo } from "../../src/server/demo/seedDemo";

/** A demo site served as it is in use, from a build that is there, and everybody signed in. */
export type RealServer = Readonly<{
  address: string;
  pid: number;
  /** Headers of somebody who is signed in, by sign-in name. */
  as: (signIn: string) => Readonly<{ cookie: string }>;
  idOf: (signIn: string) => string;
  act: (signIn: string, type: string, input: object, pin?: string) => Promise<Response>;
  /** Lines that it has written, one of JSON each. */
  lines: readonly string[];
  stop: () => Promise<void>;
}>;

export async function realServer({
  port,
  home = process.env.LANTERN_HOME ?? process.cwd(),
  prepare = () => undefined,
  more = {},
}: Readonly<{
  port: number;
  home?: string;
  /** What is to be there beside the demo. */
  prepare?: (db: Db) => void;
  more?: Readonly<Record<string, string>>;
}>): Promise<RealServer> {
  const data = mkdtempSync(join(tmpdir(), "lantern-served-"));
  const db = openDatabase(join(data, "heavy-lantern.db"));
  await seedDemo(db, join(home, "demo"), join(data, "ledger-head.json"), Date.now());
  prepare(db);
  const now = Date.now();
  const cookies = new Map<string, string>();
  const ids = new Map<string, string>();
  for (const { id, signIn } of db.select({ id: people.id, signIn: people.signIn }).from(people).all()) {
    const token = randomUUID();
    cookies.set(signIn, token);
    ids.set(signIn, id);
    const tokenHash = createHash("sha256").update(token).digest("hex");
    db.insert(sessions)
      .values({ tokenHash, personId: id, createdAt: now, expiresAt: now + 14 * 3_600_000, seenAt: now })
      .run();
  }
  db.$client.pragma("wal_checkpoint(TRUNCATE)");
  db.$client.close();
  const server = spawn("node", [join(home, "tools/serve.mjs")], {
    cwd: home,
    env: {
      ...process.env,
      NODE_ENV: "production",
      LANTERN_DATA: data,
      LANTERN_DEMO: "1",
      LANTERN_HOME: home,
      LANTERN_LOG: "info",
      PORT: String(port),
      ...more,
    },
  });
  const kill = () => server.kill("SIGKILL");
  // However this ends, no server stays behind.
  process.on("exit", kill);
  const lines: string[] = [];
  let rest = "";
  server.stderr.on("data", (text) => process.stderr.write(String(text)));
  await new Promise<void>((ready, failed) => {
    server.stdout.on("data", (text) => {
      rest += String(text);
      if (rest.includes("Ready")) ready();
      const whole = rest.split("\n");
      rest = whole.pop()!;
      lines.push(...whole);
    });
    server.once("exit", () => failed(new Error("the server stopped")));
  });
  const address = `http://127.0.0.1:${port}`;
  const as = (signIn: string) => {
    const token = cookies.get(signIn);
    if (token === undefined) throw new Error(`nobody is called ${signIn}`);
    return { cookie: `lantern_session=${token}` };
  };
  return {
    address,
    pid: server.pid!,
    as,
    idOf: (signIn) => ids.get(signIn) ?? "",
    lines,
    act: (signIn, type, input, pin = DEMO_PIN) =>
      fetch(`${address}/api/acts`, {
        method: "POST",
        headers: { ...as(signIn), "content-type": "application/json" },
        body: JSON.stringify({ version: 1, actId: randomUUID(), type, input, ...(pin ? { pin } : {}) }),
      }),
    stop: async () => {
      const ended = new Promise((done) => server.once("exit", done));
      kill();
      await ended;
      process.off("exit", kill);
      rmSync(data, { recursive: true, force: true });
    },
  };
}

/** How long the answer took to come whole, in ms; throws where it is a refusal or a fault. */
export async function timed(ask: () => Promise<Response>): Promise<number> {
  const start = performance.now();
  const answer = await ask();
  const text = await answer.text();
  if (!answer.ok) throw new Error(`${answer.status}: ${text.slice(0, 300)}`);
  return performance.now() - start;
}

/** Of a list of times that below which this part of them lies. */
export function share(times: readonly number[], part: number): number {
  const sorted = [...times].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))]!;
}
