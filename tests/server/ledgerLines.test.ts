import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { ledger } from "../../src/server/db/schema";
import { ledgerLines } from "../../src/server/ledger/ledgerLines";
import { TestSite } from "../support/testSite";
import { openTwoJobs } from "../support/twoJobs";

const site = new TestSite();
const script = join(__dirname, "../../docs/verify-ledger.mjs");
let text = "";
beforeAll(async () => {
  await openTwoJobs(site);
  // A refusal, and letters beyond the plain ones, in the record as well.
  await site.refused("cora", "permit.check", { permit: "P-9 “ü” 🔥" });
  text = [...ledgerLines(site.db, site.clock_ms)].join("");
}, 60_000);
afterAll(() => site.close());

/** What the script of the documents says of a file. */
function verified(lines: string, ...rest: string[]) {
  const file = join(site.folder, "ledger.jsonl");
  writeFileSync(file, lines);
  const done = spawnSync(process.execPath, [script, file, ...rest], { encoding: "utf8" });
  return { code: done.status, said: done.stdout.trim(), faults: done.stderr.trim().split("\n") };
}
const lines = () => text.trimEnd().split("\n");
const hashOf = (line: number) => (JSON.parse(lines()[line]!) as { hash: string }).hash;

test("every row is in it as it stands, and the script in the documents finds it whole", () => {
  const rows = site.db.select().from(ledger).all();
  expect(lines()).toHaveLength(rows.length + 1);
  expect(
    lines()
      .slice(1)
      .map((line) => (JSON.parse(line) as { body: string }).body),
  ).toEqual(rows.map(({ body }) => body));
  const found = verified(text);
  expect(found).toMatchObject({ code: 0, said: `whole: ${rows.length} rows, the last ${rows.at(-1)!.hash}` });
  expect(verified(text, hashOf(3)).code).toBe(0);
});

test("a letter changed, a row taken out, put in or moved, an end cut off: the script finds each", () => {
  const all = lines();
  const joined = (changed: readonly string[]) => `${changed.join("\n")}\n`;
  const without = (at: number) => all.filter((_, i) => i !== at);
  const changed = all.map((line, i) => (i === 4 ? line.replace(/\\"type\\":\\"[a-z]/, '\\"type\\":\\"X') : line));
  expect(changed[4]).not.toBe(all[4]);
  expect(verified(joined(changed)).faults).toContain("row 4 was changed: its hash does not fit its body");
  expect(verified(joined(without(4))).faults).toContain("row 5 comes after row 3");
  expect(verified(joined([...all.slice(0, 5), all[4]!, ...all.slice(5)])).code).toBe(1);
  expect(verified(joined([...all.slice(0, 3), all[4]!, all[3]!, ...all.slice(5)])).code).toBe(1);
  const cut = verified(joined(all.slice(0, -2)));
  expect(cut.faults[0]).toMatch(/^it ends at row \d+, and says that it has \d+/);
  // Cut with its first line written anew to fit: only a hash that was noted elsewhere tells.
  const head = JSON.parse(all[0]!) as object;
  const last = JSON.parse(all.at(-3)!) as { seq: number; hash: string };
  const forged = joined([JSON.stringify({ ...head, rows: last.seq, head: last.hash }), ...all.slice(1, -2)]);
  expect(verified(forged).code).toBe(0);
  expect(verified(forged, hashOf(all.length - 1)).faults[0]).toMatch(/^no row has the hash that was noted/);
  expect(verified("").faults).toEqual(["the file is empty"]);
  expect(verified("no\n").code).toBe(1);
});

test("what is written while it is taken out is not in it, and it is whole all the same", async () => {
  const taking = ledgerLines(site.db, site.clock_ms);
  let taken = taking.next().value as string;
  await site.refused("cora", "permit.check", { permit: "P-8" });
  for (const piece of taking) taken += piece;
  expect(verified(taken).code).toBe(0);
  expect(taken.trimEnd().split("\n")).toHaveLength(lines().length);
});
