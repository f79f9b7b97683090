/*
 * Pages seen before can be opened again without a network: a phone in a basement reloads, and the walk is still there.
 * Only what was seen, only on this device, and only when the server cannot be reached. Acts never pass through here.
 */
const PAGES = "heavy-lantern-pages";
const FILES = "heavy-lantern-files";
/** Walks and their pictures of the plant; nothing that asks the server for a decision. */
const KEPT_PAGES = /^\/jobs\/[^/]+\/(walk|points|kit)$/;

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

self.addEventListener("message", (event) => {
  // Signing out takes what was kept along: the next person at this device sees nothing of the one before.
  if (event.data === "forget") event.waitUntil(caches.delete(PAGES));
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

/** A page with the files that it needs, so that it opens without a network. */
async function keep(path) {
  const pages = await caches.open(PAGES);
  const answer = await fetch(path, { credentials: "same-origin" });
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
  const answer = await fetch(request);
  if (answer.ok) await files.put(request, answer.clone());
  return answer;
}

async function networkFirst(request) {
  const pages = await caches.open(PAGES);
  try {
    const answer = await fetch(request);
    if (answer.ok && !answer.redirected) await pages.put(new URL(request.url).pathname, answer.clone());
    return answer;
  } catch (error) {
    const known = await pages.match(new URL(request.url).pathname);
    if (known) return known;
    throw error;
  }
}
