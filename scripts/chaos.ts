// Holds writers of every kind under kills, cuts, stalls, half-dead links, a full disk, clocks that are set and storage
// that fails, and counts what became of what was acknowledged. Bounded and seeded.
import { setTimeout as pause } from 'node:timers/promises';
import { Chance } from '../src/core/stats/chance.ts';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { verifyChain } from '../src/lib/server/kernel/chain.ts';
import { watchBoard } from './chaos/board-watch.ts';
import {
	countDeeds,
	entering,
	filling,
	inspecting,
	reading,
	type Round,
	sealing,
	testing,
	worldOf
} from './chaos/deeds.ts';
import { openDevice } from './chaos/device.ts';
import { openWorld, type Part } from './chaos/world.ts';
import { type Client, Writer } from './chaos/writers.ts';
import { signInDemo } from './lib/sign-in.mjs';

const KILLS = Number(process.env.CHAOS_KILLS ?? 300);
const SEED = Number(process.env.CHAOS_SEED ?? 1);
/** The disk is a small one of its own, which may be filled. */
const FILLS_DISK = process.env.CHAOS_DISK === 'own';
const HOUR_MS = 3_600_000;
/** How long everything may take until it serves again. */
const RECOVERS_MS = 120_000;
/** How long what is under way may take at the end. */
const SETTLES_MS = 90_000;

const dice = new Chance(SEED);
const tap = new Chance(SEED + 1);
const world = await openWorld();
const say = (line: string) => console.log(line);
const startedAt = performance.now();
/** Each step, where it is asked for. */
const tell = (line: string) =>
	process.env.CHAOS_TELL &&
	say(`${((performance.now() - startedAt) / 1000).toFixed(1)} s: ${line}`);
const recovered: { what: string; ms: number }[] = [];
let over = false;
let kills = 0;

/** Waits until everything serves. @returns how long that took, ms */
async function recover(what: string): Promise<void> {
	const began = performance.now();
	while (!(await world.ready())) {
		if (performance.now() - began > RECOVERS_MS)
			throw new Error(`It did not come back after: ${what}.`);
		await pause(50);
	}
	recovered.push({ what, ms: performance.now() - began });
	tell(`serves after ${what}`);
}

const PARTS: readonly Part[] = ['web', 'web', 'keeper', 'database', 'backend', 'instruments'];
const seconds = (from: number, to: number) => pause(dice.int(from * 1000, to * 1000));

/** Something ends at once. */
async function kill(): Promise<void> {
	const part = dice.pick(PARTS);
	tell(`kills ${part}`);
	if (!world.kill(part)) return;
	kills++;
	// The death of a process is not always seen in the moment after it.
	await pause(dice.int(20, 400));
	await recover(`kill of ${part}`);
}

/** What goes wrong beside kills; each is undone. */
const TROUBLES: Record<string, () => Promise<void>> = {
	'a cut of the network': async () => {
		world.faults.set('cut');
		await seconds(1, 2);
	},
	'answers that are lost': async () => {
		world.faults.set('answer lost');
		await seconds(1, 2);
	},
	'a network that stalls': async () => {
		world.faults.set('stalled');
		await seconds(1, 3);
	},
	'a page in between': async () => {
		world.faults.set(dice.pick(['portal', 'maintenance'] as const));
		await seconds(1, 2);
	},
	'a cut of the database': async () => {
		world.cut.sever();
		await seconds(1, 2);
		await world.cut.mend();
	},
	'a half-dead link to the database': async () => {
		world.cut.stall();
		await seconds(2, 4);
		world.cut.flow();
	},
	'a process that freezes': async () => {
		const part = dice.pick(['web', 'keeper', 'backend', 'instruments'] as const);
		world.freeze(part);
		await seconds(1, 4);
		world.thaw(part);
	},
	'a clock that is set': async () => {
		world.setClock(dice.pick([HOUR_MS, -HOUR_MS, 0]));
		await seconds(1, 2);
	},
	...(FILLS_DISK
		? {
				'a full disk': async () => {
					world.fillDisk();
					await seconds(2, 4);
					world.emptyDisk();
				}
			}
		: {})
};

async function trouble(): Promise<void> {
	const what = dice.pick(Object.keys(TROUBLES));
	tell(what);
	await TROUBLES[what]?.();
	world.faults.set('none');
	await recover(what);
	happened.set(what, (happened.get(what) ?? 0) + 1);
}
const happened = new Map<string, number>();

