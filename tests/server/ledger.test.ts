import { randomUUID } from "node:crypto";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openDatabase, type Db } from "../../src/server/db/database";
import { appendToLedger, writeHeadFile, type LedgerEntry } from "../../src/server/ledger/append";
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

  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), "lantern-ledger-"));
    db = openDatabase(join(folder, "heavy-lantern.db"));
    headFile = join(folder, "ledger-head.json");
    for (let n = 1; n <= 6; n++)
      writeHeadFile(
        db.transaction((tx) => appendToLedger(tx, entry(n))),
        headFile,
      );
  });
  afterEach(() => {
    db.$client.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const faults = () => {
    const result = verifyLedger(db, headFile);
    return result.ok ? [] : [...result.faults];
  };
  /** As somebody with the database file and no respect. */
  const tamper = (sql: string) =>
    db.$client.exec(`DROP TRIGGER ledger_no_update; DROP TRIGGER ledger_no_delete; ${sql}`);

  test("is whole when nobody touched it", () => {
    expect(verifyLedger(db, headFile)).toMatchObject({ ok: true, rows: 6 });
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
    expect(faults()).toEqual(["the tail was cut: the head file knows row 6, the last row is 4"]);
  });

  test("shows rows appended behind the server's back, and a lost head file", () => {
    for (let n = 7; n <= 9; n++) db.transaction((tx) => appendToLedger(tx, entry(n)));
    expect(faults().join()).toMatch(/rows 8 to 9 were inserted/);
    rmSync(headFile);
    expect(faults()).toEqual(["the head file is missing"]);
    writeFileSync(headFile, "{}");
    expect(() => faults()).toThrow("is damaged");
  });
});
