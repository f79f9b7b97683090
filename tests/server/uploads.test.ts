import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openDatabase, type Db } from "../../src/server/db/database";
import { takeUpload } from "../../src/workers/takeUpload";

const ITEMS = "tag,kind,name,source\nS,header,Öl für Füße,fluid\nP,pump,,\n";
const LINKS = "from,to,carries\nS,P,fluid\n";
const folder = mkdtempSync(join(tmpdir(), "lantern-upload-"));
const file = join(folder, "site.db");
let db: Db;
beforeAll(() => {
  db = openDatabase(file);
});
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

async function taken(items: Uint8Array<ArrayBuffer>) {
  const form = new FormData();
  form.append("files", new Blob([items]), "items.csv");
  form.append("files", new Blob([LINKS]), "links.csv");
  const sent = new Response(form);
  const body = new Uint8Array(await sent.arrayBuffer());
  return takeUpload(file, { body, contentType: sent.headers.get("content-type")! }, 1);
}
const name = () => {
  const texts = db.$client
    .prepare("SELECT text FROM plant_texts WHERE text LIKE '%\"items\"%'")
    .pluck()
    .all() as string[];
  return texts.map((text) => (JSON.parse(text) as { items: { name?: string }[] }).items[0]!.name);
};
const bytes = (text: string, map: (code: number) => number[]) =>
  new Uint8Array([...text].flatMap((letter) => map(letter.codePointAt(0)!)));

test("an older encoding is recognised and said; the letters arrive", async () => {
  const latin = await taken(bytes(ITEMS, (code) => [code]));
  expect(latin.ok && latin.register.ok && latin.register.value.warnings.map(({ message }) => message)).toContainEqual(
    expect.stringContaining("read as Windows-1252"),
  );
  expect(name()).toEqual(["Öl für Füße"]);
  const wide = await taken(bytes(`\ufeff${ITEMS}`, (code) => [code & 255, code >> 8]));
  expect(wide.ok && wide.register.ok && wide.register.value.warnings.map(({ message }) => message)).toContainEqual(
    expect.stringContaining("read as UTF-16LE"),
  );
  expect(name()).toEqual(["Öl für Füße"]);
  const plain = await taken(new TextEncoder().encode(ITEMS));
  expect(plain.ok && plain.register.ok && plain.register.value.warnings).toEqual([]);
});

test("what is no text in any of them is refused by its name", async () => {
  expect(await taken(new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 1, 2]))).toEqual({
    ok: false,
    problem: "items.csv: the file is not text. Nothing was stored.",
  });
});
