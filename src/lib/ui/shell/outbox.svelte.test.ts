import { describe, expect, it, vi } from 'vitest';
import { Outbox, type Device, type Parcel, type Refusal, type Waiting } from './outbox.svelte';

vi.mock('$app/environment', () => ({ browser: true }));
vi.stubGlobal('navigator', { onLine: true });

const parcel = (id: string, part: Partial<Parcel> = {}): Parcel => ({
	id,
	url: '/api/runs/r/answers',
	body: { id, step: id },
	about: 'r',
	name: 'HM-0001',
	...part
});

const ilse = { id: 'ilse', name: 'Ilse Norrby' };
/** An answer of the server, to the session of a person. */
const said = (body: object, status = 200, who = ilse.id) =>
	Response.json(body, { status, headers: { 'x-grevan-person': who } });

/** A device of which everything can be seen, whose storage can be refused and whose network can be cut. */
function deviceOf({ storage = true, kept = [] as Waiting[] } = {}) {
	const parcels = new Map(kept.map((one) => [one.id, one]));
	const refusals = new Map<string, Refusal>();
	const sent: string[] = [];
	let prove = () => Promise.resolve(false);
	let answer: (url: string) => Response | null = () => said({ answers: [] });
	const stored = <T>(work: () => T): Promise<T> =>
		storage ? Promise.resolve(work()) : Promise.reject(new Error('storage is refused'));
	const device: Device = {
		all: () => stored(() => ({ parcels: [...parcels.values()], refusals: [...refusals.values()] })),
		keep: (one) => stored(() => void parcels.set(one.id, one)),
		drop: (ids) => stored(() => ids.forEach((id) => parcels.delete(id))),
		keepRefusal: (one) => stored(() => void refusals.set(one.id, one)),
		dropRefusal: (id) => stored(() => void refusals.delete(id)),
		fetch: ((url: string, init: { body: string }) => {
			const response = answer(url);
			if (!response) return Promise.reject(new Error('cut'));
			sent.push(String((JSON.parse(init.body) as { id?: string }).id ?? url));
			return Promise.resolve(response);
		}) as unknown as typeof fetch,
		prove: () => prove()
	};
	return {
		device,
		parcels,
		refusals,
		sent,
		answers: (next: typeof answer) => (answer = next),
		proves: (next: typeof prove) => (prove = next)
	};
}

