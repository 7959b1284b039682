import { describe, expect, it } from 'vitest';
import { airwayOf, FAMILIES } from '../data/families.ts';
import { procedureFor, PROCEDURES, proceduresOf } from '../data/procedures.ts';
import { REJECT_CODES } from '../data/reject-codes.ts';
import { InputError } from '../verdict.ts';
import { judgeReading, readingSuspicion, readingText, type Readings } from './reading.ts';
import { judgeRun, type AnswerEvent } from './run.ts';

const bench = procedureFor('ba-set', 'bench');
const worn = procedureFor('ba-set', 'worn');
const step = (key: string) => {
	const found = bench.steps.find((s) => s.key === key);
	if (!found) throw new Error(key);
	return found;
};
const facts = { ratedBar: 300 };
const judged = (key: string, readings: Readings) => judgeReading(step(key), readings, facts);
const located = (key: string, readings: Readings) => {
	try {
		judged(key, readings);
	} catch (error) {
		expect(error).toBeInstanceOf(InputError);
		return `${(error as InputError).path}: ${(error as Error).message}`;
	}
	return 'accepted';
};

describe('the data of every family', () => {
	it('gives every station of every procedure’s family a step, on the way of the air', () => {
		for (const procedure of PROCEDURES) {
			const order = airwayOf(procedure.family).stations.map((s) => s.key);
			const visited = procedure.purpose ? [] : order;
			for (const key of visited)
				expect(
					procedure.steps.some((s) => s.station === key),
					`${procedure.key}: ${key}`
				).toBe(true);
			const keys = procedure.steps.map((s) => s.key);
			expect(new Set(keys).size, procedure.key).toBe(keys.length);
			for (const s of procedure.steps)
				expect(
					[s.title, s.action, s.good, s.why].every((word) => word.length > 2),
					s.key
				).toBe(true);
		}
	});

	it('covers what a site keeps, with a coded list of some size', () => {
		expect(FAMILIES.length).toBeGreaterThanOrEqual(11);
		expect(REJECT_CODES.length).toBeGreaterThanOrEqual(60);
		expect(new Set(REJECT_CODES.map((c) => c.code)).size).toBe(REJECT_CODES.length);
		expect(
			proceduresOf('ba-set')
				.filter((p) => !p.purpose && !p.levels)
				.map((p) => p.school)
		).toEqual(['bench', 'worn']);
	});

	it('asks no more of a BA set than sixty key presses beside its readings', () => {
		const plain = bench.steps.filter((s) => !s.reading).length;
		// One key a step, Enter to sign.
		expect(plain + 1).toBeLessThan(60);
		expect(bench.steps.filter((s) => s.reading).map((s) => s.key)).toEqual([
			'cyl-fill',
			'hold',
			'whistle'
		]);
		expect(worn.steps.filter((s) => s.reading)).toHaveLength(3);
	});
});

describe('a step that a reading answers', () => {
	// Published: EN 137, 29 CFR 1910.134(h)(3)(iii); the limits themselves are tested in bench/.
	it.each([
		['cyl-fill', { value: 270 }, 'good', null],
		['cyl-fill', { value: 269.9 }, 'reject', 'FILL'],
		['hold', { start: 300, end: 290, seconds: 60 }, 'good', null],
		['hold', { start: 300, end: 289.9, seconds: 60 }, 'reject', 'LEAK'],
		['whistle', { value: 50 }, 'good', null],
		['whistle', { value: 49.9 }, 'reject', 'WHL'],
		['whistle', { value: 60.1 }, 'reject', 'WHH']
	] as const)('%s %o: %s', (key, readings, value, code) =>
		expect(judged(key, readings)).toMatchObject({ value, code })
	);

	it('goes by a maker who is stricter, and never by one who is looser', () => {
		const lost = (bar: number, holdDropBar: number) =>
			judgeReading(
				step('hold'),
				{ start: 300, end: 300 - bar, seconds: 60 },
				{ ...facts, holdDropBar }
			).value;
		expect([lost(5, 5), lost(5.1, 5), lost(10, 20), lost(10.1, 20)]).toEqual([
			'good',
			'reject',
			'good',
			'reject'
		]);
	});

	it.each([
		['hold', { start: 300, end: 298, seconds: 20 }, /^readings\.end: Held 20 s only/],
		['hold', { start: 290, end: 300, seconds: 60 }, /^readings\.end: It rose from 290 to 300 bar/],
		['hold', { start: 290 }, /^readings\.end: Note the pressure after/],
		['cyl-fill', {}, /^readings\.value/],
		['cyl-fill', { value: 4350 }, /^readings\.value: .*psi: 300 bar/],
		['frame', { value: 1 }, /^readings: .*takes no reading/]
	] as const)('refuses %s %o', (key, readings, message) =>
		expect(located(key, readings)).toMatch(message)
	);

	it('a value that fits another unit is offered, not taken', () => {
		const rule = step('cyl-fill').reading;
		if (!rule) throw new Error('no rule');
		expect(readingSuspicion(rule, 29, facts)).toEqual({ unit: 'MPa', bar: 290 });
		expect(readingSuspicion(rule, 290, facts)).toBeUndefined();
		expect(readingSuspicion(rule, 120, facts)).toBeUndefined();
	});

	it('is written with the verdict of the run', () => {
		const events = bench.steps.map((s): AnswerEvent => {
			if (!s.reading) return { step: s.key, value: s.ifFitted ? 'not fitted' : 'good' };
			const readings =
				s.reading.kind === 'hold'
					? { start: 295, end: 293, seconds: 61 }
					: { value: s.reading.kind === 'whistle' ? 54 : 295 };
			return { step: s.key, value: 'good', readings };
		});
		const verdict = judgeRun(bench, events, 300, facts);
		expect(verdict.outcome).toBe('pass');
		expect(verdict.reasons.map((r) => r.rule)).toEqual([
			'inspection.good',
			'fill.ninety',
			'hold.drop',
			'whistle.band'
		]);
		expect(readingText({ value: 54 })).toBe('54 bar');
		expect(readingText({ start: 295, end: 293, seconds: 61 })).toBe('295 → 293 bar in 61 s');
	});
});
