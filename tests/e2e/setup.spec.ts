import { spawn, spawnSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test, type Browser, type Page } from "@playwright/test";
import ExcelJS from "exceljs";
import Papa from "papaparse";
import { soundBegin, soundReport } from "../../src/core/isolation/soundReport";
import { BEGUN } from "../../src/core/isolation/held";
import { Hand } from "./hand";
import { HOME, TEST_ENVIRONMENT } from "./seeded";
import { expect, type Site } from "./site";
import { read, stepsOf, waited } from "./work";

/** From an empty folder to the first permit, with the files of docs/site-setup.md: by the screens where people type. */

const PORT = 4480;
const DAIRY = join(HOME, "examples", "dairy");
type Person = Readonly<{ page: Page; pin: string; id: string }>;

async function emptySite(give: (site: Site, first: { password: string; pin: string }) => Promise<void>): Promise<void> {
  const data = mkdtempSync(join(existsSync("/dev/shm") ? "/dev/shm" : tmpdir(), "lantern-setup-"));
  const { LANTERN_DEMO: _, ...settings } = TEST_ENVIRONMENT;
  const env = { ...process.env, ...settings, LANTERN_DATA: data, LANTERN_DEMO: "" };
  const lantern = (...args: string[]) => {
    const done = spawnSync("node", [join(HOME, ".lantern/admin.mjs"), ...args], { cwd: HOME, env, encoding: "utf8" });
    return { status: done.status ?? 1, out: done.stdout + done.stderr };
  };
  const made = /password (\S+) {3}PIN (\d+)/.exec(lantern("prepare").out);
  const where = { NODE_ENV: "production", PORT: String(PORT), LANTERN_HOST: "127.0.0.1" } as const;
  const server = spawn("node", [join(HOME, "tools/serve.mjs")], { cwd: HOME, env: { ...env, ...where } });
  try {
    await new Promise<void>((ready, failed) => {
      server.stdout.on("data", (text) => String(text).includes("Ready") && ready());
      server.once("exit", (code) => failed(new Error(`the server stopped with ${code}`)));
    });
    const site = {
      url: `http://127.0.0.1:${PORT}`,
      data,
      pid: () => server.pid!,
      lantern,
      restart: () => Promise.resolve(),
    };
    await give(site, { password: made![1]!, pin: made![2]! });
  } finally {
    server.removeAllListeners("exit");
    server.kill("SIGKILL");
    rmSync(data, { recursive: true, force: true });
  }
}

async function signIn(browser: Browser, site: Site, name: string, password: string): Promise<Page> {
  const page = await (await browser.newContext({ baseURL: site.url })).newPage();
  await page.goto("/sign-in");
  const form = page.getByRole("form", { name: /sign in/i });
  await form.getByLabel("Sign-in name").fill(name);
  await form.getByLabel("Password").fill(password);
  await form.getByRole("button").click();
  await page.waitForURL((url) => !url.pathname.startsWith("/sign-in"));
  return page;
}

/** The three tables as one workbook, as people keep them. */
async function workbook(): Promise<Buffer> {
  const book = new ExcelJS.Workbook();
  for (const name of ["items", "links", "areas"]) {
    const { data } = Papa.parse<string[]>(readFileSync(join(DAIRY, `${name}.csv`), "utf8"), { skipEmptyLines: true });
    book.addWorksheet(name).addRows(data);
  }
  return Buffer.from(await book.xlsx.writeBuffer());
}

async function done({ page, pin }: Person, type: string, input: unknown): Promise<Record<string, string>> {
  const response = await page.request.post("/api/acts", {
    data: { version: 1, actId: randomUUID(), type, input, pin },
  });
  const body = (await response.json()) as { ok: boolean; sentence?: string; answer?: Record<string, string> };
  expect({ type, ok: body.ok, said: body.sentence }).toEqual({ type, ok: true, said: undefined });
  return body.answer!;
}

