import { fleets, type FleetForecast } from '../core/plan/forecast/fleet.ts';
import {
	beforeAndAfter,
	type ForecastFacts,
	type WhatIf
} from '../core/plan/forecast/site-fleet.ts';
import { planningSite, type SitePlan, type SiteProgress } from '../core/plan/plan-site.ts';
import { livedYear, type YearFigures } from '../core/plan/year.ts';
import type { SitePlanFacts } from '../core/plan/site-problem.ts';

/** What the worker is asked for. */
export type PlanAsked =
	| { kind: 'level'; facts: SitePlanFacts; warm: boolean }
	| { kind: 'forecast'; facts: ForecastFacts; change: WhatIf | null }
	| { kind: 'year'; facts: SitePlanFacts };

/** What it says while it works, and at the end. */
export type PlanMessage =
	| { kind: 'best'; progress: SiteProgress }
	| { kind: 'planned'; plan: SitePlan; ms: number }
	| { kind: 'progress'; done: number }
	| { kind: 'year'; year: YearFigures; ms: number }
	| {
			kind: 'forecast';
			before: FleetForecast;
			after: FleetForecast | null;
			lost: number;
			peakMin: [before: number, after: number];
			days: readonly string[];
			ms: number;
	  };

const say = (message: PlanMessage) => postMessage(message);

addEventListener('message', (event: MessageEvent<PlanAsked>) => {
	const started = performance.now();
	const asked = event.data;
	if (asked.kind === 'forecast') {
		const { before, after, lost, peakMin } = beforeAndAfter(asked.facts, asked.change);
		const parts = after ? 2 : 1;
		const live = (part: number, question: typeof before) => {
			const steps = fleets(question);
			for (let step = steps.next(); ; step = steps.next()) {
				if (step.done) return step.value;
				say({ kind: 'progress', done: (part + step.value) / parts });
			}
		};
		return say({
			kind: 'forecast',
			before: live(0, before),
			after: after && live(1, after),
			lost,
			peakMin,
			days: before.days,
			ms: performance.now() - started
		});
	}
	if (asked.kind === 'year') {
		const steps = livedYear(asked.facts);
		for (let step = steps.next(); ; step = steps.next()) {
			if (step.done)
				return say({ kind: 'year', year: step.value, ms: performance.now() - started });
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
