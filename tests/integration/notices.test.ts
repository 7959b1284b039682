import { asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { notice, place, user } from '../../src/lib/server/db/schema/index.ts';
import { recallLot } from '../../src/lib/server/filters/store.ts';
import { loadSite } from '../../src/lib/server/kernel/site.ts';
import { openPost, type Post, postFrom, smtp } from '../../src/lib/server/notices/mail.ts';
import { digestPreview, makeDigests } from '../../src/lib/server/notices/make.ts';
import { chooseNotices, mailbox, noticesPage, tryAgain } from '../../src/lib/server/notices/own.ts';
import { sendWaiting } from '../../src/lib/server/notices/send.ts';
import { withdrawModel } from '../../src/lib/server/register/models.ts';
import { saveSite } from '../../src/lib/server/site/settings.ts';
import {
	freshDatabase,
	smallSite,
	type SmallSite,
	type TestDatabase
} from '../support/database.ts';
import { mailServer, nonsenseServer } from '../support/mail.ts';
import { expectRefusal } from '../support/refusal.ts';

let test: TestDatabase;
let yard: SmallSite;
/** A Tuesday; the site works Monday to Friday, messages go out from 6. */
const MORNING = new Date('2026-11-24T07:00:00Z');
const box: Post = {
	way: 'mailbox',
	deliver: () => Promise.resolve(),
	address: 'https://g.example'
};

beforeEach(async () => {
	await test?.close();
	test = await freshDatabase();
	yard = await smallSite(test.db);
	openPost(box);
});
afterAll(async () => {
	openPost(null);
	await test.close();
});

const unattended = async (now = MORNING) => ({
	db: test.db,
	now: () => now,
	site: await loadSite(test.db)
});
const boss = async (now = MORNING) => ({
	...yard.as(yard.people.supervisor, now),
	site: await loadSite(test.db)
});
const rows = () => test.db.select().from(notice).orderBy(asc(notice.address));
const waiting = async (subject = 'Yard: one') => {
	const id = randomUUID();
	await test.db.insert(notice).values({
		id,
		kind: 'urgent',
		userId: yard.people.technician.id,
		address: 'tech@example.test',
		subject,
		body: 'Grüße — 100 % „sauber“.\n.\nline after a lone point',
		day: '2026-11-24',
		madeAt: MORNING,
		nextTryAt: MORNING
	});
	return id;
};
const one = async (id: string) => (await test.db.select().from(notice).where(eq(notice.id, id)))[0];

describe('the message of the day', () => {
	it('is made once for everybody who has something to do, and never twice a day', async () => {
		// The two masks were never inspected: overdue for whoever works on the equipment.
		const made = await makeDigests(await unattended());
		expect(made).toBeGreaterThan(1);
		expect(await makeDigests(await unattended(new Date('2026-11-24T15:00:00Z')))).toBe(0);
		const all = await rows();
		expect(all).toHaveLength(made);
		expect(all.every(({ subject }) => /2 overdue/.test(subject))).toBe(true);
		expect(all.map(({ userId }) => userId)).not.toContain(yard.people.viewer.id);
		expect(await makeDigests(await unattended(new Date('2026-11-25T07:00:00Z')))).toBe(made);
	});

	it('two processes that make it at once make one each', async () => {
		const [a, b] = await Promise.all([
			makeDigests(await unattended()),
			makeDigests(await unattended())
		]);
		expect(await rows()).toHaveLength(Math.max(a, b));
	});

	it('waits for the hour of the site, leaves out its free days, and stays away where no mail leaves', async () => {
		expect(await makeDigests(await unattended(new Date('2026-11-24T05:30:00Z')))).toBe(0);
		const { version } = await loadSite(test.db);
		await saveSite(await boss(), { requestId: randomUUID(), version, choices: { digestHour: 5 } });
		expect(await makeDigests(await unattended(new Date('2026-11-28T09:00:00Z')))).toBe(0);
		openPost(null);
		expect(await makeDigests(await unattended())).toBe(0);
		openPost(box);
		expect(await makeDigests(await unattended(new Date('2026-11-24T05:30:00Z')))).toBeGreaterThan(
			0
		);
	});

	it('goes to whoever answers for a place, though they only look, and to nobody who wants none', async () => {
		const { viewer, technician } = yard.people;
		await test.db.update(place).set({ responsible: viewer.id }).where(eq(place.id, yard.place));
		const off = { requestId: randomUUID(), digest: false, urgent: true };
		await chooseNotices(yard.as(technician, MORNING), off);
		await makeDigests(await unattended());
		const to = (await rows()).map(({ userId }) => userId);
		expect(to).toContain(viewer.id);
		expect(to).not.toContain(technician.id);
		const page = await noticesPage(yard.as(technician, MORNING));
		expect(page.choice).toEqual({ digest: false, urgent: true });
		expect((await digestPreview(await unattended(), viewer.id))?.text).toMatch(
			/Overdue at places you answer for \(2\)/
		);
	});
});

describe('what is told at once', () => {
	it('a withdrawn model, to whoever works on it, in the write itself', async () => {
		const [mask] = await test.raw<{ model_id: string }[]>`select model_id from item limit 1`;
		const input = { requestId: randomUUID(), id: mask?.model_id ?? '', why: 'Disc may tear.' };
		await withdrawModel(await boss(), input);
		await withdrawModel(await boss(), input);
		const all = await rows();
		const people = await test.db.select().from(user);
		expect(all).toHaveLength(people.filter(({ role }) => role !== 'viewer').length);
		expect(all[0]?.subject).toMatch(/was withdrawn by its maker\. Disc may tear\.$/);
		expect(all[0]?.body).toMatch(/Held by it \(2\)\n- HM-0001\. Shed\n- HM-0002\. Shed/);
	});

	it('nothing where the write is refused', async () => {
		await expectRefusal(
			recallLot(await boss(), { requestId: randomUUID(), id: randomUUID(), reason: 'x' }),
			'not found',
			/no such lot/
		);
		expect(await rows()).toEqual([]);
	});
});

describe('a mail server', () => {
	it('takes what waits, whole, once', async () => {
		const mail = await mailServer();
		const id = await waiting('Yard: Grüße');
		const deliver = smtp(mail.url, 'grevan@example.test');
		expect(await sendWaiting(await unattended(), deliver)).toBe(1);
		expect(await sendWaiting(await unattended(), deliver)).toBe(0);
		await mail.close();
		expect(mail.taken).toHaveLength(1);
		expect(mail.taken[0]?.to).toEqual(['tech@example.test']);
		const raw = mail.taken[0]?.text ?? '';
		expect(raw).toContain(`<${id}@grevan>`);
		const body = raw.slice(raw.indexOf('\r\n\r\n'));
		const text = /base64/i.test(raw)
			? Buffer.from(body, 'base64').toString('utf8')
			: body
					.replaceAll('=\r\n', '')
					.replaceAll(/(=[0-9A-F]{2})+/g, (hex) =>
						Buffer.from(hex.replaceAll('=', ''), 'hex').toString('utf8')
					);
		expect(text).toContain('Grüße — 100 % „sauber“.');
		expect(text).toContain('line after a lone point');
		expect(await one(id)).toMatchObject({ state: 'sent', tries: 1, nextTryAt: null });
	});

	it('that refuses one address fails that message alone', async () => {
		const mail = await mailServer('gone@example.test');
		const [bad, good] = [await waiting('Yard: bad'), await waiting('Yard: good')];
		await test.db.update(notice).set({ address: 'gone@example.test' }).where(eq(notice.id, bad));
		expect(await sendWaiting(await unattended(), smtp(mail.url, 'g@example.test'))).toBe(1);
		await mail.close();
		expect((await one(good))?.state).toBe('sent');
		expect(await one(bad)).toMatchObject({ state: 'waiting', tries: 1 });
		expect((await one(bad))?.lastError).toMatch(/No such mailbox here/);
	});

	it('that is away or answers nonsense is tried again later, shown, and tried at once when asked', async () => {
		const nonsense = await nonsenseServer();
		const id = await waiting();
		expect(await sendWaiting(await unattended(), smtp(nonsense.url, 'g@example.test'))).toBe(0);
		await nonsense.close();
		const first = await one(id);
		expect(first).toMatchObject({ state: 'waiting', tries: 1 });
		expect(first?.lastError).not.toBe('');
		expect(first?.nextTryAt?.toISOString()).toBe('2026-11-24T07:01:00.000Z');
		// Not before its time.
		const away = smtp(nonsense.url, 'g@example.test');
		await sendWaiting(await unattended(), away);
		expect((await one(id))?.tries).toBe(1);
		let now = MORNING;
		for (let i = 0; i < 12; i++) {
			now = (await one(id))?.nextTryAt ?? now;
			await sendWaiting(await unattended(now), away);
		}
		expect(await one(id)).toMatchObject({ state: 'given up', tries: 8, nextTryAt: null });
		const { stuck } = await noticesPage(await boss());
		expect(stuck.map((row) => row.id)).toEqual([id]);
		const own = await noticesPage(yard.as(yard.people.technician, MORNING));
		expect(own.stuck).toEqual([]);
		await tryAgain(await boss(now), { requestId: randomUUID(), noticeId: id });
		const mail = await mailServer();
		expect(await sendWaiting(await unattended(now), smtp(mail.url, 'g@example.test'))).toBe(1);
		await mail.close();
		expect((await noticesPage(await boss())).stuck).toEqual([]);
	});
});

describe('how messages leave', () => {
	it('by the server that is set, else in the demo into a mailbox, else not at all', async () => {
		expect(postFrom({})).toBeNull();
		expect(postFrom({ GREVAN_DEMO_PASSWORD: 'x' })?.way).toBe('mailbox');
		expect(postFrom({ GREVAN_DEMO_PASSWORD: 'x', SMTP_URL: 'smtp://127.0.0.1:2' })?.way).toBe(
			'server'
		);
		await waiting();
		expect(await mailbox({ db: test.db })).toHaveLength(1);
		openPost(null);
		await expectRefusal(mailbox({ db: test.db }), 'not found', /demo only/);
	});
});
