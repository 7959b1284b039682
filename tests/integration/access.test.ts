import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import {
	accountList,
	changeAccount,
	makeAccount,
	renameAccount
} from '../../src/lib/server/access/account-changes.ts';
import { putAccount } from '../../src/lib/server/access/accounts.ts';
import { keyActor, keysOf, makeKey, revokeKey } from '../../src/lib/server/access/keys.ts';
import { choosePasswordByLink, linkOf, makeLink } from '../../src/lib/server/access/links.ts';
import { changePassword, shareDevice } from '../../src/lib/server/access/own-account.ts';
import {
	choosePin,
	handOver,
	newCard,
	prove,
	standsThere
} from '../../src/lib/server/access/pins.ts';
import { endOwnSessions, sessionsOf } from '../../src/lib/server/access/sessions.ts';
import {
	type Entered,
	giveCode,
	signIn,
	signInAgain
} from '../../src/lib/server/access/sign-in.ts';
import { beginTwoStep, confirmTwoStep } from '../../src/lib/server/access/two-step.ts';
import {
	apiKey,
	auditEntry,
	device,
	session,
	site,
	user,
	writeRequest
} from '../../src/lib/server/db/schema/index.ts';
import type { Context, Unattended } from '../../src/lib/server/kernel/context.ts';
import {
	type Auth,
	createAuth,
	passwordHolds,
	pinHolds,
	sessionOf
} from '../../src/lib/server/web/auth.ts';
import { fromBase32 } from '../support/base32.ts';
import { openYard, SITE } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

const own = openYard(undefined, 'test');
const ORIGIN = 'http://localhost:1';
const PASSWORD = 'seven wet gloves';
const PIN = '2580';
const MINUTE_MS = 60_000;
const T0 = new Date('2026-11-24T10:00:00Z');
const auth = (): Auth => createAuth(own.test.db, { secret: 's'.repeat(40), origin: ORIGIN });
const door = (now = T0): Unattended => ({ db: own.test.db, now: () => now, site: SITE });
const at = (deviceKey?: string, client = '10.0.0.1') => ({
	auth: auth(),
	origin: ORIGIN,
	client,
	deviceKey,
	agent: 'Chrome/130'
});
const cookieOf = (cookies: readonly string[]) =>
	cookies.map((cookie) => cookie.split(';')[0]).join('; ');
const headersOf = (cookies: readonly string[]) => new Headers({ cookie: cookieOf(cookies) });
const request = () => ({ id: randomUUID(), content: null });
/** What the log says of a person, oldest first. */
const said = async (userId: string) =>
	(
		await own.test.db
			.select({ action: auditEntry.action, payload: auditEntry.payload })
			.from(auditEntry)
			.where(eq(auditEntry.subject, `account:${userId}`))
			.orderBy(auditEntry.seq)
	).map(({ action, payload }) => `${action} ${payload}`);

/** Somebody with a password; the context is as if they had just given it. */
async function somebody(name: string, role: 'technician' | 'admin' | 'supervisor' = 'technician') {
	const email = `${name}@test.example`;
	const initials = name.slice(0, 2).toUpperCase();
	const id = await putAccount(auth(), door(), { name, initials, email, password: PASSWORD, role });
	const actor = { id, name, initials, role };
	const context = (now = T0): Context => ({
		...door(now),
		actor,
		proof: { at: now, by: 'password' }
	});
	const enter = async (given: { deviceKey?: string; shared?: boolean; now?: Date } = {}) => {
		const entered = await signIn(door(given.now), at(given.deviceKey), {
			email,
			password: PASSWORD,
			shared: given.shared
		});
		if ('code' in entered) throw new Error('a code was asked for');
		return entered;
	};
	return { id, email, actor, context, enter };
}
const standing = async ({ cookies }: Pick<Entered, 'cookies'>) =>
	sessionOf(auth(), headersOf(cookies));

