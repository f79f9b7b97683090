// Two runs of ./lantern at once: one installs and builds, the other waits.
import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from "node:fs";
import { join } from "node:path";
import { say, STAMPS } from "./make.mjs";

const LOOK_AGAIN_MS = 500;

function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === "EPERM";
  }
}

/** The process that holds a lock file; null when nobody that lives does. */
function holder(path) {
  try {
    const pid = Number(readFileSync(path, "utf8"));
    return Number.isInteger(pid) && pid > 0 && isAlive(pid) ? pid : null;
  } catch {
    return null;
  }
}

/** Takes the lock file, or says who has it. One left by a process that is gone is taken over. */
function take(path) {
  for (;;) {
    try {
      const file = openSync(path, "wx");
      writeSync(file, String(process.pid));
      closeSync(file);
      process.on("exit", () => rmSync(path, { force: true }));
      return null;
    } catch (error) {
      if (error.code !== "EEXIST") throw error;
      const pid = holder(path);
      if (pid !== null) return pid;
      rmSync(path, { force: true });
    }
  }
}

/** While this folder is installed or built in, others wait. Gives back what lets go. */
export function holdWork() {
  mkdirSync(STAMPS, { recursive: true });
  const path = join(STAMPS, "work.lock");
  let said = false;
  for (let other = take(path); other !== null; other = take(path)) {
    if (!said) say(`Another ./lantern (process ${other}) is installing or building here. Waiting for it.`);
    said = true;
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, LOOK_AGAIN_MS);
  }
  return () => rmSync(path, { force: true });
}
