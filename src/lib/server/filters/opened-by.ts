import { z } from 'zod';
import { DISCARD_REASONS } from '../../../core/filters/ledger.ts';

/** What is asked whenever filters of a lot are fitted: which lot, whose initials, and why those before them go. */
export const openedBy = z.object({
	/** Made by the page, so that a retried request opens nothing twice. */
	id: z.uuid(),
	lotId: z.uuid('Choose the filters first.'),
	initials: z
		.string()
		.trim()
		.regex(/^\p{L}{1,4}$/u, 'Initials are one to four letters.'),
	discardReason: z.enum(['', ...DISCARD_REASONS]).default('')
});
