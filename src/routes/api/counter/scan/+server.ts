import { z } from 'zod';
import { resolveScan } from '$lib/server/handout/scan';
import { api, contextOf, jsonBody, parse } from '$lib/server/web/request';

const body = z.object({ word: z.string().trim().min(1, 'Scan something.').max(60) });

/** What was scanned. */
export const POST = (event) =>
	api(async () => resolveScan(contextOf(event), parse(body, await jsonBody(event.request)).word));
