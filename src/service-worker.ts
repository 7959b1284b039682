/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { build, files, version } from '$service-worker';
import { ExpirationPlugin } from 'workbox-expiration';
import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { NetworkFirst, NetworkOnly } from 'workbox-strategies';

/**
 * Keeps what an opened inspection needs on the device, so that it can be finished while the network is away.
 * Every other page comes from the server or not at all: what is due and held is never shown from yesterday.
 */
const worker = self as unknown as ServiceWorkerGlobalScope & { __WB_MANIFEST?: never };
const RUNS = 'runs';
const RUN_PATH = /^\/runs\/[0-9a-f-]{36}(\/__data\.json)?$/;
/** A page that the server does not give within this time is taken from the device. */
const PATIENCE_S = 5;

precacheAndRoute([...build, ...files].map((url) => ({ url, revision: version })));
cleanupOutdatedCaches();

const runs = new NetworkFirst({
	cacheName: RUNS,
	networkTimeoutSeconds: PATIENCE_S,
	matchOptions: { ignoreVary: true },
	plugins: [
		new ExpirationPlugin({ maxEntries: 40 }),
		{
			// A page that says that one is signed out, or that something is wrong, is not kept.
			cacheWillUpdate: ({ response }) =>
				Promise.resolve(response.ok && !response.redirected ? response : null)
		}
	]
});
registerRoute(({ url, request }) => request.method === 'GET' && RUN_PATH.test(url.pathname), runs);

registerRoute(
	new NavigationRoute(async (options) => {
		try {
			return await new NetworkOnly().handle(options);
		} catch {
			return offlinePage();
		}
	})
);

// Who signs out leaves no page behind.
registerRoute(
	({ url }) => url.pathname === '/sign-out',
	async (options) => {
		await caches.delete(RUNS);
		return new NetworkOnly().handle(options);
	},
	'POST'
);

/** Says plainly that there is no connection, and which inspections can be gone on with. */
async function offlinePage(): Promise<Response> {
	const kept = await caches.open(RUNS);
	const paths = (await kept.keys())
		.map((request) => new URL(request.url).pathname)
		.filter((path) => !path.endsWith('.json'));
	const list = paths
		.map(
			(path, i) => `<li><a href="${path}">Inspection ${i + 1}, as opened on this device</a></li>`
		)
		.join('');
	return new Response(
		`<!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>No connection · Grevan</title><body style="font:1.1rem/1.5 sans-serif;max-width:40rem;margin:2rem auto;padding:0 1rem">
<h1>No connection</h1><p>This page comes from the server and is not shown from an old copy. What you entered waits on this device and is sent by itself.</p>
${list ? `<p>These can be gone on with:</p><ul>${list}</ul>` : ''}<p><a href="">Try again</a></p></body></html>`,
		{ status: 503, headers: { 'content-type': 'text/html; charset=utf-8' } }
	);
}

worker.addEventListener('install', () => void worker.skipWaiting());
worker.addEventListener('activate', (event) => event.waitUntil(worker.clients.claim()));
