import { randomUUID } from "node:crypto";
import { readFileSync, renameSync, writeFileSync } from "node:fs";
import { uptime } from "node:os";
import { join } from "node:path";
import { z } from "zod";
import { steppedBy_ms, type Clocks } from "../../core/ledger/clockWatch";
import { duration } from "../../core/units/format";
import { isNoneOf } from "../db/isAmong";
import { database, dataFolder, type Db } from "../db/database";
import { permits } from "../db/schema";
import { aboutOf } from "../ledger/aboutOf";
import { appendToLedger, inLedger } from "../ledger/append";
import { headFilePath } from "../ledger/headFile";
import { CLOCK } from "../ledger/nobody";
import { actTime_ms, clockStep_ms, now_ms, testClockSet_ms } from "../runtime/clock";
import { announce } from "../runtime/events";
import { log } from "../runtime/log";
import { countTimesAnew } from "./clockTimes";
import { settleNumbers } from "./settlePermits";

/**
 * The server's clock beside one that nobody sets: where it was set, waits and ages by it say nothing any more, whichever way it
 * went, and the ledger alone would show only one that was set far back just after an act.
 */
export const CLOCK_STEPPED = "clock.stepped";
const SEEN = "seen by the machine's own count of time";

const watch = globalThis as { heavyLanternClocks?: Clocks };
const FILE = "clock.json";
const fileSchema = z.object({ wall_ms: z.number(), up_ms: z.number(), boot: z.string() });

/** Both clocks at this moment. Where the machine does not tell one start from the next, only this run of the server counts. */
function clocksNow(): Clocks {
  return { wall_ms: Date.now() + testClockSet_ms(), up_ms: uptime() * 1000, boot: bootOf() };
}

function bootOf(): string {
  try {
    return readFileSync("/proc/sys/kernel/random/boot_id", "utf8").trim();
  } catch {
    return `run of process ${process.pid}`;
  }
}

/** From now on the clock is watched; what it was set by since the last run of this server on this start of the machine is noticed. */
export function startClockWatch(): void {
  try {
    watch.heavyLanternClocks = fileSchema.parse(JSON.parse(readFileSync(join(dataFolder(), FILE), "utf8")));
  } catch {
    // The first run, or a file that says nothing.
    rememberClocks();
  }
}

/** The clock is taken as right from here. */
export function rememberClocks(clocks: Clocks = clocksNow()): void {
  watch.heavyLanternClocks = clocks;
  const path = join(dataFolder(), FILE);
  try {
    writeFileSync(`${path}.new`, JSON.stringify(clocks));
    renameSync(`${path}.new`, path);
  } catch (error) {
    log().error({ err: error }, "the clocks could not be written down: a step over a restart would not be noticed");
  }
}

/** Looks whether the clock was set since the last look, and does what has to follow. Cheap where it was not: every act asks. */
export function noticeClock(db: Db = database(), headFile = headFilePath()): void {
  const known = watch.heavyLanternClocks;
  if (known === undefined) return;
  const clocks = clocksNow();
  if (known.boot !== clocks.boot) return rememberClocks(clocks);
  const by_ms = steppedBy_ms(known, clocks);
  try {
    if (by_ms !== null && clockStepped(db, headFile, by_ms, now_ms())) rememberClocks(clocks);
  } catch (error) {
    // Whoever stops work is not kept from it; the next look tries again.
    log().error({ err: error }, "a clock that was set could not be written down");
  }
}

/**
 * The clock was set by so much: what was timed by it is counted and done anew, and every permit that this moves has a row of
 * its own. False, and nothing done, where acts stand still until a person settles it.
 */
export function clockStepped(db: Db, headFile: string, by_ms: number, clock_ms: number): boolean {
  const moved = inLedger(
    db,
    headFile,
    (tx) => {
      if (clockStep_ms(tx, clock_ms) !== null) return { head: null, value: null };
      const at_ms = actTime_ms(tx, clock_ms);
      countTimesAnew(tx, { now_ms: at_ms, by_ms, words: SEEN });
      const which = by_ms > 0 ? "jumped ahead by" : "was set back by";
      const own = appendToLedger(tx, {
        actId: randomUUID(),
        type: CLOCK_STEPPED,
        outcome: "done",
        by: CLOCK,
        subject: "",
        doneAt_ms: at_ms,
        recordedAt_ms: at_ms,
        transcribedBy: null,
        corrects: null,
        input: { by_ms, words: SEEN },
        answer: {
          ok: true,
          answer: {
            did: `the server's clock ${which} ${duration(Math.round(Math.abs(by_ms) / 1000))}: what was timed by it is done again`,
          },
        },
      });
      const open = tx
        .select({ number: permits.number })
        .from(permits)
        .where(isNoneOf(permits.state, ["closed", "cancelled"]))
        .all();
      const settled = settleNumbers(
        tx,
        open.map(({ number }) => number),
        at_ms,
      );
      return { head: settled.head ?? own, value: settled.moved };
    },
    true,
  );
  if (moved === null) return false;
  log().error({ by_ms }, "the machine's clock was set: what was timed by it is done again");
  for (const number of moved) announce({ kind: "permit", subject: number, about: aboutOf(db, number) });
  announce({ kind: "permit", subject: "", about: [] });
  return true;
}