describe('signing in', () => {
	it('lets the right password in, with the device that it was given on', async () => {
		const one = await somebody('ola');
		const entered = await one.enter({ shared: true });
		expect(entered.cookies.join()).toMatch(/grevan\.session_token=.*HttpOnly.*SameSite=Lax/i);
		expect(await standing(entered)).toMatchObject({
			actor: { id: one.id, role: 'technician' },
			session: { shared: true, way: 'password', failuresBefore: 0, proof: { by: 'password' } }
		});
		const again = await one.enter({ deviceKey: entered.deviceKey });
		expect(again.deviceKey).toBe(entered.deviceKey);
		expect(await own.test.db.select().from(device)).toHaveLength(1);
		expect(await said(one.id)).toContain(
			'session.begun {"from":null,"shared":true,"way":"password"}'
		);
	});

	it('makes a guesser of one account wait ever longer, from wherever, and says so to its person', async () => {
		const one = await somebody('pia');
		const guess = (client: string, now: Date) =>
			signIn(door(now), at(undefined, client), { email: one.email, password: 'not this one!' });
		for (let i = 0; i < 5; i++)
			await expectRefusal(guess(`10.0.1.${i}`, T0), 'forbidden', /No account/);
		await expectRefusal(guess('10.0.2.1', T0), 'busy', /Wait 30 seconds/);
		// The right password has to wait as well: a guesser learns nothing from that.
		await expectRefusal(one.enter({ now: T0 }), 'busy', /Wait/);
		const later = new Date(T0.getTime() + 31_000);
		const entered = await one.enter({ now: later });
		expect((await standing(entered))?.session.failuresBefore).toBe(5);
		expect((await said(one.id)).filter((line) => line.startsWith('session.refused'))).toHaveLength(
			7
		);
		await one.enter({ now: later });
	});

	it('counts guesses that come at once as many', async () => {
		const one = await somebody('quin');
		const guesses = await Promise.allSettled(
			Array.from({ length: 12 }, (_, i) =>
				signIn(door(), at(undefined, `10.0.3.${i}`), {
					email: one.email,
					password: 'wrong again ok'
				})
			)
		);
		const busy = guesses.filter(
			(guess) => guess.status === 'rejected' && (guess.reason as { kind: string }).kind === 'busy'
		);
		expect(busy).toHaveLength(7);
	});

	it('makes one address wait that tries many accounts', async () => {
		const tries: unknown[] = [];
		for (let i = 0; i < 22; i++)
			tries.push(
				await signIn(door(), at(undefined, '10.9.9.9'), {
					email: `nobody-${i}@test.example`,
					password: 'wrong-password-1'
				}).catch((error: unknown) => (error as { kind: string }).kind)
			);
		expect(tries.slice(0, 20)).toEqual(Array.from({ length: 20 }, () => 'forbidden'));
		expect(tries.at(-1)).toBe('busy');
	});

	it('makes no account for a stranger', async () => {
		const response = await auth().handler(
			new Request(`${ORIGIN}/api/auth/sign-up/email`, {
				method: 'POST',
				headers: { 'content-type': 'application/json', origin: ORIGIN },
				body: JSON.stringify({ email: 'a@b.example', password: 'long-enough-1', name: 'A' })
			})
		);
		expect(response.ok).toBe(false);
	});
});

