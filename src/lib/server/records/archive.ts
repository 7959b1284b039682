import { fork } from 'node:child_process';
import { createHash } from 'node:crypto';
import { createReadStream, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Readable } from 'node:stream';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { requireProof } from '../kernel/proof.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { endProgress, tellProgress } from '../register/progress.ts';
import { signsBy } from '../../../core/actions/catalogue.ts';

/** The app is always run from its own folder; the script is read from its source. */
const SCRIPT = 'scripts/archive.ts';

/**
 * Writes the whole site into one file, in a process of its own, and hands it out once it is whole; that it went out is
 * recorded.
 * @param url the database, by the role of the app
 * @throws Refusal where the role does not hold it, or nobody showed who they are
 */
export async function archiveSite(
	context: Context,
	id: string,
	url: string
): Promise<{ file: Readable; bytes: number; name: string }> {
	requirePermission(context.actor.role, 'keep accounts');
	requireProof(context, signsBy('site.archived') ?? '');
	const folder = mkdtempSync(join(tmpdir(), 'grevan-archive-'));
	const gone = () => rmSync(folder, { recursive: true, force: true });
	try {
		const path = join(folder, 'site.zip');
		await inOwnProcess(path, url, (done, total) => tellProgress(context, id, done, total));
		const bytes = statSync(path).size;
		const hash = createHash('sha256');
		await pipeline(createReadStream(path), hash);
		const sha256 = hash.digest('hex');
		await write(context, 'keep accounts', { id, content: { archive: id } }, async (at) => {
			at.record('site.archived', { of: '1', payload: { bytes, sha256 } });
		});
		const file = createReadStream(path);
		file.once('close', gone);
		const day = context.now().toISOString().slice(0, 10);
		return { file, bytes, name: `${day}.grevan.zip` };
	} catch (cause) {
		gone();
		throw cause;
	} finally {
		await endProgress(context, id);
	}
}

function inOwnProcess(
	path: string,
	url: string,
	told: (done: number, total: number) => Promise<void>
): Promise<void> {
	const child = fork(resolve(SCRIPT), [path], {
		execArgv: ['--import', 'tsx'],
		env: { ...process.env, DATABASE_URL: url, GREVAN_OWNER_URL: url },
		stdio: ['ignore', 'ignore', 'pipe', 'ipc']
	});
	let said = '';
	child.stderr?.on('data', (part: Buffer) => (said = `${said}${part.toString()}`.slice(-2000)));
	return new Promise((done, failed) => {
		child.on('message', (message: { done: number; total: number }) => {
			told(message.done, message.total).catch((cause: unknown) => {
				failed(cause as Error);
				child.kill();
			});
		});
		child.once('error', failed);
		child.once('exit', (code) => {
			if (code === 0) done();
			else
				failed(
					new Refusal('unavailable', `The archive could not be written. ${said.trim()}`.trim())
				);
		});
	});
}
