import { InputError } from '../verdict.ts';
import type { AnswerEvent } from './run.ts';
import type { Procedure, Step } from './procedure.ts';
import type { Readings } from './reading.ts';

/** What a printed sheet is for; stands in its QR code. */
export interface SheetOf {
	procedure: string;
	version: number;
	tag: string;
}

/** The code of a sheet, in letters that every scanner types. */
export const sheetCode = ({ procedure, version, tag }: SheetOf): string =>
	`SHEET/${procedure.toUpperCase()}/${version}/${tag.toUpperCase()}`;

/** What a scanned code of a sheet names; undefined for any other word. */
export function readSheetCode(text: string): SheetOf | undefined {
	const [, procedure, version, tag] =
		/^SHEET\/([A-Z0-9-]{1,60})\/(\d{1,6})\/([A-Z0-9./_-]{1,40})$/.exec(text.trim().toUpperCase()) ??
		[];
	return procedure && version && tag
		? { procedure: procedure.toLowerCase(), version: Number(version), tag }
		: undefined;
}

/**
 * Reads what was typed for one step of a sheet: “g” or a tick for good, “n” for not fitted, a code or the beginning of
 * one that no other of its step has, with a note after it; at a reading the figure, at a hold before, after and seconds.
 * @returns null where nothing was typed
 * @throws InputError at the key of the step on anything else
 */
export function readMark(step: Step, text: string): AnswerEvent | null {
	const typed = text.trim();
	if (!typed) return null;
	const wrong = (message: string) => new InputError(step.key, `${step.title}: ${message}`);
	if (/^(n|no|not fitted|-)$/i.test(typed)) return { step: step.key, value: 'not fitted' };
	if (step.reading && /^[\d.,\s/+-]+$/.test(typed))
		return { step: step.key, value: 'good', readings: figures(step, typed) };
	if (/^(g|good|ok|✓|\+)$/i.test(typed)) {
		if (step.reading) throw wrong(`type what was read, in bar.`);
		return { step: step.key, value: 'good' };
	}
	const [, word = '', note = ''] = /^(\S+)\s*(.*)$/s.exec(typed) ?? [];
	const begins = step.rejects.filter((code) => code.startsWith(word.toUpperCase()));
	const code =
		step.rejects.find((one) => one === word.toUpperCase()) ??
		(begins.length === 1 ? begins[0] : undefined);
	if (!code)
		throw wrong(
			begins.length > 1
				? `“${word}” can be ${begins.join(' or ')}.`
				: `“${word}” is none of ${['g', ...step.rejects].join(', ')}.`
		);
	return { step: step.key, value: 'reject', code, note: note.trim() || null };
}

function figures(step: Step, typed: string): Readings {
	const numbers = typed
		.split(/[\s/]+/)
		.filter(Boolean)
		.map((part) => Number(part.replace(',', '.')));
	const wanted = step.reading?.kind === 'hold' ? [2, 3] : [1];
	if (numbers.some((n) => !Number.isFinite(n)) || !wanted.includes(numbers.length))
		throw new InputError(
			step.key,
			step.reading?.kind === 'hold'
				? `${step.title}: type the pressure before, the one after, and the seconds if they were noted: 300 296 60.`
				: `${step.title}: type one figure.`
		);
	const [first, end, seconds] = numbers;
	return step.reading?.kind === 'hold'
		? { start: first, end, seconds: seconds ?? step.reading.seconds, clock: 'device' }
		: { value: first };
}

/**
 * Reads a whole sheet.
 * @param typed what was typed, by the key of its step
 * @throws InputError at the first step that is wrong or empty
 */
export const readSheet = (
	procedure: Procedure,
	typed: Readonly<Record<string, string>>
): AnswerEvent[] =>
	procedure.steps.map((step) => {
		const answer = readMark(step, typed[step.key] ?? '');
		if (!answer) throw new InputError(step.key, `${step.title}: nothing is typed.`);
		return answer;
	});
