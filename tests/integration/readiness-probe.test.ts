import { describe, expect, it } from 'vitest';
import { openDatabase } from '../../src/lib/server/db/client.ts';
import { asRefusal } from '../../src/lib/server/kernel/refusal.ts';
import { readiness } from '../../src/lib/server/web/readiness.ts';
import { openYard } from '../support/database.ts';
import { TcpCut } from '../../scripts/chaos/tcp-cut.ts';

const own = openYard();

describe('whether a process is ready', () => {
	it('is told by a write, with the room on the disk', async () => {
		expect(await readiness(own.test.db, process.cwd())).toMatchObject({
			ready: true,
			writable: true,
			followers: 0
		});
		expect((await readiness(own.test.db, process.cwd())).diskFreeMb).toBeGreaterThan(0);
		expect((await readiness(own.test.db, undefined)).diskFreeMb).toBeNull();
		expect((await readiness(own.test.db, '/no/such/folder')).diskFreeMb).toBeNull();
	});

	it('is not, where the database reads and takes nothing', async () => {
		const name = own.test.url.split('/').at(-1);
		await own.test.raw.unsafe(`alter database ${name} set default_transaction_read_only = on`);
		const { db, close } = openDatabase(own.test.url, { max: 1 });
		try {
			const answer = await readiness(db, undefined);
			expect(answer).toMatchObject({ ready: false, writable: false });
			expect(answer.says.join()).toMatch(/only reads/);
		} finally {
			await close();
			await own.test.raw.unsafe(`alter database ${name} reset default_transaction_read_only`);
		}
	});

	it('is not, where the database does not answer', async () => {
		const cut = await TcpCut.before(own.test.url);
		const { db, close } = openDatabase(cut.url, { max: 1 });
		cut.sever();
		const answer = await readiness(db, undefined);
		expect(answer).toMatchObject({ ready: false });
		expect(answer.says[0]).toMatch(/does not answer/);
		await close();
	});
});

describe('a disk that is full', () => {
	it('is said plainly, with what to do', () => {
		const full = Object.assign(new Error('could not extend file "base/5/16384"'), {
			code: '53100'
		});
		expect(asRefusal(new Error('Failed query', { cause: full }))).toMatchObject({
			kind: 'unavailable',
			message: expect.stringMatching(/disk of the database is full. Nothing was changed/) as string
		});
	});
});
