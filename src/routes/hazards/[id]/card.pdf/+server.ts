import { EN_BANDS, parseEn } from '$core/filters/filter-code';
import { cardOf } from '$lib/server/hazards/schedule-card';
import { pictured } from '$lib/server/web/drawn';
import { anchorNow } from '$lib/server/web/anchor';
import { makePdf, pdfResponse, signedLine } from '$lib/server/web/pdf';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

/** The card for the wall as PDF. */
export const GET = (event) =>
	page(async () => {
		const context = contextOf(event);
		const id = parse(clientId, event.params.id);
		const { card, standing, page: plan } = await cardOf(context, id);
		const types = Object.keys(
			(card.code && parseEn(card.code)?.gas) || {}
		) as (keyof typeof EN_BANDS)[];
		const colours = types.map((type) => `${type} ${EN_BANDS[type].colour}`).join(', ');
		// What leaves the house can be held against the log, whatever becomes of the database.
		const anchor = await anchorNow(context.db, 'certificate', context.now());
		const pdf = await makePdf({
			info: { title: card.heading },
			content: [
				{ text: card.heading, fontSize: 22, bold: true },
				{ text: ['Wear: ', { text: card.wear, bold: true }], fontSize: 15, margin: [0, 14, 0, 2] },
				...(card.code
					? [
							{
								text: `${card.code}${colours ? `   (band: ${colours})` : ''}`,
								fontSize: 18,
								bold: true
							}
						]
					: []),
				{
					table: {
						widths: ['*'],
						body: [[{ text: card.change, fontSize: 24, bold: true, margin: [0, 4, 0, 4] }]]
					},
					layout: 'lightHorizontalLines',
					margin: [0, 8, 0, 8]
				},
				{ ul: card.lines, fontSize: 12 },
				...pictured(card.pictures),
				...card.cautions.map((text) => ({
					text,
					bold: true,
					margin: [0, 6, 0, 0] as [number, number, number, number]
				})),
				{ text: `${standing}. Plan ${plan.plan.number}.`, margin: [0, 12, 0, 0] },
				...signedLine(anchor, context.site.timeZone)
			]
		});
		return pdfResponse(pdf, `change-schedule-${plan.plan.number}.pdf`);
	});
