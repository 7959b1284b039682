// Whether anything that a visitor asks for keeps the others waiting: how long each of the heaviest requests holds the
// process, and how late alarms of the entry board appear on a real screen while all of them are sent without a pause.
import { chromium } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { shareOf } from './lib/share.ts';
import { chromiumPath } from './lib/system.mjs';
import { signInDemo } from './lib/sign-in.mjs';
import postgres from 'postgres';

const STORM_S = Number(process.env.BENCH_FREEZE_S ?? 75);
const ROUNDS = 3;
const PING_EVERY_MS = 10;
const address = process.env.BENCH_ADDRESS ?? '';
const sql = postgres(process.env.DATABASE_URL ?? '', { max: 2, onnotice: () => {} });
const as = async (name: string) => (await signInDemo(address, `${name}@osmund.example`)).join('; ');
const [technician, supervisor] = [await as('ilse'), await as('tove')];

const json = (path: string, body: unknown) =>
	fetch(address + path, {
		method: 'POST',
		headers: { 'content-type': 'application/json', origin: address, cookie: technician },
		body: JSON.stringify(body)
	});
function file(path: string, cookie: string, text: string, fields: Record<string, string> = {}) {
	const body = new FormData();
	for (const [name, value] of Object.entries(fields)) body.set(name, value);
	body.set('file', new Blob([text]), 'table.csv');
	const headers = { origin: address, cookie, accept: 'application/json' };
	return fetch(address + path, { method: 'POST', headers, body });
}
const contaminants = (n: number) =>
	Array.from({ length: n }, (_, i) => ({
		substance: { name: `S${i}`, form: 'vapour', molarMassGPerMol: 60 + i },
		concentration: { value: 5, unit: 'ppm' },
		limit: { value: 10, unit: 'ppm' }
	}));
const rules = (n: number) =>
	Array.from({ length: n }, (_, i) => ({ name: `rule ${i}`, every: { months: 1 + (i % 1200) } }));
const many = <T>(n: number, one: (i: number) => T) => Array.from({ length: n }, (_, i) => one(i));

/** Requests that once held the process for seconds to minutes, and others that are heavy by their nature. */
const WORST: Record<string, () => Promise<Response>> = {
	'hazard of 2,000 contaminants': () =>
		json('/api/v1/calc/hazard', { ruleSet: 'uk', contaminants: contaminants(2000) }),
	'due of 20,000 rules': () =>
		json('/api/v1/calc/due', { rules: rules(20_000), last: '2026-01-01', asOf: '2026-11-01' }),
	'form of 40,000 fields, nobody signed in': () =>
		fetch(`${address}/sign-in?/enter`, {
			method: 'POST',
			headers: { origin: address, 'content-type': 'application/x-www-form-urlencoded' },
			body: many(40_000, (i) => `f${i}=x`).join('&')
		}),
	'table of 40,000 headings': () =>
		file(
			'/items/import?/preview',
			technician,
			`${many(40_000, (i) => `h${i}`).join(',')}\n${many(40_000, () => 'x').join(',')}`
		)
};
const HEAVY: Record<string, () => Promise<Response>> = {
	'hazard of 30 contaminants, the most': () =>
		json('/api/v1/calc/hazard', { ruleSet: 'uk', contaminants: contaminants(30) }),
	'due of 100 rules, the most': () =>
		json('/api/v1/calc/due', { rules: rules(100), last: '2026-01-01', asOf: '2026-11-01' }),
	'table of 50,000 items, looked at': () =>
		file(
			'/items/import?/preview',
			technician,
			`tag,model,place\n${many(50_000, (i) => `HM-${10_000 + i},Tesselow H1,Boat shed`).join('\n')}`
		),
	'table of 50,000 substances, looked at': () =>
		file(
			'/hazards/substances/import?/preview',
			supervisor,
			`name,form,UK limit 8 h\n${many(50_000, (i) => `Own ${i},vapour,1`).join('\n')}`
		),
	'trace of 20,000 readings, judged': () =>
		file(
			'/bench?/import',
			technician,
			`seconds,pascal\n${many(20_000, (i) => `${(i / 20).toFixed(2)},${(1000 - i / 400).toFixed(2)}`).join('\n')}`,
			{ id: randomUUID(), tag: 'FF-0203', recipe: 'mask-full-face', volumeL: '' }
		),
	'description of the interface': () =>
		fetch(`${address}/api/v1/openapi.json`, { headers: { cookie: technician } }),
	'page of the interface': () =>
		fetch(`${address}/records/interface`, { headers: { cookie: technician } }),
	'whole log checked': () => fetch(`${address}/records?check`, { headers: { cookie: technician } }),
	'register as CSV': () => fetch(`${address}/items/export`, { headers: { cookie: technician } }),
	today: () => fetch(`${address}/`, { headers: { cookie: technician } })
};

