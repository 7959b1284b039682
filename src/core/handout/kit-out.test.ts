import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { kitOut, type KitSet, type KitWearer } from './kit-out.ts';

const fit = (model: string, size = 'M') => ({ model, size });
const who = (id: string, ...fits: ReturnType<typeof fit>[]): KitWearer => ({ id, fits });
const set = (tag: string, model: string, part: Partial<KitSet> = {}): KitSet => ({
	tag,
	model,
	size: 'M',
	...part
});

describe('kitting a team out', () => {
	it('gives the scarce mask to whom nothing else fits', () => {
		const out = kitOut(
			[who('a', fit('X'), fit('Y')), who('b', fit('X'))],
			[set('1', 'X'), set('2', 'Y')]
		);
		expect(out.assignment).toEqual({ a: '2', b: '1' });
		expect(out.unserved).toEqual([]);
	});

	it('gives one’s own to its owner and to nobody else', () => {
		const own = set('own', 'X', { personalOf: 'a' });
		expect(kitOut([who('a', fit('X'))], [set('1', 'X'), own]).assignment).toEqual({ a: 'own' });
		const out = kitOut([who('b', fit('X'))], [own]);
		expect(out.assignment).toEqual({});
		expect(out.unserved[0]?.reason).toMatch(/Nothing here fits/);
	});

	it('gives the least air that does', () => {
		const sets = [40, 30, 29, 60].map((minutesOfAir, i) => set(String(i), 'X', { minutesOfAir }));
		expect(kitOut([who('a', fit('X'))], sets, 30).assignment).toEqual({ a: '1' });
		expect(kitOut([who('a', fit('X'))], sets.slice(2, 3), 30).unserved[0]?.reason).toMatch(
			/less than 30 min/
		);
	});

	it('says who cannot be served, why, and the one set more that helps most', () => {
		const out = kitOut(
			[who('a', fit('X', 'L')), who('b', fit('X', 'L')), who('c'), who('d', fit('Z'))],
			[set('1', 'X', { size: 'L' })]
		);
		expect(Object.keys(out.assignment)).toHaveLength(1);
		expect(out.unserved.map(({ reason }) => reason)).toEqual([
			'Everything that fits goes to others who have nothing else.',
			'No fit test counts: nothing that seals can be given out.',
			'Nothing here fits by their tests: Z, size M.'
		]);
		expect(out.reasons.map(({ text }) => text)).toEqual([
			'1 of 4 can be served, and no way serves more.',
			'What helps most: one more X, size L.'
		]);
		expect(kitOut([who('c')], []).reasons.at(-1)?.text).toMatch(/a fit test is wanted first/);
	});

	it('refuses who or what stands there twice', () => {
		expect(() => kitOut([who('a'), who('a')], [])).toThrow(
			expect.objectContaining({ path: 'wearers[1].id' })
		);
		expect(() => kitOut([], [set('1', 'X'), set('1', 'Y')])).toThrow(
			expect.objectContaining({ path: 'sets[1].tag' })
		);
	});

	const model = fc.constantFrom('X', 'Y', 'Z');
	const size = fc.constantFrom('S', 'M');
	const wearers = fc
		.array(fc.array(fc.record({ model, size }), { maxLength: 3 }), { maxLength: 5 })
		.map((list) => list.map((fits, i): KitWearer => ({ id: `w${i}`, fits })));
	const sets = fc
		.array(
			fc.record({
				model,
				size,
				minutesOfAir: fc.option(fc.constantFrom(20, 30, 45), { nil: undefined }),
				personalOf: fc.option(fc.constantFrom('w0', 'w1'), { nil: undefined, freq: 4 })
			}),
			{ maxLength: 5 }
		)
		.map((list) => list.map((one, i): KitSet => ({ tag: `s${i}`, ...one })));
	const may = (wearer: KitWearer, one: KitSet) =>
		(one.personalOf === undefined || one.personalOf === wearer.id) &&
		(one.minutesOfAir === undefined || one.minutesOfAir >= 30) &&
		wearer.fits.some((f) => f.model === one.model && f.size === one.size);
	/** The most that any way serves, and of those the most who have their own, by trying all. */
	function exhaustive(list: readonly KitWearer[], free: readonly KitSet[]): [number, number] {
		const [first, ...rest] = list;
		if (!first) return [0, 0];
		let best = exhaustive(rest, free);
		for (const one of free) {
			if (!may(first, one)) continue;
			const [n, own] = exhaustive(
				rest,
				free.filter((other) => other !== one)
			);
			const here: [number, number] = [n + 1, own + Number(one.personalOf === first.id)];
			if (here[0] > best[0] || (here[0] === best[0] && here[1] > best[1])) best = here;
		}
		return best;
	}

	it('serves as many as any way can, and of those ways the one with the most own sets', () => {
		fc.assert(
			fc.property(wearers, sets, (list, free) => {
				const { assignment, unserved } = kitOut(list, free, 30);
				const pairs = Object.entries(assignment).map(([w, tag]) => ({
					wearer: list.find(({ id }) => id === w),
					one: free.find((other) => other.tag === tag)
				}));
				for (const { wearer, one } of pairs) expect(wearer && one && may(wearer, one)).toBe(true);
				expect(new Set(pairs.map(({ one }) => one?.tag)).size).toBe(pairs.length);
				expect(pairs.length + unserved.length).toBe(list.length);
				const own = pairs.filter(({ wearer, one }) => one?.personalOf === wearer?.id).length;
				expect([pairs.length, own]).toEqual(exhaustive(list, free));
			}),
			{ numRuns: 400 }
		);
	});

	it('serves no fewer with a set more', () => {
		fc.assert(
			fc.property(wearers, sets, model, size, (list, free, m, s) => {
				const n = (of: KitSet[]) => Object.keys(kitOut(list, of, 30).assignment).length;
				expect(n([...free, { tag: 'more', model: m, size: s }])).toBeGreaterThanOrEqual(n(free));
			})
		);
	});
});
