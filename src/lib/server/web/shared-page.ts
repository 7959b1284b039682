import type { RequestEvent } from '@sveltejs/kit';
import type { Context } from '../kernel/context.ts';
import { untilRecorded } from '../kernel/until-recorded.ts';
import { contextOf, page } from './request.ts';

/**
 * Runs the work of a load function whose answer is the same for everybody of a role, at one address, until anything is
 * recorded. What it gives must not follow from who asks, beyond the role, nor from the time within a minute.
 */
export const sharedPage = <T>(
	event: Pick<RequestEvent, 'locals' | 'url'>,
	work: (context: Context) => Promise<T>
): Promise<T> =>
	page(async () => {
		const context = contextOf(event);
		const { pathname, search } = event.url;
		return untilRecorded(context, `${context.actor.role} ${pathname}${search}`, () =>
			work(context)
		);
	});
