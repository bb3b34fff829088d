/* Keeps the pages, scripts, fonts and pictures of a sitting, so that it goes on while the desk is away. Answers of the
   desk are asked for first wherever they may have changed; what is recorded is kept by the page and never goes
   through here. */
const KEPT = "entrick-board";
const SHELL = "/";

/** What never changes under its address: built files by their hash, pictures of settings by what is set. */
const lasting = (path) => path.startsWith("/assets/") || path.startsWith("/api/pictures/");

self.addEventListener("install", () => void self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

async function keep(request, response) {
  if (response.ok) await (await caches.open(KEPT)).put(request, response.clone());
  return response;
}

async function first(request) {
  return (await caches.match(request)) ?? keep(request, await fetch(request));
}

/** Every page is one document that finds its view by the address: the last one that came is the one to show. */
async function page(request) {
  try {
    const found = await fetch(request);
    return found.headers.get("X-Entrick") === "page" ? await keep(SHELL, found) : found;
  } catch (away) {
    const known = await caches.match(SHELL);
    if (known) return known;
    throw away;
  }
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== "GET" || origin !== self.location.origin) return;
  if (request.mode === "navigate" && !pathname.startsWith("/api/")) event.respondWith(page(request));
  else if (lasting(pathname) || pathname === "/mark.svg") event.respondWith(first(request));
});

/** A sitting begins: what it will need is fetched now, and then what older builds needed is let go. */
self.addEventListener("message", (event) => {
  const wanted = [...event.data, SHELL];
  event.waitUntil(
    (async () => {
      const kept = await caches.open(KEPT);
      for (const each of wanted)
        if (each === SHELL || !(await kept.match(each))) await keep(each, await fetch(each));
      const addresses = new Set(wanted.map((each) => new URL(each, self.location.origin).href));
      for (const request of await kept.keys()) if (!addresses.has(request.url)) await kept.delete(request);
      event.source?.postMessage("kept");
    })().catch((problem) => event.source?.postMessage(String(problem))),
  );
});
