import { spawn, spawnSync } from "node:child_process";
import { request as askSecurely } from "node:https";
import { request as askPlainly, type IncomingMessage } from "node:http";
import { createServer } from "node:net";
import { readdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { HOME, TEST_ENVIRONMENT } from "./seeded";
import { expect, openSite, ownSite, type Site } from "./site";

const test = ownSite();

/** A certificate for this machine alone, made for these tests; it certifies nothing. */
const CERTIFICATE = {
  LANTERN_CERT: join(HOME, "tests/e2e/certificate/cert.pem"),
  LANTERN_KEY: join(HOME, "tests/e2e/certificate/key.pem"),
};

/** Data of servers that were started beside the worker's own, to be thrown away. */
const besides: string[] = [];
function folderBeside(site: Site, name: string): string {
  const folder = `${site.data}-${name}`;
  besides.push(folder);
  return folder;
}
test.afterEach(() => {
  for (const folder of besides.splice(0)) rmSync(folder, { recursive: true, force: true });
});

type Told = Readonly<{ status: number; headers: IncomingMessage["headers"]; body: string }>;

/** As a client writes it, whatever its headers say. */
async function ask(
  url: string,
  options: { method?: string; headers?: Record<string, string>; body?: string; ca?: Buffer } = {},
): Promise<Told> {
  const { body, ...rest } = options;
  return new Promise((done, failed) => {
    const request = (url.startsWith("https") ? askSecurely : askPlainly)(url, { ...rest, agent: false }, (response) => {
      const parts: Buffer[] = [];
      response.on("data", (part: Buffer) => parts.push(part));
      response.on("end", () =>
        done({ status: response.statusCode!, headers: response.headers, body: Buffer.concat(parts).toString("utf8") }),
      );
    });
    request.on("error", failed);
    request.end(body);
  });
}

const act = (origin: string, more: Record<string, string> = {}) => ({
  method: "POST",
  headers: { "content-type": "application/json", origin, ...more },
  body: JSON.stringify({ version: 1 }),
});

test("with a certificate it speaks HTTPS, says so to browsers, and its cookies go no other way", async ({
  browser,
}) => {
  await openSite(
    async ({ url }) => {
      const secure = url.replace("http:", "https:");
      const ca = readFileSync(CERTIFICATE.LANTERN_CERT);
      const page = await ask(`${secure}/sign-in`, { ca });
      expect(page.status).toBe(200);
      expect(page.headers["strict-transport-security"]).toMatch(/^max-age=\d{7,}$/);
      await expect(ask(`${url}/sign-in`)).rejects.toThrow();

      const context = await browser.newContext({ baseURL: secure, ignoreHTTPSErrors: true });
      const own = await context.newPage();
      await own.goto("/sign-in");
      await own.getByRole("button", { name: /Maren Tolve/ }).click();
      await expect(own.getByRole("heading", { name: "Board" })).toBeVisible();
      const session = (await context.cookies()).find(({ name }) => name === "lantern_session");
      expect(session).toMatchObject({ secure: true, httpOnly: true, sameSite: "Strict" });
      await context.close();
    },
    4331,
    CERTIFICATE,
  );
});

test("behind a proxy its address is the one that was set: signing in, acts and codes on papers go by it", async () => {
  await openSite(
    async ({ url }) => {
      const site = "https://lantern.example";
      // The proxy asks by its own name for this machine.
      const asked = { headers: { host: "10.0.0.7:9000" } };
      expect((await ask(`${url}/sign-in`, asked)).headers["strict-transport-security"]).toBeTruthy();
      // An act from the site's own pages is read, and refused for want of a sign-in only; from anywhere else it is not read.
      expect((await ask(`${url}/api/acts`, act(site, { host: "10.0.0.7:9000" }))).status).toBe(401);
      for (const origin of ["http://lantern.example", "https://lantern.example.net", url, "null"]) {
        const told = await ask(`${url}/api/acts`, act(origin, { "x-forwarded-host": new URL(url).host }));
        expect([origin, told.status]).toEqual([origin, 403]);
      }
    },
    4332,
    { LANTERN_URL: "https://lantern.example" },
  );
});

test("who asks is who is at the other end of the line, not who they say they are", async ({ browser }) => {
  await openSite(async ({ url }) => {
    // Nine wrong tries under nine addresses are nine of one address.
    const context = await browser.newContext({ baseURL: url });
    const page = await context.newPage();
    let address = 0;
    await page.route("**/sign-in", (route) =>
      route.continue({ headers: { ...route.request().headers(), "x-forwarded-for": `10.9.8.${address++}` } }),
    );
    await page.goto("/sign-in");
    const door = page.getByRole("form", { name: /sign in/i });
    for (let tries = 0; tries < 9; tries++) {
      await door.getByLabel("Sign-in name").fill("maren");
      await door.getByLabel("Password").fill("wrong");
      await door.getByRole("button").click();
      await expect(page.getByText(/Try again|Too many wrong tries/)).toBeVisible();
      if (await page.getByText(/Too many wrong tries/).isVisible()) break;
    }
    await expect(page.getByText(/Too many wrong tries/)).toBeVisible();
    await context.close();
  }, 4333);
});

test("a port that is taken, a zone that nobody knows and half a certificate end it before it begins", async ({
  site,
}) => {
  const start = (more: Record<string, string>) =>
    spawnSync("node", [join(HOME, "tools/lantern.mjs"), "start"], {
      cwd: HOME,
      encoding: "utf8",
      env: { ...process.env, LANTERN_DATA: folderBeside(site, "other"), ...more },
    });
  const port = 4334;
  const other = createServer();
  await new Promise<void>((ready) => other.listen(port, "127.0.0.1", ready));
  const taken = start({ PORT: String(port) });
  other.close();
  expect([taken.status, taken.stderr]).toEqual([1, expect.stringMatching(/Port 4334 of 127\.0\.0\.1 is taken/)]);
  const zone = start({ PORT: String(port), LANTERN_TIME_ZONE: "Nowhere/Town" });
  expect([zone.status, zone.stderr]).toEqual([1, expect.stringMatching(/LANTERN_TIME_ZONE is “Nowhere\/Town”: write/)]);
  const half = start({ PORT: String(port), LANTERN_KEY: CERTIFICATE.LANTERN_KEY });
  expect([half.status, half.stderr]).toEqual([1, expect.stringMatching(/go together/)]);
});

/** Runs a command of the front door until it greets or ends; what it said is in `out`. */
async function frontDoor(command: string, more: Record<string, string>) {
  const env = { ...process.env, LANTERN_LOG: "warn", ...more };
  const lantern = spawn(join(HOME, "lantern"), [command], { cwd: HOME, env });
  const said = { out: "" };
  const ended = new Promise<number | null>((done) => lantern.once("exit", done));
  await new Promise<void>((ready) => {
    for (const stream of [lantern.stdout, lantern.stderr]) {
      stream.on("data", (text) => {
        said.out += String(text);
        if (said.out.includes("Heavy Lantern  http")) ready();
      });
    }
    void ended.then(() => ready());
  });
  const stop = async () => {
    lantern.kill("SIGTERM");
    return ended;
  };
  return { said, ended, stop };
}

for (const [command, port] of [
  ["demo", 4371],
  ["start", 4391],
] as const) {
  test(`./lantern ${command} serves, once, and stops when told to`, async ({ site }) => {
    const settings = { LANTERN_DATA: folderBeside(site, "front") };
    const first = await frontDoor(command, { ...settings, PORT: String(port) });
    expect(first.said.out).toContain(`Heavy Lantern  http://127.0.0.1:${port}`);
    const door = await ask(`http://127.0.0.1:${port}/sign-in`);
    expect([door.status, door.body.includes("This is the demo")]).toEqual([200, command === "demo"]);
    expect(JSON.parse((await ask(`http://127.0.0.1:${port}/api/health`)).body)).toMatchObject({ ok: true });
    // Another on the same data would hear nothing of this one's alarms.
    const second = await frontDoor(command, { ...settings, PORT: String(port + 1) });
    expect([await second.ended, second.said.out]).toEqual([
      1,
      expect.stringMatching(/A server runs on .+ Stop it first/),
    ]);
    expect(await first.stop()).toBe(0);
  });
}

test("told to stop it ends at once, though pages listen", async ({ as, site }) => {
  const page = await as("Maren Tolve");
  await page.goto("/");
  const env = {
    ...process.env,
    ...TEST_ENVIRONMENT,
    NODE_ENV: "production",
    LANTERN_DATA: folderBeside(site, "stopped"),
  };
  const server = spawn("node", [join(HOME, "tools/serve.mjs")], { cwd: HOME, env: { ...env, PORT: "4335" } as never });
  await new Promise<void>((ready) => server.stdout.on("data", (text) => String(text).includes("Ready") && ready()));
  const ended = new Promise<number | null>((done) => server.once("exit", (code) => done(code)));
  server.kill("SIGTERM");
  expect(await ended).toBe(0);
});

test("signed out everywhere, an open page is told within a beat and shows nothing more", async ({ as, site }) => {
  test.setTimeout(120_000);
  const page = await as("Idris Halloway");
  await page.goto("/");
  await page.waitForLoadState("networkidle").catch(() => undefined);
  const other = await page.request.post("/api/acts", {
    data: {
      version: 1,
      actId: crypto.randomUUID(),
      type: "person.sign-out-everywhere",
      input: {},
      pin: "4711",
    },
    headers: { origin: site.url },
  });
  expect(other.status()).toBe(200);
  await expect(page.getByRole("form", { name: /sign in/i })).toBeVisible({ timeout: 60_000 });
});

/** What a process has started, by what the system says of every process. */
function startedBy(pid: number): number[] {
  return readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name))
    .filter((name) => {
      try {
        // Its name, which may hold anything, is in brackets; its state and its parent follow.
        return Number(readFileSync(`/proc/${name}/stat`, "utf8").split(") ").at(-1)!.split(" ")[1]) === pid;
      } catch {
        return false;
      }
    })
    .map(Number);
}

