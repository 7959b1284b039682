import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Device, News } from './device';
import { Outbox } from './outbox.svelte';
import type { Parcel, Refusal, Said, Waiting } from './parcel';

vi.mock('$app/environment', () => ({ browser: true }));
vi.stubGlobal('navigator', { onLine: true });

const parcel = (id: string, part: Partial<Parcel> = {}): Parcel => ({
	id,
	url: RUN,
	body: { id, step: id },
	about: 'r',
	name: 'HM-0001',
	...part
});

const ilse = { id: 'ilse', name: 'Ilse Norrby' };
/** An answer of the server, to the session of a person. */
const said = (body: object, status = 200, who = ilse.id) =>
	Response.json(body, { status, headers: { 'x-grevan-person': who } });

/** Says the same to each parcel of a request. */
const toEach =
	(body: object, status = 200) =>
	(_: string, parcels: Sent[]) =>
		said({ results: parcels.map(({ id }): Said => ({ id, status, body })) });
interface Sent {
	id: string;
	url: string;
	body: Record<string, unknown>;
}
/** What the server says to a request; null cuts it. */
type Server = (url: string, parcels: Sent[]) => Response | null;
const takes = toEach({ answers: [] });
const RUN = '/api/runs/r/answers';

/** What the pages of one device share. */
function deviceOf({ kept = [] as Waiting[] } = {}) {
	const parcels = new Map(kept.map((one) => [one.id, one]));
	const refusals = new Map<string, Refusal>();
	const sent: string[] = [];
	const requests: { url: string; headers: Headers }[] = [];
	const pages: ((news: News) => void)[] = [];
	let lock: Promise<unknown> = Promise.resolve();
	let storage = true;
	let prove = () => Promise.resolve(false);
	let enter = () => Promise.resolve(false);
	let server: Server = takes;
	const stored = <T>(work: () => T): Promise<T> =>
		storage ? Promise.resolve(work()) : Promise.reject(new Error('storage is refused'));
	/** One page of it. */
	const page = (): Device => {
		let own: (news: News) => void = () => {};
		return {
			all: () =>
				stored(() => ({ parcels: [...parcels.values()], refusals: [...refusals.values()] })),
			keep: (one) => stored(() => void parcels.set(one.id, one)),
			drop: (ids) => stored(() => ids.forEach((id) => parcels.delete(id))),
			keepRefusal: (one) => stored(() => void refusals.set(one.id, one)),
			dropRefusals: (ids) => stored(() => ids.forEach((id) => refusals.delete(id))),
			fetch: ((url: string, init: RequestInit) => {
				const given = typeof init.body === 'string' ? init.body : '{}';
				const { parcels = [] } = JSON.parse(given) as { parcels?: Sent[] };
				const response = server(url, parcels);
				if (!response) return Promise.reject(new Error('cut'));
				requests.push({ url, headers: new Headers(init.headers) });
				sent.push(...parcels.map(({ id }) => id));
				return Promise.resolve(response);
			}) as typeof fetch,
			alone: <T>(work: () => Promise<T>) => {
				const mine = lock.then(work);
				lock = mine.catch(() => undefined);
				return mine;
			},
			tell: (news) => pages.forEach((hear) => hear !== own && hear(news)),
			hear: (heard) => pages.push((own = heard)),
			prove: () => prove(),
			enter: () => enter()
		};
	};
	return {
		page,
		device: page(),
		parcels,
		refusals,
		sent,
		requests,
		answers: (next: Server) => (server = next),
		keeps: (next: boolean) => (storage = next),
		proves: (next: typeof prove) => (prove = next),
		enters: (next: typeof enter) => (enter = next)
	};
}

