import { describe, expect, it } from 'vitest';
import type { KeptCounter } from '$core/handout/kept';
import type { Parcel } from '../outbox/parcel';
import { Desk } from './desk.svelte';

const wearer = { kind: 'wearer', id: 'w1', number: 'W1', name: 'Nora' };
const mask = {
	kind: 'item',
	tag: 'HM-1',
	family: 'half-mask',
	model: 'T1',
	size: 'M',
	place: 'Bay',
	state: 'ready',
	where: 'shelf',
	number: null
};
const plan = { kind: 'plan', id: 'p1', number: 4, task: 'Sanding', minutes: 60 };
const FOUND: Record<string, object> = {
	W1: wearer,
	'HM-1': mask,
	'HM-2': { ...mask, tag: 'HM-2' },
	'PLAN-4': plan
};
const judged = (outcome: string, asked: object[] = []) => ({
	tag: 'HM-1',
	family: 'half-mask',
	model: 'T1',
	size: 'M',
	place: 'Bay',
	verdict: { outcome, reasons: [] },
	asked
});

/** A desk before a server that answers as it is told; every request is written down. */
function desk(
	answers: { gate?: object; give?: object; away?: boolean; kept?: KeptCounter | null } = {}
) {
	const sent: { url: string; body: Record<string, unknown> }[] = [];
	const parcels: Parcel[] = [];
	const at = new Desk({
		send: async (_, url, body) => {
			sent.push({ url, body: body as Record<string, unknown> });
			if (answers.away) return { kind: 'away' };
			const word = String((body as { word?: string }).word ?? '');
			if (url.endsWith('/scan')) {
				const found = FOUND[word.toUpperCase()];
				if (!found) return { kind: 'refused', status: 404, message: `No ${word}.`, path: 'word' };
				return { kind: 'taken', value: found as never };
			}
			const clear = { outcome: 'hand out', judged: [judged('hand out')], instead: [] };
			if (url.endsWith('/gate')) return { kind: 'taken', value: (answers.gate ?? clear) as never };
			const given = { done: true, outcome: 'hand out', dueBackAt: null, judged: [] };
			return { kind: 'taken', value: (answers.give ?? given) as never };
		},
		put: (parcel) => parcels.push(parcel),
		kept: async () => answers.kept ?? null
	});
	const scans = async (...words: string[]) => {
		for (const word of words) void at.scan(word);
		await at.scan('GV-LOOK');
	};
	const handedOut = () =>
		sent.filter(({ url }) => url.endsWith('/hand-out')).map(({ body }) => body);
	return { at, sent, parcels, scans, handedOut };
}

