import { describe, expect, it } from 'vitest';
import { lacksOf, type Fitted } from './complete.ts';
import { judgeItem } from './item-state.ts';

const mask: Fitted = {
	family: 'half-mask',
	mount: 'quarter turn',
	filterPlaces: 2,
	filters: 2,
	inSet: false,
	parts: []
};
const set: Fitted = {
	...mask,
	family: 'ba-set',
	mount: 'none',
	filters: 0,
	parts: ['cylinder', 'full-face']
};

const escape: Fitted = {
	...mask,
	family: 'escape-set',
	mount: 'hood',
	filterPlaces: 1,
	filters: 0
};

// Common practice: nothing is ready with a place left empty.
describe('what is on an item on record', () => {
	it.each([
		['a pair', mask, []],
		['no pair', { ...mask, filters: 0 }, [/No filters on it/]],
		['one of two', { ...mask, filters: 1 }, [/1 of 2/]],
		['one central filter', { ...mask, filterPlaces: 1, filters: 1 }, []],
		['a port for a set', { ...mask, family: 'full-face', mount: 'none', filters: 0 }, []],
		['a mask in a set', { ...mask, family: 'full-face', filters: 0, inSet: true }, []],
		['a whole set', set, []],
		['a set without its cylinder', { ...set, parts: ['full-face'] }, [/No cylinder/]],
		['a set without both', { ...set, parts: [] }, [/No cylinder/, /No full-face mask/]],
		['an escape set with its filter', { ...escape, filters: 1 }, []],
		['an escape set without it', escape, [/No filter in it/]],
		['an escape set that brings its air', { ...escape, mount: 'none' }, []],
		['a cylinder', { ...set, family: 'cylinder', parts: [] }, []]
	] as const)('%s', (_, fitted, says) => {
		const lacks = lacksOf(fitted);
		expect(lacks).toHaveLength(says.length);
		says.forEach((one, i) => expect(lacks[i]).toMatch(one));
	});

	it('keeps it from being ready, and says so first', () => {
		const facts = {
			retiredOn: null,
			openDefects: [],
			inService: false,
			lastInspectionOn: '2026-11-20',
			filterChangeOn: null
		};
		expect(judgeItem(facts, 'uk', '2026-11-24').outcome).toBe('ready');
		const bare = judgeItem(
			{ ...facts, lacks: lacksOf({ ...mask, filters: 0 }) },
			'uk',
			'2026-11-24'
		);
		expect([bare.outcome, bare.reasons[0]?.rule]).toEqual(['held', 'item.incomplete']);
	});
});
