import { fleets, type FleetAsked, type FleetForecast } from '../core/plan/forecast/fleet.ts';
import { planningSite, type SitePlan, type SiteProgress } from '../core/plan/plan-site.ts';
import type { SitePlanFacts } from '../core/plan/site-problem.ts';

/** What the worker is asked for. */
export type PlanAsked =
	{ kind: 'level'; facts: SitePlanFacts; warm: boolean } | { kind: 'forecast'; asked: FleetAsked };

/** What it says while it works, and at the end. */
export type PlanMessage =
	| { kind: 'best'; progress: SiteProgress }
	| { kind: 'planned'; plan: SitePlan; ms: number }
	| { kind: 'progress'; done: number }
	| { kind: 'forecast'; forecast: FleetForecast; ms: number };

const say = (message: PlanMessage) => postMessage(message);

addEventListener('message', (event: MessageEvent<PlanAsked>) => {
	const started = performance.now();
	const asked = event.data;
	if (asked.kind === 'forecast') {
		const steps = fleets(asked.asked);
		for (let step = steps.next(); ; step = steps.next()) {
			if (step.done)
				return say({ kind: 'forecast', forecast: step.value, ms: performance.now() - started });
			say({ kind: 'progress', done: step.value });
		}
	}
	const steps = planningSite(asked.facts, { warm: asked.warm });
	for (let step = steps.next(); ; step = steps.next()) {
		if (step.done)
			return say({ kind: 'planned', plan: step.value, ms: performance.now() - started });
		say({ kind: 'best', progress: step.value });
	}
});
