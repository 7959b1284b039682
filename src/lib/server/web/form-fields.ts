import { z } from 'zod';
import { readPressure } from '../../../core/units/pressure.ts';
import { InputError } from '../../../core/verdict.ts';
import { Refusal } from '../kernel/refusal.ts';

/** A number as people type it, with a point or a comma; NaN where it is none. */
export const decimal = (text: string) => Number(text.trim().replace(',', '.'));

/** The page of a long list that an address asks for; the first where it asks for none that can be. */
export const pageNumber = z.coerce.number().int().min(1).max(100_000).catch(1);

/** A field that may stay empty and otherwise holds a number; refused in the words of `say` where it does not hold. */
export const optionalNumber = (
	say: (text: string) => string,
	holds: (value: number) => boolean = Number.isFinite
) =>
	z
		.string()
		.trim()
		.max(40)
		.default('')
		.transform((text, context) => {
			if (text === '') return undefined;
			const value = decimal(text);
			if (holds(value)) return value;
			context.addIssue({ code: 'custom', message: say(text) });
			return z.NEVER;
		});

/** A box that is ticked, or is not there. */
export const ticked = z.string().max(10).optional();

/** A pressure with its unit, bar where none is named; kept as it was typed beside what it is in bar. */
export const pressureText = z
	.string('Write a pressure.')
	.max(20)
	.transform((text, context) => {
		try {
			return readPressure(text);
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			context.addIssue({ code: 'custom', message: error.message });
			return z.NEVER;
		}
	});

/** A field that holds JSON of the page, at most so many characters of it. */
export const jsonText = (wrong: string, most = 20_000) =>
	z
		.string(wrong)
		.max(most, wrong)
		.transform((text, context): unknown => {
			try {
				return JSON.parse(text);
			} catch {
				context.addIssue({ code: 'custom', message: wrong });
				return z.NEVER;
			}
		});

/** A number that has to be there. */
export const neededNumber = (missing: string) =>
	z
		.string(missing)
		.max(40, missing)
		.transform((text, context) => {
			const value = decimal(text);
			if (text.trim() !== '' && Number.isFinite(value)) return value;
			context.addIssue({ code: 'custom', message: missing });
			return z.NEVER;
		});

/** The file of a form. @throws Refusal at file, in the given words, where none was chosen. */
export async function uploaded(
	fields: Record<string, unknown>,
	missing: string
): Promise<{ name: string; bytes: Uint8Array }> {
	const { file } = fields;
	if (!(file instanceof File) || file.size === 0) throw new Refusal('invalid', missing, 'file');
	return { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) };
}
