import { describe, expect, it } from 'vitest';
import { PROCEDURES } from '../data/procedures.ts';
import { familiesWhere, recordOf } from '../data/family-records.ts';
import { onRecordAt, type OnRecord } from './on-record.ts';

const filters = {
	tag: 'FP-0012',
	name: 'Pair A2',
	count: 2,
	openedOn: '2026-10-03',
	initials: 'IN',
	changeOn: '2026-12-01'
};
const mask: OnRecord = { family: 'half-mask', filterPlaces: 2, filters, parts: [] };
const left = { station: 'filter-left', rejects: ['DATE', 'MIX'] };

describe('what the record says is fitted', () => {
	it('is said where the dates of the filters are read: what, since when, by whom, until when, and the twin', () => {
		expect(onRecordAt(left, mask)).toEqual([
			'Pair A2, FP-0012: opened 3 Oct 2026, IN; last day 1 Dec 2026.',
			'Its twin, right, is of the same lot.'
		]);
		expect(onRecordAt({ ...left, station: 'filter-right' }, mask)[1]).toContain('twin, left');
	});

	it.each<[string, Parameters<typeof onRecordAt>[0], OnRecord, string[]]>([
		['none on record', left, { ...mask, filters: null }, ['No filter on it.']],
		['a mask that takes none', left, { ...mask, filterPlaces: 0, filters: null }, []],
		['another station', { ...left, station: 'lens' }, mask, []],
		['a step that reads no date', { ...left, rejects: ['DENT'] }, mask, []]
	])('%s', (_, step, record, said) => expect(onRecordAt(step, record)).toEqual(said));

	it('says what sits over them, or that nothing does, where the pre-filter is looked at', () => {
		const over = { station: 'prefilter-left', rejects: ['ONCE'] };
		const layers = [{ name: 'Dust pad', fittedOn: '2026-10-03' }];
		expect(onRecordAt(over, { ...mask, filters: { ...filters, layers } })).toEqual([
			'Dust pad, fitted 3 Oct 2026.'
		]);
		expect(onRecordAt(over, mask)).toEqual(['Nothing over the filter.']);
		expect(onRecordAt(over, { ...mask, filterPlaces: 0, filters: null })).toEqual([]);
	});

	it('of an escape set says that its filter is sealed, and until when', () =>
		expect(
			onRecordAt(
				{ station: 'source', rejects: ['DATE'] },
				{
					family: 'escape-set',
					filterPlaces: 1,
					filters: { ...filters, count: 1, sealed: true },
					parts: []
				}
			)
		).toEqual([
			'Pair A2, FP-0012: fitted sealed 3 Oct 2026, IN; last day 1 Dec 2026.',
			'One filter.'
		]));

	it('of one canister says that it is one; of a set its mask and cylinder, and which is missing', () => {
		const canister = { station: 'canister', rejects: ['DATE'] };
		const one = { ...mask, family: 'canister-mask', filterPlaces: 1 };
		expect(onRecordAt(canister, { ...one, filters: { ...filters, count: 1 } })[1]).toBe(
			'One filter.'
		);
		const set: OnRecord = {
			family: 'ba-set',
			filterPlaces: 0,
			filters: null,
			parts: [{ family: 'cylinder', tag: 'CY-0103', name: 'Long 6.8' }]
		};
		const at = (station: string) => onRecordAt({ station, rejects: ['FILL'] }, set);
		expect(at('cylinder')).toEqual(['CY-0103, Long 6.8.']);
		expect(at('mask')).toEqual(['No full-face mask on it.']);
	});

	it('is asked for by the usual list of every family that carries filters', () => {
		for (const family of familiesWhere((f) => f.carries !== null)) {
			const lists = PROCEDURES.filter(
				(p) => p.family === family && (p.purpose ?? 'inspection') === 'inspection'
			);
			expect(lists.length, family).toBeGreaterThan(0);
			for (const list of lists) {
				const steps = list.steps.filter(
					(step) => onRecordAt(step, { ...mask, family, filters: null }).length
				);
				expect(steps.length, `${list.key} ${list.version}`).toBeGreaterThan(0);
			}
		}
	});

	it('has stations named for every family that carries filters', () => {
		for (const family of familiesWhere((f) => f.carries !== null))
			expect(recordOf(family).filterStations.length, family).toBeGreaterThan(0);
	});
});
