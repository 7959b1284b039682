import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { startRun } from '../../src/lib/server/inspection/runs.ts';
import { untilRecorded } from '../../src/lib/server/kernel/until-recorded.ts';
import { freshDatabase, openYard } from '../support/database.ts';

const own = openYard();
let asked = 0;
const AT = new Date('2026-11-24T10:00:10Z');
const ask = (name = 'count', at = AT) =>
	untilRecorded(own.tech(at), name, async () => Promise.resolve(++asked));
const record = () => startRun(own.tech(), { id: randomUUID(), tag: 'HM-0001' });

describe('an answer that everyone shares', () => {
	it('is worked out once, for those who ask at the same time too', async () => {
		expect(await Promise.all([ask(), ask(), ask()])).toEqual([1, 1, 1]);
		expect(await ask()).toBe(1);
	});

	it('is another by another name, in another minute and from another database', async () => {
		expect(await ask('other')).toBe(2);
		expect(await ask('count', new Date('2026-11-24T10:01:00Z'))).toBe(3);
		const other = await freshDatabase();
		const there = { ...own.tech(AT), db: other.db };
		expect(await untilRecorded(there, 'count', () => Promise.resolve('there'))).toBe('there');
		await other.close();
	});

	it('is worked out anew after anything is recorded', async () => {
		const before = await ask();
		await record();
		expect(await ask()).toBe(before + 1);
		expect(await ask()).toBe(before + 1);
	});

	it('is asked for again after it failed', async () => {
		const failing = () =>
			untilRecorded(own.tech(AT), 'failing', () => Promise.reject(new Error('gone')));
		await expect(failing()).rejects.toThrow('gone');
		const again = untilRecorded(own.tech(AT), 'failing', () => Promise.resolve('there'));
		expect(await again).toBe('there');
	});
});