describe('handing over at a shared bench', () => {
	/** A bench where ana works, and bo with a card and a PIN. */
	async function bench() {
		const [ana, bo] = [await somebody('ana'), await somebody('bo')];
		await choosePin(auth(), bo.context(), randomUUID(), PIN);
		const card = await newCard(bo.context(), randomUUID());
		const entered = await ana.enter({ shared: true });
		const [row] = await sessionsOf(own.test.db, ana.id);
		const take = (
			who: string,
			pin: string,
			now = T0,
			key: string | undefined = entered.deviceKey
		) =>
			handOver(door(now), at(key), {
				who,
				pin,
				from: row ? { actor: ana.actor, sessionId: row.id } : null
			});
		return { ana, bo, card, entered, take };
	}

	it('takes a card and a PIN, and whoever was there is out', async () => {
		const { ana, bo, card, entered, take } = await bench();
		expect(await standing(entered)).not.toBeNull();
		const taken = await take(card, PIN);
		expect(await standing(taken)).toMatchObject({
			actor: { id: bo.id },
			session: { shared: true, way: 'pin', proof: { by: 'pin' } }
		});
		expect(await standing(entered)).toBeNull();
		expect(await said(ana.id)).toContain('session.ended {"why":"handed over"}');
		expect(await said(bo.id)).toContain(
			`session.begun {"from":"${ana.id}","shared":true,"way":"pin"}`
		);
	});

	it('knows who stands there by card and PIN, and signs nobody in or out by it', async () => {
		const { ana, bo, card, entered } = await bench();
		const there = (pin: string) => standsThere(auth(), door(), '10.0.4.1', { who: card, pin });
		await expectRefusal(there('9999'), 'forbidden', /not the PIN/);
		expect(await there(PIN)).toMatchObject({ id: bo.id, role: 'technician' });
		expect(await standing(entered)).toMatchObject({ actor: { id: ana.id } });
		expect(await sessionsOf(own.test.db, bo.id)).toEqual([]);
	});

	it('takes initials where one person has them, and asks for the card where two do', async () => {
		const { take, bo } = await bench();
		expect((await take('bo', PIN)).userId).toBe(bo.id);
		await somebody('bosse');
		await expectRefusal(take('BO', PIN), 'invalid', /More than one/);
		await expectRefusal(take('ZZ', PIN), 'not found', /Nobody/);
	});

	it('takes no PIN on a device that is not shared, is not known, or was left too long', async () => {
		const { card, take, bo } = await bench();
		await expectRefusal(take(card, PIN, T0, 'made-up-device'), 'forbidden', /takes no PIN/);
		const private_ = await bo.enter();
		await expectRefusal(take(card, PIN, T0, private_.deviceKey), 'forbidden', /takes no PIN/);
		const later = new Date(T0.getTime() + 31 * 86_400_000);
		await expectRefusal(take(card, PIN, later), 'forbidden', /takes no PIN/);
	});

	it('takes the PIN away after eight wrong ones in a row', async () => {
		const { card, take, bo } = await bench();
		let now = T0.getTime();
		for (let i = 1; i <= 8; i++) {
			await expectRefusal(
				take(card, '0001', new Date(now)),
				'forbidden',
				i < 8 ? /not the PIN/ : /Too many/
			);
			now += 3_700_000;
		}
		await expectRefusal(take(card, PIN, new Date(now)), 'forbidden', /No PIN was chosen/);
		expect(await said(bo.id)).toContain('account.pin-taken {"failures":8}');
	});

	it('takes the PIN of one account again where its session ended', async () => {
		const { bo, entered } = await bench();
		const again = (account: string, pin = PIN) =>
			handOver(door(), at(entered.deviceKey), { who: { account }, pin, from: null });
		expect(await standing(await again(bo.id))).toMatchObject({ actor: { id: bo.id } });
		await expectRefusal(again(bo.id, '0001'), 'forbidden', /not the PIN/);
		await expectRefusal(again('nobody'), 'forbidden', /closed/);
	});

	it('takes the password of one account again, and tells nobody whether an account is there', async () => {
		const { bo } = await bench();
		const again = (person: string, password = PASSWORD) =>
			signInAgain(door(), at(), { person, password });
		expect(await standing((await again(bo.id)) as Entered)).toMatchObject({ actor: { id: bo.id } });
		await expectRefusal(again(bo.id, 'not this one'), 'forbidden', /No account with/);
		await expectRefusal(again('nobody'), 'forbidden', /No account with/);
	});

	it('does not open a closed account, and a new card closes the one before', async () => {
		const { card, take, bo } = await bench();
		const next = await newCard(bo.context(), randomUUID());
		await expectRefusal(take(card, PIN), 'not found', /card/);
		const boss = await somebody('max', 'admin');
		await changeAccount(boss.context(), request(), bo.id, { kind: 'close', why: 'Left.' });
		await expectRefusal(take(next, PIN), 'not found', /card/);
	});

	it('keeps a PIN so that the database alone does not give it away', async () => {
		const { bo } = await bench();
		const [row] = await own.test.db.select().from(user).where(eq(user.id, bo.id));
		const person = { id: bo.id, pinHash: row?.pinHash ?? '' };
		expect(await pinHolds(auth(), person, PIN)).toBe(true);
		// Neither the PIN itself nor the same under another person or another secret opens it.
		expect(await passwordHolds(auth(), person.pinHash, PIN)).toBe(false);
		expect(await pinHolds(auth(), { ...person, id: 'other' }, PIN)).toBe(false);
		const elsewhere = createAuth(own.test.db, { secret: 't'.repeat(40), origin: ORIGIN });
		expect(await pinHolds(elsewhere, person, PIN)).toBe(false);
	});

	it('keeps no trace of a PIN but its hash', async () => {
		const { bo } = await bench();
		const [row] = await own.test.db.select().from(user).where(eq(user.id, bo.id));
		expect(row?.pinHash).toMatch(/^[0-9a-f]{32}:[0-9a-f]{128}$/);
		const rows = await own.test.db.select().from(writeRequest);
		const log = await own.test.db.select({ payload: auditEntry.payload }).from(auditEntry);
		expect(JSON.stringify([rows.map(({ answer }) => answer), log])).not.toContain(PIN);
	});
});