/** Every step of the isolation, by whom it takes. */
async function isolate(site: Site, isolation: string, who: Record<"locks" | "proves" | "runs", Person>): Promise<void> {
  for (;;) {
    const steps = stepsOf(site, isolation).filter(({ phase }) => phase === "isolate");
    const finished = new Set(steps.filter((step) => step.done).map(({ id }) => id));
    const next = steps.find((step) => !step.done && step.after.every((id) => finished.has(id)));
    if (next === undefined) return;
    const second = next.secondPerson || next.kind === "prove" || next.kind === "verify";
    const by = next.role === "operator" ? who.runs : second ? who.proves : who.locks;
    if (BEGUN.has(next.kind))
      await done(by, "step.begin", { isolation, step: next.id, ...soundBegin(next, who.runs.id) });
    await waited(site, isolation, next.id);
    await done(by, "step.do", { isolation, step: next.id, ...soundReport(next, { lock: `I-${next.id}`, people: 0 }) });
  }
}

test("a dairy of seventy items, from an empty folder to its first permit, and what is typed for it", async ({
  browser,
}) => {
  test.setTimeout(900_000);
  const began_ms = Date.now();
  await emptySite(async (site, first) => {
    const hand = new Hand();
    const desk = await signIn(browser, site, "coordinator", first.password);
    const sign = async (form: ReturnType<Page["getByRole"]>) => {
      hand.pins++;
      await form.getByLabel("Your PIN").fill(first.pin);
      await form.locator('button[type="submit"]').click();
    };

    // People, as they stand in the spreadsheet.
    await hand.open(desk, "/people");
    const list = desk.getByRole("form", { name: "Enter a list of people" });
    await hand.type(list.locator("textarea"), readFileSync(join(DAIRY, "people.csv"), "utf8"));
    await sign(list);
    const slips = desk.getByRole("status").filter({ hasText: "shown once" });
    await expect(slips.getByRole("row")).toHaveCount(8);
    const secrets = new Map<string, { password: string; pin: string }>();
    for (const row of (await slips.getByRole("row").all()).slice(1)) {
      const [name, password, pin] = await row.getByRole("cell").allTextContents();
      secrets.set(name!, { password: password!, pin: pin! });
    }
    const idOf = (name: string) => read<{ id: string }>(site, "SELECT id FROM people WHERE sign_in = ?", name)[0]!.id;
    const person = async (name: string): Promise<Person> => {
      const { password, pin } = secrets.get(name)!;
      return { page: await signIn(browser, site, name, password), pin, id: idOf(name) };
    };
    const coordinator: Person = { page: desk, pin: first.pin, id: idOf("coordinator") };

    // The register, as one workbook: looked at, then signed for.
    await hand.open(desk, "/plant/import");
    await desk.getByLabel("Plant files").setInputFiles({ name: "dairy.xlsx", mimeType: "", buffer: await workbook() });
    await hand.tap(desk.getByRole("button", { name: /^Look/ }));
    await expect(desk.getByRole("row", { name: /^Items 72 0 0$/ })).toBeVisible();
    hand.pins++;
    await desk.getByLabel("Your PIN").fill(first.pin);
    await hand.tap(desk.getByRole("button", { name: "Import as revision 1" }));
    await expect(desk.getByRole("alert").filter({ hasText: "Imported as revision" })).toBeVisible();

    // Gear, by posts: a register of its own.
    const until = Date.now() + 200 * 86_400_000;
    for (const [kind, number, rating_V, error] of [
      ["voltage tester", "VT-02", 1000, null],
      ["proving unit", "PU-02", null, null],
      ["insulating gloves", "GL-11", 1000, null],
      ["pressure gauge", "PG-04", null, 0.02],
      ["thermometer", "TH-02", null, 1],
    ] as const) {
      await done(coordinator, "gear.enter", { kind, number, rating_V, error, inDateUntil_ms: until });
    }

    // The request.
    await hand.open(desk, "/jobs/new");
    await hand.type(desk.getByLabel("What is to be done"), "Renew the shaft seal of the raw milk pump");
    await hand.type(desk.getByLabel("In more words"), "Pump opened, seal renewed, motor uncoupled.");
    await hand.type(desk.getByLabel("Work location 1: tag, or tag.part"), "P-102");
    await hand.tick(desk.getByRole("checkbox", { name: "open it" }).first());
    await hand.tap(desk.getByRole("button", { name: "Another location" }));
    await hand.type(desk.getByLabel("Work location 2: tag, or tag.part"), "M-102");
    await hand.tick(desk.getByRole("checkbox", { name: "touch it" }).nth(1));
    await hand.tick(desk.getByRole("radio", { name: /within the shift/ }));
    await hand.choose(desk.getByLabel("Permit holder, in charge of the party"), { label: "Oskar Lind" });
    await hand.tick(desk.getByRole("checkbox", { name: "Oskar Lind" }));
    await hand.tap(desk.getByRole("button", { name: "Send the request" }));
    await expect(desk).toHaveURL(/\/jobs\/J-0001\/energies/);

    // Hazards, points and permits by one signature.
    await hand.open(desk, "/jobs/J-0001/points");
    const plan = await hand.reach(desk, "Approve the plan and write its permits");
    for (const tag of ["Q-102", "V-103", "V-104", "V-105", "V-106"]) {
      await expect(desk.getByRole("main")).toContainText(tag);
    }
    for (const keep of await plan.getByRole("radio", { name: "Keep" }).all()) await hand.tick(keep);
    for (const [label, words] of [
      ["Weather", "Indoors, dry"],
      ["First flange", "the union before the pump"],
      ["Where what is left comes out, and where it is led", "by the drain to the floor gully"],
      ["Insulating gloves, number", "GL-11"],
    ] as const) {
      const field = plan.getByLabel(label, { exact: true });
      if ((await field.count()) > 0) await hand.type(field.first(), words);
    }
    await hand.tick(plan.getByRole("checkbox", { name: /they are checked/ }));
    await sign(plan);
    await expect(desk).toHaveURL(/\/permits\/P-\d+|\/permits$/);

    const [made] = read<{ isolation: string; box: string }>(
      site,
      `SELECT i.number AS isolation, b.number AS box FROM isolations i
       JOIN box_isolations bi ON bi.isolation_id = i.id JOIN lock_boxes b ON b.id = bi.box_id`,
    );
    const { isolation, box } = made!;
    const runs = await person("greta");
    await isolate(site, isolation, { locks: await person("noor"), proves: await person("ravi"), runs });
    await done(coordinator, "box.hang", { box, role: "coordinator", lock: "C-1" });

    // Each permit looked at and issued on the spot, and the first one accepted behind a lock of one's own.
    const tilda = await person("tilda");
    const numbers = read<{ number: string }>(site, "SELECT number FROM permits ORDER BY number").map(
      (row) => row.number,
    );
    expect(numbers.length).toBeGreaterThan(0);
    for (const permit of numbers) {
      await tilda.page.goto(`/permits/${permit}`);
      const issue = tilda.page.getByRole("form", { name: "Issue on the spot" });
      const apart = tilda.page.getByRole("form", { name: "Authorise", exact: true });
      await expect(issue.or(apart).first()).toBeVisible();
      // What opens a line that may hold something harmful is authorised at the desk, apart from its issue.
      if ((await issue.count()) === 0) {
        hand.pins++;
        await apart.getByLabel("Your PIN").fill(tilda.pin);
        await apart.locator('button[type="submit"]').click();
        await expect(tilda.page.getByRole("heading", { level: 1 })).toContainText("authorised");
      }
      for (const look of await issue.getByRole("checkbox").all()) await hand.tick(look);
      await hand.type(issue.getByLabel("Where its copies hang, one a line"), "at the pump");
      hand.pins++;
      await issue.getByLabel("Your PIN").fill(tilda.pin);
      await issue.locator('button[type="submit"]').click();
      await expect(tilda.page.getByRole("heading", { level: 1 })).toContainText("issued");
    }
    const oskar = await person("oskar");
    await oskar.page.goto(`/permits/${numbers[0]!}`);
    const accept = await hand.reach(oskar.page, "Accept and sign on");
    await hand.tick(accept.getByRole("checkbox", { name: /I have read/ }));
    await hand.choose(accept.getByLabel("I will work at"), "P-102");
    await hand.type(accept.getByLabel("My lock number"), "O-1");
    hand.pins++;
    await accept.getByLabel("Your PIN").fill(oskar.pin);
    await accept.locator('button[type="submit"]').click();
    await expect(oskar.page.getByRole("heading", { level: 1 })).toContainText("active");

    expect(site.lantern("verify").status).toBe(0);
    const cost = {
      fields: hand.fields,
      pins: hand.pins,
      taps: hand.taps,
      s: Math.round((Date.now() - began_ms) / 1000),
    };
    test.info().annotations.push({ type: "cost", description: JSON.stringify(cost) });
    expect(hand.fields).toBeLessThanOrEqual(16);
  });
});
