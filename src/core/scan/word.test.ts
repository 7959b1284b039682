import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scannedWord } from './word.ts';

describe('a word out of a code', () => {
	it('is the tag, without what stands around it', () => {
		expect(scannedWord(' HM-0104 \n')).toEqual({ word: 'HM-0104' });
		expect(scannedWord('GV-YES')).toEqual({ word: 'GV-YES' });
	});
	it.each([
		'https://osmund.example/items',
		'HTTP://10.0.0.1',
		'www.osmund.example',
		'javascript:alert(1)',
		'WIFI:S:dock;T:WPA;P:secret;;',
		'mailto:store@osmund.example',
		'tel:0123',
		'BEGIN:VCARD\nEND:VCARD'
	])('is none in %s', (text) => {
		expect(scannedWord(text)).toHaveProperty('refusal');
	});
	it('is none when it is empty, endless or holds signs of a machine', () => {
		for (const text of ['', '   ', 'A'.repeat(61), 'HM\u00000104', 'HM-01\n04', 'A\u001d10'])
			expect(scannedWord(text)).toHaveProperty('refusal');
	});
	it('is never a text that could lead elsewhere', () => {
		fc.assert(
			fc.property(fc.webUrl(), (url) => {
				expect(scannedWord(url)).toHaveProperty('refusal');
			})
		);
	});
	it('is any tag that a site may give', () => {
		fc.assert(
			fc.property(fc.stringMatching(/^[A-Z0-9][A-Z0-9./-]{0,20}$/), (tag) => {
				expect(scannedWord(tag)).toEqual({ word: tag });
			})
		);
	});
});
