import { z } from 'zod';

/** What a second screen shows: words for somebody who stands two metres away, and nothing that could be changed there. */
export const screenShows = z.object({
	/** What is done on. */
	about: z.string().max(80),
	title: z.string().max(120),
	text: z.string().max(600),
	/** What comes next, or what the wearer says. */
	lines: z.array(z.string().max(700)).max(6),
	/** A figure in large, with its unit. */
	figure: z.string().max(20).nullable(),
	/** A clock that runs until then. */
	until: z.iso.datetime().nullable()
});
export type ScreenShows = z.infer<typeof screenShows>;

/** Letters of a code: none that looks like another. */
export const SCREEN_SIGNS = '23456789ABCDEFGHJKMNPQRSTVWXYZ';
const LENGTH = 8;
export const SCREEN_CODE = new RegExp(`^[${SCREEN_SIGNS}]{${LENGTH}}$`);

/** A code for one screen. @param draw a whole number below its argument, by chance that nobody can guess */
export const screenCode = (draw: (below: number) => number): string =>
	Array.from({ length: LENGTH }, () => SCREEN_SIGNS[draw(SCREEN_SIGNS.length)]).join('');

/** A code is typed within this time, once. Site. */
export const SCREEN_CODE_MIN = 5;
/** A screen goes dark after this time, whatever happens. Site: a working day. */
export const SCREEN_HOURS = 10;

/** Whether a screen shows something. */
export const screenLit = (
	{ until, endedAt }: { until: Date; endedAt: Date | null },
	now: Date
): boolean => endedAt === null && now < until;
