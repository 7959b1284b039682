import { describe, expect, it } from 'vitest';
import { insteadOf, type ReadyGroup } from './instead.ts';

const group = (tag: string, part: Partial<ReadyGroup> = {}): ReadyGroup => ({
	family: 'half-mask',
	model: 'Soft',
	size: 'M',
	place: 'Shed',
	count: 1,
	tag,
	...part
});
const leaking = { family: 'half-mask', model: 'Soft', size: 'M', place: 'Shed' };
const ready = [
	group('HM-1'),
	group('HM-2', { place: 'Quay', size: 'L' }),
	group('HM-3', { model: 'Firm' }),
	group('HM-4', { size: 'S' }),
	group('PB-1', { family: 'powered-blower', model: 'Breeze', size: 'one size' }),
	group('FF-1', { family: 'full-face', model: 'Wide' }),
	group('BA-1', { family: 'ba-set', model: 'Long' })
];
const tags = (permitted: string[] | null, list = ready) =>
	insteadOf(leaking, list, permitted).map(({ tag }) => tag);

describe('in place of a mask that did not seal', () => {
	it('stands another size of it, then another model, then what needs no seal; what is here first', () => {
		expect(tags(null)).toEqual(['HM-4', 'HM-3', 'PB-1', 'HM-2']);
	});

	it('stands only what the plan permits, as what it is by itself', () => {
		expect(tags(['full-face', 'powered-hood'])).toEqual(['FF-1', 'PB-1']);
		expect(tags(['ba'])).toEqual([]);
		expect(tags([])).toEqual([]);
	});

	it('is never the same model and size again, and at most six', () => {
		expect(tags(null, [group('HM-1'), group('HM-9', { place: 'Quay' })])).toEqual([]);
		const many = Array.from({ length: 9 }, (_, i) => group(`HM-${i}`, { size: `${i}` }));
		expect(tags(null, many)).toHaveLength(6);
	});
});
