import { ACTS } from "../../src/server/acts/acts";
import { ROW_TYPES } from "../../src/core/words/en/rowSentences";
import { randomUUID } from "node:crypto";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { withoutTriggers } from "../support/tampering";
import { openDatabase, type Db } from "../../src/server/db/database";
import { appendToLedger, chainHash, inLedger, type LedgerEntry } from "../../src/server/ledger/append";
import { verifyLedger } from "../../src/server/ledger/verify";

describe("the ledger", () => {
  let folder: string;
  let db: Db;
  let headFile: string;
  const entry = (n: number): LedgerEntry => ({
    actId: randomUUID(),
    type: "step.do",
    outcome: "done",
    by: "person-1",
    subject: `S-${n}`,
    doneAt_ms: n,
    recordedAt_ms: n,
    transcribedBy: null,
    corrects: null,
    input: { n, text: "ünï ✓" },
    answer: { ok: true },
  });

  /** As acts do. */
  const append = (n: number) =>
    inLedger(db, headFile, (tx) => ({ head: appendToLedger(tx, entry(n)), value: undefined }));

  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), "lantern-ledger-"));
    db = openDatabase(join(folder, "heavy-lantern.db"));
    headFile = join(folder, "ledger-head.json");
    for (let n = 1; n <= 6; n++) append(n);
  });
  afterEach(() => {
    db.$client.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const faults = () => {
    const result = verifyLedger(db.$client, headFile);
    return result.ok ? [] : [...result.faults];
  };
  /** As somebody with the database file and no respect. */
  const tamper = (sql: string) => withoutTriggers(db.$client, sql);

  test("is whole when nobody touched it", () => {
    expect(verifyLedger(db.$client, headFile)).toMatchObject({ ok: true, rows: 6 });
  });

  test("cannot be changed or cut through the database connection", () => {
    expect(() => db.$client.exec("UPDATE ledger SET subject = 'x'")).toThrow("append-only");
    expect(() => db.$client.exec("DELETE FROM ledger WHERE seq = 6")).toThrow("append-only");
  });

  test("names a row whose body was changed", () => {
    tamper(`UPDATE ledger SET body = replace(body, 'S-3', 'S-9') WHERE seq = 3`);
    expect(faults()).toContain("row 3 was changed: its hash does not fit its body");
  });

  test("names a row whose column was changed", () => {
    tamper(`UPDATE ledger SET by_person = 'person-2' WHERE seq = 4`);
    expect(faults()).toEqual(["row 4 was changed: column by_person does not fit its body"]);
  });

  test("names a row that was removed", () => {
    tamper("DELETE FROM ledger WHERE seq = 2");
    expect(faults()).toContain("rows 2 to 2 are missing");
  });

  test("names a row that was put in between, even with a hash of its own", () => {
    tamper(`UPDATE ledger SET seq = seq + 100 WHERE seq > 3; UPDATE ledger SET seq = seq - 99 WHERE seq > 100;
      INSERT INTO ledger SELECT 4, 'forged', body_version, type, outcome, by_person, subject, done_at_ms, recorded_at_ms,
      transcribed_by, corrects, body, previous_hash, hash FROM ledger WHERE seq = 3`);
    expect(faults().join("\n")).toMatch(/row 4 does not follow the row before it/);
  });

  test("shows a tail that was cut, by the head file", () => {
    tamper("DELETE FROM ledger WHERE seq > 4");
    expect(faults()).toContain("the tail was cut: the head file knows row 6, the last row is 4");
    // And nothing makes it look whole again: no act is written after it.
    expect(() => append(5)).toThrow("the head file knows row 6, and the last row is 4");
    expect(faults()).toContain("the tail was cut: the head file knows row 6, the last row is 4");
  });

  test("a row whose head was never written is no fault, where it was about to be; more than that is", () => {
    // Killed between the commit and the head file's second word.
    const before = readFileSync(headFile, "utf8");
    append(7);
    const row = db.$client.prepare("SELECT seq, hash FROM ledger WHERE seq = 7").get();
    writeFileSync(headFile, JSON.stringify({ ...(JSON.parse(before) as object), next: row }));
    expect(faults()).toEqual([]);
    // Killed before the commit.
    append(8);
    const next = { seq: 9, hash: "0" };
    writeFileSync(headFile, JSON.stringify({ ...(JSON.parse(readFileSync(headFile, "utf8")) as object), next }));
    expect(faults()).toEqual([]);
    append(9);
    expect(faults()).toEqual([]);
    expect(JSON.parse(readFileSync(headFile, "utf8"))).not.toHaveProperty("next");
  });

  test("where the head file cannot be written nothing is done, but for what stops work", () => {
    rmSync(`${headFile}.part`, { force: true });
    mkdirSync(`${headFile}.part`);
    expect(() => append(7)).toThrow(/cannot be written/);
    expect(verifyLedger(db.$client, headFile)).toMatchObject({ ok: true, rows: 6 });
    inLedger(db, headFile, (tx) => ({ head: appendToLedger(tx, entry(7)), value: undefined }), true);
    expect(faults()).toEqual(["rows 7 to 7 were inserted: the head file knows only row 6"]);
  });

  test("a record written anew, every hash and the head file with it, is found by heads that were noted elsewhere", () => {
    const was = process.env.LANTERN_HEADS;
    process.env.LANTERN_HEADS = mkdtempSync(join(folder, "heads-"));
    try {
      for (let n = 7; n <= 9; n++) append(n);
      expect(verifyLedger(db.$client, headFile).ok).toBe(true);
      const rows = db.$client.prepare("SELECT seq, body FROM ledger ORDER BY seq").all() as {
        seq: number;
        body: string;
      }[];
      let previous = "0".repeat(64);
      const edits = rows.map(({ seq, body }) => {
        const made = seq === 8 ? body.replace("S-8", "S-1") : body;
        const hash = chainHash(previous, made);
        const edit = `UPDATE ledger SET body = '${made}', previous_hash = '${previous}', hash = '${hash}',
          subject = '${seq === 8 ? "S-1" : `S-${seq}`}' WHERE seq = ${seq}`;
        previous = hash;
        return edit;
      });
      tamper(edits.join(";"));
      writeFileSync(headFile, JSON.stringify({ seq: 9, hash: previous }));
      expect(verifyLedger(db.$client, headFile, null).ok).toBe(true);
      expect(faults()).toEqual([
        expect.stringMatching(/^row 8 is not the one that is noted in .*: the record was written anew/),
      ]);
      tamper("DELETE FROM ledger WHERE seq > 7");
      expect(faults().join()).toMatch(/row 8 is noted in .*, the last row is 7/);
    } finally {
      process.env.LANTERN_HEADS = was ?? "";
    }
  });

  test("shows rows appended behind the server's back, and a lost head file", () => {
    for (let n = 7; n <= 9; n++) db.transaction((tx) => appendToLedger(tx, entry(n)));
    expect(faults().join()).toMatch(/rows 7 to 9 were inserted/);
    rmSync(headFile);
    expect(faults()).toEqual(["the head file is missing"]);
    for (const text of ["{}", "", "{"]) {
      writeFileSync(headFile, text);
      expect(faults()).toEqual(["the head file is damaged"]);
      expect(() => append(10)).toThrow("the head file is damaged");
    }
  });
});

test("every act has a sentence of its own in the ledger", () => {
  expect([...ACTS.keys()].filter((type) => !ROW_TYPES.includes(type))).toEqual([]);
});
