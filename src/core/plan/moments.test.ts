import { describe, expect, it } from 'vitest';
import {
	dayAt,
	middleOf,
	readableClock,
	readableDay,
	readableMoment,
	readableTime,
	startOf
} from './moments.ts';

describe('moments in the zone of the site', () => {
	// The calendar itself: British summer time ended on 25 October 2026 at 01:00 UTC; New York is five hours behind
	// London in winter.
	it.each([
		['2026-06-30T23:30:00Z', 'Europe/London', '1 Jul 2026, 00:30'],
		['2026-11-24T23:30:00Z', 'Europe/London', '24 Nov 2026, 23:30'],
		['2026-10-25T00:30:00Z', 'Europe/London', '25 Oct 2026, 01:30'],
		['2026-10-25T01:30:00Z', 'Europe/London', '25 Oct 2026, 01:30'],
		['2026-11-25T03:00:00Z', 'America/New_York', '24 Nov 2026, 22:00'],
		['2026-09-05T12:00:00Z', 'Europe/London', '5 Sep 2026, 13:00']
	])('%s in %s reads %s', (moment, zone, expected) => {
		expect(readableMoment(new Date(moment), zone)).toBe(expected);
		expect(readableMoment(Date.parse(moment), zone)).toBe(expected);
	});

	it('come as a day and as a time of their own', () => {
		const at = new Date('2026-11-24T14:28:05Z');
		expect(dayAt(at, 'Europe/London')).toBe('2026-11-24');
		expect(readableDay(at, 'Europe/London')).toBe('24 Nov 2026');
		expect(readableTime(at, 'Europe/London')).toBe('14:28');
		expect(readableClock(at, 'Europe/London')).toBe('14:28:05');
	});
});

describe('a day of the site', () => {
	// Published: the IANA time zone database; London put its clocks back on 25 Oct 2026, Auckland is 13 h ahead in January.
	it.each([
		['2026-10-25', 'Europe/London', '2026-10-24T23:00:00.000Z'],
		['2026-10-26', 'Europe/London', '2026-10-26T00:00:00.000Z'],
		['2026-01-10', 'Pacific/Auckland', '2026-01-09T11:00:00.000Z'],
		['2026-01-10', 'America/Los_Angeles', '2026-01-10T08:00:00.000Z']
	])('%s begins in %s at %s', (day, zone, at) => {
		expect(startOf(day, zone).toISOString()).toBe(at);
		expect(dayAt(startOf(day, zone), zone)).toBe(day);
		expect(dayAt(startOf(day, zone).getTime() - 1, zone) < day).toBe(true);
		expect([dayAt(middleOf(day, zone), zone), readableClock(middleOf(day, zone), zone)]).toEqual([
			day,
			'12:00:00'
		]);
	});
});