describe('showing again who one is', () => {
	it('renews the proof of the session by PIN or password, and refuses a wrong one', async () => {
		const one = await somebody('rut');
		await choosePin(auth(), one.context(), randomUUID(), PIN);
		const entered = await one.enter();
		const [{ id: sessionId } = { id: '' }] = await sessionsOf(own.test.db, one.id);
		const later = new Date(T0.getTime() + 20 * MINUTE_MS);
		const show = (by: 'pin' | 'password', secret: string) =>
			prove(auth(), one.context(later), sessionId, { by, secret });
		await expectRefusal(show('pin', '9999'), 'forbidden', /not the PIN/);
		await expectRefusal(show('password', 'something else'), 'forbidden', /not the password/);
		expect((await standing(entered))?.session.proof.at).toEqual(T0);
		await show('pin', PIN);
		expect((await standing(entered))?.session.proof).toEqual({ at: later, by: 'pin' });
		await show('password', PASSWORD);
		expect((await standing(entered))?.session.proof).toEqual({ at: later, by: 'password' });
	});
});

describe('sessions', () => {
	it('are listed, ended one by one and all at once, and only by their person', async () => {
		const [one, two] = [await somebody('siv'), await somebody('tor')];
		const entered = [await one.enter(), await one.enter(), await one.enter()];
		const other = await two.enter();
		const list = await sessionsOf(own.test.db, one.id);
		expect(list).toHaveLength(3);
		const [theirs] = await sessionsOf(own.test.db, two.id);
		await expectRefusal(
			endOwnSessions(one.context(), request(), { id: theirs?.id ?? '' }),
			'not found',
			/ended already/
		);
		await endOwnSessions(one.context(), request(), { id: list[0]?.id ?? '' });
		const here = list[1]?.id ?? '';
		expect(await endOwnSessions(one.context(), request(), { allBut: here })).toEqual({ ended: 1 });
		expect((await sessionsOf(own.test.db, one.id)).map(({ id }) => id)).toEqual([here]);
		expect((await Promise.all(entered.map(standing))).filter(Boolean)).toHaveLength(1);
		expect(await standing(other)).not.toBeNull();
	});

	it('are told to every process as they end, as an account or the site changes', async () => {
		const one = await somebody('ulf');
		const boss = await somebody('vera', 'admin');
		await one.enter();
		const heard: string[] = [];
		const { unlisten } = await own.test.raw.listen('grevan_access', (who) => heard.push(who));
		await changeAccount(boss.context(), request(), one.id, { kind: 'role', role: 'supervisor' });
		await own.test.db.update(site).set({ idleMinutes: 5 });
		await expect
			.poll(() => heard, { timeout: 60_000 })
			.toEqual(expect.arrayContaining([one.id, '']));
		await unlisten();
		expect(await sessionsOf(own.test.db, one.id)).toEqual([]);
	});
});

