import { z } from 'zod';
import { examPdf } from '../drill/exam-paper.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { certificatePdf } from '../people/certificate.ts';
import type { Signed } from '../web/pdf.ts';
import { airPaper, batchPaper, cylinderPaper, fillPaper } from './air-and-wash.ts';
import { benchPaper, inspectionPaper, itemPaper, repairPaper } from './equipment.ts';
import { type Paper, paperPdf } from './paper.ts';
import { handOutPaper, taskPaper, wearerPaper } from './people.ts';

const byId = z.uuid();
const byTag = z.string().trim().min(1).max(60);

/** Everything that there is a paper of: how it is named, and what it says. */
export const PAPERS = {
	inspection: { id: byId, of: inspectionPaper },
	'bench-test': { id: byId, of: benchPaper },
	repair: { id: byId, of: repairPaper },
	'air-test': { id: byId, of: airPaper },
	fill: { id: byId, of: fillPaper },
	'wash-batch': { id: byId, of: batchPaper },
	'hand-out': { id: byId, of: handOutPaper },
	cylinder: { id: byTag, of: cylinderPaper },
	item: { id: byTag, of: itemPaper },
	wearer: { id: byId, of: wearerPaper },
	task: { id: byId, of: taskPaper }
} satisfies Record<
	string,
	{ id: z.ZodType<string>; of: (context: Context, id: string) => Promise<Paper> }
>;

/** What goes on every paper: the signed end of the log, and the address that its code leads to. */
export interface Proof {
	anchor: Signed | null;
	origin: string;
}

/** Papers in a form of their own. */
const CERTIFICATES = {
	'fit-test': certificatePdf,
	exam: examPdf
};
export type PaperKind = keyof typeof PAPERS | keyof typeof CERTIFICATES;

/** The paper of something in the record as PDF, with the name of its file. @throws Refusal where there is none */
export async function pdfOf(context: Context, kind: string, id: string, proof: Proof) {
	if (isOneOf(CERTIFICATES, kind)) return CERTIFICATES[kind](context, read(byId, id), proof.anchor);
	if (!isOneOf(PAPERS, kind)) throw new Refusal('not found', 'There is no paper of that kind.');
	const paper = PAPERS[kind];
	return paperPdf(context, await paper.of(context, read(paper.id, id)), proof);
}

function read(form: z.ZodType<string>, id: string): string {
	const found = form.safeParse(id);
	if (!found.success) throw new Refusal('not found', 'There is no such thing.');
	return found.data;
}

const isOneOf = <T extends object>(all: T, key: string): key is Extract<keyof T, string> =>
	Object.hasOwn(all, key);
