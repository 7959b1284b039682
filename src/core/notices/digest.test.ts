import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { digestFor, type DigestFacts, triedAgainAt, urgentMessage } from './digest.ts';

const facts = (part: Partial<DigestFacts> = {}): DigestFacts => ({
	site: 'Yard',
	day: '2026-11-27',
	overdue: [],
	due: [],
	held: [],
	plans: [],
	people: [],
	planned: [],
	buy: [],
	backups: [],
	...part
});
const due = (tag: string, placeId = 'shed') => ({
	tag,
	what: 'inspection',
	by: 'last day was 20 Nov 2026',
	placeId,
	place: placeId === 'shed' ? 'Shed' : 'Quay'
});
const technician = { id: 'odd', name: 'Odd', wholeSite: true, placeIds: [] };
const keeper = { id: 'perrin', name: 'Perrin', wholeSite: false, placeIds: ['quay'] };

describe('the message of a day', () => {
	it('is not made where there is nothing to say', () => {
		expect(digestFor(facts(), technician, '')).toBeNull();
		expect(
			digestFor(facts({ overdue: [due('HM-1')], buy: ['x'], plans: ['y'] }), keeper, '')
		).toBeNull();
	});

	it('says to whom what is due, first at the places that they answer for', () => {
		const own = digestFor(
			facts({ overdue: [due('HM-1'), due('HM-2', 'quay')] }),
			{ ...technician, placeIds: ['quay'] },
			'https://grevan.example'
		);
		expect(own?.subject).toBe('Yard, 27 Nov 2026: 2 overdue');
		const text = own?.text ?? '';
		expect(text).toContain('Overdue at places you answer for (1)\n- HM-2: inspection');
		expect(text).toContain('Overdue, elsewhere (1)\n- HM-1: inspection');
		expect(text.indexOf('HM-2')).toBeLessThan(text.indexOf('HM-1'));
		expect(text).toContain('https://grevan.example/');
	});

	it('says what lapses of people to whoever works on the equipment, and to nobody else', () => {
		const people = ['Runa: Fit test with T1, size M, last day 5 Dec 2026'];
		expect(digestFor(facts({ people }), technician, '')?.text).toContain(
			'People (1)\n- Runa: Fit test with T1'
		);
		expect(digestFor(facts({ people }), keeper, '')).toBeNull();
	});

	it('says to whoever works on the equipment that no backup was taken of late', () => {
		const backups = ['The last was taken on 20 Nov 2026.'];
		expect(digestFor(facts({ backups }), technician, '')?.text).toContain(
			'Backups (1)\n- The last was taken'
		);
		expect(digestFor(facts({ backups }), keeper, '')).toBeNull();
	});

	it('says first what the plan has for its reader on that day, and nothing of others', () => {
		const planned = [
			{ userId: 'odd', line: 'HM-1: inspection. Shed, 5 min' },
			{ userId: 'ilse', line: 'HM-2: inspection. Quay, 5 min' }
		];
		const text = digestFor(facts({ planned, overdue: [due('HM-3')] }), technician, '')?.text ?? '';
		expect(text).toContain('Your day by the plan (1)\n- HM-1: inspection. Shed, 5 min');
		expect(text).not.toContain('HM-2');
		expect(text.indexOf('Your day')).toBeLessThan(text.indexOf('Overdue'));
		expect(digestFor(facts({ planned }), keeper, '')).toBeNull();
	});

	it('tells whoever answers for one place of that place alone', () => {
		const text = digestFor(facts({ due: [due('HM-1'), due('HM-2', 'quay')] }), keeper, '')?.text;
		expect(text).toContain('HM-2');
		expect(text).not.toContain('HM-1');
	});

	it('counts everything and lists no more than fits, whatever there is', () => {
		fc.assert(
			fc.property(fc.nat(60), fc.nat(60), fc.nat(60), (overdue, soon, held) => {
				const many = (n: number, word: string) =>
					Array.from({ length: n }, (_, i) => due(`${word}-${i}`));
				const message = digestFor(
					facts({
						overdue: many(overdue, 'O'),
						due: many(soon, 'D'),
						held: many(held, 'H').map((one) => ({ ...one, why: 'torn' }))
					}),
					technician,
					''
				);
				if (overdue + soon + held === 0) {
					expect(message).toBeNull();
					return;
				}
				const text = message?.text ?? '';
				const listed = text.split('\n').filter((line) => line.startsWith('- ')).length;
				const more = [...text.matchAll(/^and (\d+) more$/gm)].reduce(
					(n, [, x]) => n + Number(x),
					0
				);
				expect(listed + more).toBe(overdue + soon + held);
				expect(listed).toBeLessThanOrEqual(45);
			})
		);
	});
});

describe('a message at once', () => {
	it('says what happened and what it holds', () => {
		const { subject, text } = urgentMessage(
			{
				site: 'Yard',
				says: 'Lot L7 of filters was recalled. Loose sorbent.',
				items: [{ tag: 'HM-1', place: 'Shed' }],
				href: '/filters/lots/x'
			},
			'https://grevan.example'
		);
		expect(subject).toBe('Yard: Lot L7 of filters was recalled. Loose sorbent.');
		expect(text).toContain('Held by it (1)\n- HM-1. Shed');
		expect(text).toContain('https://grevan.example/filters/lots/x');
	});
});

describe('what could not be delivered', () => {
	it('is tried again later each time, for about a day, and then no more', () => {
		const start = new Date('2026-11-27T06:00:00Z');
		let at: Date | null = start;
		const waits: number[] = [];
		for (let tries = 1; at; tries++) {
			const next: Date | null = triedAgainAt(tries, at);
			if (next) waits.push((next.getTime() - at.getTime()) / 60_000);
			at = next;
		}
		expect(waits).toEqual([...waits].sort((a, b) => a - b));
		const hours = waits.reduce((a, b) => a + b, 0) / 60;
		expect(hours).toBeGreaterThan(20);
		expect(hours).toBeLessThan(36);
	});
});