describe('accounts', () => {
	let boss: Awaited<ReturnType<typeof somebody>>;
	const given = {
		name: 'New One',
		initials: 'NO',
		email: 'New@Test.example',
		role: 'technician' as const
	};

	it('are made by an admin, and their person chooses a password by a link that opens once', async () => {
		boss = await somebody('wim', 'admin');
		const made = await makeAccount(boss.context(), randomUUID(), given);
		const link = await linkOf(door(), made.token);
		expect(link).toMatchObject({ purpose: 'invite', email: 'new@test.example' });
		const choose = (password: string, now = T0) =>
			choosePasswordByLink(auth(), door(now), made.token, password);
		await expectRefusal(choose('short'), 'invalid', /at least 12/);
		await expectRefusal(choose('Password12345'), 'invalid', /tried first/);
		await choose('three dry towels');
		await expectRefusal(choose('another one here'), 'not found', /opens nothing/);
		const entered = await signIn(door(), at(), {
			email: 'new@test.example',
			password: 'three dry towels'
		});
		expect('code' in entered).toBe(false);
		await expectRefusal(
			makeAccount(boss.context(), randomUUID(), given),
			'conflict',
			/Somebody has/
		);
	});

	it('have links that lapse, and a newer one closes the one before', async () => {
		boss = await somebody('wim', 'admin');
		const { userId, token } = await makeAccount(boss.context(), randomUUID(), given);
		const newer = await makeLink(boss.context(), randomUUID(), userId);
		await expectRefusal(linkOf(door(), token), 'not found', /opens nothing/);
		await linkOf(door(new Date(T0.getTime() + 71 * 3_600_000)), newer);
		await expectRefusal(
			linkOf(door(new Date(T0.getTime() + 73 * 3_600_000)), newer),
			'not found',
			/opens/
		);
	});

	it('lose every session as their role, password or standing changes', async () => {
		boss = await somebody('wim', 'admin');
		const one = await somebody('xena');
		for (const change of [
			{ kind: 'role', role: 'viewer' },
			{ kind: 'end sessions' },
			{ kind: 'close', why: 'Lost telephone.' }
		] as const) {
			await one.enter();
			await changeAccount(boss.context(), request(), one.id, change);
			expect(await sessionsOf(own.test.db, one.id)).toEqual([]);
		}
		await expectRefusal(one.enter(), 'forbidden', /closed|No account/);
		await changeAccount(boss.context(), request(), one.id, { kind: 'open' });
		await one.enter();
		const link = await makeLink(boss.context(), randomUUID(), one.id);
		await choosePasswordByLink(auth(), door(), link, 'nine new brushes');
		expect(await sessionsOf(own.test.db, one.id)).toEqual([]);
		const role = (await accountList(own.test.db)).find(({ id }) => id === one.id)?.role;
		expect(role).toBe('viewer');
	});

	it('that do not exist are said to be none, whatever is asked of them', async () => {
		boss = await somebody('wim', 'admin');
		for (const asked of [
			() => makeLink(boss.context(), randomUUID(), 'nobody'),
			() => changeAccount(boss.context(), request(), 'nobody', { kind: 'end sessions' }),
			() =>
				renameAccount(boss.context(), request(), 'nobody', {
					name: 'N',
					initials: 'N',
					email: 'n@test.example'
				})
		])
			await expectRefusal(asked(), 'not found', /no such account/);
	});

	it('keep one admin at least', async () => {
		boss = await somebody('wim', 'admin');
		// The site of the tests has an admin of its own.
		await changeAccount(boss.context(), request(), 'user-admin', { kind: 'role', role: 'viewer' });
		await expectRefusal(
			changeAccount(boss.context(), request(), boss.id, { kind: 'role', role: 'viewer' }),
			'conflict',
			/last admin/
		);
		await expectRefusal(
			changeAccount(boss.context(), request(), boss.id, { kind: 'close', why: 'Me.' }),
			'conflict',
			/last admin/
		);
	});

	it('are changed by nobody else, and not without the password', async () => {
		boss = await somebody('wim', 'admin');
		const [one, two] = [await somebody('yri', 'supervisor'), await somebody('zoe')];
		const change = { kind: 'role', role: 'admin' } as const;
		await expectRefusal(
			changeAccount(one.context(), request(), two.id, change),
			'forbidden',
			/admin/
		);
		for (const proof of [
			{ at: T0, by: 'pin' as const },
			{ at: new Date(T0.getTime() - 11 * MINUTE_MS), by: 'password' as const }
		])
			await expectRefusal(
				changeAccount({ ...boss.context(), proof }, request(), two.id, change),
				'proof',
				/password/
			);
	});

	it('take another password from their person, who stays signed in here and nowhere else', async () => {
		const one = await somebody('ake');
		const [here, there] = [await one.enter(), await one.enter()];
		const sessionId = (await standing(here))?.session.id ?? '';
		const change = (before: string, password: string) =>
			changePassword(auth(), one.context(), randomUUID(), { before, password, sessionId });
		await expectRefusal(
			change('wrong one here', 'four blue pails'),
			'forbidden',
			/not your password/
		);
		await expectRefusal(change(PASSWORD, 'ake@test.example'), 'invalid', /name or address/);
		await change(PASSWORD, 'four blue pails');
		expect(await standing(here)).not.toBeNull();
		expect(await standing(there)).toBeNull();
	});
});

