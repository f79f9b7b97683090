import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import type { Page } from "@playwright/test";
import { expect, ownSite, PIN } from "./site";

const test = ownSite();

type File = { name: string; mimeType: string; buffer: Buffer };
const DEMO = resolve(import.meta.dirname, "../../demo");
const file = (name: string, content: string | Buffer): File => ({
  name,
  mimeType: "text/plain",
  buffer: Buffer.from(content),
});
const demo = (name: string) => file(name, readFileSync(join(DEMO, name)));
const plant = (items: unknown[], links: unknown[] = []) =>
  file("plant.json", JSON.stringify({ format: "heavy-lantern/plant", version: 1, items, links }));
const tank = { tag: "T-1", kind: "tank", source: [{ carrier: "fluid" }] };

async function look(page: Page, files: File[]): Promise<void> {
  await page.getByLabel("Plant files").setInputFiles(files);
  await page.getByRole("button", { name: /^Look/ }).click();
}

const revisions = (page: Page) => page.getByRole("listitem").filter({ hasText: "items, Maren Tolve" });

test("bad files are refused with a clear message and nothing is stored", async ({ as }) => {
  const page = await as("Maren Tolve");
  await page.goto("/plant/import");
  const before = await revisions(page).count();
  const cases: [string, File[], RegExp][] = [
    ["no file", [], /choose a plant\.json, or items\.csv and links\.csv/],
    ["an empty file", [file("plant.json", "")], /plant\.json: the file is empty/],
    [
      "a wrong column",
      [file("items.csv", "tag,kind,colour\nT,tank,red\n"), demo("links.csv")],
      /items\.csv row 1, colour: unknown column/,
    ],
    ["a duplicate tag", [plant([tank, tank])], /T-1, tag: duplicate tag/],
    ["a link to nowhere", [plant([tank], [{ from: "T-1", to: "V-9", carries: "fluid" }])], /unknown tag V-9/],
    [
      "a file that is not text",
      [file("plant.json", Buffer.from([0x89, 0x50, 0xff, 0xfe, 0x00]))],
      /plant\.json: the file is not text/,
    ],
    ["a plant without sources", [plant([{ tag: "V", kind: "vessel" }])], /no item is a source/],
    ["one CSV alone", [demo("items.csv")], /choose items\.csv and links\.csv together/],
    ["20 MB", [file("plant.json", Buffer.alloc(20 * 1024 * 1024, 32))], /larger than 16 MB\. Nothing was stored/],
  ];
  for (const [name, files, message] of cases) {
    await look(page, files);
    await expect(page.getByRole("alert").filter({ hasText: message }), name).toBeVisible();
    // What is wrong is never offered to be signed for; what was chosen is still there.
    await expect(page.getByLabel("Your PIN")).toHaveCount(0);
    const chosen = page.getByLabel("Plant files").evaluate((input) => (input as HTMLInputElement).files!.length);
    expect(await chosen).toBe(files.length);
  }
  await page.reload();
  expect(await revisions(page).count()).toBe(before);
});

test("a good register becomes the next revision, keeps the ids of its tags, and is found by search", async ({ as }) => {
  const page = await as("Maren Tolve");
  await page.goto("/plant/import");
  const before = await revisions(page).count();
  // Without the areas: seen before it is signed for.
  await look(page, [demo("items.csv"), demo("links.csv")]);
  await expect(page.getByRole("row", { name: /^Areas 0 \d+ 0$/ })).toBeVisible();
  await expect(page.getByText(/isolations? that people count on|Nobody counts on an isolation/)).toBeVisible();
  expect(await revisions(page).count()).toBe(before);
  await page.getByLabel("Your PIN").fill(PIN);
  await page.getByRole("button", { name: `Import as revision ${before + 1}` }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Imported as revision" })).toBeVisible();
  await expect(revisions(page)).toHaveCount(before + 1);
  await look(page, [demo("items.csv"), demo("links.csv")]);
  await expect(page.getByText("There is nothing to import.")).toBeVisible();
  await page.goto("/plant");
  await page.getByRole("searchbox", { name: "Tag, name, kind or area" }).fill("jacket of pump");
  await page.getByRole("button", { name: "Show", exact: true }).click();
  await expect(page.getByRole("row")).toHaveCount(3);
  await page.getByRole("link", { name: "J-204A" }).click();
  await expect(page.getByRole("heading", { name: /J-204A/ })).toBeVisible();
  await page.goto("/plant?find=%25");
  await expect(page.getByText("items,")).toBeVisible();
});

test("what is taken out as a workbook, as tables or as plant.json comes back equal", async ({ as }) => {
  const page = await as("Maren Tolve");
  const out = async (name: string): Promise<File> => {
    const answer = await page.request.get(`/plant/export/${name}`);
    expect(answer.status(), name).toBe(200);
    expect(answer.headers()["content-disposition"]).toContain("-revision-");
    return file(name, await answer.body());
  };
  await page.goto("/plant/import");
  const all = [["register.xlsx"], ["items.csv", "links.csv", "areas.csv"], ["plant.json"]];
  for (const names of all) {
    await look(page, await Promise.all(names.map(out)));
    await expect(page.getByText("There is nothing to import."), names.join()).toBeVisible();
  }
  await page.goto("/plant");
  await expect(page.getByRole("link", { name: "a workbook" })).toHaveAttribute("href", "/plant/export/register.xlsx");
  expect((await page.request.get("/plant/export/nothing.csv")).status()).toBe(404);
});

test("only a coordinator imports, by screen or by post", async ({ as }) => {
  const page = await as("Tomas Veyron");
  await page.goto("/plant/import");
  await expect(page.getByText("Only a coordinator may import")).toBeVisible();
  for (const address of ["/api/plant/import", "/api/plant/look"]) {
    const response = await page.request.post(address, { multipart: { pin: PIN, files: demo("items.csv") } });
    expect(response.status()).toBe(403);
  }
});

test("what nobody looked at is not imported, nor other files than those, nor over a register that came in between", async ({
  as,
}) => {
  const page = await as("Maren Tolve");
  await page.goto("/plant/import");
  const before = await revisions(page).count();
  const files = plant([tank, { tag: "P-1", kind: "pump" }], [{ from: "T-1", to: "P-1", carries: "fluid" }]);
  const post = (address: string, more: Record<string, string>) =>
    page.request.post(address, { multipart: { actId: randomUUID(), pin: PIN, files, ...more } });
  const answer = await post("/api/plant/look", {});
  const seen = (await answer.json()) as { hash: string; on: number };
  expect((await post("/api/plant/import", {})).status()).toBe(400);
  expect((await post("/api/plant/import", { seen: "0".repeat(64), on: String(seen.on) })).status()).toBe(409);
  const late = await post("/api/plant/import", { seen: seen.hash, on: String(seen.on - 1) });
  expect(await late.text()).toContain("came in since you looked");
  await page.reload();
  expect(await revisions(page).count()).toBe(before);
});
