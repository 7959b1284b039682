import { randomUUID } from 'node:crypto';
import { afterAll, describe, expect, it } from 'vitest';
import { startInstruments } from '../../scripts/lib/instruments.mjs';
import { procedureFor } from '../../src/core/data/procedures.ts';
import {
	baBenchState,
	baReading,
	gaugeStep,
	simulateSet
} from '../../src/lib/server/bench/gauge.ts';
import { auditEntry } from '../../src/lib/server/db/schema/index.ts';
import { startRun } from '../../src/lib/server/inspection/runs.ts';
import type { BaReading } from '../../src/lib/server/instruments/ba-bench.ts';
import type { SimulatedSet } from '../../src/lib/server/instruments/simulated/ba-bench.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';
import { addPiece } from '../support/yard.ts';

const INSTRUMENT = 'GREVAN,BA-BENCH,SIMULATED,1';
const SOUND: SimulatedSet = {
	fillBar: 294,
	leakBarPerMin: 0,
	whistleBar: 54.5,
	bleedBarPerS: 200,
	fault: 'none'
};
let simulated: Awaited<ReturnType<typeof startInstruments>>;
let address: string;
const own = openYard(async () => {
	simulated = await startInstruments({ benches: 0 });
	address = simulated.env.GREVAN_BA_BENCH;
});
afterAll(() => simulated.stop());

const { tech } = own;
const tell = (part: Partial<SimulatedSet> = {}) =>
	simulateSet(tech(), address, { ...SOUND, ...part });

/** An inspection of a new set; gives what reads the bench for its steps. */
async function begin(tag: string) {
	await addPiece(own.test, own.yard, 'ba-set', tag, { ratedBar: 300 });
	const { id: runId } = await startRun(tech(), {
		id: randomUUID(),
		tag,
		procedure: procedureFor('ba-set', 'bench').key
	});
	return (step: string, connect = false, at = address) =>
		gaugeStep(tech(), at, { requestId: randomUUID(), runId, step, connect });
}

/** Lets a set down until it whistles or is empty. */
async function whistle(gauge: Awaited<ReturnType<typeof begin>>) {
	expect((await gauge('whistle')).bar).toBeNull();
	await expectRefusal(gauge('whistle'), 'conflict', /Still quiet at/);
	await expect
		.poll(() => baReading(address), { timeout: 60_000 })
		.toSatisfy((r: BaReading) => r.whistleBar !== null || r.highBar === 0);
	return gauge('whistle');
}

describe('a set on its bench', () => {
	it('gives its gauge and its whistle, with the name of the instrument in the record', async () => {
		await tell();
		const gauge = await begin('BA-0011');
		expect(await gauge('cyl-fill')).toEqual({ bar: 294, instrument: INSTRUMENT });
		expect((await gauge('hold')).bar).toBe(294);
		expect((await whistle(gauge)).bar).toBe(54.5);
		const read = (await own.test.db.select().from(auditEntry)).flatMap((entry) =>
			entry.action === 'instrument.read' ? [JSON.parse(entry.payload) as unknown] : []
		);
		expect(read).toEqual([
			{ step: 'cyl-fill', bar: 294, instrument: INSTRUMENT },
			{ step: 'hold', bar: 294, instrument: INSTRUMENT },
			{ step: 'whistle', bar: 54.5, instrument: INSTRUMENT }
		]);
		// Let down it is empty; the next gauge is that of a cylinder opened anew.
		expect((await gauge('cyl-fill')).bar).toBe(294);
	});

	it('is one at a time; a whistle that sticks, a frozen gauge and a free flow are seen', async () => {
		await tell({ fault: 'stuck whistle' });
		const gauge = await begin('BA-0014');
		await expectRefusal(gauge('cyl-fill'), 'conflict', /BA-0011 is on the bench/);
		await gauge('cyl-fill', true);
		await expectRefusal(whistle(gauge), 'invalid', /never whistled/);
		await tell({ fault: 'frozen gauge' });
		await gauge('cyl-fill');
		expect((await whistle(gauge)).bar).toBe(294);
		await tell({ fault: 'free flow' });
		await gauge('cyl-fill');
		await expect.poll(() => gauge('hold').then((g) => g.bar)).toBeLessThan(293.8);
	});

	it('that sends garbage, is away, or is asked for where nothing is read gives no figure', async () => {
		await tell({ fault: 'garbage' });
		const gauge = await begin('BA-0015');
		await expectRefusal(gauge('cyl-fill', true), 'unavailable', /The bench sent “29#/);
		await expectRefusal(gauge('strap'), 'invalid', /takes no reading/);
		await expectRefusal(
			gauge('hold', false, '127.0.0.1:9'),
			'unavailable',
			/Read the gauge yourself/
		);
		expect(await baBenchState('127.0.0.1:9')).toMatchObject({ live: false });
		expect(await baBenchState(address)).toMatchObject({ live: true, on: 'BA-0015' });
	});
});
