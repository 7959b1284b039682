import { rejectCode } from '$core/data/reject-codes';
import type { Procedure } from '$core/inspection/procedure';
import { readingText } from '$core/inspection/reading';
import type { GivenAnswer } from './session.svelte';

/** An answer in words, for where it has to be read without its page. */
export function answerText(
	procedure: Pick<Procedure, 'steps'>,
	answer: Pick<GivenAnswer, 'step' | 'value' | 'code' | 'note' | 'readings'>
): string {
	const { step, value, code, note, readings } = answer;
	const title = procedure.steps.find((s) => s.key === step)?.title ?? step;
	const found = code ? `${value} ${code}, ${rejectCode(code).name.toLowerCase()}` : value;
	return [
		`${title}: ${found}`,
		readings && `read ${readingText(readings)}`,
		note && `note: ${note}`
	]
		.filter(Boolean)
		.join('; ');
}
