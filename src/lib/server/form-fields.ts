import { z } from 'zod';
import { Fault } from './errors.ts';

/** A number as people type it, with a point or a comma; NaN where it is none. */
export const decimal = (text: string) => Number(text.trim().replace(',', '.'));

/** A field that may stay empty and otherwise holds a number; refused in the words of `say` where it does not hold. */
export const optionalNumber = (
	say: (text: string) => string,
	holds: (value: number) => boolean = Number.isFinite
) =>
	z
		.string()
		.trim()
		.default('')
		.transform((text, context) => {
			if (text === '') return undefined;
			const value = decimal(text);
			if (holds(value)) return value;
			context.addIssue({ code: 'custom', message: say(text) });
			return z.NEVER;
		});

/** The file of a form. @throws Fault at file, in the given words, where none was chosen. */
export async function uploaded(
	fields: Record<string, unknown>,
	missing: string
): Promise<{ name: string; bytes: Uint8Array }> {
	const { file } = fields;
	if (!(file instanceof File) || file.size === 0) throw new Fault('invalid', missing, 'file');
	return { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) };
}
