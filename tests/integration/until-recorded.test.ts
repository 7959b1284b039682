import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { startRun } from '../../src/lib/server/inspection/runs.ts';
import { noteEvent } from '../../src/lib/server/register/events.ts';
import { untilRecorded } from '../../src/lib/server/kernel/until-recorded.ts';
import { freshDatabase, openYard } from '../support/database.ts';

const own = openYard();
let asked = 0;
const AT = new Date('2026-11-24T10:00:10Z');
const ask = (name = 'count', at = AT) =>
	untilRecorded(own.tech(at), name, async () => Promise.resolve(++asked));
const recordAnother = () =>
	noteEvent(own.tech(), { id: randomUUID(), tag: 'HM-0002', what: 'drop', note: '' });
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

	it('is never of a record older than the one that was asked for: what is asked meanwhile is asked again', async () => {
		for (let i = 0; i < 12; i++) {
			const before = await ask('racing');
			// Questions for the end of the log are under way all the time while it moves on.
			const others = Array.from({ length: 5 }, () => ask('beside'));
			await recordAnother();
			const more = Array.from({ length: 5 }, () => ask('beside'));
			expect(await ask('racing')).toBeGreaterThan(before);
			await Promise.all([...others, ...more]);
		}
	});

	it('is let go of where many others are asked for', async () => {
		const first = await ask('the first');
		for (let i = 0; i < 320; i++) await ask(`another ${i}`);
		expect(await ask('another 300')).toBeLessThan(asked);
		expect(await ask('the first')).toBeGreaterThan(first);
	});

	it('is asked for again after it failed', async () => {
		const failing = () =>
			untilRecorded(own.tech(AT), 'failing', () => Promise.reject(new Error('gone')));
		await expect(failing()).rejects.toThrow('gone');
		const again = untilRecorded(own.tech(AT), 'failing', () => Promise.resolve('there'));
		expect(await again).toBe('there');
	});
});
