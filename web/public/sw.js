// Lets a pick run be opened and walked without a network once it was open. Everything else goes to the network untouched.

const PREFIX = 'pick-';
/** What a run needs of the server, as it was answered last. */
const ANSWERS = /^\/api\/(session|stores|pictures|pick-runs\/\d+)$/;
/** One page for every address of picking. */
const PAGE = '/pick';
/** How many builds are kept: the one that is out, and the one before it. */
const BUILDS = 2;

/** Counts whoever has worked here: what was asked in another's turn is not kept. */
let turn = 0;

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

/** A page says which build it is and what it was made of: that is kept, and what builds long before were made of goes. */
self.addEventListener('message', ({ data }) => {
  if (data?.build && Array.isArray(data.keep)) void keep(PREFIX + data.build, data.keep);
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (origin !== self.location.origin) return;
  if (pathname === '/api/session' && request.method !== 'GET') {
    // Whoever signs in next sees nothing of what others saw.
    event.respondWith(changePerson(request));
    return;
  }
  if (request.method !== 'GET') return;
  if (request.mode === 'navigate') {
    if (pathname.startsWith(PAGE)) event.respondWith(newest(request, PAGE));
  } else if (pathname.startsWith('/assets/')) event.respondWith(kept(request));
  else if (ANSWERS.test(pathname)) event.respondWith(newest(request, pathname));
});

async function changePerson(request) {
  await forgetAnswers();
  try {
    return await fetch(request);
  } finally {
    // What was asked meanwhile is still of whoever goes.
    await forgetAnswers();
  }
}

async function keep(name, addresses) {
  const cache = await caches.open(name);
  const wanted = addresses.filter((path) => path.startsWith('/assets/') || ANSWERS.test(path));
  await Promise.all(
    [...wanted, PAGE].map(async (path) => {
      if (await cache.match(path)) return;
      const mine = turn;
      const response = await fetch(path).catch(() => undefined);
      if (response?.ok && mine === turn) await cache.put(path, response);
    }),
  );
  // A tab that was open before a new build is out goes on with the files of its own.
  const builds = (await caches.keys()).filter((one) => one.startsWith(PREFIX));
  for (const old of builds.slice(0, -BUILDS)) if (old !== name) await caches.delete(old);
}

/** The cache of the build that was open last; null before any was. */
async function current() {
  const name = (await caches.keys()).findLast((one) => one.startsWith(PREFIX));
  return name ? caches.open(name) : null;
}

/** From the network, or as it was last, unless only the server itself will do. */
async function newest(request, key) {
  const mine = turn;
  const cache = await current();
  try {
    const response = await fetch(request);
    if (response.ok && cache && mine === turn) await cache.put(key, response.clone());
    return response;
  } catch (error) {
    const known = request.cache === 'no-store' ? undefined : await cache?.match(key);
    if (known) return known;
    throw error;
  }
}

/** A built file never changes under its name. */
async function kept(request) {
  const known = await caches.match(request);
  if (known) return known;
  const cache = await current();
  const response = await fetch(request);
  if (response.ok && cache) await cache.put(request, response.clone());
  return response;
}

async function forgetAnswers() {
  turn += 1;
  const cache = await current();
  if (!cache) return;
  for (const request of await cache.keys())
    if (new URL(request.url).pathname.startsWith('/api/')) await cache.delete(request);
}
