import { describe, expect, it } from 'vitest';
import { clusterSigns, type ClusterFacts, FALSE_ALARMS } from './cluster.ts';
import { simulatedYear, type YearOf } from './simulated-years.ts';

const QUIET: YearOf = {
	seed: 1,
	masks: 140,
	lots: 6,
	batches: 60,
	inBatch: 8,
	faultsPerMask: 0.4
};
const alarms = (facts: ClusterFacts) =>
	clusterSigns(facts).filter(({ alarmAt }) => alarmAt !== null);

describe('a group with more faults than chance allows', () => {
	it('cries in at most one quiet year of twenty, looked at after every fault', () => {
		const YEARS = 300;
		let cried = 0;
		for (let year = 0; year < YEARS; year++)
			if (alarms(simulatedYear({ ...QUIET, seed: 1_000 + year })).length > 0) cried++;
		expect(cried / YEARS).toBeLessThanOrEqual(FALSE_ALARMS);
	});

	it('is found by its tenth fault in the median, and is the lot that is bad', () => {
		const found: number[] = [];
		for (let year = 0; year < 60; year++) {
			const signs = clusterSigns(
				simulatedYear({ ...QUIET, seed: 7_000 + year, badLot: { masks: 14, times: 8 } })
			);
			found.push(signs.find(({ group }) => group === 'lot 0')?.alarmAt ?? Infinity);
		}
		found.sort((a, b) => a - b);
		expect(found[30]).toBeLessThanOrEqual(10);
	});

	it('counts what it expects by its share at each time, and the chance of one look', () => {
		// Two masks of ten have the lot, from day 10 on; five faults before, four of five after are theirs.
		const day = 86_400_000;
		const ids = Array.from({ length: 10 }, (_, i) => `m${i}`);
		const at = (itemId: string, on: number) => ({
			itemId,
			family: 'half-mask',
			station: 'exhalation',
			at: on * day
		});
		const [sign] = clusterSigns({
			fleet: ids.map((itemId) => ({ itemId, family: 'half-mask', from: 0, until: Infinity })),
			memberships: ['m0', 'm1'].map((itemId) => ({
				group: 'lot',
				itemId,
				family: 'half-mask',
				station: 'exhalation',
				from: 10 * day,
				until: Infinity
			})),
			faults: [
				...[1, 2, 3, 4, 5].map((on) => at('m5', on)),
				at('m0', 11),
				at('m1', 12),
				at('m0', 13),
				at('m7', 14),
				at('m1', 15),
				{ ...at('m1', 16), station: 'harness' }
			]
		});
		expect(sign).toMatchObject({ faults: 4, expected: 1 });
		expect(sign?.ratio).toBeCloseTo(4 / 1 / (1 / 4), 10);
		// Poisson, four or more where one is expected: 1 − e⁻¹ (1 + 1 + 1/2 + 1/6).
		expect(sign?.pValue).toBeCloseTo(1 - Math.exp(-1) * (1 + 1 + 1 / 2 + 1 / 6), 10);
	});

	it('says nothing of a lot that sits in everything, and does not fall over nothing', () => {
		expect(clusterSigns({ memberships: [], fleet: [], faults: [] })).toEqual([]);
		const facts = simulatedYear({ ...QUIET, lots: 1, batches: 0 });
		expect(clusterSigns(facts)).toMatchObject([{ faults: 0, evidence: 1, alarmAt: null }]);
	});
});