test("a body where none belongs is nobody's next request", async ({ as, site }) => {
  const page = await as("Maren Tolve");
  const cookie = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join("; ");
  const bodies: readonly (readonly [string, Record<string, string>])[] = [
    ["{}", { "content-length": "2" }],
    ["{}", { "transfer-encoding": "chunked" }],
    ["GET /sign-in HTTP/1.1\r\nHost: x\r\n\r\n", { "content-length": "36" }],
  ];
  for (const [body, headers] of bodies) {
    for (let i = 0; i < 4; i++) {
      for (const [way, says] of [
        ["/api/jobs/J-0001", '"number":"J-0001"'],
        ["/permits", "<title>Permits"],
      ] as const) {
        const told = await ask(`${site.url}${way}`, {
          headers: { cookie, connection: "keep-alive", ...headers },
          body,
        });
        const next = await ask(`${site.url}/api/jobs/J-0001`, { headers: { cookie, connection: "keep-alive" } });
        expect([way, headers, told.status, told.body.includes(says)]).toEqual([way, headers, 200, true]);
        expect([way, headers, next.status, next.body.includes('"number":"J-0001"')]).toEqual([way, headers, 200, true]);
      }
    }
  }
});

test("pages are drawn by a process of their own: while it stands still work is stopped all the same, and when it dies pages come", async ({
  as,
  site,
}) => {
  const page = await as("Maren Tolve");
  const { request } = page;
  const look = async () => (await request.get("/permits", { timeout: 60_000 })).status();
  expect(await look()).toBe(200);
  // What one process hands to the other nobody else can say.
  expect((await request.get("/permits", { headers: { "x-lantern-handed": "x" } })).status()).toBe(200);
  const [reader, ...more] = startedBy(site.pid());
  expect(more).toEqual([]);
  process.kill(reader!, "SIGSTOP");
  try {
    await expect(request.get("/permits", { timeout: 2000 })).rejects.toThrow();
    const stop = await request.post("/api/acts", {
      data: {
        version: 1,
        actId: crypto.randomUUID(),
        type: "permit.stop",
        input: { permit: "P-0001", reason: "A drill" },
      },
      headers: { origin: site.url },
      timeout: 5000,
    });
    expect(stop.status()).toBe(200);
  } finally {
    process.kill(reader!, "SIGCONT");
  }
  // What was signed meanwhile is on the next page.
  await page.goto("/permits/P-0001");
  await expect(page.getByText("A drill").first()).toBeVisible();
  process.kill(reader!, "SIGKILL");
  expect(await look()).toBe(200);
  // Another takes its place; pages come all the while.
  await expect.poll(() => startedBy(site.pid()).length).toBe(1);
  for (let i = 0; i < 5; i++) expect(await look()).toBe(200);
  expect(startedBy(site.pid())).not.toContain(reader);
});
