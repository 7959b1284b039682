import { describe, expect, it } from 'vitest';
import type { Parcel } from '../outbox/parcel';
import { ReturnDesk } from './returns.svelte';

function desk(answer: (body: Record<string, unknown>) => object = () => ({ done: true })) {
	const sent: Record<string, unknown>[] = [];
	const parcels: Parcel[] = [];
	const at = new ReturnDesk({
		send: async (_, url, body) => {
			if (url.endsWith('/scan')) return { kind: 'away' };
			sent.push(body as Record<string, unknown>);
			const said = answer(body as Record<string, unknown>) as { away?: true; refused?: string };
			if (said.away) return { kind: 'away' };
			if (said.refused) return { kind: 'refused', status: 404, message: said.refused, path: 'tag' };
			return { kind: 'taken', value: said as never };
		},
		put: (parcel) => parcels.push(parcel)
	});
	const scans = async (...words: string[]) => {
		for (const word of words) void at.scan(word);
		await at.scan('');
	};
	return { at, sent, parcels, scans };
}

describe('the return counter', () => {
	it('takes forty in a row by forty scans and one Enter, in their order', async () => {
		const { at, sent, scans } = desk();
		const tags = Array.from({ length: 40 }, (_, i) => `HM-${100 + i}`);
		await scans(...tags);
		expect(sent.map(({ tag }) => tag)).toEqual(tags);
		expect([at.pending, at.waiting, at.back.length]).toEqual([null, 0, 40]);
	});

	it('takes figures and words for what lies there, by keys or from the card', async () => {
		const { sent, scans } = desk();
		await scans(
			'ba-1',
			'25m',
			'90 bar',
			'HM-2',
			'1',
			'GV-TORN',
			'HM-3',
			'GV-UNUSED',
			'HM-4',
			'2',
			'2'
		);
		expect(sent).toMatchObject([
			{ tag: 'BA-1', minutes: 25, bar: 90 },
			{ tag: 'HM-2', noticed: ['smell', 'damage'] },
			{ tag: 'HM-3', unused: true },
			{ tag: 'HM-4' }
		]);
		expect(sent[3]).not.toHaveProperty('noticed');
	});

	it('sets a question aside and goes on; the answer goes out as another request', async () => {
		const { at, sent, scans } = desk((body) =>
			body.tag === 'HM-1' && !body.because
				? { done: false, asked: [{ question: 'never issued', text: 'Never.' }] }
				: { done: true }
		);
		await scans('HM-1', 'HM-2');
		expect(at.back.map(({ tag }) => tag)).toEqual(['HM-2']);
		const [one] = at.asked;
		await at.answer(one?.pending.id ?? '', 'went out without a scan');
		expect([at.asked.length, at.back.length]).toEqual([0, 2]);
		expect(sent.at(-1)).toMatchObject({ tag: 'HM-1', because: 'went out without a scan' });
		expect(sent.at(-1)?.id).not.toBe(sent[0]?.id);
	});

	it('says what was refused by its tag until it is seen', async () => {
		const { at, scans } = desk(({ tag }) =>
			tag === 'XX' ? { refused: 'No item carries the tag XX.' } : { done: true }
		);
		await scans('XX', 'HM-1');
		expect(at.refused).toEqual([{ tag: 'XX', why: 'No item carries the tag XX.' }]);
		at.seen('XX');
		expect(at.refused).toEqual([]);
	});

	it('loses nothing when the network goes in the middle of forty', async () => {
		let n = 0;
		const { at, sent, parcels, scans } = desk(() => (++n > 17 ? { away: true } : { done: true }));
		await scans(...Array.from({ length: 40 }, (_, i) => `HM-${100 + i}`));
		expect(sent).toHaveLength(40);
		expect(parcels).toHaveLength(23);
		expect(parcels.every(({ body }) => body.offline === true)).toBe(true);
		expect(new Set([...at.back.map(({ tag }) => tag)]).size).toBe(40);
	});

	it('a code of the card alone brings nothing back', async () => {
		const { sent, scans } = desk();
		await scans('GV-YES', 'GV-CLEAR');
		expect(sent).toEqual([]);
	});
});
