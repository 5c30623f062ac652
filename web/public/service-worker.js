// Keeps the page itself, so that it opens while the server is briefly away. What is stored in the household is never kept here.
const shell = 'ruddy-shell-1';
const most = 120;

self.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(shell)
      .then((cache) => cache.add('/'))
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(names.filter((name) => name !== shell).map((name) => caches.delete(name))))
      .then(() => self.clients.claim()),
  );
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin) return;
  if (request.mode === 'navigate') event.respondWith(page(request));
  else if (url.pathname.startsWith('/assets/')) event.respondWith(asset(request));
  else if (url.pathname === '/first.js' || url.pathname === '/coil.svg') event.respondWith(newest(request, request));
});

/** The newest page there is; the kept one while the server is away. */
const page = (request) => newest(request, '/');

async function newest(request, as) {
  const cache = await caches.open(shell);
  try {
    const fresh = await fetch(request);
    const isPage = as !== '/' || (fresh.headers.get('content-type') ?? '').startsWith('text/html');
    if (fresh.ok && isPage) await cache.put(as, fresh.clone());
    return fresh;
  } catch {
    return (await cache.match(as)) ?? Response.error();
  }
}

/** Files with a hash in their name never change: the kept one, else fetched and kept. */
async function asset(request) {
  const cache = await caches.open(shell);
  const kept = await cache.match(request);
  if (kept) return kept;
  const fresh = await fetch(request);
  if (fresh.ok) {
    await cache.put(request, fresh.clone());
    const keys = await cache.keys();
    // those of earlier versions go first
    await Promise.all(keys.slice(1, Math.max(1, keys.length - most)).map((old) => cache.delete(old)));
  }
  return fresh;
}
