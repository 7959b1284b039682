// The entry board with forty wearers on three real screens for ten minutes: whether every reading that is kept was
// shown on each of them and how soon, and how late each alarm appeared against its own time.
import { type Browser, chromium, type Page } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { shareOf } from './lib/share.ts';
import { chromiumPath } from './lib/system.mjs';
import postgres from 'postgres';

const [SCREENS, WEARERS, TEAM] = [3, 40, 4];
const MINUTES = Number(process.env.BENCH_BOARD_MIN ?? 10);
/** Somebody who is told by hand is asked this often, s. */
const ASKED_S = 15;
const address = process.env.BENCH_ADDRESS ?? '';
const sql = postgres(process.env.DATABASE_URL ?? '', { max: 2, onnotice: () => {} });

interface Shown {
	readings: [wearer: string, what: string, at: number][];
	alarms: [wearer: string, kind: string, due: number, at: number][];
}

const browser: Browser = await chromium.launch({
	executablePath: chromiumPath(),
	args: [
		...['--no-sandbox', '--disable-gpu', '--disable-renderer-backgrounding'],
		...['--disable-background-timer-throttling', '--disable-backgrounding-occluded-windows']
	]
});
const pages = await Promise.all(Array.from({ length: SCREENS }, openScreen));
const [first] = pages;
if (!first) throw new Error('No screen was opened.');

const began = Date.now();
const wearers = Array.from({ length: WEARERS }, (_, i) => ({
	id: randomUUID(),
	name: `Wearer ${String(i + 1).padStart(2, '0')}`,
	// Low enough that turning, being out and the warning fall into the time of the measurement.
	startBar: 78 + ((i * 7) % 45),
	channel: i % 2 ? `T${i}` : ''
}));
for (let i = 0; i < WEARERS; i += TEAM) await enter(wearers.slice(i, i + TEAM));
console.log(
	`\n${WEARERS} wearers in ${WEARERS / TEAM} teams on ${SCREENS} screens for ${MINUTES} min`
);

const until = began + MINUTES * 60_000;
let told = 0;
let seen = 0;
for (let round = 0; Date.now() < until; round++) {
	for (const wearer of wearers.filter((w) => !w.channel)) {
		const minutes = (Date.now() - began) / 60_000;
		const bar = Math.max(0, Math.round(wearer.startBar - 6.5 * minutes));
		await act('tell', { id: randomUUID(), wearerId: wearer.id, pressure: String(bar) });
		told++;
		await pause((ASKED_S * 1000) / (WEARERS / 2));
	}
	// Two minutes before the end some telemetry fails.
	if (round === 4)
		for (const { channel } of wearers.filter((w) => w.channel).slice(0, 5))
			await act('simulate', { channel, lPerMin: '50', fault: 'lost', speed: '1' });
	for (const alarm of await sql<{ wearer_id: string; key: string }[]>`
		select wearer_id, key from entry_alarm where seen_at is null and raised_at < now() - interval '5 seconds'`) {
		await act('seen', { wearerId: alarm.wearer_id, key: alarm.key });
		seen++;
	}
}
// What comes while the screens are read is not counted.
const end = new Date();
await pause(3000);
const shown = await Promise.all(
	pages.map((page) => page.evaluate(() => (window as unknown as { shown: Shown }).shown))
);
const ids = wearers.map((w) => w.id);
const kept = await sql<{ wearer_id: string; bar: number; by: string; at: Date }[]>`
	select wearer_id, bar, by, at from entry_reading where wearer_id in ${sql(ids)} and at <= ${end} order by seq`;
const alarms = await sql<{ wearer_id: string; kind: string; due_at: Date }[]>`
	select wearer_id, kind, due_at from entry_alarm where wearer_id in ${sql(ids)} and raised_at <= ${end}`;

const lags: number[] = [];
let missing = 0;
for (const screen of shown) {
	const at = new Map(screen.readings.map(([wearer, what, when]) => [`${wearer} ${what}`, when]));
	for (const row of kept) {
		const clock = row.at.toLocaleTimeString('en-GB', { timeZone: 'Europe/London' });
		const what = `${Math.round(row.bar)} ${row.by === 'hand' ? 'told' : 'sent'} ${clock}`;
		const when = at.get(`${row.wearer_id} ${what}`);
		if (when === undefined) missing++;
		else lags.push(when - row.at.getTime());
	}
}
const late: number[] = [];
let unseen = 0;
for (const screen of shown)
	for (const alarm of alarms) {
		const found = screen.alarms.find(
			([wearer, kind]) => wearer === alarm.wearer_id && kind === alarm.kind
		);
		if (!found) unseen++;
	}
