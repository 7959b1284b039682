import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from '../plan/calendar.ts';
import { checkWorkCalendar, offBecause, workDayUpTo } from './calendar.ts';
import { changesBetween, changeWords } from './changes.ts';
import { missingOf, type SiteSoFar } from './missing.ts';
import { checkTimeZone, timeZones } from './time-zone.ts';

const WEEK = { workDays: [1, 2, 3, 4, 5], holidays: [{ on: '2026-12-25', name: 'Christmas' }] };

// ISO 8601 (published, from memory): Monday is 1, Sunday 7; 24 November 2026 is a Tuesday.
describe('a working calendar', () => {
	it.each([
		['2026-11-24', null],
		['2026-11-28', 'Saturday'],
		['2026-11-29', 'Sunday'],
		['2026-12-25', 'Christmas']
	])('%s: %s', (day, why) => expect(offBecause(day, WEEK)).toBe(why));

	it.each([
		['2026-11-24', '2026-11-24'],
		['2026-11-29', '2026-11-27'],
		['2026-12-27', '2026-12-24']
	])('what falls due on %s is done by %s', (day, by) => expect(workDayUpTo(day, WEEK)).toBe(by));

	it('gives a working day that is never later, with nothing but days off between', () => {
		const days = fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 });
		fc.assert(
			fc.property(days, fc.integer({ min: 0, max: 3000 }), (workDays, n) => {
				const calendar = { workDays, holidays: WEEK.holidays };
				const day = plusDays('2026-01-01', n);
				const by = workDayUpTo(day, calendar) ?? '';
				expect(by <= day && offBecause(by, calendar) === null).toBe(true);
				for (let on = plusDays(by, 1); on <= day; on = plusDays(on, 1))
					expect(offBecause(on, calendar)).not.toBeNull();
			})
		);
	});

	it('without a working day in a year finds none', () => {
		const holidays = Array.from({ length: 420 }, (_, i) => ({
			on: plusDays('2026-12-31', -i),
			name: 'off'
		}));
		expect(workDayUpTo('2026-12-31', { workDays: [1], holidays })).toBeNull();
	});

	it.each([
		[{ workDays: [], holidays: [] }, /without a working day/],
		[{ workDays: [0], holidays: [] }, /Weekdays are 1/],
		[{ workDays: [1.5], holidays: [] }, /Weekdays are 1/],
		[{ workDays: [1], holidays: [{ on: '2026-02-30', name: 'x' }] }, /2026-02-30/],
		[{ workDays: [1], holidays: [{ on: '2026-12-25', name: ' ' }] }, /Name the holiday/],
		[{ workDays: [1], holidays: [...WEEK.holidays, ...WEEK.holidays] }, /twice/]
	])('%j is refused', (calendar, say) => expect(() => checkWorkCalendar(calendar)).toThrow(say));

	it('is kept in order, each day once', () =>
		expect(
			checkWorkCalendar({
				workDays: [5, 1, 5],
				holidays: [
					{ on: '2026-12-26', name: ' Second ' },
					{ on: '2026-12-25', name: 'First' }
				]
			})
		).toEqual({
			workDays: [1, 5],
			holidays: [
				{ on: '2026-12-25', name: 'First' },
				{ on: '2026-12-26', name: 'Second' }
			]
		}));
});

describe('a time zone', () => {
	it.each(['Europe/London', 'europe/oslo', 'America/Chicago', 'UTC'])('%s is taken', (name) =>
		expect(checkTimeZone(name).toLowerCase()).toBe(name.toLowerCase())
	);
	it.each(['Europe/Nowhere', '+01:00', '', 'GMT+1', 'Europe', '../etc', 'a'.repeat(200)])(
		'“%s” is refused',
		(name) => expect(() => checkTimeZone(name)).toThrow(/no time zone/)
	);
	it('that is offered is taken', () => {
		for (const zone of timeZones()) expect(checkTimeZone(zone)).toBeTruthy();
	});
});

describe('changes', () => {
	it('name what differs with old and new, in order, and nothing that stayed', () => {
		const before = { name: 'A', days: [1, 2], open: true, who: null as string | null };
		const after = { name: 'B', days: [1, 2], open: false, who: 'Nora' };
		const found = changesBetween(before, after, {
			name: 'name',
			days: 'days',
			open: 'open',
			who: 'who answers'
		});
		expect(changeWords(found)).toBe(
			'name from A to B; open from yes to no; who answers from none to Nora'
		);
		expect(changesBetween(after, after, { name: 'name', who: 'who' })).toEqual([]);
	});
});

describe('what a site still lacks', () => {
	const nothing: SiteSoFar = {
		named: false,
		twoPeople: true,
		others: false,
		place: false,
		model: false,
		item: false,
		inspected: false,
		takesFilters: false,
		filterLot: false,
		wearer: false,
		part: false,
		floor: false,
		plan: false,
		planInForce: false
	};
	const all = Object.fromEntries(Object.keys(nothing).map((key) => [key, true])) as never;

	it('is, of an empty one, what everything else needs first; of a whole one nothing', () => {
		expect(missingOf(nothing).map(({ key }) => key)).toEqual([
			'site',
			'places',
			'people',
			'models',
			'items'
		]);
		expect(missingOf(all)).toEqual([]);
	});

	it('of one person alone asks for no second, of a site without filters for none', () => {
		const keys = (part: Partial<SiteSoFar>) =>
			missingOf({ ...nothing, named: true, place: true, model: true, item: true, ...part }).map(
				({ key }) => key
			);
		expect(keys({ twoPeople: false })).toEqual(['parts', 'floors', 'inspect']);
		expect(keys({ others: true, takesFilters: true })).toEqual([
			'filters',
			'parts',
			'floors',
			'plan',
			'inspect'
		]);
		expect(keys({ others: true, plan: true, part: true, floor: true, inspected: true })).toEqual([
			'approve'
		]);
	});

	it('never grows with what a site gets, but for what that asks for itself', () => {
		const flags = Object.keys(nothing).filter((key) => key !== 'twoPeople');
		const asks: Record<string, string[]> = {
			item: ['parts', 'floors', 'inspect'],
			takesFilters: ['filters', 'plan'],
			plan: ['approve']
		};
		const site = fc.record(
			Object.fromEntries(Object.keys(nothing).map((key) => [key, fc.boolean()]))
		) as fc.Arbitrary<unknown> as fc.Arbitrary<SiteSoFar>;
		fc.assert(
			fc.property(site, fc.constantFrom(...flags), (has, flag) => {
				const before = missingOf({ ...has, [flag]: false }).map(({ key }) => key);
				const after = missingOf({ ...has, [flag]: true }).map(({ key }) => key);
				for (const key of after) if (!before.includes(key)) expect(asks[flag] ?? []).toContain(key);
			})
		);
	});
});
