// The server: the built application behind one listener, plain or with a certificate. What a request says of who it comes
// from and which site it is for is settled here, before anything reads it.
import { readFileSync } from "node:fs";
import { createServer as plain } from "node:http";
import { createServer as secure } from "node:https";
import { dirname, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import next from "next";
import { Lanes } from "./serve/lanes.mjs";
import { isOnlyLookedAt, Readers } from "./serve/readers.mjs";

const HOME = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const port = Number(process.env.PORT ?? 4180);
const hostname = process.env.LANTERN_HOST ?? "127.0.0.1";
const { LANTERN_CERT: cert, LANTERN_KEY: key } = process.env;
const url = process.env.LANTERN_URL ? new URL(process.env.LANTERN_URL) : null;
/** A proxy in front says whom it speaks for; anybody else may say what they like, and is not believed. */
const isBehindProxy = process.env.LANTERN_PROXY === "1";
const isSecure = cert !== undefined || url?.protocol === "https:";
if (isSecure) process.env.LANTERN_HTTPS = "1";

/** Longer than a proxy keeps a line open: a line that the server closes first loses the request that was on its way. */
const IDLE_MS = 15 * 60_000;
/** An upload over a bad radio link takes its time; who only holds a line open does not get longer. */
const REQUEST_MS = 5 * 60_000;
const YEAR_S = 31_536_000;

// What a form leads to is fetched from here in the same breath: by a door of this machine's own, never by the network.
const inside = plain((request, response) => listen(request, response));
await new Promise((ready) => inside.listen(0, "127.0.0.1", ready));
process.env.__NEXT_PRIVATE_ORIGIN = `http://127.0.0.1:${inside.address().port}`;

const readers = new Readers({
  told: () => `${Math.round(performance.timeOrigin)}.${globalThis.heavyLanternTold ?? 0}`,
  moved_ms: () => globalThis.heavyLanternClockOffset_ms ?? 0,
  onSeen: (session) => globalThis.heavyLanternSessionSeen?.(session),
});

// Beside this one's own start: it asks the database nothing before it is asked itself.
const reading = readers.start();

const app = next({ dev: false, dir: HOME, hostname, port });
await app.prepare();
const answer = app.getRequestHandler();

function settle(request) {
  const { headers, socket } = request;
  if (!isBehindProxy) headers["x-forwarded-for"] = socket.remoteAddress ?? "";
  delete headers["x-forwarded-host"];
  headers["x-forwarded-proto"] = isSecure ? "https" : "http";
  // One site, one address: what was sent for another name, by whatever way, is for this one or for nobody.
  if (url !== null) headers.host = url.host;
}

function listen(request, response) {
  settle(request);
  if (isSecure) response.setHeader("Strict-Transport-Security", `max-age=${YEAR_S}`);
  const here = () => void answer(request, response);
  // Only the process that acts says what it handed over, and to whom.
  delete request.headers["x-lantern-handed"];
  if (isOnlyLookedAt(request.method, request.url)) readers.answer(request, response, here);
  else here();
}

/** A browser sends six at once to one address; behind one address may be a whole crew. */
const lanes = new Lanes({ ofOne: 6, ofAddress: 32, waiting: 120 });
const senderOf = ({ headers }) => /(?:^|;\s*)lantern_session=([^;]{1,100})/.exec(headers.cookie ?? "")?.[1] ?? "";
const addressOf = ({ headers, socket }) =>
  isBehindProxy
    ? String(headers["x-forwarded-for"] ?? "")
        .split(",")
        .at(-1)
        .trim()
    : (socket.remoteAddress ?? "");
const TOO_MUCH = JSON.stringify({
  ok: false,
  status: 503,
  code: "busy",
  sentence: "Too much is asked from here at once. Nothing was changed: try again in a minute.",
});

/** In its sender's turn. A stream of events, which does not end, has had its turn once it has begun. */
function inTurn(request, response) {
  const goAway = lanes.enter(addressOf(request), senderOf(request), (leave) => {
    response.once("close", leave);
    if (request.url?.startsWith("/api/events")) {
      const { writeHead } = response;
      response.writeHead = (...head) => (leave(), writeHead.apply(response, head));
    }
    listen(request, response);
  });
  if (goAway !== null) return void response.once("close", goAway);
  response.writeHead(503, { "content-type": "application/json", "retry-after": "5", connection: "close" });
  response.end(TOO_MUCH);
}
const server =
  cert === undefined ? plain(inTurn) : secure({ cert: readFileSync(cert), key: readFileSync(key) }, inTurn);
server.keepAliveTimeout = IDLE_MS;
server.headersTimeout = 60_000;
server.requestTimeout = REQUEST_MS;
server.once("error", (error) => {
  process.stderr.write(`The server cannot listen on ${hostname} port ${port}: ${error.code ?? error.message}\n`);
  process.exit(1);
});
server.listen(port, hostname, async () => {
  // What an act needs is loaded before the first one comes: it may be one that stops work.
  await reading;
  const inner = process.env.__NEXT_PRIVATE_ORIGIN;
  const load = [
    fetch(`${inner}/api/acts`, { method: "POST" }),
    ...["events", "alarms", "instruments", "health"].map((route) => fetch(`${inner}/api/${route}`)),
    fetch(`${inner}/`, { redirect: "manual" }),
  ];
  await Promise.allSettled(load.map(async (one) => (await one).arrayBuffer()));
  const own = `${cert === undefined ? "http" : "https"}://${hostname}:${port}`;
  process.stdout.write(`Ready ${url === null ? own : url.origin}\n`);
});

for (const signal of ["SIGINT", "SIGTERM"]) {
  process.once(signal, () => {
    inside.close();
    readers.stop();
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    // Event streams end by themselves; whoever holds on longer is let go.
    setTimeout(() => process.exit(0), 3000).unref();
  });
}
