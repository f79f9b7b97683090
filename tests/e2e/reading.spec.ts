import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { HOME } from "./seeded";
import { expect, ownSite } from "./site";

const test = ownSite();

/** Every way in that the program has, found in its own files: one that is new and not named here fails. */
const APP = join(HOME, "src/app");
const waysIn = (readdirSync(APP, { recursive: true }) as string[])
  .filter((file) => /(^|\/)page\.tsx$/.test(file) || (/route\.ts$/.test(file) && gives(file)))
  .map((file) => `/${file.replace(/\/?(page\.tsx|route\.ts)$/, "")}`)
  .sort();
function gives(file: string): boolean {
  return /export (async )?function GET\b/.test(readFileSync(join(APP, file), "utf8"));
}

/** One address of each, of the demo's. */
const OF: Readonly<Record<string, string>> = {
  "/bench/[name]": "/bench/tank-drain",
  "/boxes/[number]": "/boxes/B-0001",
  "/boxes/[number]/paper": "/boxes/B-0001/paper",
  "/jobs/[number]": "/jobs/J-0001",
  "/jobs/[number]/[stage]": "/jobs/J-0001/energies",
  "/jobs/[number]/certificate": "/jobs/J-0001/certificate",
  "/jobs/[number]/locks": "/jobs/J-0001/locks",
  "/jobs/[number]/tags": "/jobs/J-0001/tags",
  "/lists/[file]": "/lists/permits.csv",
  "/muster/[number]": "/muster/M-0001",
  "/permits/[number]": "/permits/P-0001",
  "/permits/[number]/crew": "/permits/P-0001/crew",
  "/permits/[number]/paper": "/permits/P-0001/paper",
  "/plant/[tag]": "/plant/V-2041",
  "/plant/export/[file]": "/plant/export/items.csv",
  "/procedures/[number]": "/procedures/IP-0001",
  "/procedures/[number]/placard": "/procedures/IP-0001/placard",
  "/api/photos/[id]": "/api/photos/none",
  "/api/jobs/[number]": "/api/jobs/J-0001",
  "/api/calendar/[file]": "/api/calendar/nobodys-token-at-all.ics",
};
/** Read by anybody: the way in, how the server is, and the clock of a test. */
const OPEN = new Set(["/sign-in", "/api/health", "/api/test-clock"]);
/** Not everybody's who is signed in; the rest is. */
type Reader = "Maren Tolve" | "Signe Aldane" | "Idris Halloway" | "Tomas Veyron" | "Dagny Pell";
const FOR: Readonly<Record<string, readonly Reader[]>> = {
  "/api/jobs/[number]": ["Maren Tolve", "Signe Aldane", "Idris Halloway", "Tomas Veyron"],
  "/ledger/lines": ["Maren Tolve", "Signe Aldane"],
  "/figures/csv": ["Maren Tolve", "Signe Aldane", "Idris Halloway"],
  "/lists/[file]": ["Maren Tolve", "Signe Aldane", "Idris Halloway", "Tomas Veyron"],
  "/plant/export/[file]": ["Maren Tolve", "Signe Aldane", "Idris Halloway", "Tomas Veyron"],
};
const READERS: readonly Reader[] = ["Maren Tolve", "Signe Aldane", "Idris Halloway", "Tomas Veyron", "Dagny Pell"];
/** It never ends. */
const STREAMS = new Set(["/api/events"]);

test("who is not signed in reads nothing but the way in", async ({ site, playwright }) => {
  const stranger = await playwright.request.newContext({ baseURL: site.url });
  const read: unknown[] = [];
  for (const way of waysIn) {
    expect(way.includes("[") ? OF[way] : way, `an address of ${way}`).toBeDefined();
    const answer = await stranger.get(OF[way] ?? way, { maxRedirects: 0 });
    const where = answer.headers().location ?? "";
    const sent = answer.status() >= 300 && answer.status() < 400 && new URL(where, site.url).pathname === "/sign-in";
    // A page that has begun to be sent is sent on by its own text.
    const isSent = sent || (answer.status() === 200 && (await answer.text()).includes("NEXT_REDIRECT"));
    if (!OPEN.has(way) && !isSent && answer.status() !== 401) read.push([way, answer.status()]);
  }
  expect(read).toEqual([]);
  await stranger.dispose();
});

test("each reads what is theirs to read, and of the rest who reads it", async ({ as }) => {
  for (const reader of READERS) {
    const page = await as(reader);
    for (const way of waysIn) {
      if (STREAMS.has(way) || way === "/sign-in") continue;
      const answer = await page.request.get(OF[way] ?? way);
      const may = FOR[way]?.includes(reader) ?? true;
      expect([way, reader, answer.status() === 403]).toEqual([way, reader, !may]);
      expect([way, reader, answer.status() < 500]).toEqual([way, reader, true]);
      if (!may) expect(await answer.text()).toMatch(/ask one of them|only\.("|$)/);
    }
  }
});

test("of the record a worker reads what they did themselves, and no account of others", async ({ as }) => {
  const maren = await as("Maren Tolve");
  await maren.goto("/ledger");
  await expect(maren.getByText("Here is what you did yourself.")).toHaveCount(0);
  await expect(maren.getByRole("table", { name: "Ledger rows" }).getByText("Idris Halloway").first()).toBeVisible();

  const tomas = await as("Tomas Veyron");
  await tomas.goto("/ledger");
  await expect(tomas.getByText(/All of the record is read by a coordinator, an issuer or an approver/)).toBeVisible();
  await expect(tomas.getByRole("link", { name: "Figures of it" })).toHaveCount(0);
  const others = tomas
    .getByRole("table", { name: "Ledger rows" })
    .getByText(/Idris Halloway|Maren Tolve|Petra Quillon/);
  await expect(others).toHaveCount(0);
  await tomas.goto("/ledger?find=P-0001");
  await expect(others).toHaveCount(0);
  await tomas.goto("/figures");
  await expect(tomas.getByText(/The figures are read by a coordinator, an issuer or an approver/)).toBeVisible();
  await expect(tomas.getByText("Proofs that failed")).toHaveCount(0);

  const dagny = await as("Dagny Pell");
  await dagny.goto("/permits");
  await expect(dagny.locator('a[href^="/lists/"]')).toHaveCount(0);
  await dagny.goto("/plant");
  await expect(dagny.locator('a[href^="/plant/export/"]')).toHaveCount(0);
});
