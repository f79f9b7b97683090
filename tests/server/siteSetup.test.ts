import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readPeopleList } from "../../src/core/accounts/peopleList";
import { readPlantCsv } from "../../src/core/plant/readPlantCsv";
import { plan } from "../../src/core/plan/plan";
import { readJobJson } from "../../src/core/request/jobFile";
import { buildStateGraph } from "../../src/core/trace/stateGraph";
import { bundled } from "../support/bundled";

/** The example of docs/site-setup.md is as the page says, and what is typed there works with secrets as they are in use. */

const HOME = join(__dirname, "../..");
const DAIRY = join(HOME, "examples", "dairy");
const file = (name: string) => ({ name, text: readFileSync(join(DAIRY, name), "utf8") });
const page = readFileSync(join(HOME, "docs", "site-setup.md"), "utf8");
const folder = mkdtempSync(join(tmpdir(), "lantern-setup-"));
const program = join(HOME, ".lantern", "admin-of-setup.mjs");
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
  rmSync(program, { force: true });
});

function lantern(args: readonly string[], more: Readonly<Record<string, string>> = {}) {
  const env = { ...process.env, LANTERN_DATA: folder, LANTERN_HOME: HOME, LANTERN_TEST_HASHES: "", ...more };
  const done = spawnSync("node", [program, ...args], { cwd: HOME, env, encoding: "utf8" });
  return { status: done.status, said: done.stdout + done.stderr };
}

test("a coordinator is made and imports a register from the command line, signed with the PIN that was printed", () => {
  bundled("src/cli/admin.ts", "admin-of-setup.mjs");
  const made = lantern(["person", "Imke Vos", "imke", "coordinator", "electrical"]);
  expect(made.said).toMatch(/password \S{12,} {3}PIN \d+/);
  const pin = /PIN (\d+)/.exec(made.said)![1]!;
  const paths = ["items.csv", "links.csv", "areas.csv"].map((name) => join(DAIRY, name));
  const wrong = lantern(["import", "imke", ...paths], { LANTERN_PIN: `${pin}0` });
  expect(wrong).toMatchObject({ said: expect.stringMatching(/The PIN is not right/) as string });
  expect(wrong.status).not.toBe(0);
  const taken = lantern(["import", "imke", ...paths], { LANTERN_PIN: pin });
  expect(taken).toEqual({ status: 0, said: "Imported as revision 1: 72 items, 79 links.\n" });
}, 120_000);

test("its people are read as they stand", () => {
  const read = readPeopleList(file("people.csv").text);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  expect(read.value.map(({ signIn }) => signIn)).toEqual(["tilda", "oskar", "noor", "ravi", "greta", "pavel", "sanne"]);
  expect(read.value.find(({ signIn }) => signIn === "noor")!.until).toEqual({ electrical: "2028-06-30" });
});

test("its first job is held by the points that the page names, with nothing short of what is asked", () => {
  const read = readPlantCsv(file("items.csv"), file("links.csv"), file("areas.csv"));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  expect(read.warnings).toEqual([]);
  const job = readJobJson(file("job.json").text, "job.json");
  if (!job.ok) throw new Error(JSON.stringify(job.problems));
  const made = plan(buildStateGraph(read.value), job.value);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  expect(made.value).toMatchObject({ held: true, shortfalls: [], unlinked: [] });
  const points = made.value.points.map(({ device }) => device);
  const named = /^Points: (.*)\.$/m.exec(page)![1]!;
  expect([...named.matchAll(/`([^`]+)`/g)].map(([, tag]) => tag).sort()).toEqual([...points].sort());
});

test("every column that the page names is one that its files have", () => {
  const heads = new Set(
    ["items.csv", "links.csv", "areas.csv"].flatMap((name) => file(name).text.split("\n")[0]!.split(",")),
  );
  const named = [...page.matchAll(/^\| `([^|]+)` +\|/gm)].flatMap(([, cell]) => cell!.split(/`, `/));
  expect(named.length).toBeGreaterThan(15);
  expect(named.filter((column) => !heads.has(column))).toEqual([]);
});
