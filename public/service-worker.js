/**
 * The service worker: a station, a floor and a card load without the network, after a reload or a
 * restart of the tablet too. The server sends it with the names of the built files before this text.
 *
 * - What is built never changes under its name: from the cache first.
 * - A page is asked of the network; where that does not answer, the browser is sent to the offline
 *   address of its place, never given another page's HTML. Those shells show nobody: whom a screen
 *   shows stands in the tablet's own store.
 * - A newer version waits until the last page of this one is closed: none takes over a session.
 */
const { files, build } = self.SPREZZA;
const CACHE = `sprezza-${build}`;
const SHELLS = ["/rack/offline", "/floor/offline", "/card/offline"];
/** A network that does not answer a page in this time is away, ms. */
const ANSWER_MS = 8000;

self.addEventListener("install", (event) => {
  event.waitUntil(
    caches.open(CACHE).then(async (cache) => {
      await cache.addAll(files);
      // As nobody: a shell is the same for everybody, and is kept with the headers it came with.
      for (const shell of SHELLS) {
        const answer = await fetch(shell, { credentials: "omit", cache: "no-store" });
        if (!answer.ok || answer.redirected) throw new Error(`${shell} is not there.`);
        await cache.put(shell, answer);
      }
    }),
  );
});

self.addEventListener("activate", (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(
          names
            .filter((name) => name.startsWith("sprezza-") && name !== CACHE)
            .map((name) => caches.delete(name)),
        ),
      ),
  );
});

/** Where a page goes that the network does not give. */
function offlineAddress(url) {
  // What somebody trains alone is drawn as a station is.
  const place = url.pathname.startsWith("/card/") ? "/rack" : url.pathname;
  const shell = SHELLS.find((one) => place.startsWith(`/${one.split("/")[1]}`)) ?? SHELLS[1];
  return `${shell}?to=${encodeURIComponent(url.pathname + url.search)}`;
}

async function page(request, url) {
  if (SHELLS.includes(url.pathname)) {
    const kept = await caches.match(url.pathname, { cacheName: CACHE });
    if (kept) return kept;
  }
  const stop = new AbortController();
  const timer = setTimeout(() => stop.abort(), ANSWER_MS);
  try {
    return await fetch(request, { signal: stop.signal });
  } catch {
    return Response.redirect(offlineAddress(url), 302);
  } finally {
    clearTimeout(timer);
  }
}

async function file(request) {
  const kept = await caches.match(request, { cacheName: CACHE });
  return kept ?? fetch(request);
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== "GET" || url.origin !== self.location.origin) return;
  if (request.mode === "navigate") event.respondWith(page(request, url));
  else if (files.includes(url.pathname)) event.respondWith(file(request));
  // The rest (data, the log, the stream) is the page's own to ask, and to know that it is away.
});
