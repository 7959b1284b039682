import { z } from 'zod';
import { clientId, requested } from '../web/request.ts';
import { ticked } from '../web/form-fields.ts';

const day = z
	.literal('')
	.transform(() => null)
	.or(z.iso.date('Type a day, or leave it empty.'))
	.default(null);

/** The form of a wearer. */
export const wearerForm = z.object({
	...requested,
	id: clientId,
	version: z.coerce.number().int().min(0),
	number: z
		.string()
		.trim()
		.min(1, 'Give the number that the site knows them by.')
		.max(20, 'At most 20 characters.'),
	name: z.string().trim().min(1, 'Type the name.').max(80, 'At most 80 characters.'),
	userId: z
		.string()
		.max(60)
		.default('')
		.transform((id) => id || null),
	eyewear: ticked.transform((on) => on === 'on'),
	beard: ticked.transform((on) => on === 'on'),
	clearedUntil: day,
	trainedUntil: day,
	placeIds: z.array(z.uuid()).max(200).default([])
});
