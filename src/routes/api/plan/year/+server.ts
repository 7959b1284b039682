import { yearFacts } from '$lib/server/plan/plan';
import { api, contextOf } from '$lib/server/web/request';

export const GET = (event) => api(() => yearFacts(contextOf(event)));
