import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { FELT } from '../data/felt.ts';
import { PROCEDURES } from '../data/procedures.ts';
import { REJECT_CODES } from '../data/reject-codes.ts';
import { shownAt } from './at.ts';
import { SUBJECT_KEYS, SUBJECTS } from './subjects.ts';

const LOOKED_AT = PROCEDURES.flatMap((procedure) =>
	procedure.steps
		.filter(({ kind }) => kind === 'look' || kind === 'feel')
		.flatMap((step) =>
			step.rejects.map((code) => ({ family: procedure.family, station: step.station, code, step }))
		)
);

describe('what can be found by looking', () => {
	it('is drawn, or it is said why no picture can show it, at every station of every family', () => {
		expect(LOOKED_AT.length).toBeGreaterThan(500);
		const lacks = LOOKED_AT.flatMap(({ family, station, code }) => {
			try {
				const shown = shownAt(family, station, code);
				return 'felt' in shown && !shown.felt ? [`${family} ${station} ${code}`] : [];
			} catch (error) {
				return [(error as Error).message];
			}
		});
		expect([...new Set(lacks)]).toEqual([]);
	});

	it('is drawn wherever the step is a look and something is to be seen of it', () => {
		const unseen = LOOKED_AT.filter(({ step }) => step.kind === 'look').filter(
			({ family, station, code }) => 'felt' in shownAt(family, station, code)
		);
		// Felt or heard even where the step is a look.
		expect([...new Set(unseen.map(({ code }) => code))].filter((code) => !(code in FELT))).toEqual(
			[]
		);
		expect(unseen.length / LOOKED_AT.length).toBeLessThan(0.1);
	});
});

describe.each(SUBJECT_KEYS)('the drawing of %s', (key) => {
	const subject = SUBJECTS[key];
	const looks = (what: string | null, amount: number, at: number) =>
		JSON.stringify(subject.draw(what, { amount, at }));
	const share = fc.double({ min: 0, max: 1, noNaN: true });

	it('knows its codes and says each in words of its own', () => {
		const known = new Set(REJECT_CODES.map(({ code }) => code));
		const said = [subject.good, ...Object.values(subject.faults)];
		expect(Object.keys(subject.faults).filter((code) => !known.has(code))).toEqual([]);
		expect(new Set(said).size).toBe(said.length);
		expect(said.every((text) => text.length > 15 && text.endsWith('.'))).toBe(true);
	});

	it('looks different for every fault, however far it has gone and wherever it sits', () => {
		fc.assert(
			fc.property(share, share, (amount, at) => {
				const drawn = [null, ...Object.keys(subject.faults)].map((what) => looks(what, amount, at));
				expect(new Set(drawn).size).toBe(drawn.length);
			})
		);
	});

	it('stays on its paper and draws with numbers', () => {
		fc.assert(
			fc.property(share, share, (amount, at) => {
				for (const what of [null, 'near', ...Object.keys(subject.faults)])
					for (const one of subject.draw(what, { amount, at })) {
						if (!('d' in one)) {
							expect(one.x > 10 && one.x < 230 && one.y > 8 && one.y < 158).toBe(true);
							continue;
						}
						expect(one.d).not.toMatch(/NaN|undefined|Infinity/);
						for (const [, x, y] of one.d.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g))
							expect([Number(x) > -6, Number(x) < 246, Number(y) > -6, Number(y) < 168]).toEqual([
								true,
								true,
								true,
								true
							]);
					}
			}),
			{ numRuns: 30 }
		);
	});
});