describe('two-step sign-in', () => {
	it('is set up by nobody who guesses the password of the one who is signed in', async () => {
		const one = await somebody('alf');
		const entered = await one.enter();
		const asking = { ...at(), cookie: cookieOf(entered.cookies) };
		const guess = () => beginTwoStep(one.context(), asking, 'wrong password');
		for (let i = 0; i < 5; i++) await expectRefusal(guess(), 'forbidden', /not your password/);
		await expectRefusal(guess(), 'busy', /Wait 30 seconds/);
		expect((await said(one.id)).filter((line) => line.startsWith('session.refused'))).toHaveLength(
			6
		);
	});

	it('is set up with a code, asked for from then on, and opened by a recovery code once', async () => {
		const one = await somebody('bea');
		const entered = await one.enter({ shared: true });
		const asking = { ...at(), cookie: cookieOf(entered.cookies) };
		await expectRefusal(
			beginTwoStep(one.context(), asking, 'wrong password'),
			'forbidden',
			/not your password/
		);
		const { uri, codes } = await beginTwoStep(one.context(), asking, PASSWORD);
		const secret = fromBase32(new URL(uri).searchParams.get('secret') ?? '').toString('latin1');
		/** What an authenticator shows now. */
		const shown = async () => (await auth().api.generateTOTP({ body: { secret } })).code;
		const sessionId = (await standing(entered))?.session.id ?? '';
		const confirm = (code: string) => confirmTwoStep(one.context(), asking, { code, sessionId });
		await expectRefusal(confirm('000000'), 'forbidden', /not the code/);
		const renewed = await confirm(await shown());
		expect(await standing({ cookies: renewed })).toMatchObject({
			twoStep: true,
			session: { shared: true }
		});

		const step = async () => {
			const asked = await signIn(door(), at(), { email: one.email, password: PASSWORD });
			if (!('code' in asked)) throw new Error('no code was asked for');
			expect(await standing(asked)).toBeNull();
			const cookie = cookieOf(asked.cookies);
			const challenge = /two_factor=([^;]+)/.exec(cookie)?.[1];
			return (code: string) =>
				giveCode(door(), at(), { code, cookie, challenge: decodeURIComponent(challenge ?? '') });
		};
		await expectRefusal((await step())('000000'), 'forbidden', /not the one/);
		const code = await shown();
		expect(await standing(await (await step())(code))).not.toBeNull();
		await expectRefusal((await step())(code), 'forbidden', /used already/);
		const recovery = codes[0] ?? '';
		expect(await standing(await (await step())(recovery))).not.toBeNull();
		await expectRefusal((await step())(recovery), 'forbidden', /not the one/);
		await expectRefusal(
			giveCode(door(), at(), { code: await shown(), cookie: '', challenge: 'made-up' }),
			'forbidden',
			/too long/
		);
		expect(await said(one.id)).toContain('account.two-step {"on":true}');
	});
});

