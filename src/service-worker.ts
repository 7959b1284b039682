/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { build, files, version } from '$service-worker';
import { ExpirationPlugin } from 'workbox-expiration';
import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { NetworkFirst, NetworkOnly } from 'workbox-strategies';
import { PERSON_HEADER } from './lib/person-header';
import { RUN_PAGES, runPageKey, runPagesOf } from './lib/run-pages';

/**
 * Keeps what an opened inspection needs on the device, so that it can be finished while the network is away, the
 * counter, so that forty scans go on, the trainer, and the guide: for the person who opened it, and for nobody else. Every other page comes from the server or not at all: what is due and
 * held is never shown from yesterday.
 */
const worker = self as unknown as ServiceWorkerGlobalScope & { __WB_MANIFEST?: never };
const RUN_PATH =
	/^\/(runs\/[0-9a-f-]{36}|help|counter|counter\/return|api\/counter\/kept|drill|drill\/(run|tests)\/[a-z-]{1,60})(\/__data\.json)?$/;
const GUIDE = '/help';
/** A page that the server does not give within this time is taken from the device. */
const PATIENCE_S = 5;

precacheAndRoute([...build, ...files].map((url) => ({ url, revision: version })));
cleanupOutdatedCaches();

/** What the worker has to know again after the browser stopped it. */
const NOTES = 'notes';
const WHO = '/who';
const SIGN_OUT = '/sign-out';
/** Read from the device once while the worker lives; nobody else writes them. */
const read = new Map<string, Promise<string>>();
const note = (path: string): Promise<string> => {
	const kept = read.get(path) ?? noteOnDevice(path);
	read.set(path, kept);
	// What could not be read is asked for again.
	kept.catch(() => read.delete(path));
	return kept;
};
const noteOnDevice = async (path: string): Promise<string> =>
	(await (await caches.open(NOTES)).match(path))?.text() ?? '';
const keepNote = async (path: string, text: string): Promise<void> => {
	read.set(path, Promise.resolve(text));
	const notes = await caches.open(NOTES);
	if (text) await notes.put(path, new Response(text));
	else await notes.delete(path);
};

/** Somebody else is here from now on, or nobody: pages that stand open are made anew. */
async function setPerson(id: string): Promise<void> {
	if ((await note(WHO)) === id) return;
	await keepNote(WHO, id);
	for (const client of await worker.clients.matchAll()) client.postMessage({ person: id });
}

/** Who is here, by what the server says. */
const hearsPerson = {
	fetchDidSucceed: async ({ response }: { response: Response }) => {
		const id = response.headers.get(PERSON_HEADER);
		if (id) await setPerson(id);
		return response;
	}
};

const runs = new NetworkFirst({
	cacheName: RUN_PAGES,
	networkTimeoutSeconds: PATIENCE_S,
	matchOptions: { ignoreVary: true },
	plugins: [
		hearsPerson,
		new ExpirationPlugin({ maxEntries: 40 }),
		{
			cacheKeyWillBeUsed: async ({ request }) => runPageKey(request.url, await note(WHO)),
			// A page that says that one is signed out, or that something is wrong, is not kept.
			cacheWillUpdate: ({ response }) =>
				Promise.resolve(
					response.ok && !response.redirected && response.headers.has(PERSON_HEADER)
						? response
						: null
				)
		}
	]
});
registerRoute(
	({ url, request }) => request.method === 'GET' && RUN_PATH.test(url.pathname),
	async (options) => {
		if (!(await sessionEnded())) return offlinePage();
		return runs.handle(options);
	}
);

registerRoute(
	new NavigationRoute(async (options) => {
		try {
			if (!(await sessionEnded())) return await offlinePage();
			return await new NetworkOnly({ plugins: [hearsPerson] }).handle(options);
		} catch {
			return offlinePage();
		}
	})
);

// Who signs out leaves no page behind, with the network or without it.
registerRoute(
	({ url }) => url.pathname === SIGN_OUT,
	async () => {
		const person = await note(WHO);
		const kept = await caches.open(RUN_PAGES);
		for (const request of await runPagesOf(kept, person)) await kept.delete(request);
		await keepNote(SIGN_OUT, 'asked');
		await setPerson('');
		if (await sessionEnded()) return Response.redirect('/sign-in', 303);
		return signedOutPage();
	},
	'POST'
);

/** Ends a session whose person has signed out while the network was away. @returns false while it still is */
async function sessionEnded(): Promise<boolean> {
	if (!(await note(SIGN_OUT))) return true;
	try {
		const response = await fetch(SIGN_OUT, {
			method: 'POST',
			headers: { accept: 'application/json' }
		});
		const said = (await response.json()) as { signedOut?: boolean };
		if (said.signedOut) await keepNote(SIGN_OUT, '');
		return said.signedOut === true;
	} catch {
		return false;
	}
}

const plainPage = (title: string, body: string) =>
	new Response(
		`<!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${title} · Grevan</title><body style="font:1.1rem/1.5 sans-serif;max-width:40rem;margin:2rem auto;padding:0 1rem">
<h1>${title}</h1>${body}<p><a href="/">Try again</a></p></body></html>`,
		{ status: 503, headers: { 'content-type': 'text/html; charset=utf-8' } }
	);

const signedOutPage = () =>
	plainPage(
		'Signed out',
		`<p>Nothing of yours is shown on this device any more. What you gave and was not sent yet waits here for you. There is
no connection: the session ends at the server before anything else is done, once it is back.</p>`
	);

/** Says plainly that there is no connection, and which inspections its person can go on with. */
async function offlinePage(): Promise<Response> {
	const person = await note(WHO);
	if (!person)
		return plainPage(
			'No connection',
			'<p>Nobody is signed in here. Pages come from the server once the connection is back.</p>'
		);
	const paths = (await runPagesOf(await caches.open(RUN_PAGES), person))
		.map((request) => new URL(request.url).pathname)
		.filter((path) => !path.endsWith('.json'));
	const inspections = paths.filter((path) => path.startsWith('/runs/'));
	const list = inspections
		.map(
			(path, i) => `<li><a href="${path}">Inspection ${i + 1}, as opened on this device</a></li>`
		)
		.join('');
	return plainPage(
		'No connection',
		`<p>This page comes from the server and is not shown from an old copy. What you entered waits on this device and is sent by itself.</p>
${list ? `<p>These can be gone on with:</p><ul>${list}</ul>` : ''}
${paths.includes('/counter') ? '<p><a href="/counter">Hand out</a> and <a href="/counter/return">return</a> go on without a connection.</p>' : ''}
${paths.includes(GUIDE) ? `<p><a href="${GUIDE}">The guide</a> is on this device.</p>` : ''}`
	);
}

worker.addEventListener('install', () => void worker.skipWaiting());
worker.addEventListener('activate', (event) => event.waitUntil(worker.clients.claim()));