for (const screen of shown) for (const [, , due, at] of screen.alarms) late.push(at - due);

const sent = kept.filter((row) => row.by === 'telemetry').length;
console.log(`readings told by hand, sent         ${told}, ${sent}; kept ${kept.length}`);
console.log(
	`shown on the ${SCREENS} screens              ${lags.length} of ${kept.length * SCREENS}, missing ${missing}`
);
console.log(
	`from reading to screen              median ${shareOf(lags, 0.5)} ms, 95 % ${shareOf(lags, 0.95)} ms, most ${shareOf(lags, 1)} ms`
);
console.log(
	`alarms raised, seen                 ${alarms.length}, ${seen}; ${[...new Set(alarms.map((a) => a.kind))].map((kind) => `${kind} ${alarms.filter((a) => a.kind === kind).length}`).join(', ')}`
);
console.log(
	`shown on the ${SCREENS} screens              ${late.length} appearances, missing ${unseen} of ${alarms.length * SCREENS}`
);
console.log(
	`from its time to the screen         median ${shareOf(late, 0.5)} ms, 95 % ${shareOf(late, 0.95)} ms, most ${shareOf(late, 1)} ms; within a second ${late.filter((ms) => ms <= 1000).length} of ${late.length}`
);
await browser.close();
await sql.end();

/** A screen that notes the moment at which each reading and alarm appears on it. */
async function openScreen(): Promise<Page> {
	const context = await browser.newContext({
		viewport: { width: 1280, height: 800 },
		timezoneId: 'Europe/London',
		locale: 'en-GB'
	});
	const page = await context.newPage();
	// What runs in the page was compiled here, with a helper that the page does not have.
	await page.addInitScript('globalThis.__name = (work) => work');
	await page.goto(`${address}/sign-in`);
	await page.getByRole('button', { name: /Ilse Norrby/ }).click();
	await page.waitForURL(`${address}/`);
	await page.goto(`${address}/air/board`);
	await page.locator('html[data-ready]').waitFor();
	await page.evaluate(() => {
		const noted: Shown = { readings: [], alarms: [] };
		(window as unknown as { shown: Shown }).shown = noted;
		const known = new Set<string>();
		const look = () => {
			const now = Date.now();
			for (const row of document.querySelectorAll<HTMLElement>('[data-wearer]')) {
				const what = /\d+ (told|sent) [\d:]+/.exec(row.innerText)?.[0];
				const key = `${row.dataset.wearer} ${what}`;
				if (!what || known.has(key)) continue;
				known.add(key);
				noted.readings.push([row.dataset.wearer ?? '', what, now]);
			}
			for (const alarm of document.querySelectorAll<HTMLElement>('[data-alarm]')) {
				const { alarm: kind = '', due = '', of = '' } = alarm.dataset;
				const key = `${of} ${kind}`;
				if (known.has(key)) continue;
				known.add(key);
				noted.alarms.push([of, kind, Number(due), now]);
			}
		};
		new MutationObserver(look).observe(document.body, {
			subtree: true,
			childList: true,
			characterData: true
		});
	});
	return page;
}

/** A deed on the board, sent as its page sends it. */
async function act(action: string, fields: Record<string, string>): Promise<void> {
	const answer = await first?.request.post(`${address}/air/board?/${action}`, {
		multipart: fields,
		headers: { accept: 'application/json', 'x-sveltekit-action': 'true', origin: address }
	});
	const text = (await answer?.text()) ?? '';
	if (!text.includes('"success"')) throw new Error(`${action}: ${text.slice(0, 300)}`);
}

function enter(team: typeof wearers): Promise<void> {
	return act('enter', {
		id: randomUUID(),
		task: 'Measured',
		placeId: '',
		marginMin: '1',
		wearers: JSON.stringify(
			team.map(({ id, name, startBar, channel }) => ({
				id,
				wearer: name,
				set: '',
				litres: '6.8',
				seal: true,
				start: String(startBar),
				channel
			}))
		)
	});
}