let exit = 1;
try {
	await recover('start');
	const clientOf = async (email: string): Promise<Client> => ({
		address: world.address,
		cookie: (await signInDemo(world.address, email)).join('; '),
		person: `demo-${email.split('@')[0]}`
	});
	const [ilse, odd] = [await clientOf('ilse@osmund.example'), await clientOf('odd@osmund.example')];
	const things = await worldOf(world.sql);
	const [deviceMask = '', sealMask = '', ...masks] = things.masks;
	const [read = '', filled = ''] = things.cylinders;
	const rounds: [Client, Round][] = [
		[ilse, inspecting(masks.filter((_, i) => i % 2 === 0))],
		[odd, inspecting(masks.filter((_, i) => i % 2 === 1))],
		[ilse, reading(read)],
		[odd, filling(filled, things.source)],
		[ilse, sealing(sealMask, 'cartridges')],
		[odd, entering('Ada Voss')],
		[ilse, testing(things.suits[0] ?? '', 1)]
	];
	const writers = rounds.map(
		([client]) => new Writer(client, new Chance(dice.int(1, 1e6)), () => over)
	);
	const device = await openDevice(odd, deviceMask);
	const board = watchBoard(
		() => ({ ...ilse, address: world.direct() }),
		() => over
	);
	const left = new Set([...rounds.map((_, i) => `writer ${i}`), 'device']);
	const working = writers.map((writer, i) =>
		writer
			.run(rounds[i]?.[1] ?? (() => Promise.resolve()))
			.catch((error: unknown) => {
				say(`A writer failed: ${String(error)}`);
				process.exitCode = 1;
			})
			.finally(() => left.delete(`writer ${i}`))
	);
	const tapping = (async () => {
		while (!over) {
			await device.answer();
			await pause(tap.int(100, 800));
		}
	})()
		.catch((error: unknown) => {
			say(`The device failed: ${String(error)}`);
			process.exitCode = 1;
		})
		.finally(() => left.delete('device'));

	const began = performance.now();
	while (kills < KILLS) {
		if (dice.next() < 0.25) await device.storage(dice.next() < 0.5);
		if (dice.next() < 0.35) await trouble();
		else await kill();
		await pause(dice.int(100, 1200));
		if (kills % 50 === 0 && kills) say(`${kills} kills`);
	}
	world.setClock(0);
	await device.storage(false);
	await recover('the end');
	// What is under way comes to its end, or is known as open.
	const settled = Promise.all([...working, tapping]);
	over = true;
	await Promise.race([settled, pause(SETTLES_MS)]);
	tell(`settled, but for ${[...left].join(', ') || 'none'}`);
	const sent = await device.settled();
	tell(`device ${sent ? 'sent all' : 'did not send all'}`);
	await board.watching;
	tell('board');

	const deeds = writers.flatMap((writer) => writer.deeds);
	const count = await countDeeds(world.sql, deeds);
	const onDevice = (
		await world.sql<{ step: string }[]>`
			select step from inspection_answer where run_id = ${device.run} order by position`
	).map(({ step }) => step);
	const deviceRight = sent && JSON.stringify(onDevice) === JSON.stringify(device.given);
	const openTests = async () =>
		(
			await world.sql<
				{ n: number }[]
			>`select count(*)::int as n from bench_test where ended_at is null`
		)[0]?.n ?? 0;
	let leftOpen = await openTests();
	for (const until = Date.now() + SETTLES_MS; leftOpen && Date.now() < until;) {
		await pause(500);
		leftOpen = await openTests();
	}
	const { db, close } = openDatabase(world.env.GREVAN_OWNER_URL, { max: 1 });
	const chain = await verifyChain(db);
	await close();

	const kinds = [...new Set(deeds.map(({ kind }) => kind))].map((kind) => {
		const taken = deeds.filter((deed) => deed.kind === kind && deed.state === 'taken').length;
		return `${taken} ${kind}`;
	});
	const worst = recovered.toSorted((a, b) => b.ms - a.ms);
	const mean = recovered.reduce((sum, { ms }) => sum + ms, 0) / recovered.length;
	say(`seed ${SEED}, ${kills} kills in ${((performance.now() - began) / 1000).toFixed(0)} s`);
	say(
		`troubles beside: ${[...happened].map(([what, n]) => `${n} of ${what}`).join(', ') || 'none'}`
	);
	if (!FILLS_DISK) say('left out: a full disk (needs root, for a small disk of its own)');
	say(
		`acknowledged: ${count.acknowledged} (${kinds.join(', ')}), and ${device.given.length} answers on a device`
	);
	say(`refused for good: ${count.refused}, not known at the end: ${count.open}`);
	say(
		`lost: ${count.lost.length}, doubled: ${count.doubled.length}, half-written: ${count.half.length}`
	);
	say(
		`device: ${deviceRight ? 'every answer once and in order' : `given ${device.given.join(' ')}; kept ${onDevice.join(' ')}`}`
	);
	say(
		`log: ${chain.faults.length ? JSON.stringify(chain.faults.slice(0, 3)) : 'whole'}; bench tests left open: ${leftOpen}`
	);
	say(
		`board: ${board.seen.words} words, off by ${(board.seen.worstMs / 1000).toFixed(2)} s at most, silent for ${(board.seen.longestSilenceMs / 1000).toFixed(1)} s at most`
	);
	say(
		`serves again after ${(mean / 1000).toFixed(2)} s on average, ${((worst[0]?.ms ?? 0) / 1000).toFixed(1)} s at most (${worst[0]?.what ?? ''})`
	);
	for (const deed of [...count.lost, ...count.doubled, ...count.half].slice(0, 10))
		say(JSON.stringify(deed));
	const refusals = new Map<string, number>();
	for (const { state, kind, says } of deeds)
		if (state === 'refused')
			refusals.set(`${kind}: ${says ?? ''}`, (refusals.get(`${kind}: ${says ?? ''}`) ?? 0) + 1);
	if (process.env.CHAOS_TELL) for (const [what, n] of refusals) say(`  refused ${n}: ${what}`);
	const right =
		count.lost.length + count.doubled.length + count.half.length === 0 &&
		count.acknowledged > 0 &&
		deviceRight &&
		chain.faults.length === 0 &&
		leftOpen === 0 &&
		board.seen.worstMs < 1500;
	exit = right ? 0 : 1;
	await device.close();
} finally {
	over = true;
	await world.close();
}
process.exit(process.exitCode ?? exit);
