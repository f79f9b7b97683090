// Hands what is only looked at to the reader, so that drawing a large page keeps nobody from stopping work.
import { fork } from "node:child_process";
import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { Agent, request as ask } from "node:http";
import { availableParallelism, tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

const READER = fileURLToPath(new URL("./reader.mjs", import.meta.url));
const READY_WITHIN_MS = 60_000;
const LOOK_EVERY_MS = 10_000;
/** Looks without a sign of life; longer than the largest page takes on a slow machine. */
const DEAD_AFTER = 6;
const AGAIN_AFTER_MS = 1000;
/** One that ends as soon as it has begun is not started over and over. */
const AGAIN_MOST_MS = 60_000;
/** Of one line between two processes, and no business of the other one. */
const OF_THE_LINE = new Set(["connection", "keep-alive", "transfer-encoding", "upgrade", "te", "trailer"]);

const OF_THE_BODY = new Set([...OF_THE_LINE, "content-length", "content-type", "content-encoding", "expect"]);

/**
 * What a reader answers: pages, files, papers, lists, calendars, and sums about the board. Everything that is sent, and what belongs to
 * the process that acts (its streams, its health, the test's clock), stays where it is.
 *
 * @param {string | undefined} method
 * @param {string | undefined} url
 */
export function isOnlyLookedAt(method, url = "") {
  if (method !== "GET" && method !== "HEAD") return false;
  return !url.startsWith("/api/") || ["board", "calendar", "jobs"].some((room) => url.startsWith(`/api/${room}/`));
}

/** A reader, started again whenever it ends. On a machine with one core there is none: it would only be in the way. */
export class Readers {
  #child = null;
  #folder = null;
  #agent = new Agent({ keepAlive: true });
  #isOver = false;
  #again_ms = AGAIN_AFTER_MS;

  /**
   * @param {{ told: () => string, moved_ms: () => number, onSeen: (session: string) => void }} here what the process that
   *   acts knows, and what it is told of sessions that were used
   */
  constructor(here) {
    this.here = here;
  }

  /** Resolves once there is one, or it is clear that there will be none for now. */
  async start() {
    if (availableParallelism() < 2) return;
    // Nobody else of this machine speaks to it.
    const folder = mkdtempSync(join(tmpdir(), "lantern-"));
    chmodSync(folder, 0o700);
    const socket = join(folder, "reader");
    const child = fork(READER, [socket], { env: { ...process.env, LANTERN_READER: "1" } });
    this.#folder = folder;
    let unheard = 0;
    const watch = setInterval(() => {
      if (++unheard > DEAD_AFTER) child.kill("SIGKILL");
      else if (child.connected) child.send({ still: true });
    }, LOOK_EVERY_MS);
    watch.unref();
    await new Promise((settled) => {
      const late = setTimeout(settled, READY_WITHIN_MS);
      child.on("message", (said) => {
        unheard = 0;
        if (said.still === true) this.#again_ms = AGAIN_AFTER_MS;
        if (said.seen !== undefined) this.here.onSeen(said.seen);
        if (said.ready !== true) return;
        this.#child = { child, socket };
        clearTimeout(late);
        settled();
      });
      child.on("error", () => undefined);
      child.once("exit", () => {
        clearInterval(watch);
        clearTimeout(late);
        rmSync(folder, { recursive: true, force: true });
        if (this.#child?.child === child) this.#child = null;
        if (!this.#isOver) setTimeout(() => void this.start(), this.#again_ms).unref();
        this.#again_ms = Math.min(AGAIN_MOST_MS, this.#again_ms * 2);
        settled();
      });
    });
  }

  stop() {
    this.#isOver = true;
    this.#agent.destroy();
    this.#child?.child.disconnect();
    this.#child = null;
    if (this.#folder !== null) rmSync(this.#folder, { recursive: true, force: true });
  }

  /**
   * Has the reader answer, and `here` where there is none or it cannot: what is only looked at can be asked twice.
   *
   * @param {import("node:http").IncomingMessage} request
   * @param {import("node:http").ServerResponse} response
   * @param {() => void} here
   */
  answer(request, response, here) {
    if (this.#child === null) return here();
    const handed = JSON.stringify({ told: this.here.told(), moved_ms: this.here.moved_ms() });
    const { url: path, method } = request;
    // What is only looked at has no body. One that comes all the same is read to its end and goes no further: were its length
    // said and not sent, the next request on that line would be taken for it.
    request.resume();
    const headers = Object.fromEntries(Object.entries(request.headers).filter(([name]) => !OF_THE_BODY.has(name)));
    headers["x-lantern-handed"] = handed;
    const asked = ask({ socketPath: this.#child.socket, path, method, headers, agent: this.#agent });
    response.once("close", () => asked.destroy());
    let isHere = false;
    asked.on("error", () => {
      if (isHere || response.destroyed || response.writableEnded) return;
      isHere = !response.headersSent;
      if (isHere) here();
      else response.destroy();
    });
    asked.once("response", (answer) => {
      for (const [name, values] of Object.entries(answer.headersDistinct)) {
        if (!OF_THE_LINE.has(name)) response.setHeader(name, values.length === 1 ? values[0] : values);
      }
      response.writeHead(answer.statusCode, answer.statusMessage);
      answer.on("error", () => response.destroy());
      answer.pipe(response);
    });
    asked.end();
  }
}
