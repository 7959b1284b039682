import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { Refusal } from '../kernel/refusal.ts';
import { jsonText, neededNumber, optionalNumber, pressureText, uploaded } from './form-fields.ts';

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

describe('fields that have to be there', () => {
	const schema = z.object({
		bar: pressureText,
		litres: neededNumber('Litres of water.'),
		list: jsonText('No list.').pipe(z.array(z.number()))
	});
	const good = { bar: '30 MPa', litres: '6,8', list: '[1,2]' };

	it('are read with their units', () =>
		expect(schema.parse(good)).toEqual({
			bar: { bar: 300, entered: '30 MPa' },
			litres: 6.8,
			list: [1, 2]
		}));

	it.each([
		['bar', '', /Write a pressure as/],
		['bar', '4350', /4350 psi/],
		['bar', '-3', /below zero/],
		['bar', undefined, /Write a pressure/],
		['litres', '', /Litres of water/],
		['litres', 'many', /Litres of water/],
		['litres', undefined, /Litres of water/],
		['list', '[1,', /No list/],
		['list', undefined, /No list/]
	])('%s “%s” is refused at its place', (field, value, words) => {
		const { error } = schema.safeParse({ ...good, [field]: value });
		expect(error?.issues[0]?.path[0]).toBe(field);
		expect(error?.issues[0]?.message).toMatch(words);
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
		expect(refused).toBeInstanceOf(Refusal);
		expect(refused).toMatchObject({ kind: 'invalid', message: 'Choose one.', path: 'file' });
	});
});
