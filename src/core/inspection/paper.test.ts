import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PROCEDURES } from '../data/procedures.ts';
import { InputError } from '../verdict.ts';
import { readMark, readSheet, readSheetCode, sheetCode } from './paper.ts';
import { checkAnswer } from './run.ts';

const inspections = PROCEDURES.filter(({ purpose }) => (purpose ?? 'inspection') === 'inspection');
const looks = inspections.flatMap(({ steps }) => steps).filter(({ reading }) => !reading);
const read = inspections.flatMap(({ steps }) => steps).filter(({ reading }) => reading);

describe('the code of a sheet', () => {
	it('is read back to the same sheet, whatever a scanner does to its letters', () => {
		fc.assert(
			fc.property(
				fc.constantFrom(...inspections),
				fc.stringMatching(/^[A-Z]{2}-[0-9]{4}$/),
				fc.boolean(),
				({ key, version }, tag, small) => {
					const code = sheetCode({ procedure: key, version, tag });
					expect(code).toMatch(/^[A-Z0-9/.-]+$/);
					expect(readSheetCode(small ? code.toLowerCase() : ` ${code} `)).toEqual({
						procedure: key,
						version,
						tag
					});
				}
			)
		);
	});
	it.each(['', 'BA-0201', 'SHEET/', 'SHEET/X/A/BA-1', 'https://x.example/SHEET/A/1/B'])(
		'is none: %s',
		(word) => expect(readSheetCode(word)).toBeUndefined()
	);
});

describe('what is typed for a step', () => {
	it('is an answer that its step takes, for every code of every list', () => {
		for (const procedure of inspections)
			for (const step of procedure.steps) {
				for (const code of step.rejects) {
					const answer = readMark(step, `${code.toLowerCase()} at the rim`);
					expect(answer).toMatchObject({ value: 'reject', code, note: 'at the rim' });
					if (answer) checkAnswer(procedure, answer);
				}
				if (!step.reading) expect(readMark(step, 'g')).toEqual({ step: step.key, value: 'good' });
				expect(readMark(step, '  ')).toBeNull();
			}
	});
	it('takes the beginning of a code where it is the only one, and says which it can be where not', () => {
		for (const step of looks)
			for (const code of step.rejects) {
				const two = code.slice(0, 2);
				const like = step.rejects.filter((one) => one.startsWith(two));
				if (/^(no|ok|g|n)$/i.test(two)) continue;
				if (like.length === 1) expect(readMark(step, two)?.code).toBe(code);
				else if (!step.rejects.includes(two)) expect(() => readMark(step, two)).toThrow(/ or /);
			}
	});
	it('at a reading is the figure, with a comma or a point; never a bare tick', () => {
		expect(read.length).toBeGreaterThan(3);
		for (const step of read) {
			expect(() => readMark(step, 'g')).toThrow(/what was read/);
			if (step.reading?.kind === 'hold') {
				expect(readMark(step, '300 296,5 60')?.readings).toMatchObject({
					start: 300,
					end: 296.5,
					seconds: 60
				});
				expect(() => readMark(step, '300')).toThrow(/before/);
			} else {
				expect(readMark(step, '52,5')?.readings).toEqual({ value: 52.5 });
				expect(() => readMark(step, '52 53')).toThrow(/one figure/);
			}
		}
	});
	it('is refused where it is no code of the step, at its step', () => {
		const [step] = looks;
		if (!step) throw new Error('no look');
		expect(() => readMark(step, 'zzz')).toThrow(InputError);
		try {
			readMark(step, 'zzz');
		} catch (error) {
			expect((error as InputError).path).toBe(step.key);
		}
	});
});

it('a sheet is whole or refused at its first empty step', () => {
	const [procedure] = inspections.filter(({ steps }) => steps.every(({ reading }) => !reading));
	if (!procedure) throw new Error('no list');
	const all = Object.fromEntries(procedure.steps.map(({ key }) => [key, 'g']));
	expect(readSheet(procedure, all)).toHaveLength(procedure.steps.length);
	const [first] = procedure.steps;
	expect(() => readSheet(procedure, { ...all, [first?.key ?? '']: '' })).toThrow(
		/nothing is typed/
	);
});
