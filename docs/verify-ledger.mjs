// Looks at a ledger that was taken out as lines of JSON, without the program that wrote it. Node, and nothing else.
//
//   node docs/verify-ledger.mjs ledger.jsonl [HASH noted earlier, on paper or elsewhere]
//
// Each row's hash is SHA-256 of the hash before, a line feed, and the row's body as it stands; the first has 64 zeros before it.
import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { createInterface } from "node:readline";

const [file, noted] = process.argv.slice(2);
if (file === undefined) {
  console.error("write: node verify-ledger.mjs FILE [HASH]");
  process.exit(2);
}
const faults = [];
let first = null;
let seq = 0;
let previous = "0".repeat(64);
let seen = noted === undefined;
for await (const line of createInterface({ input: createReadStream(file), crlfDelay: Infinity })) {
  if (line === "") continue;
  let row;
  try {
    row = JSON.parse(line);
  } catch {
    faults.push(`after row ${seq}: a line is no JSON`);
    continue;
  }
  if (first === null) {
    first = row;
    if (row.format !== "heavy-lantern/ledger" || row.version !== 1) faults.push("the first line says another format");
    continue;
  }
  if (row.seq !== seq + 1) faults.push(`row ${row.seq} comes after row ${seq}`);
  if (row.previous !== previous) faults.push(`row ${row.seq} does not follow the row before it`);
  const hash = createHash("sha256").update(`${row.previous}\n${row.body}`).digest("hex");
  if (row.hash !== hash) faults.push(`row ${row.seq} was changed: its hash does not fit its body`);
  [seq, previous, seen] = [row.seq, row.hash, seen || row.hash === noted];
}
if (first === null) faults.push("the file is empty");
else if (first.rows !== seq || (seq > 0 && first.head !== previous)) {
  faults.push(`it ends at row ${seq}, and says that it has ${first.rows} and which is the last`);
}
if (!seen) faults.push("no row has the hash that was noted: this is another record, or its end was cut off before");
for (const fault of faults) console.error(fault);
console.log(faults.length === 0 ? `whole: ${seq} rows, the last ${previous}` : `not whole: ${faults.length} faults`);
process.exit(faults.length === 0 ? 0 : 1);
