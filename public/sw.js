/*
 * Pages seen before can be opened again without a network: a phone in a basement reloads, and the walk is still there.
 * Only what was seen, only on this device, and only when the server cannot be reached. Acts never pass through here.
 *
 * The address names the build. A new build has caches of its own: pages that were kept are fetched anew, and what the
 * builds before had kept goes.
 */
const BUILD = new URL(self.location.href).searchParams.get("build") ?? "none";
const PREFIX = "heavy-lantern-";
const PAGES = `${PREFIX}pages-${BUILD}`;
const FILES = `${PREFIX}files-${BUILD}`;
/** Walks and their pictures of the plant; nothing that asks the server for a decision. */
const KEPT_PAGES = /^\/jobs\/[^/]+\/(walk|points|kit)$/;
/** A network that swallows what is sent is as good as none. */
const ANSWER_WITHIN_MS = 10_000;

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(takeOver()));

self.addEventListener("message", (event) => {
  // Signing out takes what was kept along: the next person at this device sees nothing of the one before.
  if (event.data === "forget") event.waitUntil(forgetPages());
  // A page that was open before this worker was, or that was reached without loading it anew.
  if (typeof event.data?.keep === "string" && KEPT_PAGES.test(event.data.keep)) event.waitUntil(keep(event.data.keep));
});

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== "GET" || url.origin !== self.location.origin) return;
  if (url.pathname.startsWith("/_next/static/")) return event.respondWith(fileFirst(request));
  if (request.mode === "navigate" && KEPT_PAGES.test(url.pathname)) event.respondWith(networkFirst(request));
});

/** What an earlier build kept is fetched anew; what cannot be had now stays with its files until it can. */
async function takeOver() {
  await self.clients.claim();
  const names = await caches.keys();
  const earlier = names.filter((name) => name.startsWith(PREFIX) && name !== PAGES && name !== FILES);
  let whole = true;
  for (const name of earlier.filter((one) => one.startsWith(`${PREFIX}pages`))) {
    for (const request of await (await caches.open(name)).keys()) {
      try {
        await keep(new URL(request.url).pathname);
      } catch {
        whole = false;
      }
    }
  }
  if (whole) await Promise.all(earlier.map((name) => caches.delete(name)));
}

async function forgetPages() {
  const names = (await caches.keys()).filter((name) => name.startsWith(`${PREFIX}pages`));
  await Promise.all(names.map((name) => caches.delete(name)));
}

/** A page with the files that it needs, so that it opens without a network. */
async function keep(path) {
  const pages = await caches.open(PAGES);
  const answer = await fetch(path, { credentials: "same-origin", signal: AbortSignal.timeout(ANSWER_WITHIN_MS) });
  if (!answer.ok || answer.redirected) return;
  const html = await answer.clone().text();
  const paths = new Set(html.match(/\/_next\/static\/[^"'\\\s)<>]+/g) ?? []);
  await Promise.allSettled([...paths].map((file) => fileFirst(new Request(file))));
  await pages.put(path, answer);
}

async function fileFirst(request) {
  const files = await caches.open(FILES);
  const known = await files.match(request);
  if (known) return known;
  // Files are named by their content: one that an earlier build kept is the same, and comes along.
  const earlier = await caches.match(request);
  if (earlier) {
    await files.put(request, earlier.clone());
    return earlier;
  }
  const answer = await fetch(request, { signal: AbortSignal.timeout(3 * ANSWER_WITHIN_MS) });
  if (answer.ok) await files.put(request, answer.clone());
  return answer;
}

async function networkFirst(request) {
  const { pathname } = new URL(request.url);
  const asked = fetch(request);
  try {
    const answer = await inTime(asked);
    if (answer.ok && !answer.redirected) await (await caches.open(PAGES)).put(pathname, answer.clone());
    return answer;
  } catch (error) {
    const known = await caches.match(pathname);
    if (known) return known;
    // Never seen here: a server that is slow is waited for, and one that cannot be reached says so itself.
    if (error instanceof Late) return asked;
    throw error;
  }
}

class Late extends Error {}

/** A navigation takes no signal of its own: it is raced. */
function inTime(answer) {
  return Promise.race([
    answer,
    new Promise((_, late) => setTimeout(() => late(new Late("no answer in time")), ANSWER_WITHIN_MS)),
  ]);
}
