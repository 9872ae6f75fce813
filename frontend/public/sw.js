/**
 * Keeps the page on this device, so that a reload while Hollet is stopped shows the last bench instead of
 * the browser's error. What it gives then says since when it is kept; nothing that writes goes through here.
 */
const SHELL = 'shell'
const ANSWERS = 'answers'
const KEPT = 'x-hollet-kept'

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))

/** The page and everything that it is made of; what an older Hollet was made of goes. */
async function keepShell() {
  const list = await fetch('/assets/shell.json', { cache: 'no-store' })
  if (!list.ok) return
  const wanted = ['/', '/favicon.svg', ...(await list.json())]
  const cache = await caches.open(SHELL)
  const there = new Set((await cache.keys()).map((request) => new URL(request.url).pathname))
  await Promise.all(wanted.filter((path) => path === '/' || !there.has(path)).map((path) => cache.add(path)))
  await Promise.all([...there].filter((path) => !wanted.includes(path)).map((path) => cache.delete(path)))
}
self.addEventListener('message', (event) => {
  if (event.data === 'keep') event.waitUntil(keepShell())
})

/** The page itself: fresh where Hollet runs, as kept where it does not. */
async function page(request) {
  try {
    return await fetch(request)
  } catch (gone) {
    const kept = await caches.match('/', { cacheName: SHELL })
    if (kept) return kept
    throw gone
  }
}

/** Keep an answer beside the page; where the device does not take it, it is as if there were no worker. */
async function keepAnswer(request, fresh) {
  const type = fresh.headers.get('content-type') ?? ''
  if (!fresh.ok || !type.startsWith('application/json')) return
  const headers = new Headers(fresh.headers)
  headers.set(KEPT, new Date().toISOString())
  const cache = await caches.open(ANSWERS)
  await cache.put(request, new Response(await fresh.blob(), { headers }))
}

/** An answer: fresh where Hollet gives one, whatever becomes of the kept ones; else the last one, marked. */
async function answer(event) {
  let fresh
  try {
    fresh = await fetch(event.request)
  } catch (gone) {
    const kept = await caches.match(event.request, { cacheName: ANSWERS }).catch(() => undefined)
    if (kept) return kept
    throw gone
  }
  event.waitUntil(keepAnswer(event.request, fresh.clone()).catch(() => undefined))
  return fresh
}

self.addEventListener('fetch', (event) => {
  const { request } = event
  const { origin, pathname } = new URL(request.url)
  if (request.method !== 'GET' || origin !== self.location.origin) return
  if (request.mode === 'navigate') event.respondWith(page(request))
  else if (pathname.startsWith('/assets/') && pathname !== '/assets/shell.json')
    event.respondWith(caches.match(request, { cacheName: SHELL }).then((kept) => kept ?? fetch(request)))
  else if (pathname.startsWith('/api/')) event.respondWith(answer(event))
})
