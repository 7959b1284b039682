import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import yazl from 'yazl';
import {
	REGISTER_KEYS,
	type RegisterKey,
	type RegisterRow,
	REGISTERS
} from '../../../core/records/registers.ts';
import type { Day } from '../../../core/plan/calendar.ts';
import { daysBetween, readable } from '../../../core/plan/calendar.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { csvOf, registerRowsOf } from '../records/registers.ts';
import { endProgress, tellProgress } from '../register/progress.ts';
import { type PaperKind, pdfOf, type Proof } from './kinds.ts';

/** Longest period of one bundle, days, and the most papers in it. Site. */
const [MOST_DAYS, MOST_PAPERS] = [366, 10_000];
/** Papers after which it is told how far it is. */
const TELL_EVERY = 10;

/** Which paper each row of a register has, and by which of its cells; null: there is none of that row. */
const PAPERS_OF: Partial<
	Record<RegisterKey, { kind: PaperKind; by: string; where?: (row: RegisterRow) => boolean }>
> = {
	inspections: { kind: 'inspection', by: 'id' },
	'bench-tests': { kind: 'bench-test', by: 'id' },
	repairs: { kind: 'repair', by: 'id', where: (row) => row['done at'] !== null },
	fills: { kind: 'fill', by: 'id' },
	'air-tests': { kind: 'air-test', by: 'id' },
	'fit-tests': { kind: 'fit-test', by: 'session', where: (row) => row.session !== null },
	exams: { kind: 'exam', by: 'id' },
	'hand-outs': { kind: 'hand-out', by: 'id' },
	'wash-batches': { kind: 'wash-batch', by: 'id' }
};

export interface BundleAsked {
	/** Made by the client: by it how far it is can be asked. */
	id: string;
	from: Day;
	to: Day;
}

/**
 * Everything of a period for whoever audits: each register as CSV, each paper as PDF, in one ZIP with a manifest that
 * has the SHA-256 of each file. It is written as it goes out; that it went out is recorded.
 * @throws Refusal before anything goes out, where it is too much at once
 */
export async function bundle(
	context: Context,
	asked: BundleAsked,
	proof: Proof
): Promise<{ zip: Readable; name: string }> {
	requirePermission(context.actor.role, 'see wearers');
	const { from, to } = asked;
	if (from > to) throw new Refusal('invalid', 'The last day lies before the first.', 'to');
	if (daysBetween(from, to) >= MOST_DAYS)
		throw new Refusal('too much', 'A bundle is of a year at most. Ask for less at once.', 'to');
	const read = await readWithPapers(context, asked);
	const papers = papersOf(read);
	if (papers.length > MOST_PAPERS)
		throw new Refusal(
			'too much',
			`That is ${papers.length.toLocaleString('en-GB')} papers; ${MOST_PAPERS.toLocaleString('en-GB')} at most. Ask for a shorter period.`,
			'to'
		);
	const zip = new yazl.ZipFile();
	const out = zip.outputStream as Readable;
	void fill(context, { asked, read, papers, proof }, zip, out).catch((cause: unknown) => {
		// What broke off is no bundle: whoever takes it in sees it end early.
		out.destroy(cause as Error);
	});
	return { zip: out, name: `grevan-${from}-to-${to}.zip` };
}

type Read = Map<RegisterKey, RegisterRow[]>;

/** The registers of which there are papers: how many those are is known before anything goes out. */
async function readWithPapers(context: Context, { from, to }: BundleAsked): Promise<Read> {
	const read: Read = new Map();
	for (const key of REGISTER_KEYS)
		if (PAPERS_OF[key]) read.set(key, await registerRowsOf(context, key, { from, to }));
	return read;
}

/** The papers of what was read, by kind and id. */
const papersOf = (read: Read) =>
	[...read].flatMap(([key, rows]) => {
		const of = PAPERS_OF[key];
		if (!of) return [];
		const ids = rows.filter((row) => of.where?.(row) ?? true).map((row) => String(row[of.by]));
		return [...new Set(ids)].map((id) => ({ kind: of.kind, id }));
	});

interface Filling {
	asked: BundleAsked;
	read: Read;
	papers: { kind: PaperKind; id: string }[];
	proof: Proof;
}

async function fill(
	context: Context,
	{ asked: { id, from, to }, read, papers, proof }: Filling,
	zip: yazl.ZipFile,
	out: Readable
): Promise<void> {
	const files: Record<string, string> = {};
	const put = (name: string, bytes: Uint8Array, compress: boolean) => {
		files[name] = createHash('sha256').update(bytes).digest('hex');
		zip.addBuffer(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), name, {
			compress
		});
	};
	const total = REGISTER_KEYS.length + papers.length;
	let done = 0;
	const told = async () => {
		done++;
		if (out.destroyed) throw new Refusal('conflict', 'Nobody takes it in any more.');
		if (done % TELL_EVERY === 0) await tellProgress(context, id, done, total);
	};
	try {
		await tellProgress(context, id, 0, total);
		const registers: Record<string, { file: string; name: string; rows: number }> = {};
		for (const key of REGISTER_KEYS) {
			const file = `registers/${key}.csv`;
			const period = REGISTERS[key].period ? { from, to } : { from: null, to: null };
			const rows = read.get(key) ?? (await registerRowsOf(context, key, period));
			put(file, new TextEncoder().encode(csvOf(key, rows)), true);
			registers[key] = { file, name: REGISTERS[key].name, rows: rows.length };
			await told();
		}
		const leftOut: { kind: string; id: string; why: string }[] = [];
		for (const paper of papers) {
			try {
				const { pdf, name } = await pdfOf(context, paper.kind, paper.id, proof);
				put(
					`papers/${paper.kind}/${name.replace(/\.pdf$/, '')}-${paper.id.slice(0, 8)}.pdf`,
					pdf,
					false
				);
			} catch (cause) {
				if (!(cause instanceof Refusal)) throw cause;
				leftOut.push({ ...paper, why: cause.message });
			}
			await told();
		}
		const manifest = JSON.stringify(
			{
				format: 'grevan-bundle',
				version: 1,
				site: context.site.name,
				from,
				to,
				written: context.now().toISOString(),
				by: context.actor.name,
				log: proof.anchor && { entry: proof.anchor.seq, hash: proof.anchor.hash },
				registers,
				papers: papers.length - leftOut.length,
				leftOut,
				files
			},
			null,
			'\t'
		);
		zip.addBuffer(Buffer.from(manifest), 'manifest.json');
		zip.addBuffer(Buffer.from(READ_ME(context.site.name, from, to)), 'read-me.txt');
		const content = { bundle: id };
		await write(context, 'see wearers', { id, content }, async (at) => {
			at.record('records.bundled', {
				of: '1',
				payload: {
					from,
					to,
					files: Object.keys(files).length,
					sha256: createHash('sha256').update(manifest).digest('hex')
				}
			});
		});
		zip.end();
	} finally {
		await endProgress(context, id);
	}
}

const READ_ME = (site: string, from: Day, to: Day) =>
	`${site}, ${readable(from)} to ${readable(to)}

registers/  what happened in that time as CSV (UTF-8, comma, point); what holds until it changes as it is now
papers/     each inspection, test, repair, fill, hand-out and wash of that time as PDF
manifest.json  the SHA-256 of each file; that of the manifest itself stands in the log of the site

Each paper has a code and the hash of its entry. Under Records, "Is this paper true?", the site holds it
against its record; so does: npm run verify -- "ENTRY, HASH"
`;
