import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keyReaches } from './keys.ts';
import { FREE_TRIES, LONGEST_WAIT_S, waitLeftS, waitS, waitWords } from './lockout.ts';
import { passwordFault, pinFault } from './secrets.ts';
import { proofStands, sessionOver, SITE_ACCESS } from './session.ts';

const at = (minutes: number) => new Date(Date.UTC(2026, 10, 24, 6) + minutes * 60_000);

describe('a session', () => {
	const over = (begun: number, seen: number, shared: boolean, now: number) =>
		sessionOver({ begunAt: at(begun), seenAt: at(seen), shared }, SITE_ACCESS, at(now));

	it('ends at a shared bench when nobody uses it, elsewhere not', () => {
		expect(over(0, 0, true, 29.9)).toBeNull();
		expect(over(0, 0, true, 30)).toBe('idle');
		expect(over(0, 31, true, 60)).toBeNull();
		expect(over(0, 0, false, 300)).toBeNull();
	});

	it('ends after its whole time, however much it is used', () => {
		expect(over(0, 719, false, 719)).toBeNull();
		expect(over(0, 719, false, 720)).toBe('whole');
		expect(over(0, 720, true, 720)).toBe('whole');
	});

	it('carries a proof for some minutes', () => {
		expect(proofStands(at(0), SITE_ACCESS, at(9.99))).toBe(true);
		expect(proofStands(at(0), SITE_ACCESS, at(10))).toBe(false);
	});
});

describe('tries that fail', () => {
	it('cost nothing at first, then twice as long each, an hour at most', () => {
		expect([1, FREE_TRIES, 5, 6, 7, 11, 12, 50].map(waitS)).toEqual([
			0, 0, 30, 60, 120, 1920, 3600, 3600
		]);
	});

	it('never wait longer for fewer, and the wait runs out', () =>
		fc.assert(
			fc.property(fc.nat(200), fc.nat(200), fc.nat(8000), (a, b, passed) => {
				const [fewer, more] = [Math.min(a, b), Math.max(a, b)];
				const now = at(0);
				const last = new Date(now.getTime() - passed * 1000);
				expect(waitLeftS(fewer, last, now)).toBeLessThanOrEqual(waitLeftS(more, last, now));
				if (passed >= LONGEST_WAIT_S) expect(waitLeftS(more, last, now)).toBe(0);
			})
		));

	it('say the wait in words', () =>
		expect([1, 59, 60, 61, 3600].map(waitWords)).toEqual([
			'1 second',
			'59 seconds',
			'1 minute',
			'2 minutes',
			'60 minutes'
		]));
});

// Published: OWASP ASVS 4.0.3, 2.1 (length, no rules on signs, common ones refused), from memory.
describe('a password', () => {
	const common = (word: string) =>
		['password', 'qwertyuiop', 'letmein', 'iloveyou1234'].includes(word);
	const fault = (password: string) => passwordFault(password, ['Ilse', 'Norrby', 'osmund'], common);

	it.each([
		'correct horse battery',
		'ÄÖÜ zwölf Zeichen',
		'x7Kq-pl20-wm-end',
		'            a b c d e'
	])('is taken: %s', (password) => expect(fault(password)).toBeNull());
	it.each([
		['eleven char', /at least 12/],
		['a'.repeat(129), /at most 128/],
		['aaaaaaaaaaaaa', /repeats/],
		['iloveyou1234', /tried first/],
		['Password12345!', /tried first/],
		['123qwertyuiop', /tried first/],
		['IlseNorrby12', /name/]
	])('is refused: %s', (password, why) => expect(fault(password)).toMatch(why));
});

describe('a PIN', () => {
	it.each(['2580', '1928', '314159', '00121212'])('is taken: %s', (pin) =>
		expect(pinFault(pin)).toBeNull()
	);
	it.each([
		'123',
		'123456789',
		'abcd',
		'12 4',
		'0000',
		'1234',
		'8765',
		'7890',
		'1212',
		'123123',
		''
	])('is refused: %s', (pin) => expect(pinFault(pin)).toBeTruthy());
});

it('a key reaches what it was made for and what is less', () => {
	expect(keyReaches('write', 'calc')).toBe(true);
	expect(keyReaches('read', 'read')).toBe(true);
	expect(keyReaches('calc', 'read')).toBe(false);
});
