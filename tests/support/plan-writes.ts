import { randomUUID as id } from 'node:crypto';
import { makeFeed, revokeFeed } from '../../src/lib/server/plan/feeds.ts';
import { setHours } from '../../src/lib/server/plan/hours.ts';
import { changePlan, takePlan } from '../../src/lib/server/plan/plan.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { Role } from '../../src/lib/server/kernel/permissions.ts';

const change = (c: Context, wish: Parameters<typeof changePlan>[1]['wish']) =>
	changePlan(c, { requestId: id(), since: 0, nevertheless: true, wish });
const day = '2026-11-25';

/** Every write of the plan that a service offers, with the least role that may do it. */
export const PLAN_WRITES: [name: string, least: Role, write: (c: Context) => Promise<unknown>][] = [
	[
		'put a plan in force',
		'technician',
		(c) => takePlan(c, { requestId: id(), since: 0, placed: [], relaxed: [], way: 'anew' })
	],
	['plan on', 'technician', (c) => change(c, { kind: 'again' })],
	['pin a job', 'technician', (c) => change(c, { kind: 'pin', key: 'x', day, userId: c.actor.id })],
	['free a job', 'technician', (c) => change(c, { kind: 'unpin', key: 'x' })],
	['bar a day', 'technician', (c) => change(c, { kind: 'bar', day, userId: null, why: '' })],
	['open a day', 'technician', (c) => change(c, { kind: 'open', day, userId: null })],
	[
		'set hours',
		'supervisor',
		(c) => setHours(c, { requestId: id(), userId: c.actor.id, minutes: [1, 1, 1, 1, 1, 0, 0] })
	],
	[
		'make a calendar',
		'technician',
		(c) => makeFeed(c, { id: id(), userId: c.actor.id, placeId: null })
	],
	['revoke a calendar', 'technician', (c) => revokeFeed(c, id(), id())]
];
