import { rejectCode } from '../../../core/data/reject-codes.ts';
import { sensitivity } from '../../../core/drill/signal-detection.ts';
import { readableMoment } from '../../../core/plan/moments.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { makePdf, type Signed, signedLine } from '../web/pdf.ts';
import { sessionOf } from './sessions.ts';

/** The paper of an exam: who, on what, beside whom, what was found and what not. */
export async function examPdf(context: Context, id: string, anchor: Signed | null) {
	const { session, by, procedure, beside, why } = await sessionOf(context, id);
	if (session.mode !== 'exam')
		throw new Refusal('not found', 'This was no exam: there is no paper of it.');
	const moment = (at: Date) => readableMoment(at, context.site.timeZone);
	const { score } = session;
	const title = (key: string) => procedure.steps.find((step) => step.key === key)?.title ?? key;
	const noise = score.signals.falseAlarms + score.signals.correctRejections;
	const eye =
		score.signals.hits + score.signals.misses > 0 && noise > 0 ? sensitivity(score.signals) : null;
	const told = score.steps.filter(({ truth, said }) => truth !== null || said !== null);
	const name = (code: string | null) => (code ? `${rejectCode(code).name} (${code})` : 'good');
	const pdf = await makePdf({
		info: { title: `Exam of the trainer, ${by}` },
		content: [
			{ text: context.site.name },
			{ text: 'Exam of the trainer', fontSize: 22, bold: true },
			{
				text: session.passed ? 'Passed' : 'Not passed',
				fontSize: 18,
				bold: true,
				margin: [0, 10, 0, 2]
			},
			{ text: why ?? '' },
			{
				table: {
					widths: [150, '*'],
					body: [
						['Who', by],
						['Beside', beside ?? ''],
						['Ended', moment(session.endedAt)],
						['List', `${procedure.name}, version ${procedure.version}`],
						['Handed over', `number ${session.handed.seed}, level ${session.handed.level}`],
						['Faults in it', String(session.handed.faults.length)],
						['Good places rejected', String(score.falseRejects)],
						...(eye
							? [
									[
										'Sensitivity d′',
										`${eye.dPrime.toFixed(1)}, 95 % ${eye.lower.toFixed(1)} to ${eye.upper.toFixed(1)}`
									]
								]
							: [])
					]
				},
				layout: 'lightHorizontalLines',
				margin: [0, 16, 0, 0]
			},
			...(told.length
				? [
						{
							table: {
								headerRows: 1,
								widths: ['*', 150, 150],
								body: [
									['Step', 'It was', 'Said was'],
									...told.map(({ step, truth, said }) => [title(step), name(truth), name(said)])
								]
							},
							layout: 'lightHorizontalLines',
							margin: [0, 14, 0, 0] as [number, number, number, number]
						}
					]
				: []),
			{
				text: 'Walked on drawings and a simulated set. Evidence for an authorisation, which a supervisor gives; it proves no item.',
				margin: [0, 14, 0, 0]
			},
			...signedLine(anchor, context.site.timeZone, [0, 20, 0, 0])
		]
	});
	return { pdf, name: `exam-${session.id.slice(0, 8)}.pdf` };
}
