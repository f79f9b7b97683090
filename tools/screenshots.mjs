// Takes the pictures in docs/screenshots from a fresh demo: npm run screenshots. Needs a build (./lantern demo makes one).
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, mkdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { chromium } from "@playwright/test";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const OUT = resolve(process.argv[2] ?? join(HOME, "docs", "screenshots"));
const PORT = 4390;
const BASE = `http://127.0.0.1:${PORT}`;
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

/** One current picture of each main view. */
const VIEWS = [
  { name: "board", path: "/", who: "Maren", theme: "night" },
  { name: "energies", path: "/jobs/J-0003/energies", who: "Maren", theme: "night" },
  { name: "points", path: "/jobs/J-0003/points", who: "Maren", theme: "night" },
  { name: "time", path: "/jobs/J-0005/time", who: "Maren", theme: "night" },
  { name: "kit", path: "/jobs/J-0005/kit", who: "Ruth", theme: "day" },
  { name: "shortfalls", path: "/jobs/J-0004/points", who: "Signe", theme: "day", scrollTo: "shortfalls against" },
  { name: "lantern", path: "/jobs/J-0003/points?region=whole", who: "Maren", theme: "night" },
  { name: "procedure", path: "/procedures/IP-0001", who: "Odalys", theme: "day" },
  { name: "walk", path: "/jobs/J-0002/walk", who: "Sunniva", theme: "night" },
  { name: "walk-phone", path: "/jobs/J-0002/walk", who: "Sunniva", theme: "day", size: PHONE },
  { name: "hazards", path: "/jobs/J-0003/hazards", who: "Petra", theme: "day" },
  { name: "permits", path: "/permits", who: "Petra", theme: "day" },
  { name: "permit", path: "/permits/P-0002", who: "Bram", theme: "day" },
  { name: "permit-phone", path: "/permits/P-0002", who: "Nils", theme: "night", size: PHONE, scrollTo: "^Gas test" },
  { name: "box", path: "/boxes/B-0001", who: "Maren", theme: "day" },
  { name: "return", path: "/jobs/J-0001/return", who: "Maren", theme: "night" },
  { name: "plant", path: "/plant", who: "Maren", theme: "day" },
  { name: "calculator", path: "/bench/blowdown", who: "Petra", theme: "day" },
  { name: "ledger", path: "/ledger", who: "Maren", theme: "day" },
];

const data = mkdtempSync(join(tmpdir(), "lantern-shots-"));
const env = {
  ...process.env,
  LANTERN_DATA: data,
  LANTERN_DEMO: "1",
  LANTERN_HOME: HOME,
  LANTERN_TIME_ZONE: "Europe/Lisbon",
};
const seeded = spawnSync("node", [join(HOME, ".lantern/admin.mjs"), "seed-demo"], { cwd: HOME, env, stdio: "inherit" });
if (seeded.status !== 0) process.exit(1);
const served = { ...env, NODE_ENV: "production", LANTERN_LOG: "warn", PORT: String(PORT) };
const server = spawn("node", [join(HOME, "tools/serve.mjs")], { cwd: HOME, env: served });
await new Promise((ready) => server.stdout.on("data", (text) => String(text).includes("Ready") && ready()));

const browser = await chromium.launch({
  executablePath: process.env.LANTERN_CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
});
mkdirSync(OUT, { recursive: true });
const only = process.argv.slice(3);
try {
  for (const { name, path, who, theme, size = DESK, scrollTo, open } of VIEWS) {
    if (only.length > 0 && !only.includes(name)) continue;
    const context = await browser.newContext({ viewport: size, timezoneId: "Europe/Lisbon" });
    await context.addCookies([{ name: "lantern_theme", value: theme, url: BASE }]);
    const page = await context.newPage();
    await page.goto(`${BASE}/sign-in`);
    if (who) {
      await page.getByRole("button", { name: new RegExp(who) }).click();
      await page.waitForURL(`${BASE}/`);
    }
    await page.goto(BASE + path);
    await page.getByText("Drawing the plant…").waitFor({ state: "detached" });
    if (scrollTo) {
      await page.getByRole("heading", { name: new RegExp(scrollTo) }).evaluate((heading) => heading.scrollIntoView());
    }
    if (open) {
      const drawer = page.locator("summary", { hasText: open });
      await drawer.click();
      await drawer.evaluate((summary) => summary.scrollIntoView());
    }
    await page.waitForTimeout(900);
    await page.screenshot({ path: join(OUT, `${name}.png`) });
    await context.close();
  }
} finally {
  await browser.close();
  server.kill("SIGKILL");
  rmSync(data, { recursive: true, force: true });
}
