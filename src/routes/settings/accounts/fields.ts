import { z } from 'zod';

/** What the form of an account says of its person. */
export const whose = {
	name: z.string().trim().min(1, 'Type a name.').max(80),
	initials: z.string().trim().min(1, 'Type initials.').max(4, 'Four letters at most.'),
	email: z.email('Type an address such as name@site.example.').max(200)
};
