// The reader: a second process of the same application that only draws pages and writes nothing. The one that signs and
// stops starts it, hands it what is only looked at, and goes on by itself where it is not there.
import { rmdirSync, rmSync } from "node:fs";
import { createServer } from "node:http";
import { setPriority } from "node:os";
import { dirname, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import next from "next";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..", "..");
/** What is looked at waits for what is signed. */
const NICE = 5;
const socket = process.argv[2];

// Whoever started it is gone: it is no use by itself, and holds nothing that is not on disk.
process.on("disconnect", () => {
  try {
    rmSync(socket, { force: true });
    rmdirSync(dirname(socket));
  } catch {
    // It was cleared away by the other one.
  }
  process.exit(0);
});
// Told to stop are both at once; this one answers what it has and ends with the other.
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => undefined);
process.on("message", (said) => process.send({ still: said.still }));

try {
  setPriority(NICE);
} catch {
  // A system without priorities: then both are alike.
}

const app = next({ dev: false, dir: HOME });
await app.prepare();
const answer = app.getRequestHandler();

createServer((request, response) => {
  // What the other process had told by the time it handed this over: whatever is read from here on is later.
  const { told, moved_ms } = JSON.parse(request.headers["x-lantern-handed"]);
  delete request.headers["x-lantern-handed"];
  globalThis.heavyLanternToldThere = told;
  globalThis.heavyLanternClockOffset_ms = moved_ms;
  void answer(request, response);
}).listen(socket, () => process.send({ ready: true }));
