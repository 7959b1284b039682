import type { Content } from 'pdfmake/interfaces';
import { eq } from 'drizzle-orm';
import { fitAgent } from '../../../core/fit/agents.ts';
import { FIT_PASS, shownFactor } from '../../../core/fit/fit-factor.ts';
import { fitProtocol } from '../../../core/fit/protocols.ts';
import { fitUntil, QUALITATIVE_FACTOR } from '../../../core/people/fit-standing.ts';
import { readable } from '../../../core/plan/calendar.ts';
import { user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { makePdf, type Signed, signedLine } from '../web/pdf.ts';
import { sessionPage } from './fit-session.ts';

/** The certificate of a signed fit test: who, in what, how, what was measured, until when it counts. */
export async function certificatePdf(context: Context, id: string, anchor: Signed | null) {
	const { signed, session, wearer, model, tag, counted } = await sessionPage(context, id);
	if (!signed) throw new Refusal('not found', 'This test is not signed: there is no certificate.');
	const [by] = await context.db
		.select({ name: user.name })
		.from(user)
		.where(eq(user.id, signed.signedBy));
	const limit = FIT_PASS[signed.ruleSet][signed.mask];
	const protocol = signed.protocol ? fitProtocol(signed.protocol) : null;
	const rows: [string, string][] = [
		['Wearer', `${wearer.name}, number ${wearer.number}`],
		['Mask', `${model}, size ${signed.size}${tag ? `, ${tag}` : ''}`],
		['Worn with it', signed.worn || 'nothing'],
		['Tested on', readable(signed.testedOn)],
		['Way', protocol?.name ?? fitAgent(signed.agent ?? '').name],
		['Source', (protocol ?? fitAgent(signed.agent ?? '')).origin.source],
		...(session.instrument ? ([['Counter', session.instrument]] as [string, string][]) : []),
		...(session.squeezes
			? ([['Noticed before the test', `within ${session.squeezes} squeezes`]] as [string, string][])
			: []),
		['Tested and signed by', by?.name ?? '']
	];
	const factors: Content[] = counted
		? [
				{
					table: {
						headerRows: 1,
						widths: ['*', 60, 90],
						body: [
							['Movement', 'Seconds', 'Factor'],
							...counted.protocol.exercises.map(({ key, name, seconds, counted: counts }, i) => [
								`${name}${counts ? '' : ' (not counted)'}`,
								String(seconds),
								signed.factors?.[key] === undefined
									? 'not measured'
									: `${counted.measured[i]?.capped ? 'at least ' : ''}${shownFactor(signed.factors[key])}`
							])
						]
					},
					layout: 'lightHorizontalLines',
					margin: [0, 14, 0, 0]
				}
			]
		: [];
	const pdf = await makePdf({
		info: { title: `Fit test, ${wearer.number}` },
		content: [
			{ text: context.site.name },
			{ text: 'Fit test', fontSize: 22, bold: true },
			{
				text: signed.passed ? 'Passed' : 'Not passed',
				fontSize: 18,
				bold: true,
				margin: [0, 10, 0, 2]
			},
			{
				text:
					signed.overall === null
						? `Counts for factors up to ${QUALITATIVE_FACTOR}.`
						: `Factor ${shownFactor(signed.overall)} overall; ${limit} to pass.`
			},
			...(signed.passed
				? [
						{
							text: `Counts until ${readable(fitUntil(signed.testedOn))}, or until the face changes.`
						}
					]
				: []),
			{
				table: { widths: [150, '*'], body: rows },
				layout: 'lightHorizontalLines',
				margin: [0, 16, 0, 0]
			},
			...factors,
			{ text: signed.reasons.map(({ text }) => text).join(' '), margin: [0, 14, 0, 0] },
			{
				text: 'Holds for this model and size with what was worn. A change of the face (weight, teeth, scar, anything seen) ends it that day. A seal check is made each time all the same; it is never a fit test.',
				margin: [0, 14, 0, 0]
			},
			...signedLine(anchor, context.site.timeZone, [0, 20, 0, 0])
		]
	});
	return { pdf, name: `fit-test-${wearer.number}-${signed.testedOn}.pdf` };
}
