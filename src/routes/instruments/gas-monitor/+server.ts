import { z } from 'zod';
import { simulatedLog } from '$lib/server/instruments/gas-monitor';

const scenario = z.enum(['tank', 'dryer', 'shed']).catch('tank');

/** The log of the simulated gas monitor, as its maker's program would save it. */
export const GET = ({ url }) => {
	const chosen = scenario.parse(url.searchParams.get('scenario'));
	return new Response(simulatedLog(chosen, new Date()), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="gas-monitor-${chosen}.csv"`
		}
	});
};
