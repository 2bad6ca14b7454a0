/* What was opened once opens again without the network: the page's own files, and the jobs that were looked at. */
const FILES = "files-1";
const READ = "read-1";
/* Questions whose last answer is good enough to go on with; what is changed is never answered from here. */
const KEPT = /^\/api\/(session|jobs|jobs\/\d+|jobs\/\d+\/photos\/\w+|options\/\d+|options\/\d+\/floor|options\/\d+\/heat\/[\w-]+|catalogue|glossary|library)$/;

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => {
  const old = async () => {
    for (const name of await caches.keys()) if (name !== FILES && name !== READ) await caches.delete(name);
    await self.clients.claim();
  };
  event.waitUntil(old());
});

async function fresh(request, cache, key) {
  const kept = await caches.open(cache);
  try {
    const answer = await fetch(request);
    if (answer.ok) await kept.put(key, answer.clone());
    return answer;
  } catch (error) {
    const before = await kept.match(key);
    if (before) return before;
    throw error;
  }
}

async function once(request) {
  const kept = await caches.open(FILES);
  const before = await kept.match(request);
  if (before) return before;
  const answer = await fetch(request);
  if (answer.ok) await kept.put(request, answer.clone());
  return answer;
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== "GET" || url.origin !== self.location.origin) return;
  if (url.pathname.startsWith("/assets/")) event.respondWith(once(request));
  else if (request.mode === "navigate" && !url.pathname.startsWith("/look/")) {
    event.respondWith(fresh(request, FILES, "/"));
  } else if (KEPT.test(url.pathname)) event.respondWith(fresh(request, READ, url.pathname));
});

/* Another person at this browser sees nothing of the one before. */
self.addEventListener("message", (event) => {
  if (event.data === "forget") event.waitUntil(caches.delete(READ));
});
