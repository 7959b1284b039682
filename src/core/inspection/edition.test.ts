import { describe, expect, it } from 'vitest';
import { stretches } from '../airway/airway.ts';
import { airwayOf } from '../data/families.ts';
import { family } from '../data/family-tables.ts';
import { procedure as readProcedure } from '../data/procedure-text.ts';
import { PROCEDURES, procedureFor, proceduresOf } from '../data/procedures.ts';
import { commonPractice, InputError } from '../verdict.ts';
import { checkProcedure, editionChanges } from './edition.ts';
import type { Procedure, Step } from './procedure.ts';
import { judgeRun, runState } from './run.ts';

const mask = procedureFor('half-mask');
const airway = airwayOf('half-mask');
const withSteps = (change: (steps: Step[]) => Step[]): Procedure => ({
	...mask,
	steps: change([...mask.steps])
});
const at = (index: number, part: Partial<Step>) =>
	withSteps((steps) => steps.map((s, i) => (i === index ? { ...s, ...part } : s)));

describe('a procedure', () => {
	it.each(PROCEDURES.map((p) => [p.key, p] as const))('%s as shipped can be walked', (_, p) =>
		expect(() => checkProcedure(p, airwayOf(p.family))).not.toThrow()
	);

	it.each([
		[
			'steps',
			withSteps((s) => s.filter((x) => x.station !== 'cover')),
			/No step looks at valve cover/
		],
		['steps.1.key', at(1, { key: 'prefilter-left' }), /another step has the same key/],
		['steps.0.key', at(0, { key: 'No Key' }), /no usable key/],
		['steps.0.station', at(0, { station: 'zip' }), /no such station/],
		['steps.2.good', at(2, { good: '  ' }), /“good looks like” is empty/],
		['steps.2.why', at(2, { why: 'x'.repeat(301) }), /more than 300/],
		['steps.3.rejects', at(3, { rejects: [] }), /at least one code/],
		['steps.3.rejects', at(3, { rejects: ['NOPE'] }), /no code NOPE/],
		['steps.3.kind', at(3, { kind: 'hold' }), /where one is judged/],
		['name', { ...mask, name: ' ' }, /a name/]
	] as const)('is refused at %s', (path, wrong, message) => {
		try {
			checkProcedure(wrong, airway);
			expect.unreachable('it was accepted');
		} catch (error) {
			expect(error).toBeInstanceOf(InputError);
			expect((error as InputError).path).toBe(path);
			expect((error as Error).message).toMatch(message);
		}
	});

	it('keeps the code that its reading rejects with', () => {
		const ba = procedureFor('ba-set', 'bench');
		const steps = ba.steps.map((s) => (s.key === 'whistle' ? { ...s, rejects: ['WHH'] } : s));
		expect(() => checkProcedure({ ...ba, steps }, airwayOf('ba-set'))).toThrow(/rejects with WHL/);
	});
});

describe('the difference between two versions', () => {
	it('is nothing for the same', () => expect(editionChanges(mask, mask)).toEqual([]));

	it('names what was changed, added, taken out, and only what was really moved', () => {
		const after = withSteps((steps) => {
			const [first, ...rest] = steps;
			if (!first) return steps;
			const changed = rest.map((s) => (s.key === 'bag-state' ? { ...s, title: 'Bag' } : s));
			return [
				...changed.filter((s) => s.key !== 'cover-click'),
				first,
				{ ...first, key: 'new-one', title: 'Something new' }
			];
		});
		expect(editionChanges(mask, after)).toEqual([
			{ what: 'changed', step: 'Bag', field: 'title', from: 'Bag or box', to: 'Bag' },
			{ what: 'moved', step: 'Pre-filter and retainer, left' },
			{ what: 'added', step: 'Something new' },
			{ what: 'taken out', step: 'Valve cover back on' }
		]);
	});

	it('the newest version is the one offered, whatever order they come in', () => {
		const second = { ...mask, version: 101 };
		expect(proceduresOf('half-mask', [second, mask])).toEqual([second]);
	});
});

describe('a family added as data alone', () => {
	const snorkel = family(
		'smoke-hood',
		'Smoke hood',
		'Smoke hoods',
		`key | name | short | zone | sides | if fitted | faults
canister | Canister | canister | ambient | both | | Out of date
hood | Hood and window | hood | mask | | | Torn, sooted
strap | Neck band | band | holding | | yes | Dead`
	);
	const look = readProcedure(
		{ key: 'smoke-hood-check', name: 'Smoke hood', family: 'smoke-hood', origin: commonPractice() },
		`key | station | title | action | good | rejects | kind | why | sides | if fitted
canister | canister | Canister | Read it. | In date. | DATE DENT | look | It ages. | both |
hood | hood | Hood | Look through. | Whole. | TEAR SCR | look | It must be seen through. | |
band | strap | Neck band | Stretch it. | Returns. | ELAS | feel | It seals. | | yes`
	);

	it('is drawn, walked and judged by the same code', () => {
		checkProcedure(look, snorkel);
		expect(stretches(snorkel.stations).map((s) => s.kind)).toEqual([
			'branches',
			'single',
			'single'
		]);
		const answers = look.steps.map((s) => ({ step: s.key, value: 'good' as const }));
		expect(runState(look, answers)).toMatchObject({ done: 4, complete: true });
		expect(judgeRun(look, answers, 60).outcome).toBe('pass');
		const torn = [...answers, { step: 'hood', value: 'reject' as const, code: 'TEAR' }];
		expect(judgeRun(look, torn, 60).outcome).toBe('fail');
	});
});
