import { test as base, expect, type Page } from "@playwright/test";
import { spawn, spawnSync } from "node:child_process";
import { createHash, randomBytes, randomUUID } from "node:crypto";
import { rmSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { copyOfSite, HOME, TEST_ENVIRONMENT } from "./seeded";

export const PIN = "4711";

export type Site = {
  url: string;
  data: string;
  /** Of the server's process. */
  pid: () => number;
  lantern: (...args: string[]) => { status: number; out: string };
  /** Kills the server, as a power cut would, and starts it again on the same data. */
  restart: () => Promise<void>;
};

/** A server of its own on a freshly made demo database, for as long as it is used. */
export async function openSite(
  give: (site: Site) => Promise<void>,
  port: number,
  more: Readonly<Record<string, string>> = {},
): Promise<void> {
  const data = copyOfSite();
  const env = { ...process.env, ...TEST_ENVIRONMENT, LANTERN_DATA: data, ...more };
  const lantern = (...args: string[]) => {
    const done = spawnSync("node", [join(HOME, ".lantern/admin.mjs"), ...args], {
      cwd: HOME,
      env,
      encoding: "utf8",
    });
    return { status: done.status ?? 1, out: done.stdout + done.stderr };
  };
  const where = { NODE_ENV: "production", PORT: String(port), LANTERN_HOST: "127.0.0.1" } as const;
  const start = async () => {
    const server = spawn("node", [join(HOME, "tools/serve.mjs")], { cwd: HOME, env: { ...env, ...where } });
    await new Promise<void>((ready, failed) => {
      server.stdout.on("data", (text) => String(text).includes("Ready") && ready());
      server.stderr.on("data", (text) => process.stderr.write(String(text)));
      server.once("exit", (code) => failed(new Error(`the server stopped with ${code}`)));
    });
    return server;
  };
  const stop = async (server: Awaited<ReturnType<typeof start>>) => {
    server.removeAllListeners("exit");
    const ended = new Promise((done) => server.once("exit", done));
    server.kill("SIGKILL");
    await ended;
  };
  let server = await start();
  const restart = async () => {
    await stop(server);
    server = await start();
  };
  try {
    await give({ url: `http://127.0.0.1:${port}`, data, pid: () => server.pid!, lantern, restart });
  } finally {
    await stop(server);
    rmSync(data, { recursive: true, force: true });
  }
}

/** A server starts within seconds; the machine may be busy. */
export const SITE_TIMEOUT_MS = 120_000;

/**
 * Each worker has its own server, port and copy of the demo; one build serves them all. A file makes a test of its own from it
 * (`ownSite`, `moving`): Playwright gives each such its own worker, and the tests of a file run in their order, so that what a
 * test finds on its site is the same in every run, whatever else runs and how fast.
 */
export const perWorker = base.extend<{ as: (name: string, timezoneId?: string) => Promise<Page> }, { site: Site }>({
  site: [
    async ({}, use, worker) => openSite(use, 4300 + worker.parallelIndex),
    { scope: "worker", timeout: SITE_TIMEOUT_MS },
  ],

  /** A page of their own for each person, signed in already: how one signs in has a test of its own. */
  as: async ({ browser, site }, give) => {
    const pages = new Map<string, Page>();
    const faults: string[] = [];
    await give(async (name, timezoneId) => {
      const known = pages.get(name);
      if (known) return known;
      const context = await browser.newContext({ baseURL: site.url, ...(timezoneId ? { timezoneId } : {}) });
      await context.addCookies([{ name: "lantern_session", value: openSession(site, name), url: site.url }]);
      const page = await context.newPage();
      page.on("pageerror", (error) => faults.push(`${page.url()}: ${error.message}`));
      pages.set(name, page);
      return page;
    });
    for (const page of pages.values()) await page.context().close();
    expect(faults).toEqual([]);
  },
});

/** A site that no other file uses. */
export const ownSite = () =>
  perWorker.extend<object, { site: Site }>({
    site: [
      async ({}, use, worker) => openSite(use, 4300 + worker.parallelIndex),
      { scope: "worker", timeout: SITE_TIMEOUT_MS },
    ],
  });

const SESSION_MS = 14 * 3_600_000;

/** A session as signing in makes it. */
function openSession(site: Site, name: string): string {
  const token = randomBytes(32).toString("base64url");
  const db = new Database(join(site.data, "heavy-lantern.db"));
  db.pragma("busy_timeout = 5000");
  db.prepare(
    `INSERT INTO sessions (token_hash, person_id, created_at_ms, expires_at_ms, seen_at_ms)
     SELECT ?, id, ?, ?, ? FROM people WHERE name = ?`,
  ).run(createHash("sha256").update(token).digest("hex"), Date.now(), Date.now() + SESSION_MS, Date.now(), name);
  db.close();
  return token;
}

/** The head's menu: units, theme, signing out. */
export async function openMenu(page: Page): Promise<void> {
  await page.locator("header summary").first().click();
}

/** Opens what a form lies in: a drawer, or what is done once in a while. */
export async function reach(page: Page, form: string): Promise<void> {
  const target = page.locator(`form[aria-label="${form}"]`).first();
  await target.waitFor({ state: "attached" });
  const shut = target.locator("xpath=ancestor::details[not(@open)]");
  while ((await shut.count()) > 0) await shut.first().locator("> summary").click();
}

/** A choice made, in place of words. */
export const CHOSEN = "\u2022";

/** Fills the fields and the PIN of a form and sends it. */
export async function sign(page: Page, form: string, fields: Record<string, string> = {}): Promise<void> {
  await reach(page, form);
  const within = page.getByRole("form", { name: form, exact: true });
  for (const [label, value] of Object.entries(fields)) {
    const field = within.getByLabel(label);
    if (value === CHOSEN) await field.check();
    else await field.fill(value);
  }
  await within.getByLabel("Your PIN").fill(PIN);
  // What had been typed before may be back, with a button of its own to drop it.
  await within.locator('button[type="submit"]').click();
}

/** Signs on by the screen: read the briefing, say where one works, hang a lock. */
export async function signOn(page: Page, place: string, lock: string): Promise<void> {
  const form = page.getByRole("form", { name: "Sign on", exact: true });
  await form.getByRole("checkbox", { name: /I have read/ }).check();
  // In the demo's day some are at work already.
  const also = form.getByRole("checkbox", { name: /as well, at other work/ });
  if ((await also.count()) > 0) await also.check();
  await form.getByLabel("I will work at").selectOption(place);
  await sign(page, "Sign on", { "My lock number": lock });
}

/** Posts an act directly, as somebody who leaves the screens aside. */
export async function post(page: Page, type: string, input: unknown, pin: string | undefined = PIN) {
  const response = await page.request.post("/api/acts", {
    data: { version: 1, actId: randomUUID(), type, input, pin },
    // Under the same act id it is not done twice.
    maxRetries: 2,
  });
  return {
    status: response.status(),
    body: (await response.json()) as { ok: boolean; sentence?: string; code?: string; answer?: Record<string, string> },
  };
}

export { expect };
