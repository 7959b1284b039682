import { z } from 'zod';
import { asRefusal, type RefusalKind, STATUS } from '$lib/server/kernel/refusal';
import { api, contextOf, jsonBody, parse } from '$lib/server/web/request';
import {
	COUNTER_REQUESTS,
	COUNTER_URL,
	type CounterRequest
} from '$lib/server/web/counter-requests';
import { DRILL_REQUESTS, DRILL_URL, type DrillRequest } from '$lib/server/web/drill-requests';
import { RUN_REQUESTS, type RunRequest } from '$lib/server/web/run-requests';
import type { Context } from '$lib/server/kernel/context';

const MOST = 40;
const RUN_URL = /^\/api\/runs\/([0-9a-f-]{36})\/(answers|sign|faults)$/;
const body = z.object({
	parcels: z
		.array(
			z.object({
				id: z.string().max(60),
				url: z
					.string()
					.max(120)
					.refine(
						(url) => [RUN_URL, COUNTER_URL, DRILL_URL].some((one) => one.test(url)),
						'Nothing here takes this.'
					),
				body: z.record(z.string().max(40), z.unknown())
			})
		)
		.min(1)
		.max(MOST)
});
type Parcel = z.output<typeof body>['parcels'][number];
interface Said {
	id: string;
	status: number;
	body: Record<string, unknown>;
}
const NOT_NOW: ReadonlySet<RefusalKind> = new Set(['unavailable', 'busy']);

/**
 * Takes what waited on a device, in its order, each for itself. What is refused ends nothing but the signature under
 * it; where nothing more can be taken just now, the answer ends there, and the rest goes on waiting.
 */
export const POST = (event) =>
	api(async () => {
		const { parcels } = parse(body, await jsonBody(event.request));
		const context = contextOf(event);
		const results: Said[] = [];
		const refused = new Set<string>();
		for (const parcel of parcels) {
			const { run, what } = addressOf(parcel);
			if (what === 'sign' && refused.has(run)) break;
			try {
				const said = await take(context, parcel);
				results.push(said);
				if (said.status >= 300) refused.add(run);
				if (said.body.kind === 'proof') break;
			} catch (cause) {
				if (!results.length) throw cause;
				break;
			}
		}
		return { results: withoutEarlier(parcels, results) };
	});

const addressOf = ({ url }: Parcel): { run: string; what: RunRequest } => {
	const [, run = '', what] = RUN_URL.exec(url) ?? [];
	return { run, what: what as RunRequest };
};

/** Does what a parcel asks for. */
function done(context: Context, parcel: Parcel): Promise<Record<string, unknown>> {
	const counter = COUNTER_URL.exec(parcel.url)?.[1] as CounterRequest | undefined;
	if (counter) return COUNTER_REQUESTS[counter](context, parcel.body) as never;
	const drill = DRILL_URL.exec(parcel.url)?.[1] as DrillRequest | undefined;
	if (drill) return DRILL_REQUESTS[drill](context, parcel.body) as never;
	const { run, what } = addressOf(parcel);
	return RUN_REQUESTS[what](context, run, parcel.body);
}

/** @throws where nothing can be taken just now */
async function take(context: Context, parcel: Parcel): Promise<Said> {
	try {
		return { id: parcel.id, status: 200, body: await done(context, parcel) };
	} catch (cause) {
		const refusal = asRefusal(cause);
		if (!refusal || NOT_NOW.has(refusal.kind)) throw cause;
		const { kind, message, path } = refusal;
		return { id: parcel.id, status: STATUS[kind], body: { message, path: path ?? null, kind } };
	}
}

/** Each answer gives all of its run: what a later one gives again is left out. */
function withoutEarlier(parcels: readonly Parcel[], results: readonly Said[]): Said[] {
	const seen = new Set<string>();
	return results
		.toReversed()
		.map((said, i) => {
			const parcel = parcels[results.length - 1 - i];
			if (!parcel || !('answers' in said.body)) return said;
			const { run } = addressOf(parcel);
			const again = seen.has(run);
			seen.add(run);
			return again ? { ...said, body: {} } : said;
		})
		.toReversed();
}
