import { readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import type { Page } from "@playwright/test";
import { expect, PIN, test } from "./site";

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

async function send(page: Page, files: File[]): Promise<void> {
  await page.getByLabel("Plant files").setInputFiles(files);
  await page.getByLabel("Your PIN").fill(PIN);
  await page.getByRole("button", { name: "Check and import" }).click();
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
    await send(page, files);
    await expect(page.getByRole("alert").filter({ hasText: message }), name).toBeVisible();
    // What was chosen and typed is still there.
    await expect(page.getByLabel("Your PIN")).toHaveValue(PIN);
  }
  await page.reload();
  expect(await revisions(page).count()).toBe(before);
});

test("a good register becomes the next revision, keeps the ids of its tags, and is found by search", async ({ as }) => {
  const page = await as("Maren Tolve");
  await page.goto("/plant/import");
  const before = await revisions(page).count();
  await send(page, [demo("items.csv"), demo("links.csv")]);
  await expect(page.getByRole("alert").filter({ hasText: "Imported as revision" })).toBeVisible();
  await expect(revisions(page)).toHaveCount(before + 1);
  await page.goto("/plant");
  await page.getByLabel("Find by tag, name, kind or area").fill("jacket of pump");
  await page.getByRole("button", { name: "Find" }).click();
  await expect(page.getByRole("row")).toHaveCount(3);
  await page.getByRole("link", { name: "J-204A" }).click();
  await expect(page.getByRole("heading", { name: /J-204A/ })).toBeVisible();
  await page.goto("/plant?find=%25");
  await expect(page.getByText("items,")).toBeVisible();
});

test("only a coordinator imports, by screen or by post", async ({ as }) => {
  const page = await as("Tomas Veyron");
  await page.goto("/plant/import");
  await expect(page.getByText("Only a coordinator may import")).toBeVisible();
  const response = await page.request.post("/api/plant/import", { multipart: { pin: PIN, files: demo("items.csv") } });
  expect(response.status()).toBe(403);
});
