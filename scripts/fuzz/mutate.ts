import type { Chance } from '../../src/core/stats/chance.ts';

/** What careless and hostile people type. */
export const HOSTILE: readonly string[] = [
	...['', ' ', '\0', 'a\0b', '\ud800', 'x\udfff', '\u202Eabc', '𝕏'.repeat(50), 'x'.repeat(60_000)],
	...['-1', '0', '-0', '1.5', '1,5', '1e999', '-1e308', 'NaN', 'Infinity', '0x10', '9'.repeat(40)],
	...['2147483648', '-2147483649', '9223372036854775808', '9007199254740993', '1e-320'],
	...['2026-02-30', '0000-00-00', '9999-12-31', '9999999-01-01', '+275760-09-14', '-271821-04-19'],
	...['2026-11-26T25:61', '275760-09-13T00:00:00Z', '2026-11-26', '2026-11-26T10:00:00Z', '1'],
	...['null', 'undefined', 'true', '[]', '{}', '[[[[', '{"__proto__":{"role":"admin"}}'],
	...['__proto__', 'constructor', "'; drop table item; --", '%00', '%', '../../etc/passwd'],
	...[
		'<script>1</script>',
		'=1+1',
		'@SUM(A1)',
		'a\r\nSet-Cookie: b=c',
		'//elsewhere.example',
		'\\\\x'
	],
	...['00000000-0000-0000-0000-000000000000', 'ffffffff-ffff-ffff-ffff-ffffffffffff', 'none', 'new']
];

/** Something that JSON can say, seldom what was asked for. */
export function strangeJson(dice: Chance, good: () => string, depth = 0): unknown {
	switch (dice.int(0, depth > 3 ? 4 : 7)) {
		case 0:
			return dice.pick(HOSTILE);
		case 1:
			return good();
		case 2:
			return dice.pick([0, -1, 1.5, 1e308, -1e308, 2 ** 53, 2 ** 31, 1e-320]);
		case 3:
			return dice.pick([null, true, false]);
		case 4:
			return dice.pick([[], {}]);
		case 5:
			return Array.from({ length: dice.int(0, 5) }, () => strangeJson(dice, good, depth + 1));
		default:
			return Object.fromEntries(
				Array.from({ length: dice.int(0, 4) }, () => [good(), strangeJson(dice, good, depth + 1)])
			);
	}
}
