import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { SCREEN_CODE, type ScreenShows } from '../../src/core/access/screen.ts';
import {
	darkenScreen,
	lightScreen,
	openScreen,
	showScreen,
	shownOn
} from '../../src/lib/server/access/screens.ts';
import { secondScreen } from '../../src/lib/server/db/schema/index.ts';
import { openYard } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

const own = openYard();
const shows = (title: string): ScreenShows => ({
	about: 'BA-0001 · bench school',
	title,
	text: 'Open the valve.',
	lines: [],
	figure: null,
	until: null
});
const ilse = () => own.yard.as(own.yard.people.technician);
const tablet = (later = 0) => {
	const { db, site, now } = ilse();
	return { db, site, now: () => new Date(now().getTime() + later) };
};
const seen = (token: string, later = 0) => shownOn(ilse().db, token, tablet(later).now());

describe('a second screen', () => {
	it('is lit once by its code, follows, and goes dark', async () => {
		const id = randomUUID();
		const { code } = await openScreen(ilse(), { id, shows: shows('Cylinder') });
		expect(code).toMatch(SCREEN_CODE);
		expect(await showScreen(ilse(), id, shows('Cylinder'))).toEqual({ lit: false });
		const token = await lightScreen(tablet(), code, '10.0.0.1');
		expect((await seen(token))?.title).toBe('Cylinder');
		expect(await showScreen(ilse(), id, shows('Whistle'))).toEqual({ lit: true });
		expect((await seen(token))?.title).toBe('Whistle');
		await expectRefusal(lightScreen(tablet(), code, '10.0.0.2'), 'invalid', /was used/);
		expect((await seen(token))?.title).toBe('Whistle');
		await darkenScreen(ilse(), id);
		expect(await seen(token)).toBeNull();
		await expectRefusal(showScreen(ilse(), id, shows('Sign')), 'not found', /nothing any more/);
	});
	it('takes no code that is wrong or old, and goes dark by itself', async () => {
		const { code } = await openScreen(ilse(), { id: randomUUID(), shows: shows('Cylinder') });
		await expectRefusal(lightScreen(tablet(), 'ABCDEFGH', '10.0.1.1'), 'invalid', /wrong/);
		await expectRefusal(lightScreen(tablet(6 * 60_000), code, '10.0.1.2'), 'invalid', /older/);
		const token = await lightScreen(tablet(), code, '10.0.1.3');
		expect(await seen(token, 9 * 3_600_000)).not.toBeNull();
		expect(await seen(token, 11 * 3_600_000)).toBeNull();
		expect(await shownOn(ilse().db, undefined, new Date())).toBeNull();
	});
	it('is its person’s alone, and its code and key are kept as hashes', async () => {
		const id = randomUUID();
		const { code } = await openScreen(ilse(), { id, shows: shows('Cylinder') });
		const token = await lightScreen(tablet(), code, '10.0.2.1');
		const other = own.yard.as(own.yard.people.supervisor);
		await expectRefusal(showScreen(other, id, shows('Mine')), 'not found', /nothing/);
		await darkenScreen(other, id);
		expect((await seen(token))?.title).toBe('Cylinder');
		const rows = JSON.stringify(await ilse().db.select().from(secondScreen));
		expect(rows).not.toContain(code);
		expect(rows).not.toContain(token);
	});
	it('lets nobody guess on and on', async () => {
		let refused = '';
		for (let i = 0; i < 12 && !/Too many/.test(refused); i++)
			refused = await lightScreen(tablet(), `ABCDEFG${2 + (i % 8)}`, '10.0.3.1').then(
				() => '',
				(error: Error) => error.message
			);
		expect(refused).toMatch(/Too many tries/);
	});
});