describe('the outbox', () => {
	it('sends in order and drops what was taken', async () => {
		const { device, parcels, sent } = deviceOf();
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		for (const id of ['a', 'b', 'c']) outbox.put(parcel(id));
		await vi.waitFor(() => expect(outbox.waiting).toHaveLength(0));
		expect(sent).toEqual(['a', 'b', 'c']);
		expect(parcels.size).toBe(0);
		expect(outbox.unkept).toBe(false);
	});

	it('sends with the storage of the device refused, and says that nothing is kept', async () => {
		const { device, sent } = deviceOf({ storage: false });
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(sent).toEqual(['a']));
		await vi.waitFor(() => expect(outbox.waiting).toHaveLength(0));
		expect(outbox.unkept).toBe(true);
	});

	it('keeps what could not be sent, and sends it once when the network is back', async () => {
		const { device, parcels, sent, answers } = deviceOf();
		answers(() => null);
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(outbox.link).toBe('reconnecting'));
		expect([...parcels.keys()]).toEqual(['a']);
		answers(() => said({ answers: [] }));
		expect(await outbox.flush()).toBe(true);
		expect(sent).toEqual(['a']);
	});

	it('keeps everything while signed out, and of another person sends nothing', async () => {
		const other: Waiting = {
			...parcel('theirs'),
			actor: 'odd',
			by: 'Odd Kessmer',
			at: 1,
			order: 0
		};
		const { device, parcels, sent, answers } = deviceOf({ kept: [other] });
		answers(() => new Response('', { status: 401 }));
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		expect(outbox.ofOthers).toEqual([{ name: 'Odd Kessmer', count: 1 }]);
		outbox.put(parcel('mine'));
		await vi.waitFor(() => expect(outbox.link).toBe('signed out'));
		expect([...parcels.keys()]).toEqual(['theirs', 'mine']);
		expect(sent).toEqual(['mine']);
	});

	it('is never taken under the session of another: it waits, and says for whom', async () => {
		const { device, parcels, answers } = deviceOf();
		answers(() => said({ kind: 'other person', message: 'Somebody else.' }, 409, 'odd'));
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(outbox.link).toBe('someone else'));
		expect([...parcels.keys()]).toEqual(['a']);
		expect(outbox.refusals).toEqual([]);
		answers(() => said({ answers: [] }));
		expect(await outbox.flush()).toBe(true);
		expect(parcels.size).toBe(0);
	});

	it('says something for what an earlier version of the app kept without a name', async () => {
		const old: Waiting = { ...parcel('old'), actor: 'odd', at: 1, order: 0 };
		const { device } = deviceOf({ kept: [old] });
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		expect(outbox.ofOthers).toEqual([{ name: 'someone else', count: 1 }]);
	});

	it.each([
		['a page in between', new Response('<h1>Sign in to the guest network</h1>', { status: 200 })],
		['JSON of somebody else', Response.json({ answers: [] })],
		['a page for maintenance', new Response('Back at ten.', { status: 404 })],
		['an answer to another session', said({ answers: [] }, 200, 'odd')],
		['an answer that was cut', new Response('{"ans', { headers: { 'x-grevan-person': 'ilse' } })]
	])('keeps everything where what answers is %s', async (_, response) => {
		const { device, parcels, answers } = deviceOf();
		answers(() => response.clone());
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(outbox.link).toBe('reconnecting'));
		expect([...parcels.keys()]).toEqual(['a']);
		expect(outbox.refusals).toEqual([]);
	});

	it('says whose each request is', async () => {
		const { device } = deviceOf();
		const asked: Headers[] = [];
		const { fetch: send } = device;
		device.fetch = (url, init) => {
			asked.push(new Headers(init?.headers));
			return send(url, init);
		};
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(outbox.waiting).toHaveLength(0));
		expect(asked[0]?.get('x-grevan-person')).toBe('ilse');
	});

	it('names what was refused, and never sends a signature over it', async () => {
		const { device, refusals, sent, answers } = deviceOf();
		answers((url) =>
			url.endsWith('sign') ? said({ signed: true }) : said({ message: 'Signed elsewhere.' }, 409)
		);
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		const heard: Refusal[] = [];
		outbox.listen(
			() => {},
			(refusal) => heard.push(refusal)
		);
		outbox.put(parcel('a'));
		outbox.put(parcel('s', { url: '/api/runs/r/sign', last: true }));
		await vi.waitFor(() => expect(outbox.waiting).toHaveLength(0));
		expect(sent).toEqual(['a']);
		expect(heard[0]?.message).toBe(
			'Signed elsewhere. Your signature was not sent: look again, then sign.'
		);
		expect(refusals.size).toBe(1);
		outbox.seen('a');
		expect(outbox.refusals).toEqual([]);
		await vi.waitFor(() => expect(refusals.size).toBe(0));
	});

	it('takes up what an earlier page left, the oldest first', async () => {
		const left = ['b', 'a'].map((id, i): Waiting => ({
			...parcel(id),
			actor: 'ilse',
			by: 'Ilse Norrby',
			at: 10 - i,
			order: 0
		}));
		const { device, sent } = deviceOf({ kept: left });
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		await vi.waitFor(() => expect(outbox.waiting).toHaveLength(0));
		expect(sent).toEqual(['a', 'b']);
	});

	it('keeps a signature until its person has shown that it is theirs, then sends it', async () => {
		const { device, parcels, sent, answers, proves } = deviceOf();
		let proven = false;
		answers(() =>
			proven ? said({ signed: true }) : said({ kind: 'proof', message: 'Type your PIN.' }, 403)
		);
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('s', { url: '/api/runs/r/sign', last: true }));
		await vi.waitFor(() => expect(outbox.link).toBe('unproven'));
		// Turned away: it is neither lost nor sent again by itself.
		await vi.waitFor(() => expect(sent).toEqual(['s']));
		expect([outbox.waiting.length, outbox.refusals.length, parcels.size]).toEqual([1, 0, 1]);
		proves(() => {
			proven = true;
			return Promise.resolve(true);
		});
		await outbox.prove();
		expect([sent, parcels.size, outbox.link]).toEqual([['s', 's'], 0, 'live']);
	});
});
