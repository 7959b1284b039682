import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { Fault } from './errors.ts';
import { optionalNumber, uploaded } from './form-fields.ts';

const positive = z.object({
	volume: optionalNumber(
		(text) => `“${text}” is no volume.`,
		(value) => value > 0 && value < 5000
	)
});
const any = z.object({ boils: optionalNumber((text) => `“${text}” is no number.`) });

describe('a number of a form', () => {
	it.each([
		['12.5', 12.5],
		[' 12,5 ', 12.5],
		['1e2', 100],
		['', undefined],
		['   ', undefined]
	])('reads “%s” as %s', (volume, value) =>
		expect(positive.parse({ volume })).toEqual({ volume: value })
	);

	it('takes a field that was not sent as empty', () =>
		expect(positive.parse({})).toEqual({ volume: undefined }));

	it.each(['0', '-3', '5000', '12 l', '1,2,3', 'Infinity'])(
		'refuses “%s” in its own words',
		(volume) => {
			const { error } = positive.safeParse({ volume });
			expect(error?.issues[0]).toMatchObject({
				path: ['volume'],
				message: `“${volume}” is no volume.`
			});
		}
	);

	it('takes any finite number where nothing else is asked', () => {
		expect(any.parse({ boils: '-196' })).toEqual({ boils: -196 });
		expect(any.safeParse({ boils: 'Infinity' }).success).toBe(false);
	});
});

describe('the file of a form', () => {
	it('gives its name and its bytes', async () => {
		const file = new File(['s,Pa\n'], 'trace.csv');
		const { name, bytes } = await uploaded({ file }, 'Choose one.');
		expect([name, new TextDecoder().decode(bytes)]).toEqual(['trace.csv', 's,Pa\n']);
	});

	it.each([
		['nothing', undefined],
		['a text', 'trace.csv'],
		['an empty file', new File([], 'trace.csv')]
	])('refuses %s at its field', async (_, file) => {
		const refused: unknown = await uploaded({ file }, 'Choose one.').catch((e: unknown) => e);
		expect(refused).toBeInstanceOf(Fault);
		expect(refused).toMatchObject({ kind: 'invalid', message: 'Choose one.', path: 'file' });
	});
});