beforeEach(() => void vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] }));
afterEach(() => void vi.useRealTimers());
/** Lets everything happen that waits for nothing but time. */
const minutes = (n: number) => vi.advanceTimersByTimeAsync(n * 60_000);

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
		const { device, sent, keeps } = deviceOf();
		keeps(false);
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
		answers(takes);
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
		answers(takes);
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
		['a page for maintenance with a good status', said('Back at ten.' as never)],
		['an answer of another form', said({ taken: true })],
		['an answer to something else', said({ results: [{ id: 'x', status: 200, body: {} }] })],
		['an answer that says nothing', said({ results: [] })],
		['a server that has too much to do', said({ kind: 'busy', message: 'Wait.' }, 429)],
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
		const { device, requests } = deviceOf();
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(outbox.waiting).toHaveLength(0));
		expect(requests[0]?.headers.get('x-grevan-person')).toBe('ilse');
	});

	it('names what was refused, and never sends a signature over it', async () => {
		const { device, refusals, sent, answers } = deviceOf();
		// As the server does: it takes no signature over an answer that it refused.
		answers((_, [first]) =>
			said({
				results: [{ id: first?.id, status: 409, body: { message: 'Signed elsewhere.' } }]
			})
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
		expect(sent.filter((id) => id === 's').length).toBeLessThanOrEqual(1);
		expect(heard[0]?.parcel?.body).toEqual({ id: 'a', step: 'a' });
		expect(heard[0]?.message).toBe(
			'Signed elsewhere. Your signature was not sent: look again, then sign.'
		);
		expect(refusals.size).toBe(1);
		outbox.seen(['a']);
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
		answers((url, parcels) =>
			proven
				? toEach({ signed: true })(url, parcels)
				: toEach({ kind: 'proof', message: 'Type your PIN.' }, 403)(url, parcels)
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

	it('sends what waited in one request', async () => {
		const { device, requests, answers } = deviceOf();
		answers(() => null);
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		for (let i = 0; i < 30; i++) outbox.put(parcel(`p${i}`));
		await vi.waitFor(() => expect(outbox.link).toBe('reconnecting'));
		answers(takes);
		await minutes(2);
		expect(outbox.waiting).toHaveLength(0);
		expect(requests.filter(({ url }) => url === '/api/outbox')).toHaveLength(1);
	});

	it('tells all that was taken of a batch before any of it is taken out', async () => {
		const { device, answers } = deviceOf();
		answers(() => null);
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		const waiting: number[] = [];
		outbox.listen(
			() => waiting.push(outbox.waiting.length),
			() => {}
		);
		for (const id of ['a', 'b', 'c']) outbox.put(parcel(id));
		await vi.waitFor(() => expect(outbox.link).toBe('reconnecting'));
		answers(takes);
		await minutes(1);
		expect([waiting, outbox.waiting.length]).toEqual([[3, 3, 3], 0]);
	});

	it('goes on with the rest where the server took only some of it', async () => {
		const { device, answers, sent } = deviceOf();
		answers((url, parcels) => takes(url, parcels.slice(0, 2)));
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		for (const id of ['a', 'b', 'c', 'd', 'e']) outbox.put(parcel(id));
		await vi.waitFor(() => expect(outbox.waiting).toHaveLength(0));
		expect([...new Set(sent)]).toEqual(['a', 'b', 'c', 'd', 'e']);
	});

	it('tries again by one timer, ever later, and at once when somebody gives something', async () => {
		const { device, answers } = deviceOf();
		let tries = 0;
		answers(() => (tries++, null));
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await minutes(0);
		expect(tries).toBe(1);
		await minutes(1);
		const inTheFirst = tries;
		await minutes(10);
		// From a second on, doubled up to a minute: 6 to 7 tries in the first minute, then about one in each.
		expect(inTheFirst).toBeGreaterThan(4);
		expect(inTheFirst).toBeLessThan(10);
		expect(tries - inTheFirst).toBeLessThan(16);
		const before = tries;
		outbox.put(parcel('b'));
		await minutes(0);
		expect(tries).toBe(before + 1);
		expect(vi.getTimerCount()).toBeLessThanOrEqual(2);
	});

	it('finds back to live by itself with nothing to send', async () => {
		const { device, answers, requests } = deviceOf();
		answers(() => null);
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		await outbox.flush();
		expect(outbox.link).toBe('reconnecting');
		answers(() => said({ here: true }));
		await minutes(2);
		expect(outbox.link).toBe('live');
		expect(requests.map(({ url }) => url)).toEqual(['/api/here']);
	});

	it('offers the sign-in where a session ended, and goes on after it', async () => {
		const { device, answers, enters, sent } = deviceOf();
		answers(() => new Response('{"message":"Signed out."}', { status: 401 }));
		enters(() => {
			answers(takes);
			return Promise.resolve(true);
		});
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(outbox.waiting).toHaveLength(0));
		expect([sent, outbox.link]).toEqual([['a', 'a'], 'live']);
	});

	it('goes on by itself where its person signed in again on another page', async () => {
		const { device, answers, sent } = deviceOf();
		answers(() => new Response('{"message":"Signed out."}', { status: 401 }));
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(outbox.link).toBe('signed out'));
		answers((url, parcels) => (parcels.length ? takes(url, parcels) : said({ here: true })));
		await minutes(3);
		expect([sent, outbox.link, outbox.waiting.length]).toEqual([['a', 'a'], 'live', 0]);
	});

	it('what one page sent is not unsent on another, and its answer is told there', async () => {
		const { page, answers } = deviceOf();
		const [one, two] = [new Outbox(page()), new Outbox(page())];
		await one.takeUp(ilse);
		await two.takeUp(ilse);
		const told: string[] = [];
		two.listen(
			(parcel) => told.push(parcel.id),
			() => {}
		);
		answers(() => null);
		one.put(parcel('a'));
		await vi.waitFor(() => expect(two.waiting.map(({ id }) => id)).toEqual(['a']));
		answers(takes);
		await one.flush();
		expect([one.waiting.length, two.waiting.length, told]).toEqual([0, 0, ['a']]);
	});

	it('what one page was refused is listed on another, and seen on both', async () => {
		const { page, answers } = deviceOf();
		const [one, two] = [new Outbox(page()), new Outbox(page())];
		await one.takeUp(ilse);
		await two.takeUp(ilse);
		answers(toEach({ message: 'Signed elsewhere.' }, 409));
		one.put(parcel('a', { says: 'Exhalation valve: good' }));
		await vi.waitFor(() => expect(two.refusals).toHaveLength(1));
		expect(two.refusals[0]?.parcel?.says).toBe('Exhalation valve: good');
		two.seen(['a']);
		expect(one.refusals).toEqual([]);
	});

	it('keeps again what the device lost, while its page stands open', async () => {
		const { device, parcels, answers, keeps } = deviceOf();
		answers(() => null);
		keeps(false);
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(outbox.unkept).toBe(true));
		expect(parcels.size).toBe(0);
		keeps(true);
		await minutes(1);
		expect([[...parcels.keys()], outbox.unkept]).toEqual([['a'], false]);
	});

	it('keeps anew what the browser cleared meanwhile', async () => {
		const { device, parcels, answers } = deviceOf();
		answers(() => null);
		const outbox = new Outbox(device);
		await outbox.takeUp(ilse);
		outbox.put(parcel('a'));
		await vi.waitFor(() => expect(outbox.link).toBe('reconnecting'));
		parcels.clear();
		await minutes(1);
		expect([...parcels.keys()]).toEqual(['a']);
	});
});