describe('keys for programs', () => {
	const asked = (method: string, key: string, bearer = false) =>
		new Request(`${ORIGIN}/x`, {
			method,
			headers: bearer ? { authorization: `Bearer ${key}` } : { 'x-api-key': key }
		});
	const come = async (key: string, method: string, path: string, now = T0, bearer = false) =>
		(await keyActor({ db: own.test.db, now: () => now }, asked(method, key, bearer), path))?.id ??
		null;

	it('reach as far as they were made for, until they lapse or are revoked', async () => {
		const one = await somebody('cia');
		const keys = Object.fromEntries(
			await Promise.all(
				(['calc', 'read', 'write'] as const).map(async (scope) => [
					scope,
					await makeKey(one.context(), randomUUID(), { name: scope, scope, days: 30 })
				])
			)
		) as Record<'calc' | 'read' | 'write', string>;
		const reach = async (key: string) => [
			await come(key, 'POST', '/api/v1/calc/hose'),
			await come(key, 'GET', '/items/export'),
			await come(key, 'POST', '/api/runs/x/answers'),
			await come(key, 'GET', '/items'),
			await come(key, 'POST', '/settings')
		];
		expect(await reach(keys.calc)).toEqual([one.id, null, null, null, null]);
		expect(await reach(keys.read)).toEqual([one.id, one.id, null, null, null]);
		expect(await reach(keys.write)).toEqual([one.id, one.id, one.id, null, null]);
		expect(await come(keys.calc, 'POST', '/api/v1/calc/hose', T0, true)).toBe(one.id);
		expect(await come(`${keys.calc}x`, 'POST', '/api/v1/calc/hose')).toBeNull();
		const late = new Date(T0.getTime() + 31 * 86_400_000);
		expect(await come(keys.calc, 'POST', '/api/v1/calc/hose', late)).toBeNull();
		const [listed] = (await keysOf(own.test.db, one.id)).filter(({ name }) => name === 'read');
		expect(listed).toMatchObject({ scope: 'read', lastUsedAt: T0, start: keys.read.slice(0, 8) });
		await revokeKey(one.context(), request(), listed?.id ?? '');
		expect(await come(keys.read, 'GET', '/items/export')).toBeNull();
		const rows = await own.test.db.select().from(apiKey);
		expect(JSON.stringify(rows)).not.toContain(keys.read);
	});

	it('are nobody else’s to revoke, and end with the account', async () => {
		const [one, two] = [await somebody('dag'), await somebody('eva')];
		const boss = await somebody('fin', 'admin');
		const key = await makeKey(one.context(), randomUUID(), { name: 'k', scope: 'calc', days: 30 });
		const [listed] = await keysOf(own.test.db, one.id);
		await expectRefusal(
			revokeKey(two.context(), request(), listed?.id ?? ''),
			'not found',
			/no such key/
		);
		await changeAccount(boss.context(), request(), one.id, { kind: 'close', why: 'Left.' });
		expect(await come(key, 'POST', '/api/v1/calc/hose')).toBeNull();
	});
});

describe('a device', () => {
	it('becomes a shared bench by its person’s password, with the session on it', async () => {
		const one = await somebody('gro');
		const entered = await one.enter();
		const found = await standing(entered);
		const [row] = await own.test.db.select().from(device);
		await shareDevice(one.context(), request(), {
			deviceId: row?.id ?? '',
			sessionId: found?.session.id ?? '',
			shared: true,
			name: 'Bench 1'
		});
		expect((await standing(entered))?.session.shared).toBe(true);
		const rows = await own.test.db
			.select()
			.from(session)
			.where(and(eq(session.userId, one.id), eq(session.shared, true)));
		expect(rows).toHaveLength(1);
	});
});
