import { z } from 'zod';
import { chooseNotices, noticesPage, tryAgain } from '$lib/server/notices/own';
import { saveSite, siteMessages } from '$lib/server/site/settings';
import { ticked } from '$lib/server/web/form-fields';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) => page(() => noticesPage(contextOf(event)));

export const actions: Actions = {
	choose: formAction(
		z.object({ ...requested, digest: ticked, urgent: ticked }),
		async (event: RequestEvent, { requestId, digest, urgent }) => {
			await chooseNotices(contextOf(event), {
				requestId,
				digest: digest === 'on',
				urgent: urgent === 'on'
			});
			return { kept: true };
		}
	),
	hour: formAction(
		siteMessages.extend({ ...requested, version: z.coerce.number().int().min(0) }),
		async (event: RequestEvent, { requestId, version, ...choices }) => {
			await saveSite(contextOf(event), { requestId, version, choices });
			forgetVisit(event.request.headers);
			return { kept: true };
		}
	),
	again: formAction(
		z.object({ ...requested, noticeId: clientId }),
		async (event: RequestEvent, input) => {
			await tryAgain(contextOf(event), input);
			return { again: true };
		}
	)
};
