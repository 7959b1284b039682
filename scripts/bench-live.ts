// A hundred live traces at ten readings a second: streamed to as many listeners, kept in the database, judged.
import { randomUUID } from 'node:crypto';
import { unpackTrace } from '../src/lib/server/bench/trace-bytes.ts';
import postgres from 'postgres';
import { PEOPLE } from '../src/lib/server/demo/scenario.ts';
import { shareOf } from './lib/share.ts';
import { signInDemo } from './lib/sign-in.mjs';

const TRACES = Number(process.env.BENCH_TRACES ?? 100);
const PER_SECOND = 10;
const HOLD_S = 60;
const EXPECTED = HOLD_S * PER_SECOND + 1;
const address = process.env.BENCH_ADDRESS ?? '';
const sql = postgres(process.env.DATABASE_URL ?? '', { max: 2, onnotice: () => {} });

/** One person listens to no more than a few dozen streams: everybody of the demo takes part. */
const cookies = await Promise.all(
	PEOPLE.map(async ({ email }) => (await signInDemo(address, email)).join('; '))
);
const [cookie = ''] = cookies;
await sql`
	insert into item (id, tag, family, model_id, size, serial, place_id, in_use_since)
	select gen_random_uuid(), 'FX-' || lpad(n::text, 4, '0'), base.family, base.model_id, 'M', '', base.place_id, base.in_use_since
	from generate_series(1, ${TRACES}) n, (select * from item where family = 'full-face' limit 1) base`;

const began = performance.now();
const tests: { id: string; startedAt: number }[] = [];
for (let n = 1; n <= TRACES; n++) tests.push(await start(`FX-${String(n).padStart(4, '0')}`));
const startedMs = performance.now() - began;
const heard = await Promise.all(
	tests.map((test, i) => listen(test, cookies[i % cookies.length] ?? ''))
);
const wallS = (performance.now() - began) / 1000;
const rows = await sql<{ trace: Buffer; outcome: string }[]>`
	select trace, outcome from bench_test where id in ${sql(tests.map((t) => t.id))}`;
const kept = rows.map((row) => unpackTrace(row.trace));
const whole = (samples: { s: number }[]) =>
	samples.length === EXPECTED && samples.every((x, i) => Math.abs(x.s - i / PER_SECOND) < 1e-9);
const lags = heard.flatMap((h) => h.lagMs);
const sum = (numbers: number[]) => numbers.reduce((a, b) => a + b, 0);
const bytes = sum(rows.map((row) => row.trace.byteLength));

console.log(
	`\n${TRACES} live traces, ${PER_SECOND} readings a second each, ${HOLD_S} s; all started within ${(startedMs / 1000).toFixed(1)} s`
);
console.log(`readings sent by the instruments    ${TRACES * EXPECTED}`);
console.log(
	`streamed to ${TRACES} listeners           ${sum(heard.map((h) => h.samples.length))}, whole and in order in ${heard.filter((h) => whole(h.samples)).length} of ${TRACES}`
);
console.log(
	`kept in the database                ${sum(kept.map((k) => k.length))}, whole and in order in ${kept.filter(whole).length} of ${TRACES}`
);
console.log(
	`from reading to listener            median ${shareOf(lags, 0.5)} ms, 95 % ${shareOf(lags, 0.95)} ms, most ${shareOf(lags, 1)} ms`
);
console.log(
	`kept in                             ${(bytes / sum(kept.map((k) => k.length))).toFixed(1)} bytes a reading`
);
console.log(
	`judged                              ${rows.filter((row) => row.outcome).length}, all over after ${wallS.toFixed(0)} s`
);
await sql.end();

async function start(tag: string): Promise<{ id: string; startedAt: number }> {
	const id = randomUUID();
	const form = new FormData();
	const fields = {
		id,
		tag,
		recipe: 'mask-full-face',
		volumeL: '',
		bench: '',
		leak: '5',
		speed: '1'
	};
	for (const [name, value] of Object.entries({ ...fields, perSecond: String(PER_SECOND) }))
		form.set(name, value);
	const response = await fetch(`${address}/bench?/start`, {
		method: 'POST',
		redirect: 'manual',
		headers: { origin: address, cookie, accept: 'text/html' },
		body: form
	});
	if (response.status !== 303)
		throw new Error(`${tag}: ${response.status} ${(await response.text()).slice(0, 300)}`);
	return { id, startedAt: performance.now() };
}

/** Hears a test to its end; the lag of a reading is counted from when it was due on the instrument. */
async function listen({ id, startedAt }: { id: string; startedAt: number }, as: string) {
	const samples: { s: number }[] = [];
	const lagMs: number[] = [];
	for (;;) {
		const response = await fetch(`${address}/api/bench/${id}/events?from=${samples.length}`, {
			headers: { cookie: as, accept: 'text/event-stream' }
		});
		if (!response.ok || !response.body) throw new Error(`listener: ${response.status}`);
		const words = new TextDecoder();
		let rest = '';
		for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
			rest += words.decode(chunk, { stream: true });
			for (let end = rest.indexOf('\n\n'); end >= 0; end = rest.indexOf('\n\n')) {
				const event = rest.slice(0, end);
				rest = rest.slice(end + 2);
				if (event.startsWith('event: ended')) return { samples, lagMs };
				const data = /^data: (.*)$/m.exec(event)?.[1];
				if (!data) continue;
				for (const sample of JSON.parse(data) as { s: number }[]) {
					samples.push(sample);
					lagMs.push(performance.now() - startedAt - sample.s * 1000);
				}
			}
		}
	}
}