describe('the counter', () => {
	it.each([
		['person, thing, task', ['W1', 'HM-1', 'PLAN-4']],
		['task, thing, person', ['PLAN-4', 'HM-1', 'W1']],
		['thing, task, person', ['hm-1', 'plan-4', 'w1']]
	])('%s: a clear case is three scans and no key', async (_, words) => {
		const { at, scans, handedOut } = desk();
		await scans(...words);
		expect(handedOut()).toMatchObject([
			{ wearerId: 'w1', tags: ['HM-1'], planId: 'p1', minutes: 60 }
		]);
		expect([at.done, at.given.length]).toEqual([true, 1]);
	});

	it('goes on with more for the same person, and anew with a new one', async () => {
		const { at, scans, handedOut } = desk();
		await scans('W1', 'HM-1', 'PLAN-4', 'HM-2');
		expect(handedOut().map(({ tags }) => tags)).toEqual([['HM-1'], ['HM-2']]);
		await scans('W1');
		expect([at.items.length, at.plan, at.done]).toEqual([0, null, false]);
	});

	it('with conditions waits for one press', async () => {
		const gate = { outcome: 'with conditions', judged: [judged('with conditions')], instead: [] };
		const { scans, handedOut } = desk({ gate });
		await scans('W1', 'HM-1', 'PLAN-4');
		expect(handedOut()).toEqual([]);
		await scans('');
		expect(handedOut()).toMatchObject([{ accepted: true }]);
	});

	it('refused takes the nearest way with one press', async () => {
		const gate = { outcome: 'do not', judged: [judged('do not')], instead: [{ tag: 'HM-2' }] };
		const { at, scans, sent } = desk({ gate });
		await scans('W1', 'HM-1', 'PLAN-4');
		await scans('GV-YES');
		expect(at.items.map(({ tag }) => tag)).toEqual(['HM-2']);
		expect(sent.filter(({ url }) => url.endsWith('/gate')).at(-1)?.body).toMatchObject({
			tags: ['HM-2']
		});
	});

	it('asks once what contradicts the record, and takes the answer', async () => {
		const gate = {
			outcome: 'hand out',
			judged: [judged('hand out', [{ question: 'with another', text: 'It is out.' }])],
			instead: []
		};
		const { at, scans, handedOut } = desk({ gate });
		await scans('W1', 'HM-1', 'PLAN-4');
		await at.scan('');
		expect(handedOut()).toEqual([]);
		expect(at.refusal).toMatch(/choose an answer/);
		await at.answer('handed on within the team');
		expect(handedOut()).toMatchObject([{ because: 'handed on within the team' }]);
	});

	it('says what is unknown and keeps the rest', async () => {
		const { at, scans } = desk();
		await scans('W1', 'XX-9');
		expect([at.wearer?.number, at.items.length]).toEqual(['W1', 0]);
		await at.scan('XX-9');
		expect(at.refusal).toBe('No XX-9.');
	});

	it('minutes are typed, the counter is cleared by a code, and own things need no task', async () => {
		const { at, scans, handedOut } = desk();
		await scans('PLAN-4', '25m');
		expect(at.minutes).toBe(25);
		await scans('GV-CLEAR', 'W1', 'HM-1', 'GV-OWN');
		expect(handedOut()).toMatchObject([{ planId: null, minutes: null }]);
	});

	const kept: KeptCounter = {
		at: 0,
		asOf: '2026-11-24',
		ruleSet: 'uk',
		people: [
			{
				id: 'w1',
				number: 'W1',
				name: 'Nora',
				lPerMin: 50,
				gate: {
					fitTests: [
						{ model: 'T1', size: 'M', on: '2026-11-01', method: 'quantitative', passed: true }
					],
					changes: [],
					facialHair: false,
					clearedUntil: '2027-01-01',
					trainedUntil: '2027-01-01'
				}
			}
		],
		items: [
			{
				tag: 'HM-1',
				family: 'half-mask',
				model: 'T1',
				size: 'M',
				place: 'Bay',
				freeL: null,
				ownOf: null,
				gate: {
					kind: 'half-mask',
					model: 'T1',
					size: 'M',
					state: 'ready',
					complete: true,
					inspectedOn: '2026-11-20',
					minutesOfAir: null,
					filter: { code: 'A2', hoursLeft: 0, sameTypeAndClass: true, sameOpening: true }
				}
			}
		],
		plans: [
			{
				id: 'p1',
				number: 4,
				task: 'Sanding',
				minutes: 60,
				gate: {
					kinds: [{ kind: 'half-mask', filter: 'A1' }],
					requiredFactor: 4,
					hours: 1,
					minutesOfAir: 60,
					approved: true,
					expiresOn: '2027-01-01',
					inQuestion: false
				}
			}
		]
	};

	it('without a connection answers by what the device knew, says so, and keeps it for later', async () => {
		const { at, scans, parcels } = desk({ away: true, kept });
		await scans('W1', 'HM-1', 'PLAN-4');
		expect(at.said).toMatchObject({ outcome: 'with conditions', kept: true });
		await scans('');
		expect(parcels).toMatchObject([
			{ url: '/api/counter/hand-out', body: { tags: ['HM-1'], offline: true, accepted: true } }
		]);
		expect(at.given[0]?.waits).toBe(true);
	});

	it('without a connection gives nothing against what the device knows', async () => {
		const [person] = kept.people;
		const bearded = {
			...kept,
			people: [{ ...person!, gate: { ...person!.gate, facialHair: true } }]
		};
		const { at, scans, parcels } = desk({ away: true, kept: bearded });
		await scans('W1', 'HM-1', 'PLAN-4', '');
		expect([at.said?.outcome, parcels.length]).toEqual(['do not', 0]);
		const nothing = desk({ away: true, kept: null });
		await nothing.at.scan('W1');
		expect(nothing.at.refusal).toMatch(/cannot be reached/);
	});
});
