import { config } from '$lib/server/web/config';
import { readiness, type Readiness } from '$lib/server/web/readiness';

/** Who asks more often is told the same. */
const KEPT_MS = 1000;
let kept: { at: number; answer: Promise<Readiness> } | undefined;

/** Whether the process can serve: its database takes a write. */
export const GET = async ({ locals }) => {
	const at = performance.now();
	if (!kept || at - kept.at > KEPT_MS)
		kept = { at, answer: readiness(locals.db, config().GREVAN_DISK) };
	const answer = await kept.answer;
	return Response.json(answer, { status: answer.ready ? 200 : 503 });
};
