import { existsSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import { Piscina } from "piscina";
import { hashing, type Hashing } from "../../workers/hashing";
import { doTask, type TaskName, type Tasks } from "../../workers/tasks";
import { isReader } from "./reader";

/**
 * Threads for what is too heavy for the one that answers everybody. Plans, imports, papers and pictures share one pool, of
 * low priority; passwords and PINs have one of their own, so that no picture keeps a person from signing. Queues are
 * bounded and every task has its time: what cannot be done soon is refused, and says so.
 */

/** In ms. A hostile plan or picture ends with its thread. */
const WITHIN_MS: Readonly<Record<TaskName, number>> = {
  plan: 60_000,
  compare: 120_000,
  "stage register": 120_000,
  "take upload": 120_000,
  workbook: 60_000,
  "compare registers": 60_000,
  "write register": 120_000,
  "judge standing": 120_000,
  "lay out": 60_000,
  paper: 60_000,
  photo: 30_000,
};
const HASH_WITHIN_MS = 20_000;
const HEAVY_QUEUE = 24;
const HASH_QUEUE = 200;
const NICE = 10;
/** One core is left to the thread that answers everybody. */
const HASHERS = Math.max(1, Math.min(4, availableParallelism() - 1));

/** There is no room for it now, or it took longer than anybody waits. Nothing was changed. */
export class Busy extends Error {
  constructor(readonly why: "queue" | "time") {
    super(
      why === "queue"
        ? "The server has too many sums to do at the moment. Nothing was changed: try again in a minute."
        : "The server did not get to the end of this sum in time. Nothing was changed: try again, or ask for less.",
    );
  }
}

type Pools = Readonly<{ heavy: Piscina; hashing: Piscina }>;
const holder = globalThis as { heavyLanternPools?: Pools };

/** Starts the threads. Without them, as in a test or on the command line, tasks are done where they are asked for. */
export function startWorkers(): void {
  const file = (name: string) =>
    join(/*turbopackIgnore: true*/ process.env.LANTERN_HOME ?? process.cwd(), ".lantern", `${name}.mjs`);
  if (holder.heavyLanternPools || !existsSync(file("heavy")) || !existsSync(file("hashing"))) return;
  holder.heavyLanternPools = {
    heavy: new Piscina({
      filename: file("heavy"),
      minThreads: 1,
      maxThreads: 2,
      idleTimeout: 60_000,
      maxQueue: HEAVY_QUEUE,
      niceIncrement: NICE,
    }),
    hashing: new Piscina({
      filename: file("hashing"),
      // Nobody signs in a reader.
      minThreads: isReader() ? 0 : 1,
      maxThreads: HASHERS,
      maxQueue: HASH_QUEUE,
    }),
  };
}

export async function stopWorkers(): Promise<void> {
  const pools = holder.heavyLanternPools;
  delete holder.heavyLanternPools;
  await Promise.all([pools?.heavy.destroy(), pools?.hashing.destroy()]);
}

/** @throws Busy when there is no room for it, or when its time is over. */
export function heavy<Name extends TaskName>(name: Name, given: Tasks[Name]["given"]): Promise<Tasks[Name]["gives"]> {
  const pool = holder.heavyLanternPools?.heavy;
  if (pool === undefined) return doTask(name, given);
  return inTime(pool, { name, given }, WITHIN_MS[name]) as Promise<Tasks[Name]["gives"]>;
}

/** @throws Busy likewise. */
export async function hashed(task: Hashing): Promise<string | boolean> {
  const pool = holder.heavyLanternPools?.hashing;
  return pool === undefined ? hashing(task) : ((await inTime(pool, task, HASH_WITHIN_MS)) as string | boolean);
}

async function inTime(pool: Piscina, task: unknown, within_ms: number): Promise<unknown> {
  const signal = AbortSignal.timeout(within_ms);
  try {
    return await pool.run(task, { signal });
  } catch (error) {
    if (signal.aborted) throw new Busy("time");
    if (error instanceof Error && /queue/i.test(error.message)) throw new Busy("queue");
    throw error;
  }
}