/** Longest that the process answered nobody while the work went on, ms. */
async function heldBy(
	work: () => Promise<Response>
): Promise<{ held: number; ms: number; status: number }> {
	let [held, going] = [0, true];
	const pinging = (async () => {
		while (going) {
			const at = performance.now();
			await (await fetch(`${address}/healthz`)).text();
			held = Math.max(held, performance.now() - at);
			await pause(PING_EVERY_MS);
		}
	})();
	await pause(100);
	held = 0;
	const at = performance.now();
	const response = await work();
	await response.text();
	const ms = performance.now() - at;
	going = false;
	await pinging;
	return { held, ms, status: response.status };
}

console.log(
	'\nrequest                                    answer   took ms   longest that nobody was answered, ms'
);
for (const [name, work] of Object.entries({ ...WORST, ...HEAVY })) {
	const rounds: Awaited<ReturnType<typeof heldBy>>[] = [];
	for (let i = 0; i < ROUNDS; i++) rounds.push(await heldBy(work));
	const most = (of: 'held' | 'ms') => Math.max(...rounds.map((round) => round[of])).toFixed(0);
	console.log(
		`${name.padEnd(42)} ${rounds.map(({ status }) => status).join(' ')} ${most('ms').padStart(8)} ${most('held').padStart(8)}`
	);
}

const browser = await chromium.launch({
	executablePath: chromiumPath(),
	args: ['--no-sandbox', '--disable-gpu', '--disable-background-timer-throttling']
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.addInitScript('globalThis.__name = (work) => work');
await page.goto(`${address}/sign-in`);
await page.getByRole('button', { name: /Odd Kessmer/ }).click();
await page.waitForURL(`${address}/`);
await page.goto(`${address}/air/board`);
await page.locator('html[data-ready]').waitFor();
await page.evaluate(() => {
	const noted: [string, number, number][] = [];
	(window as unknown as { noted: typeof noted }).noted = noted;
	const known = new Set<string>();
	new MutationObserver(() => {
		for (const alarm of document.querySelectorAll<HTMLElement>('[data-alarm]')) {
			const { alarm: kind = '', due = '', of = '' } = alarm.dataset;
			if (known.has(`${of} ${kind}`)) continue;
			known.add(`${of} ${kind}`);
			noted.push([kind, Number(due), Date.now()]);
		}
	}).observe(document.body, { subtree: true, childList: true, characterData: true });
});
const began = Date.now();
const answer = await page.request.post(`${address}/air/board?/enter`, {
	multipart: {
		id: randomUUID(),
		task: 'Measured',
		placeId: '',
		marginMin: '1',
		wearers: JSON.stringify(
			many(12, (i) => ({
				id: randomUUID(),
				wearer: `Wearer ${i + 1}`,
				set: '',
				litres: '6.8',
				seal: true,
				start: String(74 + i),
				channel: ''
			}))
		)
	},
	headers: { accept: 'application/json', 'x-sveltekit-action': 'true', origin: address }
});
if (!(await answer.text()).includes('"success"')) throw new Error('The team did not enter.');
const until = began + STORM_S * 1000;
let sent = 0;
await Promise.all(
	Object.values(WORST).map(async (work) => {
		while (Date.now() < until) {
			await (await work()).text();
			sent++;
		}
	})
);
await pause(1500);
const noted = await page.evaluate(
	() => (window as unknown as { noted: [string, number, number][] }).noted
);
const raised = await sql<{ ms: number }[]>`
	select extract(epoch from raised_at - due_at) * 1000 as ms from entry_alarm where raised_at > ${new Date(began)} order by 1`;
// What was due before the team went in is as late as the team.
const late = noted
	.filter(([, due]) => due > began + 2000 && due < until)
	.map(([, due, at]) => at - due);
console.log(`\nthe four worst at once for ${STORM_S} s         ${sent} answered`);
console.log(
	`alarms that fell due meanwhile             ${late.length}, on the screen after median ${shareOf(late, 0.5)} ms, most ${shareOf(late, 1)} ms; within a second ${late.filter((ms) => ms <= 1000).length} of ${late.length}`
);
const written = raised.map(({ ms }) => Number(ms));
console.log(
	`written down by the keeper                 ${written.length}, after median ${shareOf(written, 0.5)} ms, most ${shareOf(written, 1)} ms`
);
await browser.close();
await sql.end();
